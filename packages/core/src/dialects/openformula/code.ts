import { operationOf } from "../../text/index.ts";
import { Failure, type Value, dateFromDays, daysFromDate, isFailure, isList } from "../../values/index.ts";
import type { Expression } from "../../syntax/index.ts";
import type { Cell, Code, CodeContext } from "../dialect.ts";
import { epoch, numberOfText, serialOfText, toNumber, toText, typeRules } from "./coercions.ts";
import type { TableOptions } from "./functions.ts";
import { formatNumber, grouped } from "./number-format.ts";

const number = toNumber("convert");
const rules = typeRules("convert");
const truth = (value: Value) => rules.truth(value);

const bad = (problem: string) => new Failure("invalid-value", { problem });

/** Code that takes numbers only. */
const onNumbers = (compute: (...numbers: number[]) => Value): Code => ({
  run: (args) => {
    const result = compute(...(args.map((arg) => arg ?? 0) as number[]));
    return typeof result === "number" && !Number.isFinite(result) ? new Failure("number-out-of-range") : result;
  },
});

/** Scales by a power of ten without the noise of a multiplication, where the digits allow it. */
function shifted(value: number, digits: number): number {
  const [mantissa, exponent = "0"] = String(value).split("e");
  return Number(`${mantissa}e${Number(exponent) + digits}`);
}

const roundedBy = (round: (value: number) => number) =>
  onNumbers((value, digits) => {
    const places = Math.trunc(digits);
    return Math.sign(value) * shifted(round(shifted(Math.abs(value), places)), -places);
  });

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

const known = new WeakMap<CodeContext, WeakMap<readonly Value[], Map<string, Value>>>();

/** A result over a whole column, which is the same on every row with the same other arguments. */
function remembered(args: readonly Value[], context: CodeContext, compute: () => Value): Value {
  const columns = args.map((_, i) => context.column(i)?.());
  const [column] = columns.filter((values) => values !== undefined);
  if (!column) return compute();
  const byColumn = known.get(context) ?? new WeakMap<readonly Value[], Map<string, Value>>();
  known.set(context, byColumn);
  const results = byColumn.get(column) ?? new Map<string, Value>();
  byColumn.set(column, results);
  const key = args.map((arg, i) => (columns[i] ? "" : `${typeof arg} ${String(arg)}`)).join("\0");
  let result = results.get(key);
  if (result === undefined) results.set(key, (result = compute()));
  return result;
}

const overColumns = (compute: (args: readonly Value[], context: CodeContext) => Value): Code => ({
  run: (args, context) => remembered(args, context, () => compute(args, context)),
});

const aggregate = (compute: (numbers: number[]) => Value): Code =>
  overColumns((args, context) => {
    const numbers = numbersOf(args, context);
    return isFailure(numbers) ? numbers : compute(numbers);
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
  const fits = operationOf("test").prepare(
    { missing: "blank", pattern, where: "whole", case: "ignored" } as never,
    {},
  ) as unknown as (value: string, needle: string) => boolean | Failure;
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

const romanLetters = { M: 1000, D: 500, C: 100, L: 50, X: 10, V: 5, I: 1 } as const;
type RomanLetter = keyof typeof romanLetters;

/** A smaller letter before a larger one is taken from it; forms from 0 (classic) to 4 allow more such pairs. */
const romanPairs = [
  ["IV", "IX", "XL", "XC", "CD", "CM"],
  ["VL", "VC", "LD", "LM"],
  ["IL", "IC", "XD", "XM"],
  ["VD", "VM"],
  ["ID", "IM"],
];

/** The value of Roman numerals: a letter before a larger one counts negative. NaN where there is another letter. */
function romanValue(letters: string): number {
  const values = [...letters].map((letter) => romanLetters[letter as RomanLetter] ?? NaN);
  return values.reduce((sum, value, i) => sum + (value < values[i + 1] ? -value : value), 0);
}

function roman(value: number, form: number): Value {
  let rest = Math.trunc(value);
  if (rest < 0 || rest > 3999) return bad("Roman numerals go from 0 to 3999");
  const last = Math.trunc(form);
  if (last < 0 || last > 4) return bad("the form of Roman numerals must be 0 to 4");
  const parts = [...Object.keys(romanLetters), ...romanPairs.slice(0, last + 1).flat()].map((part) => ({
    part,
    size: romanValue(part),
  }));
  let result = "";
  for (const { part, size } of parts.sort((a, b) => b.size - a.size)) for (; rest >= size; rest -= size) result += part;
  return result;
}

function arabic(text: string): Value {
  const value = romanValue(text.trim().toUpperCase());
  return Number.isNaN(value) ? bad(`"${text}" is not a Roman numeral`) : value;
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

const isKindOf = (test: (value: Value) => boolean): Code => ({
  lazy:
    ([cell]) =>
    (row) =>
      test(cell(row)),
});

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

const recover = (caught: (failure: Failure) => boolean): Code => ({
  lazy:
    ([value, otherwise]) =>
    (row) => {
      const result = value(row);
      return isFailure(result) && caught(result) ? otherwise(row) : result;
    },
});

const isEmptyArgument = (arg: Expression): boolean => arg.kind === "literal" && arg.value === null;

const isNA = (value: Value) => isFailure(value) && value.standard === "#N/A";

/** IF; a branch that is left empty between separators is 0 (6.15.4). */
function choose(cells: readonly Cell[], { args }: CodeContext): Cell {
  const [condition, then, otherwise] = cells.map((cell, i): Cell => (isEmptyArgument(args[i]) ? () => 0 : cell));
  return (row) => {
    const result = truth(condition(row));
    if (isFailure(result)) return result;
    if (result === true) return then ? then(row) : true;
    return otherwise ? otherwise(row) : false;
  };
}

const timePart = (part: (seconds: number) => number) =>
  onNumbers((value) => part(Math.round((value - Math.floor(value)) * 86400)));

const dateOf = (serial: number) => dateFromDays(Math.floor(serial) - epoch);

/** Functions that are not rows of data, by name; `pattern` is the option `searchPattern`. */
export const openFormulaCode = (pattern: TableOptions["searchPattern"]): Readonly<Record<string, Code>> => ({
  negate: onNumbers((value) => -value),
  itself: { run: ([value]) => value },
  percent: onNumbers((value) => value / 100),
  T: { run: ([value]) => (typeof value === "string" ? value : "") },
  VALUE: {
    run: ([value]) => (value === null ? 0 : typeof value === "boolean" ? bad("a truth value is no number") : number(value)),
  },
  N: { run: ([value]) => (typeof value === "number" ? value : value === true ? 1 : 0) },
  NUMBERVALUE: {
    run: ([text, decimal = ".", group = ""]) => {
      if (text === null || text === "") return 0;
      const point = (decimal as string)[0] ?? ".";
      const [whole, ...fraction] = (text as string).replace(/\s/g, "").split(point);
      if (fraction.length > 1) return new Failure("not-a-number", { text });
      const cleaned = [...(group as string)].reduce((value, char) => value.replaceAll(char, ""), whole);
      const percents = /%*$/.exec(fraction[0] ?? cleaned)![0].length;
      const plain = [cleaned, ...fraction].join(".").replace(/%+$/, "");
      if (!/^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/.test(plain)) return new Failure("not-a-number", { text });
      return Number(plain) / 100 ** percents;
    },
  },
  TEXT: {
    run: ([value, format]) => {
      const amount = typeof value === "string" ? (numberOfText(value) ?? value) : number(value ?? 0);
      if (isFailure(amount)) return amount;
      return typeof amount === "number" ? formatNumber(amount, format as string) : toText(amount);
    },
  },
  FIXED: {
    run: ([value, decimals, noGroups]) => {
      const places = Math.trunc((decimals as number) ?? 0);
      if (Math.abs(places) > 100) return bad("there are too many decimals");
      const scaled = shifted(Math.round(shifted(Math.abs((value as number) ?? 0), places)), -places);
      const text = scaled.toFixed(Math.max(0, places));
      return ((value as number) < 0 && Number(text) !== 0 ? "-" : "") + (noGroups ? text : grouped(text));
    },
  },
  DOLLAR: {
    run: ([value, decimals]) => {
      const places = Math.trunc((decimals as number) ?? 0);
      const scaled = shifted(Math.round(shifted(Math.abs((value as number) ?? 0), places)), -places);
      const text = `$${grouped(scaled.toFixed(Math.max(0, places)))}`;
      return (value as number) < 0 ? `-${text}` : text;
    },
  },
  BASE: onNumbers((value, base, least) => {
    if (value < 0 || base < 2 || base > 36) return bad("the base must be 2 to 36 and the number not negative");
    return Math.trunc(value).toString(Math.trunc(base)).toUpperCase().padStart(Math.trunc(least), "0");
  }),
  DECIMAL: {
    run: ([text, base]) => {
      const radix = Math.trunc(base as number);
      const digits = ((text as string) ?? "")
        .trim()
        .toLowerCase()
        .replace(radix === 16 ? /^0?x/ : /^$/, "");
      if (radix < 2 || radix > 36 || ![...digits].every((d) => parseInt(d, 36) < radix) || digits === "")
        return bad(`"${String(text)}" is no number in base ${radix}`);
      return [...digits].reduce((sum, digit) => sum * radix + parseInt(digit, 36), 0);
    },
  },
  ROMAN: onNumbers(roman),
  ARABIC: { run: ([text]) => arabic((text as string) ?? "") },
  ABS: onNumbers(Math.abs),
  INT: onNumbers(Math.floor),
  TRUNC: roundedBy(Math.floor),
  ROUND: roundedBy(Math.round),
  ROUNDUP: roundedBy(Math.ceil),
  ROUNDDOWN: roundedBy(Math.floor),
  CEILING: onNumbers((value, multiple) => (multiple === 0 ? 0 : Math.ceil(value / multiple) * multiple)),
  FLOOR: onNumbers((value, multiple) => (multiple === 0 ? 0 : Math.floor(value / multiple) * multiple)),
  SIGN: onNumbers(Math.sign),
  SQRT: onNumbers(Math.sqrt),
  POWER: onNumbers(Math.pow),
  QUOTIENT: onNumbers((value, divisor) => (divisor === 0 ? new Failure("division-by-zero") : Math.trunc(value / divisor))),
  EVEN: onNumbers((value) => Math.sign(value) * Math.ceil(Math.abs(value) / 2) * 2),
  ODD: onNumbers((value) => (value < 0 ? -1 : 1) * (Math.ceil((Math.abs(value) - 1) / 2) * 2 + 1)),
  DATE: onNumbers((year, month, day) => daysFromDate(Math.trunc(year), Math.trunc(month), Math.trunc(day)) + epoch),
  DATEVALUE: { run: ([text]) => floored(serialOfText((text as string) ?? ""), text) },
  TIMEVALUE: {
    run: ([text]) => {
      const serial = serialOfText((text as string) ?? "");
      return serial === undefined ? new Failure("not-a-date", { text }) : serial - Math.floor(serial);
    },
  },
  TIME: onNumbers((hours, minutes, seconds) => (Math.trunc(hours) * 3600 + Math.trunc(minutes) * 60 + seconds) / 86400),
  YEAR: onNumbers((serial) => dateOf(serial).year),
  MONTH: onNumbers((serial) => dateOf(serial).month),
  DAY: onNumbers((serial) => dateOf(serial).day),
  HOUR: timePart((seconds) => Math.floor(seconds / 3600) % 24),
  MINUTE: timePart((seconds) => Math.floor(seconds / 60) % 60),
  SECOND: timePart((seconds) => seconds % 60),
  WEEKDAY: onNumbers((serial, kind) => {
    const { weekday } = dateOf(serial);
    if (kind === 1) return weekday + 1;
    return kind === 2 ? ((weekday + 6) % 7) + 1 : kind === 3 ? (weekday + 6) % 7 : bad("the kind of week must be 1, 2 or 3");
  }),
  IF: { lazy: choose },
  IFERROR: recover(() => true),
  IFNA: recover(isNA),
  AND: logical((values) => values.every(Boolean)),
  OR: logical((values) => values.some(Boolean)),
  XOR: logical((values) => values.filter(Boolean).length % 2 === 1),
  NOT: { run: ([value]) => value !== true },
  TRUE: { run: () => true },
  FALSE: { run: () => false },
  CHOOSE: {
    lazy:
      ([index, ...values]) =>
      (row) => {
        const n = index(row);
        if (isFailure(n)) return n;
        return values[Math.trunc((n as number) ?? 0) - 1]?.(row) ?? new Failure("bad-index", { index: n });
      },
  },
  IFS: {
    lazy: (cells) => (row) => {
      for (let i = 0; i + 1 < cells.length; i += 2) {
        const result = truth(cells[i](row));
        if (isFailure(result)) return result;
        if (result === true) return cells[i + 1](row);
      }
      return new Failure("error-value", { kind: "#N/A" }).named("#N/A");
    },
  },
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
  ISERROR: isKindOf(isFailure),
  ISERR: isKindOf((value) => isFailure(value) && !isNA(value)),
  ISNA: isKindOf(isNA),
  ISBLANK: isKindOf((value) => value === null),
  ISTEXT: isKindOf((value) => typeof value === "string"),
  ISNONTEXT: isKindOf((value) => typeof value !== "string"),
  ISNUMBER: isKindOf((value) => typeof value === "number"),
  ISLOGICAL: isKindOf((value) => typeof value === "boolean"),
  ISEVEN: onNumbers((value) => Math.trunc(value) % 2 === 0),
  ISODD: onNumbers((value) => Math.trunc(value) % 2 !== 0),
  SUM: aggregate((numbers) => numbers.reduce((a, b) => a + b, 0)),
  PRODUCT: aggregate((numbers) => numbers.reduce((a, b) => a * b, 1)),
  AVERAGE: aggregate((numbers) =>
    numbers.length ? numbers.reduce((a, b) => a + b, 0) / numbers.length : new Failure("division-by-zero"),
  ),
  MIN: aggregate((numbers) => numbers.reduce((a, b) => Math.min(a, b), numbers[0] ?? 0)),
  MAX: aggregate((numbers) => numbers.reduce((a, b) => Math.max(a, b), numbers[0] ?? 0)),
  COUNT: overColumns(
    (args, context) => args.flatMap((arg, i) => valuesOf(arg, i, context)).filter((value) => typeof value === "number").length,
  ),
  COUNTA: overColumns(
    (args, context) => args.flatMap((arg, i) => valuesOf(arg, i, context)).filter((value) => value !== null).length,
  ),
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

function floored(serial: number | undefined, text: Value): Value {
  return serial === undefined ? new Failure("not-a-date", { text }) : Math.floor(serial);
}
