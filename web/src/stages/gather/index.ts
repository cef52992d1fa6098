export { Gather as default } from "./Gather";
