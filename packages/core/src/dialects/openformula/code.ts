import { kernelFor } from "../../text/index.ts";
import { Failure, type Value, bad, isFailure, isList } from "../../values/index.ts";
import type { Code, CodeContext } from "../dialect.ts";
import { arithmetic, finite, onNumbers } from "./arithmetic.ts";
import { typeRules } from "./coercions.ts";
import { worked } from "../step.ts";
import { numberOfText, toNumber } from "./steps.ts";
import type { TableOptions } from "./functions.ts";
import { anyType, conditionType } from "../types.ts";

const number = toNumber;
const rules = typeRules("convert");
const truth = worked(rules.conversion(anyType, conditionType)?.convert);

/** The values of an argument: the whole column where it names one, the items of a list, or the one value. */
function valuesOf(value: Value, index: number, context: CodeContext): readonly Value[] {
  return context.column(index)?.() ?? (isList(value) ? value : [value]);
}

/** The numbers among the arguments; texts in a column are skipped, a text given directly is converted. */
function numbersOf(args: readonly Value[], context: CodeContext): number[] | Failure {
  const numbers: number[] = [];
  for (const [i, arg] of args.entries()) {
    const isRange = context.column(i) !== undefined || isList(arg);
    for (const value of valuesOf(arg, i, context)) {
      if (isFailure(value)) return value;
      if (typeof value === "number") numbers.push(value);
      else if (!isRange && value !== null) {
        const converted = number(value);
        if (isFailure(converted)) return converted;
        numbers.push(converted as number);
      }
    }
  }
  return numbers;
}

/** The columns that a call was worked out over, and its results by its other arguments. */
interface Remembered {
  readonly columns: readonly (readonly Value[] | undefined)[];
  readonly results: Map<string, Value>;
}

const known = new WeakMap<CodeContext, Remembered>();

/** A result over whole columns, which is the same on every row with the same other arguments. */
function remembered(args: readonly Value[], context: CodeContext, compute: () => Value): Value {
  const columns = args.map((_, i) => context.column(i)?.());
  if (columns.every((column) => column === undefined)) return compute();
  let memory = known.get(context);
  if (!memory || memory.columns.some((column, i) => column !== columns[i]))
    known.set(context, (memory = { columns, results: new Map() }));
  const key = JSON.stringify(args.map((arg, i) => (columns[i] ? "" : [arg])));
  let result = memory.results.get(key);
  if (result === undefined) memory.results.set(key, (result = compute()));
  return result;
}

const overColumns = (compute: (args: readonly Value[], context: CodeContext) => Value): Code => ({
  run: (args, context) => remembered(args, context, () => compute(args, context)),
});

/** How many of all values are meant; errors are values here, and go no further (6.13.6, 6.13.7). */
const counting = (isMeant: (value: Value) => boolean): Code => ({
  lazy: (cells, context) => (row) => {
    const args = cells.map((cell) => cell(row));
    return remembered(args, context, () => args.flatMap((arg, i) => valuesOf(arg, i, context)).filter(isMeant).length);
  },
});

const aggregate = (compute: (numbers: number[]) => Value): Code =>
  overColumns((args, context) => {
    const numbers = numbersOf(args, context);
    return isFailure(numbers) ? numbers : finite(compute(numbers));
  });

/** Whether a value meets a criterion such as `5`, `">=10"` or a pattern for the whole text (4.11.8). */
function criterion(given: Value, pattern: TableOptions["searchPattern"]): (value: Value) => boolean | Failure {
  const text = typeof given === "string" ? given : undefined;
  if (text === undefined) return (value) => value === given;
  const [, relation, operand] = /^(<>|<=|>=|=|<|>)?([\s\S]*)$/.exec(text)!;
  const asNumber = operand === "" ? undefined : numberOfText(operand);
  if (asNumber !== undefined) {
    const tests: Record<string, (value: number) => boolean> = {
      "<": (v) => v < asNumber,
      "<=": (v) => v <= asNumber,
      ">": (v) => v > asNumber,
      ">=": (v) => v >= asNumber,
    };
    const equal = (value: Value) => value === asNumber || (typeof value === "string" && numberOfText(value) === asNumber);
    if (relation === "<>") return (value) => !equal(value);
    if (relation && tests[relation]) return (value) => typeof value === "number" && tests[relation](value);
    return equal;
  }
  if (operand === "") return relation === "<>" ? (value) => value !== null : (value) => value === null || value === "";
  const fits = kernelFor("test", { missing: "blank", pattern, where: "whole", case: "ignored", truth: "true or false" }) as (
    value: string,
    needle: string,
  ) => boolean | Failure;
  const holds = (value: Value) => typeof value === "string" && fits(value, operand);
  if (relation === "<>") {
    return (value) => {
      const answer = holds(value);
      return isFailure(answer) ? answer : !answer;
    };
  }
  if (relation && relation !== "=") {
    return (value) => {
      if (typeof value !== "string") return false;
      const [a, b] = [value.toLowerCase(), operand.toLowerCase()];
      return relation === "<" ? a < b : relation === "<=" ? a <= b : relation === ">" ? a > b : a >= b;
    };
  }
  return holds;
}

/** The places of the values that meet a criterion. */
function meeting(args: readonly Value[], context: CodeContext, pattern: TableOptions["searchPattern"]): number[] | Failure {
  const meets = criterion(args[1], pattern);
  const places: number[] = [];
  for (const [i, value] of valuesOf(args[0], 0, context).entries()) {
    const answer = meets(value);
    if (isFailure(answer)) return answer;
    if (answer) places.push(i);
  }
  return places;
}

/** The numbers to sum for a criterion: those beside the values that meet it. */
function chosen(args: readonly Value[], context: CodeContext, pattern: TableOptions["searchPattern"]): number[] | Failure {
  const places = meeting(args, context, pattern);
  if (isFailure(places)) return places;
  const numbers = args.length > 2 ? valuesOf(args[2], 2, context) : valuesOf(args[0], 0, context);
  return places.map((place) => numbers[place]).filter((value): value is number => typeof value === "number");
}

const errorNumbers: Readonly<Record<string, number>> = {
  "#NULL!": 1,
  "#DIV/0!": 2,
  "#VALUE!": 3,
  "#REF!": 4,
  "#NAME?": 5,
  "#NUM!": 6,
  "#N/A": 7,
};

/** TYPE (6.13.33): a blank counts as a number. */
function typeNumber(value: Value): number {
  if (isFailure(value)) return 16;
  if (isList(value)) return 64;
  return typeof value === "string" ? 2 : typeof value === "boolean" ? 4 : 1;
}

/** The truth values among the arguments; texts in a column are skipped. */
const logical = (combine: (values: boolean[]) => boolean): Code => ({
  run: (args, context) => {
    const values: boolean[] = [];
    for (const [i, arg] of args.entries()) {
      for (const value of isList(arg) ? valuesOf(arg, i, context) : [arg]) {
        if (value === null) continue;
        const result = truth(value);
        if (isFailure(result)) return result;
        values.push(result === true);
      }
    }
    return values.length > 0 ? combine(values) : bad("there is no truth value among the arguments");
  },
});

/** Functions that are not rows of data, by name; `pattern` is the option `searchPattern`. */
export const openFormulaCode = (pattern: TableOptions["searchPattern"]): Readonly<Record<string, Code>> => ({
  ...arithmetic,
  T: { run: ([value]) => (typeof value === "string" ? value : "") },
  N: { run: ([value]) => (typeof value === "number" ? value : value === true ? 1 : 0) },
  NUMBERVALUE: {
    run: ([text, decimal, group]) => {
      if (text === null || text === "") return 0;
      const point = ((decimal as string | null) ?? ".")[0] ?? ".";
      const [whole, ...fraction] = (text as string).replace(/\s/g, "").split(point);
      if (fraction.length > 1) return new Failure("not-a-number", { text });
      const cleaned = [...((group as string | null) ?? "")].reduce((value, char) => value.replaceAll(char, ""), whole);
      const percents = /%*$/.exec(fraction[0] ?? cleaned)![0].length;
      const plain = [cleaned, ...fraction].join(".").replace(/%+$/, "");
      if (!/^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/.test(plain)) return new Failure("not-a-number", { text });
      return Number(plain) / 100 ** percents;
    },
  },
  AND: logical((values) => values.every(Boolean)),
  OR: logical((values) => values.some(Boolean)),
  XOR: logical((values) => values.filter(Boolean).length % 2 === 1),
  SWITCH: {
    lazy:
      ([subject, ...cases]) =>
      (row) => {
        const value = subject(row);
        if (isFailure(value)) return value;
        for (let i = 0; i + 1 < cases.length; i += 2) if (cases[i](row) === value) return cases[i + 1](row);
        return cases.length % 2 === 1 ? cases[cases.length - 1](row) : new Failure("error-value", { kind: "#N/A" }).named("#N/A");
      },
  },
  NA: { run: () => new Failure("error-value", { kind: "#N/A" }).named("#N/A") },
  "ERROR.TYPE": {
    lazy:
      ([cell]) =>
      (row) => {
        const value = cell(row);
        const found = isFailure(value) ? errorNumbers[value.standard ?? "#VALUE!"] : undefined;
        return found ?? new Failure("error-value", { kind: "#N/A" }).named("#N/A");
      },
  },
  TYPE: {
    lazy:
      ([cell]) =>
      (row) =>
        typeNumber(cell(row)),
  },
  ISEVEN: onNumbers((value) => Math.trunc(value) % 2 === 0),
  ISODD: onNumbers((value) => Math.trunc(value) % 2 !== 0),
  SUM: aggregate((numbers) => numbers.reduce((a, b) => a + b, 0)),
  PRODUCT: aggregate((numbers) => numbers.reduce((a, b) => a * b, 1)),
  AVERAGE: aggregate((numbers) =>
    numbers.length ? numbers.reduce((a, b) => a + b, 0) / numbers.length : new Failure("division-by-zero"),
  ),
  MIN: aggregate((numbers) => numbers.reduce((a, b) => Math.min(a, b), numbers[0] ?? 0)),
  MAX: aggregate((numbers) => numbers.reduce((a, b) => Math.max(a, b), numbers[0] ?? 0)),
  COUNT: counting((value) => typeof value === "number"),
  COUNTA: counting((value) => value !== null),
  COUNTBLANK: overColumns(([value], context) => valuesOf(value, 0, context).filter((v) => v === null || v === "").length),
  COUNTIF: overColumns((args, context) => {
    const places = meeting(args, context, pattern);
    return isFailure(places) ? places : places.length;
  }),
  SUMIF: overColumns((args, context) => {
    const numbers = chosen(args, context, pattern);
    return isFailure(numbers) ? numbers : numbers.reduce((a, b) => a + b, 0);
  }),
  AVERAGEIF: overColumns((args, context) => {
    const numbers = chosen(args, context, pattern);
    if (isFailure(numbers)) return numbers;
    return numbers.length ? numbers.reduce((a, b) => a + b, 0) / numbers.length : new Failure("division-by-zero");
  }),
});
