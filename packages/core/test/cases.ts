import { expect, test } from "@jest/globals";
import { type Dialect, type TextRange, type Value, compile, sampleOf } from "indigo-quill";
import type { FunctionRow } from "indigo-quill/dialects";
import { sameTree } from "indigo-quill/syntax";

/** Stands for an error of any kind in a table of cases. */
export const error = Symbol("error");

/** An expression, what it gives, and the row it is tried on (one row without columns when left out). */
export type ExpressionCase = readonly [expression: string, expected: unknown, row?: Readonly<Record<string, Value>>];

/** The dialect with every function row written to JSON and read back: what the tables hold is all there is. */
export function fromJson(dialect: Dialect): Dialect {
  return { ...dialect, rows: JSON.parse(JSON.stringify(dialect.rows)) as FunctionRow[] };
}

/** The plain outcome of an expression on a row; `error` when it is one. */
export function outcome(dialect: Dialect, expression: string, row: Readonly<Record<string, Value>> = {}): unknown {
  const sample = { ...sampleOf([row]), rows: 1 };
  const plain = dialect.plain(compile(dialect, expression, sample).run(sample)[0]);
  return typeof plain === "object" && plain !== null && !Array.isArray(plain) && "error" in plain ? error : plain;
}

/** One test for each case, by its expression. */
export function testCases(dialect: Dialect, cases: readonly ExpressionCase[]): void {
  const tried = fromJson(dialect);
  test.each(cases.map(([expression, expected, row]) => ({ expression, expected, row })))(
    "$expression",
    ({ expression, expected, row }) => {
      const got = outcome(tried, expression, row);
      if (typeof expected === "number" && typeof got === "number")
        expect(Math.abs(got - expected)).toBeLessThanOrEqual(1e-12 * Math.abs(expected));
      else expect(got).toEqual(expected);
    },
  );

  test("the stretches of each value are all of it, and what stands in its source as it is stands there", () => {
    const wrong = cases.filter(([expression, , row = {}]) => {
      const sample = { ...sampleOf([row]), rows: 1 };
      const { value, stretches, dropped } = compile(tried, expression, sample).origins(sample, 0);
      const isThere = (column: string, { start, end }: TextRange, text: string) =>
        (row[column] as string).slice(start, end) === text;
      return !(
        (typeof value !== "string" || stretches.map(({ text }) => text).join("") === value) &&
        stretches
          .filter(({ by }) => !by)
          .every(({ text, from: [{ column, range }] }) => {
            if (!range) return true;
            return range.end - range.start === text.length && (!column || isThere(column, range, text));
          }) &&
        dropped.every(({ column, range, text }) => isThere(column, range, text))
      );
    });
    expect(wrong).toEqual([]);
  });

  test("each case, printed on one line and on short ones, reads back as the same tree", () => {
    const wrong = cases.flatMap(([expression]) => {
      const { tree, diagnostics } = dialect.parse(expression);
      if (diagnostics.some(({ severity }) => severity === "error")) return [];
      return [undefined, 20]
        .map((width) => dialect.print(tree, width))
        .filter((printed) => !sameTree(tree, dialect.parse(printed).tree))
        .map((printed) => ({ expression, printed }));
    });
    expect(wrong).toEqual([]);
  });
}
