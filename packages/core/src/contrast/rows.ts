import { type DeclaredType, type Limits, type Program, type Sample, compile, sampleOf } from "../evaluate/index.ts";
import type { Value } from "../values/index.ts";
import type { Side } from "./contrast.ts";
import { type Written, lettersOf, madeOf, nothingWritten, poolOf, sizeOf, smaller } from "./pool.ts";

/** The values of columns on a row, by name. */
export type RowOf = Readonly<Record<string, Value>>;

/** An expression bound to columns of kinds, whatever rows it is run on: values of every size are there, on which a type may depend. */
export function programFor(
  { dialect, expression }: Side,
  columns: Readonly<Record<string, DeclaredType>>,
  limits?: Limits,
): Program {
  const values = Object.entries(columns).flatMap(([name, kind]) =>
    poolOf(kind, nothingWritten).map((value) => ({ [name]: value })),
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

/** Numbers below so many, always the same ones. */
function numbersBelow(): (count: number) => number {
  let state = 1;
  return (count) => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return Math.floor((state / 2147483648) * count);
  };
}

/** Rows with values in all columns that are made from what is written, every second one as it is: several conditions may have to hold. */
function* madeRows(columns: Readonly<Record<string, DeclaredType>>, written: Written): Generator<RowOf> {
  const choices = Object.entries(columns).map(([name, kind]) => {
    const exact: readonly Value[] = kind === "text" ? written.texts : kind === "boolean" ? [] : written.numbers;
    const made = [exact, madeOf(kind, written), poolOf(kind, written)].filter((values) => values.length > 0);
    return { name, exact: made[0], made: made[1] ?? made[0] };
  });
  const below = numbersBelow();
  for (;;)
    yield Object.fromEntries(
      choices.map(({ name, exact, made }) => {
        const values = below(2) === 0 ? exact : made;
        return [name, values[below(values.length)]];
      }),
    );
}

/** Rows of several columns made together that are tried before each two. */
const mostTogether = 2000;

function* firstOf<T>(values: Iterable<T>, count: number): Generator<T> {
  let left = count;
  for (const value of values) {
    if (left-- <= 0) return;
    yield value;
  }
}

/** Rows in turn: those given, each column varied alone, all together as is written, two together. */
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
  if (names.length > 1) yield* firstOf(madeRows(columns, written), mostTogether);
  for (const [i, first] of names.entries())
    for (const [j, second] of names.entries())
      if (i < j)
        for (const a of pools[i].slice(0, 90)) for (const b of pools[j].slice(0, 60)) yield { ...usual, [first]: a, [second]: b };
}

/** Any rows, from values of the pools and texts put together from them, and those that are made from what is written; always the same ones. */
export function* randomRows(columns: Readonly<Record<string, DeclaredType>>, written: Written): Generator<RowOf> {
  const names = Object.keys(columns);
  const pools = names.map((name) => poolOf(columns[name], written));
  const below = numbersBelow();
  const letters = lettersOf(written);
  const piece = (i: number): string => {
    const value = pools[i][below(pools[i].length)];
    return below(3) === 0 ? letters[below(letters.length)].repeat(1 + below(3)) : typeof value === "string" ? value : "";
  };
  for (const made of madeRows(columns, written)) {
    yield made;
    yield Object.fromEntries(
      names.map((name, i) => {
        const isText = columns[name] === "text" && below(4) > 0;
        return [name, isText ? Array.from({ length: 1 + below(4) }, () => piece(i)).join("") : pools[i][below(pools[i].length)]];
      }),
    );
  }
}

const rowSize = (row: RowOf): number => Object.values(row).reduce<number>((sum, value) => sum + sizeOf(value), 0);

/** The smaller row first. */
export const bySize = (a: RowOf, b: RowOf): number => rowSize(a) - rowSize(b);

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
