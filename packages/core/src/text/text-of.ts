import type { AnswerOf, Answers } from "../traits/index.ts";
import {
  Bytes,
  Decimal,
  type Digits,
  Double,
  Failure,
  FixedDouble,
  Moment,
  type Value,
  hexOf,
  Interval,
  isList,
  latinOfBytes,
  plainDigits,
  roundedDigits,
  seventeenDigits,
  shortestDigits,
  shortestOf32Bits,
  textOfBytes,
} from "../values/index.ts";
import { any, operation } from "./operation.ts";

/** What is asked about floating-point numbers. */
const ofDoubles = ["digits", "powerFrom", "powerBelow", "power", "wholeDouble", "negativeZero", "beyondNumbers"] as const;
type DoubleAnswers = Answers<(typeof ofDoubles)[number]>;

const digitsBy: Readonly<Record<AnswerOf<"digits">, (value: number) => Digits>> = {
  shortest: shortestDigits,
  "shortest of 32 bits": shortestOf32Bits,
  fifteen: (value) => roundedDigits(value, 15),
  seventeen: seventeenDigits,
};

/** NaN and infinity. */
const wordsBeyond: Readonly<Record<AnswerOf<"beyondNumbers">, readonly [string, string]>> = {
  "NaN and Infinity": ["NaN", "Infinity"],
  "nan and inf": ["nan", "inf"],
  "NaN and INF": ["NaN", "INF"],
  "NaN and Inf": ["NaN", "Inf"],
};

/** The power of ten at which another notation begins. */
const exponentOf = (answer: string): number => (answer === "always" ? -Infinity : Number(answer.slice(2)));

function withPower({ digits, exponent }: Digits, form: AnswerOf<"power">): string {
  const fraction = digits.slice(1) || (form.startsWith("1.0") ? "0" : "");
  const size = String(Math.abs(exponent));
  const sign = exponent < 0 ? "-" : form.includes("+") ? "+" : "";
  return `${digits[0]}${fraction && `.${fraction}`}${/e/i.exec(form)![0]}${sign}${form.includes("+") ? size.padStart(2, "0") : size}`;
}

/** How a floating-point number is written. */
export function doubleTextBy({ digits, powerFrom, powerBelow, power, wholeDouble, ...answers }: DoubleAnswers) {
  const digitsOf = digitsBy[digits];
  const [from, below] = [powerFrom, powerBelow].map(exponentOf);
  const [nan, infinity] = wordsBeyond[answers.beyondNumbers];
  const point = wholeDouble === "with .0" ? ".0" : "";
  const keepsSign = answers.negativeZero === "kept";
  return (value: number): string => {
    if (Number.isNaN(value)) return nan;
    const sign = value < 0 || (keepsSign && Object.is(value, -0)) ? "-" : "";
    if (!Number.isFinite(value)) return sign + infinity;
    const found = value === 0 ? { digits: "0", exponent: 0 } : digitsOf(value);
    if (found.exponent >= from || found.exponent < below) return sign + withPower(found, power);
    const plain = plainDigits(found);
    return sign + (plain.includes(".") ? plain : plain + point);
  };
}

/** A number that is shown with so many decimals. */
function fixedText({ value, decimals }: FixedDouble): string {
  // The digits are the shortest that mean the number, and those that are left out round it as it is: a half to the even one.
  const written = Decimal.parse(String(value))!;
  if (written.scale <= decimals) return written.rounded(decimals).toString();
  const exact = value.toFixed(Math.min(100, decimals + 40));
  const at = exact.length - Math.min(100 - decimals, 40);
  const isHalf = /^50*$/.test(exact.slice(at)) && /[02468]\.?$/.test(exact.slice(0, at));
  return isHalf ? exact.slice(0, at).replace(/\.$/, "") : value.toFixed(decimals);
}

/** Bytes as text: printable ASCII for itself, the others as \xNN. */
export const escapedBytes = ({ bytes }: Bytes): string =>
  [...bytes]
    .map((byte) =>
      byte >= 32 && byte < 127 && ![34, 39, 92].includes(byte)
        ? String.fromCharCode(byte)
        : `\\x${byte.toString(16).toUpperCase().padStart(2, "0")}`,
    )
    .join("");

const bytesBy: Readonly<Record<AnswerOf<"bytesText">, (value: Bytes) => Value>> = {
  kept: (value) => value,
  "utf-8": ({ bytes }) => textOfBytes(bytes),
  "base 16": ({ bytes }) => `\\x${hexOf(bytes).toLowerCase()}`,
  escaped: escapedBytes,
  "a character each": ({ bytes }) => latinOfBytes(bytes),
};

const truths: Readonly<Record<AnswerOf<"truthText">, readonly [string, string]>> = {
  true: ["false", "true"],
  TRUE: ["FALSE", "TRUE"],
  t: ["f", "t"],
  "1": ["0", "1"],
};

/** What in an item would be taken for a part of the list. */
const inBrackets = /[,[\]{}()'":=]|^[ \t\n\v\f\r]|[ \t\n\v\f\r]$|^null$|^$/i;
const inBraces = /[{}",\\ \t\n\v\f\r]|^null$|^$/i;

type Writer = (value: Value) => Value;

const listsBy: Readonly<Record<AnswerOf<"listText">, (write: Writer) => (items: readonly Value[]) => Value>> = {
  "item by item": (write) => (items) => items.map((item) => (item === null ? null : write(item))),
  "[a, b]": (write) => (items) => {
    const shown = items.map((item) => {
      if (item === null) return "NULL";
      const text = write(item) as string;
      return typeof item === "string" && inBrackets.test(text) ? `'${text.replace(/['\\]/g, "\\$&")}'` : text;
    });
    return `[${shown.join(", ")}]`;
  },
  "{a,b}": (write) => (items) => {
    const shown = items.map((item) => {
      if (item === null) return "NULL";
      const text = typeof item === "boolean" ? truths.t[Number(item)] : (write(item) as string);
      return !Array.isArray(item) && inBraces.test(text) ? `"${text.replace(/["\\]/g, "\\$&")}"` : text;
    });
    return `{${shown.join(",")}}`;
  },
};

/** A value of any kind as a text; a text stays as it is. */
export const textOf = operation({
  id: "text-of",
  family: "convert",
  summary: "writes a value as a text",
  slots: [any("value")],
  traits: ["missing", "numbers", ...ofDoubles, "decimalZeros", "truthText", "bytesText", "listText", "intervalText"],
  prepare({ numbers, decimalZeros, truthText, bytesText, listText, intervalText, ...ofDouble }) {
    const doubleText = doubleTextBy(ofDouble);
    const isExact = numbers === "exact";
    const write: Writer = (value) => {
      switch (typeof value) {
        case "string":
          return value;
        case "boolean":
          return truths[truthText][Number(value)];
        case "bigint":
          return isExact ? String(value) : doubleText(Number(value));
        case "number":
          return isExact && Number.isInteger(value) ? String(value) : doubleText(value);
      }
      if (value === null) return "";
      if (value instanceof FixedDouble) return fixedText(value);
      if (value instanceof Double) return doubleText(value.value);
      if (value instanceof Decimal)
        return isExact ? (decimalZeros === "kept" ? value : value.trimmed()).toString() : doubleText(value.toNumber());
      if (value instanceof Bytes) return bytesBy[bytesText](value);
      if (value instanceof Interval)
        return intervalText === "there is none"
          ? new Failure("wrong-kind", { expected: "a text", given: "a stretch of time" })
          : value.in(intervalText);
      if (value instanceof Moment) return value.text;
      if (value instanceof Failure) return value;
      if (isList(value)) return listsBy[listText](write)(value);
      return new Failure("wrong-kind", { expected: "a text", given: "another kind of value" });
    };
    return write;
  },
});
