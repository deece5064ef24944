import { daysFromDate } from "./dates.ts";
import { Decimal } from "./decimal.ts";
import { Interval, lengthOf } from "./intervals.ts";
import { lookup } from "./lookup.ts";
import type { Moment } from "./value.ts";

/** The parts of a date, a time or both; those that its type lacks are undefined. `zone` is in minutes east of UTC. */
export interface MomentParts {
  readonly year?: number;
  readonly month?: number;
  readonly day?: number;
  readonly hour?: number;
  readonly minute?: number;
  readonly second?: Decimal;
  readonly zone?: number;
}

const datePart = "(-?\\d{4,})-(\\d{2})-(\\d{2})";
const timePart = "(\\d{2}):(\\d{2}):(\\d{2}(?:\\.\\d+)?)";
const zonePart = "(Z|[+-]\\d{2}:\\d{2})?";
/** The lexical forms of ISO 8601 as XML Schema 1.1 part 2 has them (3.3.7 to 3.3.9). */
const shapes = lookup({
  date: new RegExp(`^${datePart}${zonePart}$`),
  time: new RegExp(`^${timePart}${zonePart}$`),
  dateTime: new RegExp(`^${datePart}T${timePart}${zonePart}$`),
});

export const momentTypes: readonly string[] = Object.keys(shapes);

/** Whether a text has the form of a type of moment; its numbers may still be out of range. */
export const isMoment = (type: string, text: string): boolean => shapes[type].test(text);

export function partsOf({ type, text }: Moment): MomentParts {
  const found = shapes[type].exec(text)!.slice(1);
  const zone = found.pop();
  const [year, month, day] = type === "time" ? [] : found.splice(0, 3).map(Number);
  const [hour, minute, second] = found;
  return {
    ...(year !== undefined && { year, month, day }),
    ...(hour !== undefined && { hour: Number(hour), minute: Number(minute), second: Decimal.parse(second)! }),
    ...(zone !== undefined && { zone: zoneMinutes(zone) }),
  };
}

const zoneMinutes = (zone: string): number =>
  zone === "Z" ? 0 : (zone.startsWith("-") ? -1 : 1) * (Number(zone.slice(1, 3)) * 60 + Number(zone.slice(4)));

/** Seconds on one line of time; without a time zone it is UTC, the implicit time zone here. */
function secondsOf(moment: Moment): Decimal {
  const { year = 1972, month = 12, day = 31, hour = 0, minute = 0, second = Decimal.of(0), zone = 0 } = partsOf(moment);
  return Decimal.of(daysFromDate(year, month, day) * 86_400 + hour * 3600 + (minute - zone) * 60).plus(second);
}

/** −1, 0 or 1; undefined where the types differ. */
export function compareMoments(a: Moment, b: Moment): number | undefined {
  if (a.type !== b.type) return undefined;
  if (!(a instanceof Interval && b instanceof Interval)) return secondsOf(a).compare(secondsOf(b));
  const [x, y] = [lengthOf(a.stretch), lengthOf(b.stretch)];
  return x < y ? -1 : Number(x > y);
}
