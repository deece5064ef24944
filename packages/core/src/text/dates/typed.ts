import {
  Decimal,
  Failure,
  Interval,
  Moment,
  type Value,
  durationAs,
  durationOf,
  durationTypes,
  isDate,
  isMoment,
  momentTypes,
  partsOf,
} from "../../values/index.ts";
import { roomFor } from "./intervals.ts";
import { any, kept, operation, settled } from "../operation.ts";

const notADate = (text: string) => new Failure("not-a-date", { text });

/** Reads the lexical form of a duration, xs:date, xs:time or xs:dateTime (XML Schema 1.1 part 2, 3.3.6 to 3.3.9). */
function readMoment(type: string, written: string): Moment | Failure {
  const text = written.trim();
  if (durationTypes.includes(type)) {
    if (/\.\d{7}/.test(text)) return new Failure("not-covered", { what: "durations with parts of a millionth of a second" });
    const duration = durationOf(type, text);
    return duration
      ? roomFor(duration.stretch, () => duration)
      : new Failure("invalid-value", { problem: `"${written}" is no duration of the type ${type}` }).named("err:FORG0001");
  }
  if (!isMoment(type, text)) return notADate(written);
  const moment = new Moment(type, text);
  const { year, month, day, hour = 0, minute = 0, second = Decimal.of(0), zone = 0 } = partsOf(moment);
  if (year !== undefined && (year < 1 || year > 9999))
    return new Failure("not-covered", { what: "years before 1 and after 9999" });
  const isTime = hour < 24 && minute < 60 && second.compare(Decimal.of(60)) < 0 && Math.abs(zone) <= 14 * 60;
  return isTime && (year === undefined || isDate(year, month!, day!)) ? moment : notADate(written);
}

/** A text, or a value of another type of date or time, as one of the wanted type (F&O 3.1, 19.1.4 and 19.2). */
export const typedMoment = operation({
  id: "typed-moment",
  family: "convert",
  summary: "reads a value as a date or time of a type of its own",
  slots: [kept(any("value")), settled("type", [...momentTypes, ...durationTypes])],
  traits: [],
  prepare(_answers, fixed) {
    const type = fixed.type as string;
    return (value: Value = null): Value => {
      if (value === null) return null;
      if (typeof value === "string") return readMoment(type, value);
      if (!(value instanceof Moment))
        return new Failure("wrong-kind", { expected: `xs:${type}`, given: "another kind of value" });
      if (value.type === type) return value;
      if (value instanceof Interval && durationTypes.includes(type)) return durationAs(type, value);
      const zone = /(?:Z|[+-]\d{2}:\d{2})$/.exec(value.text)?.[0] ?? "";
      if (value.type === "dateTime" && type === "date") return new Moment(type, value.text.split("T")[0] + zone);
      if (value.type === "dateTime") return new Moment(type, value.text.split("T")[1]);
      if (value.type === "date" && type === "dateTime")
        return new Moment(type, `${zone ? value.text.slice(0, -zone.length) : value.text}T00:00:00${zone}`);
      return new Failure("wrong-kind", { expected: `xs:${type}`, given: `xs:${value.type}` });
    };
  },
});
