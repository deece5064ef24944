export * from "./bytes.ts";
export * from "./decimal.ts";
export * from "./lookup.ts";
export * from "./moments.ts";
export * as nearest from "./nearest.ts";
export * from "./number-text.ts";
export * from "./units.ts";
export * from "./value.ts";
export * from "./dates.ts";
