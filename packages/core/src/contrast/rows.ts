import { type DeclaredType, type Limits, type Program, type Sample, compile, sampleOf } from "../evaluate/index.ts";
import type { Value } from "../values/index.ts";
import type { Side } from "./contrast.ts";
import { type Written, lettersOf, poolOf, sizeOf, smaller } from "./pool.ts";

/** The values of columns on a row, by name. */
export type RowOf = Readonly<Record<string, Value>>;

/** An expression bound to columns of kinds, whatever rows it is run on: values of every size are there, on which a type may depend. */
export function programFor(
  { dialect, expression }: Side,
  columns: Readonly<Record<string, DeclaredType>>,
  limits?: Limits,
): Program {
  const values = Object.entries(columns).flatMap(([name, kind]) =>
    poolOf(kind, { texts: [], numbers: [] }).map((value) => ({ [name]: value })),
  );
  return compile(dialect, expression, sampleOf(values, columns), limits);
}

/** The first rows of a sample, with some of its columns. */
export function rowsOf({ columns, rows }: Sample, names: readonly string[], most: number): RowOf[] {
  const used = columns.filter(({ name }) => names.includes(name));
  return Array.from({ length: Math.min(rows, most) }, (_, row) =>
    Object.fromEntries(used.map(({ name, values }) => [name, values[row]])),
  );
}

/** Rows in turn: those given, each column varied alone, two together, every text of a few letters, and any at random. */
export function* rowsToTry(
  columns: Readonly<Record<string, DeclaredType>>,
  written: Written,
  given: readonly RowOf[],
): Generator<RowOf> {
  const names = Object.keys(columns);
  const pools = names.map((name) => poolOf(columns[name], written));
  const usual = Object.fromEntries(names.map((name, i) => [name, pools[i].find((value) => value !== "" && value !== 0) ?? null]));
  yield* given;
  const bases = [usual, ...given.slice(0, 4)];
  for (const base of bases)
    for (const [i, name] of names.entries()) for (const value of pools[i]) yield { ...base, [name]: value };
  for (const [i, first] of names.entries())
    for (const [j, second] of names.entries())
      if (i < j)
        for (const a of pools[i].slice(0, 90)) for (const b of pools[j].slice(0, 60)) yield { ...usual, [first]: a, [second]: b };
}

/** Any rows, from values of the pools and texts put together from them; always the same ones. */
export function* randomRows(columns: Readonly<Record<string, DeclaredType>>, written: Written): Generator<RowOf> {
  const names = Object.keys(columns);
  const pools = names.map((name) => poolOf(columns[name], written));
  let state = 1;
  const below = (count: number) => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return Math.floor((state / 2147483648) * count);
  };
  const letters = lettersOf(written);
  const piece = (i: number): string => {
    const value = pools[i][below(pools[i].length)];
    return below(3) === 0 ? letters[below(letters.length)].repeat(1 + below(3)) : typeof value === "string" ? value : "";
  };
  for (;;)
    yield Object.fromEntries(
      names.map((name, i) => {
        const isText = columns[name] === "text" && below(4) > 0;
        return [name, isText ? Array.from({ length: 1 + below(4) }, () => piece(i)).join("") : pools[i][below(pools[i].length)]];
      }),
    );
}

export const rowSize = (row: RowOf): number => Object.values(row).reduce<number>((sum, value) => sum + sizeOf(value), 0);

/** A row made smaller, value by value, as long as it is still what is hunted for. */
export function shrunk(row: RowOf, isWanted: (row: RowOf) => boolean): RowOf {
  let best = row;
  for (let isSmaller = true; isSmaller;) {
    isSmaller = false;
    for (const [name, value] of Object.entries(best)) {
      const next = smaller(value)
        .map((each): RowOf => ({ ...best, [name]: each }))
        .find((each) => rowSize(each) < rowSize(best) && isWanted(each));
      if (next) [best, isSmaller] = [next, true];
    }
  }
  return best;
}
