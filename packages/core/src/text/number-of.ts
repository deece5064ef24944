import type { AnswerOf, Answers } from "../traits/index.ts";
import {
  Bytes,
  Decimal,
  type Digits,
  Double,
  Failure,
  type Value,
  asciiTrimmed,
  integer,
  roundHalfEven,
  roundedDigits,
  serialOfText,
  shortestDigits,
  textOfBytes,
} from "../values/index.ts";
import { any, operation } from "./operation.ts";

const traits = [
  "missing",
  "numbers",
  "numberKind",
  "range",
  "reads",
  "blanks",
  "notNumber",
  "plusSign",
  "exponent",
  "fractionRead",
  "separators",
  "bases",
  "truthRead",
  "bytesRead",
  "numberWords",
  "otherForms",
  "digitsBeyond",
  "tooLarge",
  "tooSmall",
  "beyondDouble",
  "decimalHalves",
  "doubleHalves",
  "doubleDigits",
] as const;
type Own = Answers<(typeof traits)[number]>;

/** The least and the greatest whole number of a range; undefined where any may be. */
export const rangeOf = (answer: AnswerOf<"range">): readonly [least: bigint, most: bigint] | undefined => {
  if (answer === "any") return undefined;
  const [size, kind] = answer.split(" bits");
  const all = 1n << BigInt(size);
  return kind === "" ? [-all / 2n, all / 2n - 1n] : [0n, all - 1n];
};

/** A whole number within a range, by what becomes of others. */
function fitted(answer: AnswerOf<"range">, rule: AnswerOf<"digitsBeyond"> | AnswerOf<"tooLarge">): (value: bigint) => Value {
  const range = rangeOf(answer);
  if (!range) return integer;
  const [least, most] = range;
  const size = (most - least).toString(2).length;
  return (value) => {
    if (value >= least && value <= most) return integer(value);
    if (rule === "error" || rule === "infinity") return new Failure("number-out-of-range");
    if (rule === "double") return new Double(Number(value));
    const isSigned = least < 0n;
    if (rule === "lowest bits") return integer(isSigned ? BigInt.asIntN(size, value) : BigInt.asUintN(size, value));
    if (rule === "bits, or all of them" || rule === "nearest, by its bits") {
      const [lowest, highest] = [-(1n << BigInt(size - 1)), (1n << BigInt(size)) - 1n];
      const inBits =
        value > highest || (value < -highest && rule !== "nearest, by its bits") ? highest : value < lowest ? lowest : value;
      return integer(isSigned ? BigInt.asIntN(size, inBits) : BigInt.asUintN(size, inBits));
    }
    if (rule === "nearest" || value < least) return integer(value < least ? least : most);
    // What only a number without a sign has room for becomes a negative one.
    const all = (1n << BigInt(size)) - 1n;
    return integer(BigInt.asIntN(size, value > all ? all : value));
  };
}

const blank: Readonly<Record<AnswerOf<"blanks">, string>> = { ascii: "[ \\t\\n\\v\\f\\r]*", unicode: "\\s*", none: "" };
const trimmedBy: Readonly<Record<AnswerOf<"blanks">, (text: string) => string>> = {
  ascii: asciiTrimmed,
  unicode: (text) => text.trim(),
  none: (text) => text,
};
const digit: Readonly<Record<AnswerOf<"separators">, string>> = {
  none: "\\d+",
  underscores: "\\d+(?:_\\d+)*",
  commas: "(?:\\d{1,3}(?:,\\d{3})+|\\d+)",
};
/** A sign, and digits in another base. */
const ofBase: Readonly<Record<AnswerOf<"bases">, string>> = {
  ten: "",
  sixteen: "([+-]?)(0x[0-9a-f]+)",
  "two and sixteen": "()(0x[0-9a-f]+(?:_[0-9a-f]+)*|0b[01]+(?:_[01]+)*)",
  "two, eight and sixteen": "([+-]?)(0x(?:_?[0-9a-f])+|0o(?:_?[0-7])+|0b(?:_?[01])+)",
};

const words: Readonly<Record<AnswerOf<"numberWords">, RegExp | undefined>> = {
  read: /^([+-]?)(?:(inf(?:inity)?)|nan)$/i,
  "INF and NaN": /^(?:([+-]?)(INF)|NaN)$/,
  refused: undefined,
};

/** What stands in a text for a number: its digits in plain form, or the number itself. */
type Read = (text: string) => string | bigint | Value | undefined;

function reader({ numberKind, reads, blanks, plusSign, exponent, fractionRead, separators, bases, ...own }: Own): Read {
  if (reads === "nothing") return () => undefined;
  const sign = plusSign === "read" ? "[+-]?" : "-?";
  const count = digit[separators];
  const isWhole = numberKind === "integer" && fractionRead !== "rounded";
  const fraction = separators === "underscores" ? count : "\\d+";
  const power = exponent === "read" && !isWhole ? `(?:e[+-]?${fraction})?` : "";
  const number = isWhole ? count : `(?:${count}(?:\\.(?:${fraction})?)?|\\.${fraction})${power}`;
  const found = new RegExp(`^${blank[blanks]}(${sign}${number})${reads === "all of it" ? `${blank[blanks]}$` : ""}`, "i");
  const after = bases === "two and sixteen" ? "" : blank[blanks];
  const based = bases === "ten" ? undefined : new RegExp(`^${blank[blanks]}${ofBase[bases]}${after}$`, "i");
  const trimmed = trimmedBy[blanks];
  const mark = { none: "", underscores: "_", commas: "," }[separators];
  return (text) => {
    const [, digits] = found.exec(text) ?? [];
    if (digits !== undefined) return mark !== "" && digits.includes(mark) ? digits.replaceAll(mark, "") : digits;
    const [, minus, other] = based?.exec(text) ?? [];
    if (other !== undefined) return BigInt(other.replaceAll("_", "").toLowerCase()) * (minus === "-" ? -1n : 1n);
    const inner = trimmed(text);
    const named = words[own.numberWords]?.exec(inner);
    if (named) {
      const [, before, infinity] = named;
      return new Double(infinity ? (before === "-" ? -Infinity : Infinity) : NaN);
    }
    return own.otherForms === "none" ? undefined : otherForm(inner);
  };
}

/** A percentage, a whole number with a fraction, or a date as a serial number. */
function otherForm(text: string): Value | undefined {
  const percent = text.endsWith("%") ? text.slice(0, -1).trimEnd() : "";
  if (/^[+-]?(?:(?:\d{1,3}(?:,\d{3})+|\d+)(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?$/.test(percent))
    return Number(percent.replaceAll(",", "")) / 100;
  const mixed = /^([+-]?)(\d+) (\d+)\/(\d+)$/.exec(text);
  if (mixed && Number(mixed[4]) !== 0)
    return (mixed[1] === "-" ? -1 : 1) * (Number(mixed[2]) + Number(mixed[3]) / Number(mixed[4]));
  return serialOfText(text);
}

const wholeBy: Readonly<Record<AnswerOf<"doubleHalves">, (value: number) => number>> = {
  "cut off": Math.trunc,
  "to even": roundHalfEven,
  "away from zero": (value) => Math.sign(value) * Math.floor(Math.abs(value) + 0.5),
};

const decimalOf = ({ digits, exponent }: Digits, sign: number): Decimal =>
  Decimal.parse(`${sign < 0 ? "-" : ""}${digits[0]}.${digits.slice(1)}e${exponent}`)!;

/** A text as the number that it is or begins with; a number as one of the kind that is wanted. */
export const numberOf = operation({
  id: "number-of",
  family: "convert",
  summary: "reads a value as a number",
  slots: [any("value")],
  traits,
  prepare(own) {
    const { numbers, numberKind, range, notNumber, tooSmall, beyondDouble, decimalHalves, doubleHalves, doubleDigits } = own;
    const read = reader(own);
    const ofDigits = fitted(range, own.digitsBeyond);
    const ofNumber = fitted(range, own.tooLarge);
    const outside = () => new Failure("number-out-of-range");
    const isOpen = numberKind.startsWith("as written") || numberKind === "integer if whole";
    const is32Bits = numberKind === "double of 32 bits";
    const double = (value: number): Value => {
      const kept = is32Bits ? Math.fround(value) : value;
      return numbers === "double" ? kept : new Double(kept);
    };

    const bad = (value: Value): Value =>
      notNumber === "error"
        ? new Failure("not-a-number", { text: String(value) })
        : notNumber === "unchanged"
          ? value
          : notNumber === "null"
            ? null
            : notNumber === "not a number"
              ? new Double(NaN)
              : toKind(0, "0");

    /** A double by the rules for what is beyond its range; `isNothing` says whether a 0 is what `given` says. */
    function doubleBy(value: number, given: Value, isNothing: () => boolean): Value {
      if (Number.isFinite(value) && (value !== 0 || tooSmall === "zero" || isNothing())) return double(value);
      if (Number.isFinite(value) || beyondDouble === "error") return outside();
      if (beyondDouble === "no number") return bad(given);
      return double(beyondDouble === "largest" ? Math.sign(value) * Number.MAX_VALUE : value);
    }

    function wholeOf(value: number): Value {
      if (!Number.isFinite(value)) {
        if (own.tooLarge !== "nearest" || range === "any") return outside();
        return Number.isNaN(value) ? 0 : ofNumber(value > 0 ? 1n << 200n : -(1n << 200n));
      }
      return ofNumber(BigInt(wholeBy[doubleHalves](value)));
    }

    function decimalFrom(value: number): Value {
      if (!Number.isFinite(value))
        return own.numberWords === "read" ? new Failure("not-covered", { what: "numeric NaN and infinity" }) : outside();
      if (value === 0) return Decimal.of(0);
      return decimalOf(doubleDigits === "fifteen" ? roundedDigits(value, 15) : shortestDigits(value), value);
    }

    /** Plain digits, with a sign, a point and a power of ten perhaps, as a number of the kind. */
    function toKind(given: Value, digits: string): Value {
      if (numberKind === "decimal") return Decimal.parse(digits) ?? bad(given);
      if (numberKind === "double" || is32Bits)
        return doubleBy(Number(digits), given, () => !/[1-9]/.test(digits.replace(/e.*/i, "")));
      if (/^[+-]?\d+$/.test(digits)) {
        const found = ofDigits(BigInt(digits));
        if (!(found instanceof Double && numberKind === "as written, to the point")) return found;
      }
      if (numberKind === "integer") {
        const value = Decimal.parse(digits);
        return value ? ofDigits(value.rounded(0).coefficient) : bad(given);
      }
      if (numberKind === "as written, to the point") {
        const whole = BigInt(/^[+-]?\d+/.exec(digits)?.[0] ?? 0);
        return double(Number(BigInt.asIntN(64, whole) === whole ? whole : whole < 0n ? -(2n ** 63n) : 2n ** 63n));
      }
      const value = Number(digits);
      // As many bits as a floating-point number has, less a few.
      const isWhole = numberKind === "integer if whole" && Number.isInteger(value) && Math.abs(value) < 2 ** 51;
      return isWhole ? value : doubleBy(value, given, () => true);
    }

    function fromText(text: string): Value {
      const found = read(text);
      if (found === undefined) return bad(text);
      if (typeof found === "string") return toKind(text, found);
      if (typeof found === "bigint") return toKind(text, String(found));
      if (numberKind === "decimal") return new Failure("not-covered", { what: "numeric NaN and infinity" });
      if (typeof found === "number") return Number.isFinite(found) ? double(found) : bad(text);
      return numberKind === "integer" ? bad(text) : found;
    }

    function fromBytes(given: Bytes): Value {
      if (own.bytesRead === "as text") return fromText(textOfBytes(given.bytes));
      if (own.bytesRead === "as digits")
        return exact(integer(given.bytes.slice(-8).reduce((sum, byte) => (sum << 8n) | BigInt(byte), 0n)));
      return own.bytesRead === "kept" ? given : bad(given);
    }

    const exact = (value: number | bigint): Value =>
      numberKind === "decimal"
        ? typeof value === "bigint" || Number.isInteger(value)
          ? Decimal.of(value)
          : decimalFrom(value)
        : numberKind === "integer"
          ? typeof value === "bigint" || Number.isInteger(value)
            ? ofNumber(BigInt(value))
            : wholeOf(value)
          : isOpen
            ? value
            : double(Number(value));

    return (value: Value): Value => {
      switch (typeof value) {
        case "string":
          return fromText(value);
        case "number":
          return numbers === "double" ? value : exact(value);
        case "bigint":
          return numbers === "double" ? Number(value) : exact(value);
        case "boolean":
          return own.truthRead === "refused" ? new Failure("not-a-number", { text: String(value) }) : exact(Number(value));
      }
      if (value === null) return notNumber === "not a number" ? bad(value) : toKind(0, "0");
      if (value instanceof Bytes) return fromBytes(value);
      if (value instanceof Decimal) {
        if (numberKind === "integer")
          return ofNumber(decimalHalves === "cut off" ? value.quotient(Decimal.of(1)) : value.rounded(0).coefficient);
        return numberKind === "decimal" || (isOpen && numbers === "exact")
          ? value
          : doubleBy(value.toNumber(), value, () => value.isZero);
      }
      if (value instanceof Double) {
        if (numberKind === "integer") return wholeOf(value.value);
        if (numberKind === "decimal") return decimalFrom(value.value);
        if (is32Bits && Number.isFinite(value.value) && !Number.isFinite(Math.fround(value.value)) && own.tooLarge === "error")
          return outside();
        return is32Bits || numbers === "double" ? double(value.value) : value;
      }
      return bad(value);
    };
  },
});
