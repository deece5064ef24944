import type { AnswerOf } from "../../traits/index.ts";
import {
  Bytes,
  Decimal,
  Double,
  Failure,
  type Value,
  asDouble,
  clockAt,
  dateFromDays,
  isoDate,
  serialEpoch,
  textOfBytes,
} from "../../values/index.ts";
import { type SlotNumber, any, kept, number, operation, settled } from "../operation.ts";
import { type MomentText, type Wanted, readersBy } from "./forms.ts";
import { readTime, spanText, timeOfNumber, withSecondDigits } from "./marked.ts";

/** A number as its digits, other values as text. */
function writtenText(value: Value): string | undefined {
  if (typeof value === "string") return value;
  if (typeof value === "number" || typeof value === "bigint" || value instanceof Decimal) return String(value);
  if (value instanceof Double)
    return Math.abs(value.value) >= 1e21 && Number.isFinite(value.value) ? String(BigInt(value.value)) : String(value.value);
  return value instanceof Bytes ? textOfBytes(value.bytes) : undefined;
}

/** A date, a date and time with or without its zone, or a time of day, as it stands in a value of that type. */
const ofMoment = /^(?:(-?\d{4,}-\d\d-\d\d))?(?:(?:^| )(-?\d{2,3}:\d\d:\d\d(?:\.\d+)?)(?:\+00)?)?( BC)?$/;

/** What is given may be a text, the digits of a date as a number, its days since 1899-12-30, or a value that has been read before, of a type. */
const sources = ["text", "number", "serial", "date", "timestamp", "time"] as const;

/** The ways to give a date or time. */
const forms: Readonly<Record<string, (moment: MomentText, era: string) => Value | undefined>> = {
  date: ({ date }, era) => date && date + era,
  timestamp: ({ date, clock = "00:00:00" }, era) => date && `${date} ${clock}${era}`,
  "timestamp in UTC": ({ date, clock = "00:00:00" }, era) => date && `${date} ${clock}+00${era}`,
  time: ({ clock }) => clock,
  microseconds: ({ clock }) => (clock === undefined ? undefined : (readTime(clock) ?? 0)),
};

/** A date, with its time of day where that is not the start of the day. */
const withClock = ({ date, clock = "00:00:00" }: MomentText): Value | undefined =>
  clock === "00:00:00" ? date : date && `${date} ${clock}`;

/** What stands for a text that is no date. */
export const noneBy: Readonly<Record<AnswerOf<"notADate">, (text: string, format?: Value) => Value>> = {
  error: (text, format) => new Failure("not-a-date", { text, ...(format !== undefined && { format }) }),
  null: () => null,
  "before every date": () => "",
  midnight: () => 0,
};

/** A value as a date or time, given as ISO text; `from` says what it is. */
export const momentOf = operation({
  id: "moment-of",
  family: "convert",
  summary: "reads a value as a date or time",
  slots: [any("value"), settled("wanted", Object.keys(forms)), settled("from", sources)],
  traits: ["missing", "dateForms", "clockOfDate", "notADate"],
  prepare({ missing, dateForms, clockOfDate, notADate }, { wanted, from }) {
    const read = readersBy[dateForms];
    const form = wanted === "date" && clockOfDate === "kept" ? withClock : forms[wanted as string];
    const isTime = wanted === "time" || wanted === "microseconds";
    const part: Wanted = isTime ? "time" : form === forms.date ? "date" : "both";
    const none = noneBy[notADate];

    function fromText(text: string): Value {
      const found = read(text, part);
      if (found instanceof Failure) return found;
      return (found && form(found, "")) ?? none(text);
    }

    function fromNumber(text: string): Value {
      if (isTime) {
        const span = timeOfNumber(text);
        return span === undefined ? none(text) : (form({ clock: spanText(span) }, "") ?? none(text));
      }
      // No date has more digits than YYYYMMDDhhmmss.
      if (/\d{15}|e/.test(text)) return none(text);
      const found = read(text, "both");
      if (found && !(found instanceof Failure)) return form(found, "") ?? none(text);
      return new Failure("not-covered", { what: `dates like ${text}, in which a part is missing or zero` });
    }

    function fromSerial(serial: number): Value {
      if (!Number.isFinite(serial)) return none(String(serial));
      const { year, month, day } = dateFromDays(Math.floor(serial) - serialEpoch);
      const micros = Math.round((serial - Math.floor(serial)) * 86_400e6);
      return form({ date: isoDate(year, month, day), clock: clockAt(micros) }, "") ?? none(String(serial));
    }

    return (given: Value = null): Value => {
      const value = given ?? (missing === "null" ? null : "");
      if (value === null) return null;
      const text = writtenText(value);
      if (text === undefined) return new Failure("wrong-kind", { expected: "a date", given: "another kind of value" });
      if (from === "text") return fromText(text);
      if (from === "number") return fromNumber(text);
      if (from === "serial") return fromSerial(asDouble(value));
      const [, date, clock, era = ""] = ofMoment.exec(text) ?? [];
      if (date === undefined && clock === undefined) return none(text);
      if (date === undefined && !isTime) return new Failure("not-covered", { what: "the current date" });
      return form({ ...(date !== undefined && { date }), clock: clock ?? "00:00:00" }, era) ?? none(text);
    };
  },
});

/** A date or time as the number of its digits. */
export const digitsOfMoment = operation({
  id: "digits-of-moment",
  family: "convert",
  summary: "gives a date or time as the number of its digits",
  slots: [kept(any("value"))],
  traits: [],
  prepare() {
    return (value: Value = null): Value => {
      if (value === null) return null;
      const text = writtenText(value);
      if (text === undefined) return new Failure("wrong-kind", { expected: "a date", given: "another kind of value" });
      const digits = text.replace(/[-: ]/g, "").replace(/\.0+$/, "");
      return Decimal.parse(text.startsWith("-") ? `-${digits}` : digits) ?? Decimal.of(0);
    };
  },
});

/** A time, or a date and time, with so many digits of the second's fraction. */
export const fitSecond = operation({
  id: "fit-second",
  family: "convert",
  summary: "gives a time so many digits of the second's fraction",
  slots: [kept(any("value")), number("digits")],
  traits: [],
  prepare() {
    return (value: Value = null, digits: SlotNumber = 0): Value => {
      const count = Number(digits);
      if (typeof value !== "string" || !(count >= 0 && count <= 9)) return value;
      return withSecondDigits(value, Math.trunc(count));
    };
  },
});
