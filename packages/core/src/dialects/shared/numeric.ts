import type { TraitsOf } from "../../text/index.ts";
import type { AnswerOf, Answers } from "../../traits/index.ts";
import { type FunctionRow, params } from "../row.ts";

/** What the functions of one number have in common, or the operators on bits. */
interface OfNumbers {
  /** The type of the number, and of the result where nothing else is said. */
  readonly type: string;
  readonly result?: string;
  readonly evidence: string;
}

const isWord = /^[a-z_0-9]+$/i;
const notationOf = (name: string) => (isWord.test(name) ? {} : { notation: "operator" as const });

const signSummaries = {
  opposite: "The negative of a number.",
  size: "The number without its sign.",
  sign: "-1, 0 or 1 by the sign.",
} as const;

/** Rows of functions that take a number's sign, or change it. */
export const signedRows = (
  names: Readonly<Record<string, keyof typeof signSummaries>>,
  { type, result = type, evidence, answers }: OfNumbers & { readonly answers: Answers<TraitsOf<"signed">> },
): FunctionRow[] =>
  Object.entries(names).map(([name, wanted]) => ({
    name,
    family: "convert",
    summary: signSummaries[wanted],
    parameters: params(`number ${type}`),
    result,
    operation: "signed",
    answers,
    fixed: { wanted },
    ...notationOf(name),
    evidence,
  }));

const directionSummaries: Readonly<Record<AnswerOf<"direction">, readonly [whole: string, toDigit: string]>> = {
  up: ["The next higher whole number.", "Rounded up to a digit."],
  down: ["The next lower whole number.", "Rounded down to a digit."],
  "toward zero": ["Cut towards zero.", "Cut after a digit."],
  "away from zero": ["The next whole number away from zero.", "Rounded away from zero."],
  "half away from zero": ["Rounded to a whole number.", "Rounded, halves away from zero."],
  "half up": ["Rounded, halves up.", "Rounded, halves up."],
  "half to even": ["Rounded, halves to the even neighbour.", "Rounded, halves to the even neighbour."],
};

type RoundAnswers = Answers<TraitsOf<"round">>;

/** Rows of functions that round; `digits` is the parameter that says to which digit. */
export const roundRows = (
  names: Readonly<Record<string, AnswerOf<"direction">>>,
  {
    type,
    result = type,
    evidence,
    digits,
    answers,
  }: OfNumbers & {
    readonly digits?: string;
    readonly answers: Pick<RoundAnswers, "missing" | "numbers"> & Partial<RoundAnswers>;
  },
): FunctionRow[] =>
  Object.entries(names).map(([name, direction]) => ({
    name,
    family: "convert",
    summary: directionSummaries[direction][digits ? 1 : 0],
    parameters: params(digits ? `number ${type}, ${digits}` : `number ${type}`),
    result,
    operation: "round",
    answers: {
      moreDigits: "kept",
      fraction: "refused",
      roundedDigits: "shortest",
      digitsBelow: "before the point",
      ...answers,
      direction,
    },
    evidence,
  }));

const bitSummaries = {
  and: "The bits that both numbers have.",
  or: "The bits that one of two numbers has.",
  xor: "The bits that just one of two numbers has.",
  not: "The bits of a number inverted.",
  left: "The bits of a number shifted left.",
  right: "The bits of a number shifted right.",
  count: "How many bits are set.",
} as const;

/** Rows of what is done to bits; `places` is the type of the number by which they are shifted. */
export const bitRows = (
  names: Readonly<Record<string, keyof typeof bitSummaries>>,
  {
    type,
    result = type,
    evidence,
    places = type,
    answers,
  }: OfNumbers & { readonly places?: string; readonly answers: Answers<TraitsOf<"bits">> },
): FunctionRow[] =>
  Object.entries(names).map(([name, does]) => ({
    name,
    family: "convert",
    summary: bitSummaries[does],
    parameters: params(
      does === "not" || does === "count"
        ? `number ${type} > a`
        : `left ${type} > a, right ${does === "left" || does === "right" ? places : type} > b`,
    ),
    result,
    operation: "bits",
    answers,
    fixed: { does },
    ...notationOf(name),
    evidence,
  }));
