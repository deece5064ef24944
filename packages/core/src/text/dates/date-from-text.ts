import { Failure, type Value, isList, isoDate } from "../../values/index.ts";
import { parseTokens, tokenFault } from "../date-format.ts";
import { any, kept, operation, tabled, text } from "../operation.ts";
import { type Day, dayBy } from "./day-of-fields.ts";
import { type Part, Reader, type Rules, badFormat, partsOf } from "./format-reader.ts";
import { noneBy } from "./moment-of.ts";

/** The time of day in hours, minutes and seconds; undefined where there is none. */
function clockOf(reader: Reader): readonly [hour: number, minute: number, second: number] | undefined {
  const hour = reader.hour();
  const [minute, second] = ["minute", "second"].map((field) => Number(reader.found.get(field) ?? 0));
  return hour === undefined || minute > 59 || second > 59 ? undefined : [hour, minute, second];
}

const two = (value: number): string => String(value).padStart(2, "0");

const clockText = (clock: readonly number[], fraction: string): string => clock.map(two).join(":") + (fraction && `.${fraction}`);

/** How many formats are kept as they have been read. */
const mostFormats = 50;

/** A text as the date and time that it is by a format, each token after %, or by the first of several that fits; as ISO text. */
export const dateFromText = operation({
  id: "date-from-text",
  family: "convert",
  summary: "reads a date and time by a format",
  slots: [
    text("text"),
    any("format"),
    tabled("tokens", "Y year 4, m month 2, d day 2, b month name short, T =%H:%M, H hour 2, M minute 2", tokenFault),
  ],
  traits: [
    "missing",
    "notADate",
    "unknownToken",
    "emptyFormat",
    "formatSpaces",
    "restOfText",
    "partsLeftOut",
    "yearDigits",
    "nameBeginnings",
    "halfOfDay",
    "doubledSign",
    "formatGives",
  ],
  prepare(answers, fixed) {
    const tokens = parseTokens(fixed.tokens as string);
    const { notADate, unknownToken, emptyFormat, partsLeftOut, yearDigits } = answers;
    const rules: Rules = {
      spaces: answers.formatSpaces,
      rest: answers.restOfText,
      names: answers.nameBeginnings,
      halves: answers.halfOfDay,
      doubled: answers.doubledSign,
    };
    const none = noneBy[notADate];
    const dayOf = dayBy[partsLeftOut];
    const known = new Map<string, ReturnType<typeof partsOf>>();

    /** The parts of a format; those of the last ones are kept. */
    function partsBy(format: string): ReturnType<typeof partsOf> | null {
      if (format === "" && emptyFormat !== "empty text") return emptyFormat === "null" ? null : badFormat("the format is empty");
      const found = known.get(format) ?? partsOf(format, tokens, unknownToken, rules.doubled);
      if (known.size > mostFormats) known.clear();
      known.set(format, found);
      return found;
    }

    /** The date by one format; undefined where it does not fit. */
    function by(format: string, given: string): string | Failure | undefined {
      const parts = partsBy(format);
      if (!parts || parts instanceof Failure) return parts ?? undefined;
      const reader = new Reader(given, rules);
      if (!reader.fits(parts)) return undefined;
      const { found } = reader;
      const day = dayOf(found, yearDigits);
      if (day instanceof Failure) return day;
      const clock = clockOf(reader);
      if (!day || !clock) return undefined;
      const digits = found.get("fraction") ?? "";
      if (answers.formatGives === "what it asks for") return written(parts, day, clock, digits);
      return `${isoDate(day.year, day.month, day.day)} ${clockText(clock, digits.replace(/0+$/, ""))}`;
    }

    return (given: string, format: Value): Value => {
      for (const each of isList(format) ? format : [format]) {
        const found = typeof each === "string" ? by(each, given) : undefined;
        if (found !== undefined) return found;
      }
      return none(given, format);
    };
  },
});

const fractions: ReadonlySet<string> = new Set(["thousandth", "millionth"]);
const ofTime: ReadonlySet<string> = new Set(["hour", "hour of half", "minute", "second", ...fractions]);
const ofDays: ReadonlySet<string> = new Set(["day", "day with ending"]);

/** The date, the time or both, by what a format has; days beside a time alone are so many times 24 hours. */
function written(
  parts: readonly Part[],
  { year, month, day }: Day,
  [hour, minute, second]: readonly number[],
  digits: string,
): string {
  const fields = parts.flatMap((part) => ("field" in part ? [part.field] : []));
  const fraction = fields.some((field) => fractions.has(field)) ? digits.padEnd(6, "0") : "";
  const date = isoDate(year, month, day);
  if (!fields.some((field) => ofTime.has(field))) return date;
  const hasDate = fields.some((field) => !ofTime.has(field) && !ofDays.has(field) && field !== "half");
  return hasDate
    ? `${date} ${clockText([hour, minute, second], fraction)}`
    : clockText([day * 24 + hour, minute, second], fraction);
}

/** A format of dates, where each of its tokens stands for something. */
export const checkFormat = operation({
  id: "check-format",
  family: "convert",
  result: "given",
  summary: "takes a date format that can be followed",
  slots: [kept(any("format")), tabled("tokens", "Y year 4, m month 2", tokenFault)],
  traits: ["unknownToken", "emptyFormat"],
  prepare({ unknownToken, emptyFormat }, fixed) {
    const tokens = parseTokens(fixed.tokens as string);
    return (format: Value = null): Value => {
      if (typeof format !== "string") return format;
      if (format === "" && emptyFormat !== "empty text") return emptyFormat === "null" ? null : badFormat("the format is empty");
      const parts = partsOf(format, tokens, unknownToken, "one sign");
      return parts instanceof Failure && parts.code !== "not-covered" ? parts : format;
    };
  },
});
