export { visibleText } from "./white-space.ts";
