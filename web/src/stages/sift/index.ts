export { Sift as default } from "./Sift";
