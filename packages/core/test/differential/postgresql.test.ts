import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { PGlite } from "@electric-sql/pglite";
import { type Value, compile, sampleOf } from "indigo-quill";
import { postgresql } from "indigo-quill/dialects/postgresql";
import { error } from "../cases.ts";
import { generator, pick, random, trapTexts } from "./generate.ts";

/**
 * Where the embedded engine, PostgreSQL 17, is known to differ from PostgreSQL 15, or the harness
 * from the engine. Each entry says why; anything else that disagrees is a find.
 */
const known: readonly { readonly why: string; readonly holds: (found: Found) => boolean }[] = [
  {
    why: "its upper() maps ß to ẞ, and its title case differs for other letters beyond ASCII",
    holds: ({ expression, row }) =>
      /upper|lower|initcap|ilike|~\*|'i'/.test(expression) && /[^\0-\x7f]/.test(expression + JSON.stringify(row)),
  },
  {
    why: "a strict function of a null parameter is folded to null before its other arguments, which fail, are evaluated",
    holds: ({ row, ours, theirs }) => row.gap === null && ours === error && theirs === null,
  },
];

/** Kinds of disagreement that are gaps of ours; docs/dialects.md lists them. */
const gaps: readonly RegExp[] = [
  /similar to [^]* escape|similar [^]* escape/, // an escape of several characters beside a null text
];

interface Found {
  readonly expression: string;
  readonly row: Readonly<Record<string, Value>>;
  readonly ours: unknown;
  readonly theirs: unknown;
}

const columns = "$1::text as label, $2::text as remark, $3::integer as n, $4::numeric as d, $5::boolean as flag, $6::text as gap";

let database: PGlite;
beforeAll(async () => void (database = await PGlite.create()));
afterAll(async () => database.close());

const number = (text: string): number | string => ({ NaN: "NaN", Infinity: "INF", "-Infinity": "-INF" })[text] ?? Number(text);
const same = (text: string): string => text;

/** Reads the text form of an array; PGlite's own reader takes a quoted "NULL" and NULL for the same. */
function list(item: (text: string) => unknown): (text: string) => unknown[] {
  return (text) =>
    [...text.slice(1, -1).matchAll(/"((?:[^"\\]|\\.)*)"|([^,]+)/gs)].map(([, quoted, bare]) =>
      quoted !== undefined ? item(quoted.replace(/\\(.)/gs, "$1")) : bare === "NULL" ? null : item(bare),
    );
}

const parsers = {
  20: number,
  701: number,
  1700: number,
  1082: same,
  1114: same,
  1009: list(same),
  1007: list(number),
  1016: list(number),
  1231: list(number),
  1022: list(number),
  1000: list((text) => text === "t"),
};

async function theirs(expression: string, row: Readonly<Record<string, Value>>): Promise<unknown> {
  try {
    const values = [row.label, row.remark, row.n, String(row.d), row.flag, row.gap];
    const { rows } = await database.query<{ value: unknown }>(
      `select (${expression}) as value from (select ${columns}) as rows`,
      values,
      { parsers },
    );
    return rows[0].value;
  } catch {
    return error;
  }
}

const dialect = postgresql();

function ours(expression: string, row: Readonly<Record<string, Value>>): unknown {
  const sample = sampleOf([row]);
  const plain = dialect.plain(compile(dialect, expression, sample).run(sample)[0]) as { error?: string } | null;
  return typeof plain === "object" && plain?.error !== undefined ? (plain.error === "not-covered" ? undefined : error) : plain;
}

const close = (a: unknown, b: unknown): boolean =>
  typeof a === "number" && typeof b === "number"
    ? Math.abs(a - b) <= 1e-12 * Math.abs(a)
    : Array.isArray(a) && Array.isArray(b)
      ? a.length === b.length && a.every((item, i) => close(item, b[i]))
      : a === b;

/** Generates `count` expressions, each function of the table in turn, and gives those on which the two disagree. */
async function disagreements(seed: number, count: number) {
  const next = random(seed);
  const make = generator(dialect.rows, seed + 1);
  const found: Found[] = [];
  const tally = { values: 0, errors: 0, notCovered: 0, known: 0 };
  for (let i = 0; i < count; i++) {
    const row = {
      label: pick(next, trapTexts),
      remark: pick(next, trapTexts),
      n: pick(next, [0, 1, 2, 3, -1, 12]),
      d: pick(next, [1.5, 2.25, -0.5, 12.125]),
      flag: next() < 0.5,
      gap: next() < 0.7 ? null : "gap",
    };
    const expression = make(dialect.rows[i % dialect.rows.length]);
    const [own, other] = [ours(expression, row), await theirs(expression, row)];
    if (own === undefined) tally.notCovered++;
    else if (close(own, other)) tally[own === error ? "errors" : "values"]++;
    else if (
      known.some(({ holds }) => holds({ expression, row, ours: own, theirs: other })) ||
      gaps.some((gap) => gap.test(expression))
    )
      tally.known++;
    else found.push({ expression, row, ours: own, theirs: other });
  }
  return { found, tally };
}

test.each([101, 202, 303])("seed %i: 1,500 generated expressions give what the engine gives", async (seed) => {
  const { found, tally } = await disagreements(seed, 1500);
  expect(found.slice(0, 5)).toEqual([]);
  expect(tally.values).toBeGreaterThan(1000);
  expect(tally.known + tally.notCovered).toBeLessThan(75);
});
