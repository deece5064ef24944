import type { TraitsOf } from "../../text/index.ts";
import type { Answers } from "../../traits/index.ts";
import { type FunctionRow, params } from "../row.ts";

/** Only where there are functions of decimals these are no doubles. */
type MathAnswers = Answers<Exclude<TraitsOf<"math">, "ofDecimals">> & Partial<Answers<"ofDecimals">>;

/** What the mathematical functions of a dialect have in common. */
interface MathRows {
  /** The names there, with the function that each means where it has another name: `log=ln`. */
  readonly names: string;
  /** The type of the numbers. */
  readonly type: string;
  readonly result: string;
  readonly answers: MathAnswers;
  readonly evidence: string;
  readonly notation?: "operator";
}

const summaries: Readonly<Record<string, string>> = {
  acos: "The angle of a cosine.",
  acosh: "The inverse of a hyperbolic cosine.",
  asin: "The angle of a sine.",
  asinh: "The inverse of a hyperbolic sine.",
  atan: "The angle of a tangent.",
  atan2: "The angle of a point.",
  atanh: "The inverse of a hyperbolic tangent.",
  cbrt: "The cube root.",
  cos: "The cosine.",
  cosh: "The hyperbolic cosine.",
  cot: "The cotangent.",
  degrees: "An angle in degrees.",
  exp: "A power of e.",
  exp10: "A power of 10.",
  ln: "The natural logarithm.",
  log: "The logarithm to a base.",
  log10: "The logarithm to base 10.",
  log2: "The logarithm to base 2.",
  power: "A power.",
  radians: "An angle in radians.",
  sin: "The sine.",
  sinh: "The hyperbolic sine.",
  sqrt: "The square root.",
  tan: "The tangent.",
  tanh: "The hyperbolic tangent.",
};

/** What functions of two numbers take. */
const pairs: Readonly<Record<string, string | undefined>> = {
  atan2: "y T > x, x T > y",
  log: "base T > y, number T > x",
  power: "base T > x, exponent T > y",
};

/** Rows of functions of one number, or of two. */
export const mathRows = ({ names, type, answers, ...row }: MathRows): FunctionRow[] =>
  names.split(" ").map((written): FunctionRow => {
    const [name, means = name] = written.split("=");
    return {
      ...row,
      name,
      family: "convert",
      summary: summaries[means],
      parameters: params((pairs[means] ?? "number T > x").replaceAll("T", type)),
      operation: "math",
      answers: { ofDecimals: "a double", ...answers },
      fixed: { name: means },
    };
  });

/** The row of the number π: the angle whose cosine is -1. */
export const piRow = (name: string, { answers, ...row }: Omit<MathRows, "names" | "type">): FunctionRow => ({
  ...row,
  name,
  family: "convert",
  summary: "The number π.",
  parameters: [],
  operation: "math",
  answers: { ofDecimals: "a double", ...answers },
  fixed: { name: "acos", x: -1 },
});
