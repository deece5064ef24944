import type { Style } from "../generate.ts";

export const kinds =
  (table: Readonly<Record<string, ReturnType<Style["kindOf"]>>>): Style["kindOf"] =>
  (type) =>
    Object.hasOwn(table, type) ? table[type] : undefined;

export const columns = {
  text: ["label", "remark", "label", "gap"],
  integer: ["n"],
  decimal: ["d"],
  boolean: ["(n > 1)", "(label = remark)", "(gap is null)"],
};
