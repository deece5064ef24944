import {
  Decimal,
  Failure,
  type Value,
  bad,
  clockAt,
  dateFromDays,
  daysFromDate,
  integer,
  isDate,
  isoDate,
} from "../../values/index.ts";

const units = ["bytes", "kB", "MB", "GB", "TB", "PB"];

/** pg_size_pretty: a number of bytes in the first unit in which it has at most five digits, halves away from zero (9.27.7). */
export function sizeText(given: number | bigint | Decimal): string {
  const isDecimal = given instanceof Decimal;
  let size = isDecimal ? (given.scale > 0 ? given.coefficient / 10n ** BigInt(given.scale) : given.coefficient) : BigInt(given);
  const isBelow = (limit: bigint) =>
    isDecimal && unit === 0
      ? given.compare(Decimal.of(limit)) < 0 && given.negated().compare(Decimal.of(limit)) < 0
      : size < limit && -size < limit;
  let unit = 0;
  // From the second unit on there is one binary digit more, to round by.
  while (unit < units.length - 1 && !isBelow(unit === 0 ? 10_240n : 20_479n)) size /= unit++ === 0 ? 512n : 1024n;
  if (unit === 0) return `${String(given)} bytes`;
  return `${(size + (size < 0n ? -1n : 1n)) / 2n} ${units[unit]}`;
}

/** pg_size_bytes: a number with a unit as a number of bytes. */
export function sizeOf(text: string): Value {
  const match = /^[ \t\n\v\f\r]*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)[ \t\n\v\f\r]*(.*?)[ \t\n\v\f\r]*$/is.exec(text);
  const unit = match && (match[2] === "" ? 0 : units.findIndex((name) => name.toLowerCase() === match[2].toLowerCase()));
  const size = match && Decimal.parse(match[1].replace(/\.(?=$|e)/i, ""));
  if (unit === null || unit < 0 || !size) return bad(`"${text}" is no size; the units are ${units.join(", ")}`);
  const whole = size.times(Decimal.of(1024n ** BigInt(unit))).rounded(0).coefficient;
  return BigInt.asIntN(64, whole) === whole ? integer(whole) : new Failure("number-out-of-range");
}

/** like_escape: a pattern whose escape character becomes a backslash, which is what LIKE has without ESCAPE. */
export function withBackslash(pattern: string, escape: string): Value {
  const [mark, ...more] = escape;
  if (more.length > 0) return new Failure("escape-length", { escape });
  if (mark === "\\") return pattern;
  if (mark === undefined) return pattern.replaceAll("\\", "\\\\");
  let result = "";
  let isEscaped = false;
  for (const char of pattern) {
    const opens: boolean = char === mark && !isEscaped;
    result += opens ? "\\" : char === "\\" && !isEscaped ? "\\\\" : char;
    isEscaped = opens;
  }
  return result;
}

/** The last year of a timestamp (8.5). */
const lastTimestampYear = 294_276;

/** make_timestamp: 24:00:00 and a second of 60 are the moment after. */
export function timestampOf(
  year: number,
  month: number,
  day: number,
  hour: number,
  minute: number,
  second: { value: number },
): Value {
  if (year < 0) return new Failure("not-covered", { what: "dates before the year 1" });
  const text = `${year}-${month}-${day} ${hour}:${minute}:${second.value}`;
  if (year === 0 || year > lastTimestampYear || !isDate(year, month, day)) return new Failure("not-a-date", { text });
  const micros = Math.round(second.value * 1e6);
  const isTime = hour >= 0 && minute >= 0 && minute < 60 && micros >= 0 && micros <= 60e6;
  if (!isTime || hour > 24 || (hour === 24 && (minute > 0 || micros > 0))) return bad(`there is no time ${text}`);
  const all = (hour * 60 + minute) * 60e6 + micros;
  const date = dateFromDays(daysFromDate(year, month, day) + Math.floor(all / 86_400e6));
  return `${isoDate(date.year, date.month, date.day)} ${clockAt(all % 86_400e6)}`;
}
