export { Learn as default } from "./Learn";
