export { Brief as default } from "./Brief";
