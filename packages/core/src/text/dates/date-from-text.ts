import { Failure, type Value, isList, isoDate, two } from "../../values/index.ts";
import { parseTokens, tokenFault } from "./text-from-date.ts";
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
      leftOut: answers.partsLeftOut,
    };
    const none = noneBy[notADate];
    const dayOf = dayBy[partsLeftOut];
    const known = new Map<string, Format | Failure | null>();

    /** A format as it has been read; the last ones are kept. */
    function formatOf(source: string): Format | Failure | null {
      const kept = known.get(source);
      if (kept !== undefined) return kept;
      const found = formatBy(source);
      if (known.size >= mostFormats) known.clear();
      known.set(source, found);
      return found;
    }

    function formatBy(source: string): Format | Failure | null {
      if (source === "" && emptyFormat !== "empty text") return emptyFormat === "null" ? null : badFormat("the format is empty");
      const parts = partsOf(source, tokens, unknownToken, rules.doubled);
      return parts instanceof Failure ? parts : { parts, ...whatIsAsked(parts) };
    }

    /** The date by one format; undefined where it does not fit. */
    function by(source: string, given: string): string | Failure | undefined {
      const format = formatOf(source);
      if (!format || format instanceof Failure) return format ?? undefined;
      const reader = new Reader(given, rules);
      if (!reader.fits(format.parts)) return undefined;
      const { found } = reader;
      const day = dayOf(found, yearDigits);
      if (day instanceof Failure) return day;
      const clock = clockOf(reader);
      if (!day || !clock) return undefined;
      const digits = found.get("fraction") ?? "";
      if (answers.formatGives === "what it asks for") return written(format, day, clock, digits);
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

/** A format as it has been read, and what it asks for. */
interface Format extends Asked {
  readonly parts: readonly Part[];
}

interface Asked {
  readonly hasDate: boolean;
  readonly hasTime: boolean;
  readonly hasFraction: boolean;
}

function whatIsAsked(parts: readonly Part[]): Asked {
  const fields = parts.flatMap((part) => ("field" in part ? [part.field] : []));
  return {
    hasDate: fields.some((field) => !ofTime.has(field) && !ofDays.has(field) && field !== "half"),
    hasTime: fields.some((field) => ofTime.has(field)),
    hasFraction: fields.some((field) => fractions.has(field)),
  };
}

/** The date, the time or both, as they are asked for; days beside a time alone are so many times 24 hours. */
function written(
  { hasDate, hasTime, hasFraction }: Asked,
  { year, month, day }: Day,
  [hour, minute, second]: readonly number[],
  digits: string,
): string {
  const fraction = hasFraction ? digits.padEnd(6, "0") : "";
  const date = isoDate(year, month, day);
  if (!hasTime) return date;
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
