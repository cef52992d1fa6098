export { Month } from "./Month";
