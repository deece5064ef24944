import { Decimal, Double, Failure, FixedDouble, type Value, countBytes, roundHalfEven } from "../values/index.ts";
import { type SlotNumber, any, beyondLimit, kept, number, operation, optional } from "./operation.ts";

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
  traits: ["missing", "tooLarge", "digitsLeft"],
  prepare({ tooLarge, digitsLeft }) {
    return (value: Value, scale: SlotNumber, size?: SlotNumber): Value => {
      const decimal = decimalOf(value);
      const places = Number(scale);
      if (digitsLeft === "not shown" && !(value instanceof Decimal)) return value;
      if (!decimal || !Number.isInteger(places) || Math.abs(places) > 1000) return value;
      const rounded = digitsLeft === "kept" && decimal.scale > places ? decimal : decimal.rounded(places);
      if (size === undefined || !(Number(size) >= 0 && Number(size) <= 1000)) return rounded;
      const limit = 10n ** BigInt(Math.trunc(Number(size)));
      const { coefficient } = rounded;
      if (coefficient < limit && coefficient > -limit) return rounded;
      if (tooLarge === "error") return new Failure("number-out-of-range");
      return new Decimal(coefficient > 0n ? limit - 1n : 1n - limit, Math.max(0, places));
    };
  },
});

/** A floating-point number with so many decimals: of what is too large for `size` digits becomes the largest. */
function fittedDouble(value: number, scale: number, size: number): number {
  const power = 10 ** scale;
  const most = (10 ** size - 1) / power;
  // What stands behind the point is rounded by itself, as MariaDB does.
  const whole = Math.floor(value);
  const rounded = Number.isFinite(value) ? whole + roundHalfEven((value - whole) * power) / power : value;
  return Math.max(-most, Math.min(most, rounded));
}

/**
 * A floating-point number that is shown with `scale` decimals, or with as many as it has; rounded where `size` says how many
 * digits there are, or to `significant` ones.
 */
export const fitDouble = operation({
  id: "fit-double",
  family: "convert",
  summary: "shows a floating-point number with so many decimals",
  slots: [kept(any("value")), optional(number("scale")), optional(number("size")), optional(number("significant"))],
  traits: [],
  prepare() {
    return (value: Value = null, scale?: SlotNumber, size?: SlotNumber, significant?: SlotNumber): Value => {
      if (!(value instanceof Double)) return value;
      const most = Number(significant);
      if (most >= 1 && most <= 100) return new Double(Number(value.value.toPrecision(most)));
      const places = Number(scale);
      if (scale === undefined || !(places >= 0 && places <= 100)) return new Double(value.value);
      const digits = Number(size);
      return new FixedDouble(digits >= 0 && digits <= 308 ? fittedDouble(value.value, places, digits) : value.value, places);
    };
  },
});

/** A text that is not too long. */
export const fitText = operation({
  id: "fit-text",
  family: "convert",
  result: "given",
  summary: "takes a text that is not too long",
  slots: [kept(any("value"))],
  traits: ["tooLong"],
  prepare({ tooLong }) {
    return (value: Value = null): Value => {
      // A UTF-16 unit has three bytes at most.
      if (typeof value !== "string" || value.length * 3 <= 1 << 24) return value;
      const beyond = beyondLimit(tooLong, value.length, () => countBytes(value));
      return beyond === undefined ? value : beyond;
    };
  },
});
