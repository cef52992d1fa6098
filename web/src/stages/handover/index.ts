export { HandOver as default } from "./HandOver";
