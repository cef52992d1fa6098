export { Fit as default } from "./Fit";
