import { type Value, dateFromDays, dayNames, daysFromDate, isoWeekOf, lookup, monthNames } from "../../values/index.ts";
import { inCaseOf, julianEpoch, partsOf, romanMonths } from "./date-patterns.ts";
import { ordinal } from "./number-formats.ts";

/** to_char of a timestamp in ISO text, with the time zone's offset after it where its type has one (9.8.1). */
export function formatDate(timestamp: string, format: string): Value {
  const [date, clock, zone] = /^(\S+)(?: ([\d:.]+)(\+00)?)?$/.exec(timestamp)!.slice(1);
  const [year, month, day] = date.split("-").map(Number);
  const [hour, minute, second] = (clock ?? "0:0:0").split(":").map((part) => Number(part.split(".")[0]));
  const micros = (clock?.split(".")[1] ?? "").padEnd(6, "0");
  const days = daysFromDate(year, month, day);
  const { weekday } = dateFromDays(days);
  const week = isoWeekOf(days);
  const dayOfYear = days - daysFromDate(year, 1, 1) + 1;
  /** The numbers, with their width. */
  const numbers = lookup<() => readonly [number | string, number]>({
    YYYY: () => [year, 4],
    YYY: () => [year % 1000, 3],
    YY: () => [year % 100, 2],
    Y: () => [year % 10, 1],
    "Y,YYY": () => [`${Math.floor(year / 1000)},${String(year % 1000).padStart(3, "0")}`, 0],
    MM: () => [month, 2],
    DD: () => [day, 2],
    DDD: () => [dayOfYear, 3],
    D: () => [weekday + 1, 1],
    ID: () => [weekday || 7, 1],
    IYYY: () => [week.year, 4],
    IYY: () => [week.year % 1000, 3],
    IY: () => [week.year % 100, 2],
    I: () => [week.year % 10, 1],
    IW: () => [week.week, 2],
    IDDD: () => [week.week * 7 - 7 + (weekday || 7), 3],
    J: () => [days + julianEpoch, 0],
    HH24: () => [hour, 2],
    HH12: () => [hour % 12 || 12, 2],
    HH: () => [hour % 12 || 12, 2],
    MI: () => [minute, 2],
    SS: () => [second, 2],
    Q: () => [Math.ceil(month / 3), 0],
    WW: () => [Math.ceil(dayOfYear / 7), 2],
    W: () => [Math.ceil(day / 7), 0],
    CC: () => [Math.ceil(year / 100), 2],
    MS: () => [micros.slice(0, 3), 0],
    US: () => [micros, 0],
    SSSS: () => [hour * 3600 + minute * 60 + second, 0],
    SSSSS: () => [hour * 3600 + minute * 60 + second, 0],
  });
  const written = partsOf(format).map(({ pattern, isBare, isTight, suffix, text = "" }) => {
    if (pattern === undefined) return text;
    const key = pattern.toUpperCase();
    const sameCase = (value: string) => (/[a-z]/.test(pattern) ? value.toLowerCase() : value);
    const filled = (value: string, width: number) => (isTight ? value : value.padEnd(width));
    const number = numbers[key]?.() ?? (/^FF\d$/.test(key) ? ([micros.slice(0, Number(key[2])), 0] as const) : undefined);
    if (number) {
      const shown = isBare ? String(number[0]) : String(number[0]).padStart(number[1], "0");
      return shown + (suffix ? inCaseOf(suffix, ordinal(shown)) : "");
    }
    switch (key) {
      case "MONTH":
        return filled(inCaseOf(pattern, monthNames[month - 1]), 9);
      case "MON":
        return inCaseOf(pattern, monthNames[month - 1].slice(0, 3));
      case "DAY":
        return filled(inCaseOf(pattern, dayNames[weekday]), 9);
      case "DY":
        return inCaseOf(pattern, dayNames[weekday].slice(0, 3));
      case "RM":
        return isBare ? sameCase(romanMonths[month - 1]) : sameCase(romanMonths[month - 1]).padEnd(4);
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
      case "TZ":
        return zone ? sameCase("UTC") : "";
      case "TZH":
      case "OF":
        return "+00";
      case "TZM":
        return "00";
    }
    return "";
  });
  return written.join("");
}
