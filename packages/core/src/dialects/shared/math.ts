import type { TraitsOf } from "../../text/index.ts";
import type { Answers } from "../../traits/index.ts";
import { type FunctionRow, params } from "../row.ts";

type MathAnswers = Answers<TraitsOf<"math">>;

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
  log10: "The logarithm to base 10.",
  log2: "The logarithm to base 2.",
  radians: "An angle in radians.",
  sin: "The sine.",
  sinh: "The hyperbolic sine.",
  sqrt: "The square root.",
  tan: "The tangent.",
  tanh: "The hyperbolic tangent.",
};

/** Rows of functions of one number, or with `atan2` of two. */
export const mathRows = ({ names, type, answers, ...row }: MathRows): FunctionRow[] =>
  names.split(" ").map((written): FunctionRow => {
    const [name, means = name] = written.split("=");
    return {
      ...row,
      name,
      family: "convert",
      summary: summaries[means],
      parameters: params(means === "atan2" ? `y ${type} > x, x ${type} > y` : `number ${type} > x`),
      operation: "math",
      answers,
      fixed: { name: means },
    };
  });

/** The row of the number π: the angle whose cosine is -1. */
export const piRow = (name: string, row: Omit<MathRows, "names" | "type">): FunctionRow => ({
  ...row,
  name,
  family: "convert",
  summary: "The number π.",
  parameters: [],
  operation: "math",
  fixed: { name: "acos", x: -1 },
});
