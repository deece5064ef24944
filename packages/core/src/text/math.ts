import { Decimal, Double, Failure, type Value, nearest } from "../values/index.ts";
import { decimalMath } from "./decimal-math.ts";
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
  log: (x, y) => nearest.ln(x) / nearest.ln(y),
  log2: Math.log2,
  power: nearest.pow,
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

const logarithms = ["ln", "log", "log10", "log2"];
const roots = ["sqrt", "power"];

const doubleOf = (value: Value): number | undefined =>
  value instanceof Double
    ? value.value
    : value instanceof Decimal
      ? value.toNumber()
      : value === null || ["number", "bigint", "boolean"].includes(typeof value)
        ? Number(value)
        : undefined;

/** A mathematical function of one number, or of two; `name` says which: `log` is one of `x` to the base `y`. */
export const math = operation({
  id: "math",
  family: "convert",
  summary: "works out a mathematical function",
  slots: [any("x"), optional(any("y")), settled("name", Object.keys(byHost))],
  traits: ["missing", "numbers", "ofDecimals", "outside", "overflow", "tooSmall", "closeness"],
  prepare({ numbers, ofDecimals, outside, overflow, tooSmall, closeness }, { name }) {
    const run = (closeness === "nearest" ? nearestOnes : byHost)[name as string];
    const ofExact = ofDecimals === "a double" ? undefined : decimalMath(name as string, ofDecimals);
    const given = givenBy(numbers);
    const isLogarithm = logarithms.includes(name as string);
    const nowhere = (): Value => {
      if (outside === "null") return null;
      if (outside === "not a number") return given(NaN);
      return new Failure(
        isLogarithm ? "logarithm-argument" : roots.includes(name as string) ? "power-argument" : "number-out-of-range",
      );
    };
    return (first: Value, second?: Value): Value => {
      if (ofExact && first instanceof Decimal && (second === undefined || second instanceof Decimal))
        return ofExact(first, second);
      const [x, y] = [doubleOf(first), second === undefined ? 0 : doubleOf(second)];
      if (x === undefined || y === undefined)
        return new Failure("wrong-kind", { expected: "a number", given: "another kind of value" });
      if (Number.isNaN(x) || Number.isNaN(y)) return given(NaN);
      if (isLogarithm && (x === 0 || (name === "log" && (y <= 0 || y === 1))) && outside !== "not a number") return nowhere();
      const result = run(x, y);
      if (Number.isNaN(result)) return nowhere();
      if (!Number.isFinite(result) && Number.isFinite(x) && overflow === "error") return new Failure("number-out-of-range");
      return result === 0 && name === "exp" && x !== -Infinity && tooSmall === "error"
        ? new Failure("number-out-of-range")
        : given(result);
    };
  },
});
