import { Decimal, Double, Failure, type Value } from "../values/index.ts";
import { type SlotNumber, any, number, operation, optional } from "./operation.ts";

const decimalOf = (value: Value): Decimal | undefined =>
  value instanceof Decimal
    ? value
    : typeof value === "bigint" || (typeof value === "number" && Number.isFinite(value))
      ? Decimal.of(value)
      : value instanceof Double && Number.isFinite(value.value)
        ? Decimal.of(value.value)
        : value === null
          ? Decimal.of(0)
          : undefined;

/** A number as a decimal of `size` digits, `scale` of them after the point, halves away from zero; without `size` of any. */
export const fit = operation({
  id: "fit",
  family: "convert",
  summary: "brings a number to so many digits",
  slots: [any("value"), number("scale"), optional(number("size"))],
  traits: ["missing", "tooLarge"],
  prepare({ tooLarge }) {
    return (value: Value, scale: SlotNumber, size?: SlotNumber): Value => {
      const decimal = decimalOf(value);
      const places = Number(scale);
      if (!decimal || !Number.isInteger(places) || Math.abs(places) > 1000) return value;
      const rounded = decimal.rounded(places);
      if (size === undefined || !(Number(size) >= 0 && Number(size) <= 1000)) return rounded;
      const limit = 10n ** BigInt(Math.trunc(Number(size)));
      const { coefficient } = rounded;
      if (coefficient < limit && coefficient > -limit) return rounded;
      if (tooLarge === "error") return new Failure("number-out-of-range");
      return new Decimal(coefficient > 0n ? limit - 1n : 1n - limit, Math.max(0, places));
    };
  },
});
