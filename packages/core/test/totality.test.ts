import { describe, expect, test } from "@jest/globals";
import { Bytes, Decimal, Double, Failure, Interval, Moment, type Value, message } from "indigo-quill";
import { type KnownKind, type OperationId, applyKernel, operationOf, operations, watched } from "indigo-quill/text";
import { type Answers, describeTrait } from "indigo-quill/traits";
import { pick, random } from "./random.ts";

/** What operations trip over: nothing, edges, letters of several units, combining marks, patterns, what a pattern cannot be. */
const texts = [
  "",
  "a",
  "A",
  " é ",
  "👍",
  "a👍b👍",
  "e\u0301x",
  "ﬁß",
  "a,b,,c",
  ".",
  "(",
  "[a",
  "%_",
  "\\",
  "\\1",
  "$1",
  "\0",
  "İσς",
  "a".repeat(300),
  "constructor",
  "2019-04-03 12:30:00.5",
  "2020-01-31",
  "23:59:59.5",
  "-1 month 2 days 03:04:05 ago",
  "P1Y2M3DT4H",
  "month",
  "%T %m",
  "S9,990.99",
  "FM9.9999EEEE",
  `9.${"9".repeat(150)}EEEE`,
  "RNth",
  "#,##0.00;(0)%",
  "yyyy-mm-dd h:mm",
  "I",
  "a;o",
  "[Y0001]-[MNn,3-3] [f001]",
  "YYYY-MM-DD HH24:MI",
  'T FMmth "m',
];
const numbers = [
  0,
  1,
  -1,
  2,
  3,
  2.5,
  -2.5,
  1e9,
  2147483647,
  -2147483648,
  9007199254740993n,
  -9223372036854775808n,
  1e308,
  NaN,
  Infinity,
];
const lists: Value[] = [[], ["a", null, "👍"], [null], ["", ""], ["a".repeat(300), "b"]];
const others: Value[] = [
  true,
  false,
  new Double(0.5),
  new Double(NaN),
  new Double(-Infinity),
  Decimal.parse("12.50")!,
  new Bytes(Uint8Array.of(255, 0)),
  new Moment("date", "2020-02-29"),
  new Moment("time", "10:30:00.5+02:00"),
  new Interval("1 month", { months: 1, days: -1, micros: 3_600_000_001n }),
  new Interval("P1M", { months: 2 ** 31 - 1, days: 2 ** 31 - 1, micros: 2n ** 63n - 1n }, "duration"),
];
const byKind: Readonly<Record<string, readonly Value[]>> = {
  text: texts,
  number: numbers,
  boolean: [true, false],
  texts: lists,
  list: lists,
  values: lists,
  any: [...texts.slice(0, 8), ...numbers, ...others],
};
const half = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;
const hasHalf = (value: Value): boolean =>
  typeof value === "string" ? half.test(value) : Array.isArray(value) && (value as readonly Value[]).some(hasHalf);

type Chosen = Record<string, string>;

/** Combinations of answers in which every two answers of different traits stand together at least once. */
function pairwise(id: OperationId, next: () => number): Chosen[] {
  const { traits } = operationOf(id);
  const answersOf = (trait: (typeof traits)[number]) => Object.keys(describeTrait(trait).answers);
  const pairs = traits.flatMap((a, i) =>
    traits.slice(i).flatMap((b) => answersOf(a).flatMap((x) => answersOf(b).map((y) => [a, x, b, y] as const))),
  );
  const met = new Set<string>();
  const found: Chosen[] = [];
  for (const [a, x, b, y] of pairs) {
    if ((a === b && x !== y) || met.has([a, x, b, y].join("|"))) continue;
    const chosen = { ...Object.fromEntries(traits.map((trait) => [trait, pick(next, answersOf(trait))])), [a]: x, [b]: y };
    for (const one of traits) for (const other of traits) met.add([one, chosen[one], other, chosen[other]].join("|"));
    found.push(chosen);
  }
  return found;
}

const shown = (value: unknown): string =>
  JSON.stringify(value, (_key, each: unknown) =>
    Object.is(each, -0) ? "-0" : typeof each === "bigint" || Number.isNaN(each) ? String(each) : each,
  ) ?? "left out";

/** Operations that tell of each stretch of a text, or of the items of a list, which slot it is from. */
const telling: ReadonlySet<string> = new Set(
  "slice segment reverse find replace-span substitute translate escape recase normalize trim join split repeat pad".split(" "),
);

/** What is wrong with the pieces that a kernel told of its value. */
function faultOf(id: string, given: readonly unknown[], { value, pieces }: ReturnType<typeof watched>): string | undefined {
  const isTold = (typeof value === "string" && value.length < 1e5) || (Array.isArray(value) && value.length > 0);
  if (!pieces) return isTold && telling.has(id) ? "did not tell its pieces" : undefined;
  for (const { text, slot, item, range, changed } of pieces) {
    if (slot === undefined || !range || changed) continue;
    const whole = given[slot] ?? (slot === 0 ? "" : " ");
    const source = item === undefined ? whole : ((whole as readonly (string | null)[])[item] ?? "");
    if (String(source).slice(range.start, range.end) !== text) return `told of "${text}" that it is from slot ${slot}`;
  }
  return undefined;
}

/** How many inputs each combination of answers is given. */
const inputs = 60;

describe("every operation, with any answers and any values of its slots, gives a value", () => {
  test.each(Object.keys(operations) as OperationId[])("%s", (id) => {
    const next = random(20);
    const { slots } = operationOf(id);
    const problems: string[] = [];
    for (const answers of pairwise(id, next)) {
      const constants = slots.flatMap(({ name, settled, optional }) =>
        settled && !(optional && next() < 0.3) ? [[name, pick(next, settled)]] : [],
      );
      const fixed = Object.fromEntries(constants) as Record<string, string>;
      const told = `${id} ${shown(answers)} ${shown(fixed)}`;
      const kernel = operationOf(id).prepare(answers as Answers, fixed);
      for (let i = 0; i < inputs; i++) {
        const given = slots.map(({ name, kind, optional }) =>
          name in fixed ? fixed[name] : optional && next() < 0.3 ? undefined : next() < 0.05 ? null : pick(next, byKind[kind]),
        );
        try {
          const value = applyKernel(kernel, given, slots, answers.missing);
          const seen = watched(() => applyKernel(kernel, given, slots, answers.missing));
          const fault = faultOf(id, given, seen);
          if (fault) problems.push(`${told} on ${shown(given)}: ${fault}`);
          if (shown(seen.value) !== shown(value)) problems.push(`${told} on ${shown(given)}: another value when watched`);
          if (value === undefined || typeof value === "function") problems.push(`${told} on ${shown(given)}: no value came back`);
          if (value instanceof Failure && message(value).includes("undefined"))
            problems.push(`${told} on ${shown(given)}: ${message(value)}`);
          if (hasHalf(value) && !Object.values(answers).includes("utf-16 unit"))
            problems.push(`${told} on ${shown(given)}: a half character`);
        } catch (error) {
          problems.push(`${told} on ${shown(given)}: ${String(error)}`);
        }
      }
    }
    expect(problems.slice(0, 5)).toEqual([]);
  });
});

/** Values of which those of a kind are known to be. */
const ofKnownKind: Readonly<Record<KnownKind, readonly Value[]>> = {
  text: texts,
  "whole number": [0, 1, -1, 7, 2147483647, -2147483648],
  double: [0, -0, 0.5, -2.5, 1e308, 5e-324, NaN, Infinity, -Infinity].map((each) => new Double(each)),
};

const narrowing = (Object.keys(operations) as OperationId[]).filter((id) => "narrowed" in operationOf(id));

test("some operations have kernels for values that are known to be of one kind", () => {
  expect(narrowing).not.toEqual([]);
});

test.each(narrowing)("%s gives the same where its values are known to be of one kind", (id) => {
  const next = random(20);
  const { slots } = operationOf(id);
  const problems: string[] = [];
  let tried = 0;
  for (const answers of pairwise(id, next) as unknown as Answers[]) {
    const [{ name, settled = [] }] = slots.filter((slot) => slot.settled);
    for (const value of settled) {
      const fixed = { [name]: value };
      for (const [kind, values] of Object.entries(ofKnownKind) as [KnownKind, readonly Value[]][]) {
        const narrowed = operationOf(id).narrowed?.(answers, fixed, kind);
        if (!narrowed) continue;
        const general = operationOf(id).prepare(answers, fixed);
        for (const a of values)
          for (const b of values) {
            tried++;
            const [own, other] = [narrowed, general].map((kernel) => shown(applyKernel(kernel, [a, b], slots, "null")));
            if (own !== other) problems.push(`${shown(answers)} ${value} on ${shown([a, b])}: ${own}, not ${other}`);
          }
      }
    }
  }
  expect(tried).toBeGreaterThan(100);
  expect(problems.slice(0, 5)).toEqual([]);
});
