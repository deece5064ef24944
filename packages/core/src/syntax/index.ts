export * from "./layout.ts";
export * from "./lexer.ts";
export * from "./parser.ts";
export * from "./printer.ts";
export { namedTemplate, templateParts, wordsIn } from "./templates.ts";
export * from "./tree.ts";
export { freeNames } from "./names.ts";
