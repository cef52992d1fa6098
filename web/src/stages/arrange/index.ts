export { Arrange as default } from "./Arrange";
