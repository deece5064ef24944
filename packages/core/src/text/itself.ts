import { Decimal, Double, type Value } from "../values/index.ts";
import { type SlotNumber, any, kept, number, operation } from "./operation.ts";

/** The value as it is: what a plus sign, COLLATE and hints to a planner do to it. */
export const itself = operation({
  id: "itself",
  family: "logic",
  result: "given",
  summary: "gives the value itself",
  slots: [kept(any("value"))],
  traits: [],
  prepare() {
    return (value: Value = null): Value => value;
  },
});

/** Digits after the point beyond which a column of decimals has none. */
const mostDecimals = 100;

/** What a number that is given in a sample becomes as a value of a column; `scale` says how many digits the column has after the point. */
export const column = operation({
  id: "column",
  family: "convert",
  summary: "takes a number from a column",
  slots: [any("value"), number("scale")],
  traits: ["columnNumbers"],
  prepare({ columnNumbers }) {
    return (value: Value, scale: SlotNumber) => {
      if (typeof value !== "number") return value;
      if (columnNumbers === "double" || !Number.isFinite(value)) return new Double(value);
      const exact = Decimal.of(value);
      const digits = Math.max(0, Math.min(Math.trunc(Number(scale)) || 0, mostDecimals));
      return columnNumbers === "as written" ? exact : exact.rounded(digits);
    };
  },
});
