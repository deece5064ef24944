import { Decimal, Failure, type Value, dateFromDays, dayNames, daysFromDate, isDate, monthNames } from "../../values/index.ts";

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

const datePatterns =
  /"([^"]*)"|(FM)?(Y,YYY|YYYY|YYY|YY|Y|IYYY|IYY|IY|IDDD|ID|IW|I|MONTH|MON|MM|DDD|DD|DAY|DY|D|HH24|HH12|HH|MI|SSSSS|SSSS|SS|MS|US|FF[1-6]|[AP]\.M\.|[AP]M|[AB]\.[CD]\.|BC|AD|WW|W|Q|CC|J|RM|TZH|TZM|TZ|OF|TM)(TH)?/gi;

/** to_char of a timestamp in ISO text (9.8.1). */
export function formatDate(timestamp: string, format: string): Value {
  const [date, time = "00:00:00"] = timestamp.split(" ");
  const [year, month, day] = date.split("-").map(Number);
  const [hour, minute, seconds] = time.split(":").map(Number);
  const days = daysFromDate(year, month, day);
  const { weekday } = dateFromDays(days);
  const dayOfYear = days - daysFromDate(year, 1, 1) + 1;
  let refused: string | undefined;
  let fill = true;
  const result = format.replace(
    datePatterns,
    (part: string, quoted: string | undefined, fm: string | undefined, pattern: string, suffix: string | undefined) => {
      if (quoted !== undefined) return quoted;
      if (fm) fill = false;
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

/** to_date: reads the parts of a date in the order of the format. */
export function readDate(text: string, format: string): Value {
  const parts: { kind: string; value: number }[] = [];
  let rest = text;
  const bad = new Failure("not-a-date", { text });
  for (const token of format.match(/FM|YYYY|YY|MONTH|MON|MM|DDD|DD|[^A-Za-z0-9]+|[A-Za-z0-9]+/gi) ?? []) {
    const kind = token.toUpperCase();
    if (kind === "FM") continue;
    rest = rest.trimStart();
    if (["YYYY", "YY", "MM", "DD"].includes(kind)) {
      const size = kind === "YYYY" && !/\d{5}/.test(rest) ? 4 : kind === "YYYY" ? 4 : 2;
      const found = new RegExp(`^\\d{1,${size}}`).exec(rest);
      if (!found) return bad;
      parts.push({ kind, value: Number(found[0]) });
      rest = rest.slice(found[0].length);
    } else if (kind === "MONTH" || kind === "MON") {
      const index = monthNames.findIndex((name) =>
        rest.toLowerCase().startsWith((kind === "MON" ? name.slice(0, 3) : name).toLowerCase()),
      );
      if (index < 0) return bad;
      parts.push({ kind: "MM", value: index + 1 });
      rest = rest.slice(kind === "MON" ? 3 : monthNames[index].length);
    } else if (/^[^A-Za-z0-9]+$/.test(token)) rest = rest.replace(new RegExp(`^[^A-Za-z0-9]{0,${token.length}}`), "");
    else return notCovered(format);
  }
  const value = (kind: string) => parts.find((part) => part.kind === kind)?.value;
  const short = value("YY");
  // Without a year it is the year 1 BC.
  const year = value("YYYY") ?? (short === undefined ? 0 : short < 70 ? 2000 + short : short < 100 ? 1900 + short : short);
  const [month, day] = [value("MM") ?? 1, value("DD") ?? 1];
  if (year < 1) return new Failure("not-covered", { what: "dates before the year 1" });
  if (!isDate(year, month, day)) return bad;
  return [String(year).padStart(4, "0"), String(month).padStart(2, "0"), String(day).padStart(2, "0")].join("-");
}

/** to_char of a number, for formats of 9, 0, a point, groups, a sign and FM (9.8.1). */
export function formatNumber(value: Decimal, format: string): Value {
  if (format === "") return "";
  const fill = !/^FM/i.test(format);
  const body = format.replace(/^FM/i, "");
  const match = /^(S|MI|PL|L)?([90,G]*)(?:([.D])([90]*))?(S|MI|PR)?$/i.exec(body);
  if (!match || (match[1] && /^(?:PL|L)$/i.test(match[1]))) return notCovered(format);
  const [, before = "", whole, point, fraction = "", after = ""] = match;
  const rounded = value.rounded(fraction.length);
  const negative = rounded.coefficient < 0n;
  const [digits, decimals = ""] = (negative ? rounded.negated() : rounded).toString().split(".");
  const places = whole.replace(/[,G]/gi, "").length;
  const firstZero = whole.replace(/[,G]/gi, "").indexOf("0");
  const significant = digits === "0" && (fraction !== "" || firstZero >= 0) && firstZero < 0 ? "" : digits;
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
  if (/^S$/i.test(after)) return number + (negative ? "-" : "+");
  if (/^MI$/i.test(after)) return number + (negative ? "-" : fill ? " " : "");
  if (/^PR$/i.test(after)) return negative ? `${signed("<")}>` : fill ? ` ${number} ` : number;
  return negative ? signed("-") : (fill ? " " : "") + number;
}

/** to_number for formats of 9, 0, groups, a point and a sign; without a point in the format the text's is passed over. */
export function readNumberBy(text: string, format: string): Value {
  if (!/^(?:FM)?[S]?[90,G.D]*(?:S|MI)?$/i.test(format)) return notCovered(format);
  const cleaned = text.replace(/[.D]/i.test(format) ? /[,\s]/g : /[,.\s]/g, "");
  const match = /^([+-]?)(\d*\.?\d*)([+-]?)$/.exec(cleaned);
  const value = match && Decimal.parse((match[1] === "-" || match[3] === "-" ? "-" : "") + match[2]);
  return value || new Failure("not-a-number", { text });
}
