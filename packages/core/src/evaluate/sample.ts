import type { Dialect } from "../dialects/dialect.ts";
import type { Value } from "../values/index.ts";
import { type DeclaredType, readDeclared } from "./declared.ts";
import type { Type } from "../dialects/types.ts";

/** A named column of a sample; every column has as many values as the sample has rows. */
export interface Column {
  readonly name: string;
  readonly values: readonly Value[];
  /** The dialect's name for the type that the values have already, as those of another program do; found out from them when left out. */
  readonly type?: Type;
  /** What it holds, whatever its values are; found out from them when left out. */
  readonly declared?: DeclaredType;
  /** The cells as they were written, where the values were read from them. */
  readonly written?: readonly Value[];
}

/** Named columns and rows that expressions are tried on. */
export interface Sample {
  readonly columns: readonly Column[];
  /** The number of rows. */
  readonly rows: number;
}

/**
 * Makes a sample from rows as objects; a name that a row lacks is null there. `types` says what columns hold, by name.
 *
 * @example
 * const sample = sampleOf([{ label: "Alnus", n: 1 }, { label: "Salix" }]);
 * [sample.rows, sample.columns.map(({ name }) => name), sample.columns[1].values]; // [2, ["label", "n"], [1, null]]
 */
export function sampleOf(
  rows: readonly Readonly<Record<string, Value>>[],
  types: Readonly<Record<string, DeclaredType>> = {},
): Sample {
  const names = [...new Set([...rows, types].flatMap((row) => Object.keys(row)))];
  return {
    columns: names.map((name) => ({
      name,
      values: rows.map((row) => (Object.hasOwn(row, name) ? row[name] : null)),
      ...(Object.hasOwn(types, name) && { declared: types[name] }),
    })),
    rows: rows.length,
  };
}

interface ColumnRead {
  readonly declared: DeclaredType | undefined;
  readonly values: readonly Value[];
}

const columnsRead = new WeakMap<Dialect, WeakMap<readonly Value[], ColumnRead>>();

/** A column's values as values of its type; remembered, since a sample is run many times. */
export function readColumn(dialect: Dialect, type: Type, values: readonly Value[], declared?: DeclaredType): readonly Value[] {
  const { types } = dialect;
  if (!types.readColumn && !declared) return values;
  let known = columnsRead.get(dialect);
  if (!known) columnsRead.set(dialect, (known = new WeakMap()));
  const last = known.get(values);
  if (last && last.declared === declared) return last.values;
  const isReady = !declared && values.every((value) => value === null || typeof value === "string");
  const found = isReady
    ? values
    : declared
      ? readDeclared(dialect, declared, type, values)
      : values.map((value) => (value === null ? null : types.readColumn!(type, value)));
  known.set(values, { declared, values: found });
  return found;
}
