export { type Part, changedParts } from "./changes.ts";
export { type Formatted, format } from "./format.ts";
export { type Ruler, type RulerCell, rulerOf } from "./ruler.ts";
export { visibleText } from "./white-space.ts";
export * from "./statements.ts";
