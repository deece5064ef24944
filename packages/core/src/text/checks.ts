import { PatternError, cachedPattern } from "../patterns/index.ts";
import type { AnswerOf } from "../traits/index.ts";
import {
  ArrayItem,
  Double,
  Failure,
  FunctionItem,
  Interval,
  MapItem,
  type MessageCode,
  Moment,
  type Value,
  asDouble,
  countBytes,
  isNumeric,
  wrongKind,
} from "../values/index.ts";
import { type Slot, any, kept, operation, settled, tabled } from "./operation.ts";

/** Gives another value in the place of a missing one. */
export const instead = operation({
  id: "instead",
  family: "logic",
  result: "given",
  summary: "gives another value in the place of a missing one",
  slots: [kept(any("value")), kept(any("other"))],
  traits: [],
  prepare() {
    return (value: Value = null, other: Value = null): Value => value ?? other;
  },
});

const escapes: Readonly<Record<AnswerOf<"escapeSize">, (given: string) => boolean>> = {
  "one character": (given) => [...given].length === 1,
  "one character or none": (given) => [...given].length <= 1,
  "one byte or none": (given) => countBytes(given) <= 1,
};

/** The escape character of a pattern, where it is one. */
export const checkEscape = operation({
  id: "check-escape",
  family: "convert",
  result: "given",
  summary: "takes the escape character of a pattern",
  slots: [kept(any("escape"))],
  traits: ["escapeSize"],
  prepare({ escapeSize }) {
    const fits = escapes[escapeSize];
    return (escape: Value = null): Value =>
      typeof escape !== "string" || fits(escape) ? escape : new Failure("escape-length", { escape });
  },
});

/** A pattern, where it can be read in its language. */
export const checkPattern = operation({
  id: "check-pattern",
  family: "convert",
  result: "given",
  summary: "takes a pattern that can be read",
  slots: [kept(any("pattern"))],
  traits: ["pattern"],
  prepare({ pattern: language }) {
    return (pattern: Value = null): Value => {
      if (typeof pattern !== "string" || language === "literal") return pattern;
      const found = cachedPattern(language, pattern, "");
      return found instanceof PatternError && !found.isUncovered
        ? new Failure("pattern-syntax", { pattern, problem: found.problem, offset: found.offset })
        : pattern;
    };
  },
});

const ofType = (name: string) => (value: Value) => value instanceof Moment && value.type === name;
const isCallable = (value: Value): boolean =>
  value instanceof FunctionItem || value instanceof MapItem || value instanceof ArrayItem;

/** The kinds of items that may be wanted. */
const kinds: Readonly<Record<string, (item: Value) => boolean>> = {
  text: (item) => typeof item === "string",
  number: isNumeric,
  "whole number": (item) => typeof item === "number" || typeof item === "bigint",
  "atomic value": (item) => !isCallable(item),
  function: isCallable,
  map: (item) => item instanceof MapItem,
  array: (item) => item instanceof ArrayItem,
  date: ofType("date"),
  time: ofType("time"),
  dateTime: ofType("dateTime"),
  moment: (item) => item instanceof Moment && !(item instanceof Interval),
  duration: (item) => item instanceof Interval,
};

/** A value of a kind; `type` is the name of what is wanted, which ends in `?` where there may be none and in `*` where several. */
export const checkKind = operation({
  id: "check-kind",
  family: "logic",
  result: "given",
  summary: "takes a value of a kind",
  slots: [kept(any("value")), settled("kind", Object.keys(kinds)), tabled("type", "xs:string?", () => undefined)],
  traits: [],
  prepare(_answers, fixed) {
    const fits = kinds[fixed.kind as string];
    const type = fixed.type as string;
    if (type.endsWith("*"))
      return (value: Value = null): Value => {
        const items = Array.isArray(value) ? (value as readonly Value[]) : value === null ? [] : [value];
        const other = items.find((item) => !fits(item));
        return other === undefined ? value : wrongKind(type, other);
      };
    const mayMiss = type.endsWith("?");
    const isNumber = fixed.kind === "number";
    return (value: Value = null): Value => {
      if (value === null ? mayMiss : fits(value)) return value;
      if (isNumber && value instanceof Moment)
        return new Failure("not-covered", { what: "calculating with dates of which the type is known on the row only" });
      return wrongKind(type, value);
    };
  },
});

/** What a value is refused as that is not what it should be. */
const refusals: readonly MessageCode[] = [
  "invalid-value",
  "no-such-group",
  "not-a-number",
  "not-covered",
  "not-finite",
  "number-out-of-range",
  "pattern-flags",
  "trim-character",
];

/** The facts of any of them. */
const refusal = (code: Value, value: Value, about: Value): Failure =>
  new Failure(code as MessageCode, {
    text: value,
    group: value,
    flags: value,
    number: value,
    what: about,
    problem: `"${String(value)}" ${String(about)}`,
  });

function shapeFault(shape: string): string | undefined {
  try {
    new RegExp(shape, "u");
    return undefined;
  } catch (error) {
    return `"${shape}" is no regular expression: ${(error as Error).message}`;
  }
}

/** A text of a shape, a regular expression of ECMAScript, its letters in any case where that is ignored; any other is refused. */
export const checkText = operation({
  id: "check-text",
  family: "convert",
  result: "given",
  summary: "takes a text of a shape",
  slots: [
    kept(any("value")),
    tabled("shape", "^[imsx]*$", shapeFault),
    settled("refused", refusals),
    tabled("about", "is not of its shape", () => undefined),
    settled("letters", ["minded", "ignored"]),
  ],
  traits: [],
  prepare(_answers, { shape, refused, about, letters }) {
    const wanted = new RegExp(shape as string, letters === "ignored" ? "iu" : "u");
    return (value: Value = null): Value =>
      typeof value !== "string" || wanted.test(value) ? value : refusal(refused, value, about);
  },
});

const limitFault = (given: string): string | undefined =>
  Number.isFinite(Number(given)) ? undefined : `"${given}" is no number`;
const limit = (name: string): Slot => tabled(name, "7", limitFault);

/** A finite number from a least one to a greatest, or below a limit; any other is refused. */
export const checkNumber = operation({
  id: "check-number",
  family: "convert",
  result: "given",
  summary: "takes a number within limits",
  slots: [kept(any("value")), limit("least"), limit("most"), limit("below"), settled("refused", refusals)],
  traits: [],
  prepare(_answers, { refused, ...limits }) {
    const [least, most, below] = [limits.least ?? -Infinity, limits.most ?? Infinity, limits.below ?? Infinity].map(Number);
    const isBeyond = (size: number | bigint): boolean =>
      !(size >= least && size <= most) || (below !== Infinity && size >= below);
    return (value: Value = null): Value => {
      if (typeof value === "number" ? !isBeyond(value) : !isNumeric(value)) return value;
      const size = typeof value === "bigint" ? value : asDouble(value);
      const isFinite = !(value instanceof Double) || Number.isFinite(value.value);
      return isFinite && !isBeyond(size) ? value : refusal(refused, String(size), "");
    };
  },
});
