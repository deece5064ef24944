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

/** The same arguments for a slot of several functions. */
export const each = (names: readonly string[], slot: string, atoms: readonly string[]): Record<string, readonly string[]> =>
  Object.fromEntries(names.map((name) => [`${name} ${slot}`, atoms]));
