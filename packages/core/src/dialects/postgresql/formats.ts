import {
  Decimal,
  Failure,
  type Value,
  dateFromDays,
  dayNames,
  daysFromDate,
  isDate,
  isoDate,
  isoWeekOf,
  monthNames,
} from "../../values/index.ts";

/** The Julian day of 1970-01-01. */
const julianEpoch = 2_440_588;

const notCovered = (format: string) => new Failure("not-covered", { what: `the format "${format}"` });

/** A name in the case of its pattern: MONTH, Month or month. */
const inCaseOf = (pattern: string, name: string): string =>
  pattern[0] !== pattern[0].toUpperCase()
    ? name.toLowerCase()
    : pattern[1] === pattern[1].toUpperCase()
      ? name.toUpperCase()
      : name;

const ordinal = (value: number): string => {
  const last = value % 100;
  return last > 10 && last < 14 ? "th" : (["th", "st", "nd", "rd"][value % 10] ?? "th");
};

/** Patterns in capitals; each may be written in small letters too, but not in both (table 9.27). */
const dateKeywords =
  "Y,YYY YYYY YYY YY Y IYYY IYY IY IDDD ID IW I MONTH MON MM DDD DD DAY DY D HH24 HH12 HH MI SSSSS SSSS SS MS US FF1 FF2 FF3 FF4 FF5 FF6 A.M. P.M. AM PM A.D. B.C. BC AD WW W Q CC J RM TZH TZM TZ OF TM".split(
    " ",
  );
const datePatterns = new RegExp(
  `"([^"]*)"|(FM|fm)?(Month|Mon|Day|Dy|${dateKeywords
    .flatMap((word) => [word, word.toLowerCase()])
    .join("|")
    .replaceAll(".", "\\.")})(TH|th)?|FM|fm`,
  "g",
);

/** to_char of a timestamp in ISO text (9.8.1). */
export function formatDate(timestamp: string, format: string): Value {
  const [date, time = "00:00:00"] = timestamp.split(" ");
  const [year, month, day] = date.split("-").map(Number);
  const [hour, minute, seconds] = time.split(":").map(Number);
  const days = daysFromDate(year, month, day);
  const { weekday } = dateFromDays(days);
  const week = isoWeekOf(days);
  const dayOfYear = days - daysFromDate(year, 1, 1) + 1;
  let refused: string | undefined;
  const result = format.replace(
    datePatterns,
    (
      part: string,
      quoted: string | undefined,
      fm: string | undefined,
      pattern: string | undefined,
      suffix: string | undefined,
    ) => {
      if (quoted !== undefined) return quoted;
      // FM before anything else is nothing.
      if (pattern === undefined) return "";
      // FM holds for the pattern that it stands before.
      const fill = !fm;
      const number = (value: number, width: number) =>
        (fill ? String(value).padStart(width, "0") : String(value)) + (suffix ? inCaseOf(suffix, ordinal(value)) : "");
      const sameCase = (value: string) => (/[a-z]/.test(pattern[0]) ? value.toLowerCase() : value);
      const name = (value: string) => (fill ? inCaseOf(pattern, value).padEnd(9) : inCaseOf(pattern, value));
      switch (pattern.toUpperCase()) {
        case "YYYY":
          return number(year, 4);
        case "YYY":
          return number(year % 1000, 3);
        case "YY":
          return number(year % 100, 2);
        case "Y":
          return number(year % 10, 1);
        case "MM":
          return number(month, 2);
        case "DD":
          return number(day, 2);
        case "DDD":
          return number(dayOfYear, 3);
        case "D":
          return number(weekday + 1, 1);
        case "ID":
          return number(weekday || 7, 1);
        case "IYYY":
          return number(week.year, 4);
        case "IYY":
          return number(week.year % 1000, 3);
        case "IY":
          return number(week.year % 100, 2);
        case "I":
          return number(week.year % 10, 1);
        case "IW":
          return number(week.week, 2);
        case "IDDD":
          return number(week.week * 7 - 7 + (weekday || 7), 3);
        case "J":
          return number(days + julianEpoch, 0);
        case "HH24":
          return number(hour, 2);
        case "HH12":
        case "HH":
          return number(hour % 12 || 12, 2);
        case "MI":
          return number(minute, 2);
        case "SS":
          return number(Math.floor(seconds), 2);
        case "Q":
          return number(Math.ceil(month / 3), 1);
        case "WW":
          return number(Math.ceil(dayOfYear / 7), 2);
        case "W":
          return number(Math.ceil(day / 7), 1);
        case "CC":
          return number(Math.ceil(year / 100), 2);
        case "MS":
          return String(Math.floor((seconds % 1) * 1000)).padStart(3, "0");
        case "US":
          return String(Math.round((seconds % 1) * 1e6)).padStart(6, "0");
        case "SSSS":
        case "SSSSS":
          return String(hour * 3600 + minute * 60 + Math.floor(seconds));
        case "AM":
        case "PM":
          return sameCase(hour < 12 ? "AM" : "PM");
        case "A.M.":
        case "P.M.":
          return sameCase(hour < 12 ? "A.M." : "P.M.");
        case "AD":
        case "BC":
          return sameCase("AD");
        case "A.D.":
        case "B.C.":
          return sameCase("A.D.");
      }
      if (/^month$/i.test(pattern)) return name(monthNames[month - 1]);
      if (/^mon$/i.test(pattern)) return inCaseOf(pattern, monthNames[month - 1].slice(0, 3));
      if (/^day$/i.test(pattern)) return name(dayNames[weekday]);
      if (/^dy$/i.test(pattern)) return inCaseOf(pattern, dayNames[weekday].slice(0, 3));
      refused ??= part;
      return part;
    },
  );
  return refused ? notCovered(format) : result;
}

const dateFields = /^(?:YYYY|YY|MM|DD)$/;

/**
 * to_date: reads the parts of a date in the order of the format. A number goes on as far as there are digits,
 * unless another number follows it at once in the format; then it has as many as its pattern has letters.
 */
export function readDate(text: string, format: string): Value {
  const parts = new Map<string, number>();
  const bad = new Failure("not-a-date", { text });
  let rest = text;
  const tokens = (format.toUpperCase().match(/YYYY|YY|MONTH|MON|MM|DDD|DD|FM|[^A-Z0-9]+|[A-Z0-9]+/g) ?? []).filter(
    (t) => t !== "FM",
  );
  for (const [i, token] of tokens.entries()) {
    rest = rest.trimStart();
    if (rest === "") break;
    if (dateFields.test(token)) {
      const isOpen = !dateFields.test(tokens[i + 1] ?? "");
      // A field that another follows at once takes its whole width.
      if (!isOpen && rest.length < token.length) return bad;
      const found = (isOpen ? /^\d+/ : new RegExp(`^\\d{1,${token.length}}`)).exec(rest)?.[0];
      if (!found) return /^[A-Za-z]/.test(rest) ? bad : notCovered(format);
      const isShort = token === "YY" && found.length <= 2;
      parts.set(token.replace("YYYY", "YY"), Number(found) + (isShort ? (Number(found) < 70 ? 2000 : 1900) : 0));
      rest = rest.slice(found.length);
    } else if (token === "MONTH" || token === "MON") {
      const name = monthNames
        .map((month) => (token === "MON" ? month.slice(0, 3) : month))
        .find((month) => rest.toLowerCase().startsWith(month.toLowerCase()));
      if (!name) return bad;
      parts.set("MM", monthNames.findIndex((month) => month.startsWith(name)) + 1);
      rest = rest.slice(name.length);
    } else if (/^[^A-Z0-9]+$/.test(token)) rest = rest.replace(new RegExp(`^[^A-Za-z0-9]{0,${token.length}}`), "");
    else return notCovered(format);
  }
  // Without a year it is the year 1 BC.
  const [year, month, day] = [parts.get("YY") ?? 0, parts.get("MM") ?? 1, parts.get("DD") ?? 1];
  if (year < 1 || year > 9999) return new Failure("not-covered", { what: "dates before the year 1 and after 9999" });
  return isDate(year, month, day) ? isoDate(year, month, day) : bad;
}

/** to_char of a number, for formats of 9, 0, a point, groups, a sign and FM (9.8.1). */
export function formatNumber(value: Decimal, format: string): Value {
  if (format === "") return "";
  const fill = !/^FM/i.test(format);
  const body = format.replace(/^FM/i, "");
  const match = /^(S(?!G)|MI)?([90][90,G]*)(?:([.D])([90]*))?(S(?!G)|MI|PR)?$/i.exec(body);
  if (!match) return notCovered(format);
  const [, before = "", whole, point, fraction = "", after = ""] = match;
  if (before && after) return new Failure("invalid-value", { problem: `${before} and ${after} do not go together in a format` });
  const rounded = value.rounded(fraction.length);
  const negative = rounded.coefficient < 0n;
  const [digits, decimals = ""] = (negative ? rounded.negated() : rounded).toString().split(".");
  const places = whole.replace(/[,G]/gi, "").length;
  const firstZero = whole.replace(/[,G]/gi, "").indexOf("0");
  const isNothing =
    digits === "0" && firstZero < 0 && fraction !== "" && (fill || /[1-9]/.test(decimals) || fraction.includes("0"));
  const significant = isNothing ? "" : digits;
  const overflow = digits.replace(/^0+/, "").length > places;
  const padded = firstZero >= 0 ? significant.padStart(places - firstZero, "0") : significant;
  let at = padded.length - 1;
  let text = "";
  for (let i = whole.length - 1; i >= 0; i--) {
    if (/[,G]/i.test(whole[i])) text = (at >= 0 ? "," : fill ? " " : "") + text;
    else text = (at >= 0 ? padded[at--] : fill ? " " : "") + text;
  }
  if (overflow) text = whole.replace(/[90]/g, "#").replace(/G/gi, ",");
  let tail = overflow ? fraction.replace(/[90]/g, "#") : decimals;
  if (!fill && !overflow) tail = tail.replace(new RegExp(`0{0,${/9*$/.exec(fraction)![0].length}}$`), "");
  const number = text + (point ? `.${tail}` : "");
  const signed = (sign: string) => number.replace(/^ */, (blanks) => blanks + sign);
  if (/^S$/i.test(before)) return signed(negative ? "-" : "+");
  if (/^MI$/i.test(before)) return (negative ? "-" : fill ? " " : "") + number;
  if (/^S$/i.test(after)) return number + (negative ? "-" : "+");
  if (/^MI$/i.test(after)) return number + (negative ? "-" : fill ? " " : "");
  if (/^PR$/i.test(after)) return negative ? `${signed("<")}>` : fill ? ` ${number} ` : number;
  return negative ? signed("-") : (fill ? " " : "") + number;
}

/**
 * to_number where text and format have the same shape: digits that the format has places for, groups and the
 * point where it has them, and a sign. How the engine goes on where they do not is not covered.
 */
export function readNumberBy(text: string, format: string): Value {
  const shape = /^(?:FM)?(S?)([90][90,G]*)(?:[.D]([90]*))?(S|MI)?$/i.exec(format);
  if (!shape || (shape[1] && shape[4])) return notCovered(format);
  const found = /^([+-]?)(\d[\d,]*)(?:\.(\d*))?([+-]?)$/.exec(text);
  if (!found) return /\d/.test(text) ? notCovered(format) : new Failure("not-a-number", { text });
  const [, before, whole, fraction, after] = found;
  const commas = (groups: string) =>
    [...groups.replace(/G/gi, ",")].flatMap((char, i, all) => (char === "," ? [all.length - i] : [])).join();
  const fits =
    whole.replace(/,/g, "").length <= shape[2].replace(/[,G]/gi, "").length &&
    (commas(shape[2]) === "" ? !whole.includes(",") : whole.length === shape[2].length && commas(whole) === commas(shape[2])) &&
    (fraction === undefined || (shape[3] !== undefined && fraction.length <= shape[3].length)) &&
    !(before && after) &&
    (after === "" || shape[4] !== undefined);
  if (!fits) return notCovered(format);
  const digits = `${whole.replace(/,/g, "")}.${fraction ?? ""}`;
  return Decimal.parse((before === "-" || after === "-" ? "-" : "") + digits)!;
}
