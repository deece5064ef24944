import { Failure, type Value, bad, integer } from "../values/index.ts";
import { type SlotNumber, nullable, number, operation, optional, text, textLimit, tooLong } from "./operation.ts";

const wrongBase = bad("the base must lie between 2 and 36");

/** How many bits there are: 1 to 256. */
const widthOf = (bits: SlotNumber): number => Math.min(256, Math.max(1, Math.trunc(Number(bits)) || 1));

const isBase = (base: number): boolean => base >= 2 && base <= 36;

/** Writes a whole number in a base, with at least so many digits; one below 0 in two's complement where `bits` says in how many. */
export const digitsOf = operation({
  id: "digits-of",
  family: "convert",
  summary: "writes a whole number in a base",
  slots: [number("number"), number("base"), nullable(number("digits")), optional(number("bits"))],
  traits: ["missing", "letterDigits", "digitRoom"],
  prepare({ letterDigits, digitRoom }) {
    return (given: SlotNumber, base: SlotNumber, digits?: SlotNumber, bits?: SlotNumber): Value => {
      const [radix, least] = [Math.trunc(Number(base)), Math.trunc(Number(digits ?? 0))];
      if (!isBase(radix)) return wrongBase;
      if (typeof given === "number" && !Number.isFinite(given)) return new Failure("number-out-of-range");
      const value = BigInt(typeof given === "number" ? Math.trunc(given) : given);
      const half = bits === undefined ? 0n : 1n << BigInt(widthOf(bits) - 1);
      if (value < -half || (half > 0n && value >= half)) return new Failure("number-out-of-range");
      const written = (value < 0n ? value + 2n * half : value).toString(radix);
      const result = letterDigits === "capital" ? written.toUpperCase() : written;
      if (digits === undefined || value < 0n) return result;
      if (least > textLimit) return tooLong(least);
      return result.length > least && digitRoom === "as asked" ? new Failure("number-out-of-range") : result.padStart(least, "0");
    };
  },
});

/** Digits beyond which no double holds a number, whatever the base. */
const mostDigits = 1024;

/** Reads a whole number in a base; with `bits`, one whose first bit is set is below 0. */
export const numberInBase = operation({
  id: "number-in-base",
  family: "convert",
  summary: "reads a whole number in a base",
  slots: [text("text"), number("base"), optional(number("bits"))],
  traits: ["missing", "numbers"],
  prepare({ numbers }) {
    return (given: string, base: SlotNumber, bits?: SlotNumber): Value => {
      const radix = Math.trunc(Number(base));
      if (!isBase(radix)) return wrongBase;
      const digits = given
        .trim()
        .toLowerCase()
        .replace(radix === 16 ? /^0?x/ : /^$/, "");
      if (digits === "" || ![...digits].every((digit) => parseInt(digit, 36) < radix))
        return bad(`"${given}" is no number in base ${radix}`);
      const significant = digits.replace(/^0+(?=.)/, "");
      if (significant.length > mostDigits) return new Failure("number-out-of-range");
      const value = [...significant].reduce((sum, digit) => sum * BigInt(radix) + BigInt(parseInt(digit, 36)), 0n);
      if (bits !== undefined && value >= 1n << BigInt(widthOf(bits))) return new Failure("number-out-of-range");
      const result = bits === undefined ? value : BigInt.asIntN(widthOf(bits), value);
      if (numbers === "exact") return integer(result);
      const double = Number(result);
      return Number.isFinite(double) ? double : new Failure("number-out-of-range");
    };
  },
});
