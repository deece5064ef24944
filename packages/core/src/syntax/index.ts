export * from "./lexer.ts";
export * from "./parser.ts";
export * from "./tree.ts";
