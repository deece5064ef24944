export { type Diagnostic, type Fix, type MessageCode, applyFix, drawCaret, message } from "./diagnostics/index.ts";
export type { Dialect, DialectOption } from "./dialects/dialect.ts";
export { type FunctionRow, type Parameter, isPure, signature } from "./dialects/row.ts";
export * from "./evaluate/index.ts";
export { type ParseLimits, type Parsed, parseLimits } from "./syntax/index.ts";
export * from "./values/index.ts";
