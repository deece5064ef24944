import { Decimal, Double, Failure, type Value, nearest } from "../values/index.ts";
import { any, givenBy, operation, optional, settled } from "./operation.ts";

type OfNumbers = (x: number, y: number) => number;

const byHost: Readonly<Record<string, OfNumbers>> = {
  acos: Math.acos,
  acosh: Math.acosh,
  asin: Math.asin,
  asinh: Math.asinh,
  atan: Math.atan,
  atan2: Math.atan2,
  atanh: Math.atanh,
  cbrt: Math.cbrt,
  cos: Math.cos,
  cosh: Math.cosh,
  cot: (x) => 1 / Math.tan(x),
  degrees: (x) => x * (180 / Math.PI),
  exp: nearest.exp,
  exp10: (x) => nearest.pow(10, x),
  ln: nearest.ln,
  log10: Math.log10,
  log2: Math.log2,
  radians: (x) => x * (Math.PI / 180),
  sin: Math.sin,
  sinh: Math.sinh,
  sqrt: Math.sqrt,
  tan: Math.tan,
  tanh: Math.tanh,
};

const { sin, cos, tan, asin, acos, atan, atan2, log10, log2 } = nearest;
const nearestOnes: Readonly<Record<string, OfNumbers>> = {
  ...byHost,
  ...{ sin, cos, tan, asin, acos, atan, atan2, log10, log2 },
  cot: (x) => 1 / tan(x),
};

const logarithms = ["ln", "log10", "log2"];

const doubleOf = (value: Value): number | undefined =>
  value instanceof Double
    ? value.value
    : value instanceof Decimal
      ? value.toNumber()
      : value === null || ["number", "bigint", "boolean"].includes(typeof value)
        ? Number(value)
        : undefined;

/** A mathematical function of one double, or of two; `name` says which. */
export const math = operation({
  id: "math",
  family: "convert",
  summary: "works out a mathematical function",
  slots: [any("x"), optional(any("y")), settled("name", Object.keys(byHost))],
  traits: ["missing", "numbers", "outside", "overflow", "tooSmall", "closeness"],
  prepare({ numbers, outside, overflow, tooSmall, closeness }, { name }) {
    const run = (closeness === "nearest" ? nearestOnes : byHost)[name as string];
    const given = givenBy(numbers);
    const isLogarithm = logarithms.includes(name as string);
    const nowhere = (): Value => {
      if (outside === "null") return null;
      if (outside === "not a number") return given(NaN);
      return new Failure(isLogarithm ? "logarithm-argument" : name === "sqrt" ? "power-argument" : "number-out-of-range");
    };
    return (first: Value, second?: Value): Value => {
      const [x, y] = [doubleOf(first), second === undefined ? 0 : doubleOf(second)];
      if (x === undefined || y === undefined)
        return new Failure("wrong-kind", { expected: "a number", given: "another kind of value" });
      if (Number.isNaN(x) || Number.isNaN(y)) return given(NaN);
      if (isLogarithm && x === 0 && outside !== "not a number") return nowhere();
      const result = run(x, y);
      if (Number.isNaN(result)) return nowhere();
      if (!Number.isFinite(result) && Number.isFinite(x) && overflow === "error") return new Failure("number-out-of-range");
      return result === 0 && name === "exp" && x !== -Infinity && tooSmall === "error"
        ? new Failure("number-out-of-range")
        : given(result);
    };
  },
});
