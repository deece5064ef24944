import type { Style } from "../generate.ts";

export const kinds =
  (table: Readonly<Record<string, ReturnType<Style["kindOf"]>>>): Style["kindOf"] =>
  (type) => {
    // What a result hangs on stands after a comma.
    const [name] = type.split(",");
    return Object.hasOwn(table, name) ? table[name] : undefined;
  };

export const columns = {
  text: ["label", "remark", "label", "gap"],
  integer: ["n"],
  decimal: ["d"],
  boolean: ["(n > 1)", "(label = remark)", "(gap is null)"],
};

/** The same arguments for a slot of several functions. */
export const each = (names: readonly string[], slot: string, atoms: readonly string[]): Record<string, readonly string[]> =>
  Object.fromEntries(names.map((name) => [`${name} ${slot}`, atoms]));

/** Forms of SQL that give a value of the kind of their parts `{x}`. */
export const sqlChoices = [
  "case when {b} then {x} else {x} end",
  "case when {b} then {x} when {b} then {x} end",
  "case {t} when {t} then {x} when {t} then {x} else {x} end",
  "case {i} when {i} then {x} else {x} end",
  "coalesce({x}, {x})",
  "coalesce({x}, {x}, {x})",
  "nullif({x}, {x})",
  "(select {x} where {b})",
  "(select {x})",
];

/** Conditions of SQL. */
export const sqlConditions = [
  "({t} between {t} and {t})",
  "({i} not between {i} and {d})",
  "({t} in ({t}, {t}))",
  "({i} not in ({i}, {i}, {d}))",
  "({t} is null)",
  "({i} is not null)",
  "({b} and {b})",
  "({b} or {b})",
  "(not {b})",
  "({t} = {t})",
  "({t} < {t})",
  "({i} >= {d})",
  "({a} = {a})",
  "({a} <> {a})",
  "({t} like {like})",
  "({t} not like {like})",
  "(({t}, {i}) = ({t}, {i}))",
  "(({t}, {d}) < ({t}, {i}))",
  "(({i}, {t}) <> ({i}, {t}))",
  "(({i}, {t}) in (({i}, {t}), ({i}, {t})))",
  "exists (select {t} where {b})",
  "({t} in (select {t} where {b}))",
  "({i} in (values ({i}), ({i})))",
];
