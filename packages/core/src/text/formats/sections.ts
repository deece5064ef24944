import { Decimal, Failure, type Value, bad, dateFromDays, dayNames, monthNames, serialEpoch } from "../../values/index.ts";

import { doubleTextBy } from "../text-of.ts";

/** A plain decimal text with a comma between groups of three digits. */
function grouped(text: string): string {
  const [whole, fraction] = text.split(".");
  return whole.replace(/\B(?=(?:\d{3})+$)/g, ",") + (fraction === undefined ? "" : `.${fraction}`);
}

/** How a number is written in the format General, which is as it is written without one. */
export const generalDigits = {
  digits: "fifteen",
  powerFrom: "1e21",
  powerBelow: "1e-10",
  power: "1E+20",
  wholeDouble: "bare",
  negativeZero: "dropped",
  beyondNumbers: "NaN and INF",
} as const;
const general = doubleTextBy(generalDigits);

/** Writes a number in a format such as `0.00`, `#,##0`, `0%` or `YYYY-MM-DD`; sections are separated by `;`. */
export function writeSections(value: number, format: string): Value {
  if (!Number.isFinite(value)) return new Failure("number-out-of-range");
  const sections = format.split(/;(?=(?:[^"]*"[^"]*")*[^"]*$)/);
  const chosen =
    value < 0 && sections[1] !== undefined ? sections[1] : value === 0 && sections[2] !== undefined ? sections[2] : sections[0];
  const amount = value < 0 && sections[1] !== undefined ? -value : value;
  if (/^general$/i.test(chosen)) return general(amount);
  const bare = chosen.replace(/"[^"]*"|\\./g, "");
  if (/[ymdhs]/i.test(bare))
    return /\[|s[.,]0/i.test(bare)
      ? new Failure("not-covered", { what: `hours and minutes beyond a day, and parts of a second, as in "${format}"` })
      : Math.abs(amount) > lastSerial
        ? new Failure("number-out-of-range")
        : formatDate(amount, chosen);
  if (/[0#?]/.test(bare)) return formatDigits(amount, chosen);
  return /^[^a-z]*$/i.test(bare)
    ? chosen.replace(/"|\\/g, "")
    : new Failure("not-covered", { what: `the number format "${format}"` });
}

function formatDigits(value: number, format: string): Value {
  const match = /^((?:"[^"]*"|\\.|[^0#?.,"\\])*)([0#?,]*)(?:\.([0#?]*))?([eE][+-]?0+)?((?:"[^"]*"|\\.|[^0#?"\\])*)$/.exec(format);
  if (!match) return new Failure("not-covered", { what: `the number format "${format}"` });
  const [, before, whole, fraction = "", exponent, after] = match;
  const literal = (part: string) => part.replace(/"([^"]*)"/g, "$1").replace(/\\(.)/g, "$1");
  const percents = (format.match(/%/g) ?? []).length;
  const amount = Math.abs(value) * 100 ** percents;
  if (!Number.isFinite(amount)) return new Failure("number-out-of-range");
  const least = (whole.match(/0/g) ?? []).length;
  if (exponent) {
    const [mantissa, power] = amount.toExponential(fraction.length).split("e");
    const size = String(Math.abs(Number(power))).padStart(exponent.length - 2, "0");
    return `${value < 0 ? "-" : ""}${literal(before)}${mantissa}E${Number(power) < 0 ? "-" : "+"}${size}${literal(after)}`;
  }
  let [digits, decimals = ""] = roundedText(amount, fraction.length).split(".");
  while (decimals.length > 0 && fraction[decimals.length - 1] === "#" && decimals.endsWith("0")) decimals = decimals.slice(0, -1);
  digits = digits.replace(/^0+/, "").padStart(least, "0");
  if (whole.includes(",")) digits = grouped(digits);
  const point = format.includes(".") && (decimals || /\.[0#?]*$|\./.test(format)) ? `.${decimals}` : "";
  const sign = value < 0 && /[1-9]/.test(digits + decimals) ? "-" : "";
  return sign + literal(before) + digits + (fraction === "" ? "" : point) + literal(after);
}

/** Rounds half away from zero on the shortest decimal text, not on the binary value; all digits, without an exponent. */
const roundedText = (value: number, places: number): string => String(Decimal.parse(String(value))!.rounded(places));

/** A number with so many decimals, rounded before the point where below 0, and commas between thousands. */
export function writeFixed(value: number, places: number, isGrouped: boolean, mark: string): Value {
  if (!Number.isFinite(value)) return new Failure("number-out-of-range");
  if (Math.abs(places) > 100) return bad("there are too many decimals");
  const text = roundedText(Math.abs(value), places);
  return (value < 0 && Number(text) !== 0 ? "-" : "") + mark + (isGrouped ? grouped(text) : text);
}

/** Days from the start of dates beyond which no year is written. */
const lastSerial = 1e8;

function formatDate(serial: number, format: string): string {
  const { year, month, day, weekday } = dateFromDays(Math.floor(serial) - serialEpoch);
  const seconds = Math.round((serial - Math.floor(serial)) * 86400);
  const hours = Math.floor(seconds / 3600) % 24;
  const half = /am\/pm/i.test(format);
  const two = (n: number) => String(n).padStart(2, "0");
  let afterHours = false;
  return format.replace(/"([^"]*)"|\\(.)|am\/pm|y+|m+|d+|h+|s+/gi, (part, quoted: string, escaped: string, at: number) => {
    if (quoted !== undefined || escaped !== undefined) return quoted ?? escaped;
    const letter = part[0].toLowerCase();
    const isBeforeSeconds = /^m+[^a-z]*s/i.test(format.slice(at));
    const isMinute = letter === "m" && (afterHours || isBeforeSeconds) && part.length <= 2;
    if (letter !== "m") afterHours = letter === "h";
    if (letter === "a") return hours < 12 ? "AM" : "PM";
    if (letter === "y") return part.length <= 2 ? two(year % 100) : String(year);
    if (letter === "h") return sized(half ? hours % 12 || 12 : hours);
    if (letter === "s") return sized(seconds % 60);
    if (isMinute) return sized(Math.floor(seconds / 60) % 60);
    const [value, names] = letter === "m" ? [month, monthNames] : [day, dayNames];
    if (part.length <= 2) return sized(value);
    const name = names[letter === "m" ? month - 1 : weekday];
    return part.length === 3 ? name.slice(0, 3) : part.length === 5 && letter === "m" ? name[0] : name;

    function sized(n: number): string {
      return part.length === 1 ? String(n) : two(n);
    }
  });
}
