import {
  Decimal,
  Failure,
  Moment,
  type MomentParts,
  type Value,
  calendarParts,
  dateFromDays,
  dayNames,
  daysFromDate,
  lookup,
  monthNames,
  partsOf,
} from "../../values/index.ts";
import { notADate } from "../calendar.ts";
import { badPicture, writeNumbering } from "../formats/pictures.ts";

/** The parts of a date and time that is given as a text. */
function partsOfText(text: string): MomentParts | undefined {
  const parts = calendarParts(text);
  return parts && { ...parts, second: parts.exact ?? new Decimal(BigInt(parts.second * 1e6 + parts.micro), 6) };
}

/** Writes a date, a time or both by a picture, in English (F&O 3.1, 9.8.4); the first component of each marker counts. */
export function writeByComponents(moment: Moment | string, format: string): Value {
  const parts = typeof moment === "string" ? partsOfText(moment) : partsOf(moment);
  if (!parts) return notADate(moment);
  let failure: Failure | undefined;
  const bare = format.replace(/\[\[|\]\]|\[[^[\]]*\]/g, "");
  if (/[[\]]/.test(bare)) return badPicture(format, "err:FOFD1340");
  const written = format.replace(/\[\[|\]\]|\[([^[\]]*)\]/g, (part, marker?: string) => {
    if (marker === undefined) return part[0];
    const result = component(marker.replace(/\s/g, ""), parts);
    if (typeof result === "string") return result;
    failure ??= result;
    return "";
  });
  return failure ?? written;
}

/** One component: a letter, perhaps a presentation, perhaps a width after a comma. */
function component(marker: string, parts: MomentParts): string | Failure {
  const match = /^([YMDdFWwHhPmsfZzCE])([^,]*)(?:,(\*|\d+)(?:-(\*|\d+))?)?$/.exec(marker);
  if (!match) return badPicture(`[${marker}]`, "err:FOFD1340");
  const [, letter, written, least, most] = match;
  const value = valueOf(letter, parts);
  if (value === undefined) return new Failure("not-covered", { what: `the component [${marker}]` });
  if (value === null) return badPicture(`[${marker}]`, "err:FOFD1350");
  const presentation = written || (letter === "F" || letter === "P" ? "n" : letter === "m" || letter === "s" ? "01" : "1");
  const width = {
    least: least === undefined || least === "*" ? 0 : Number(least),
    most: most === undefined || most === "*" ? Infinity : Number(most),
  };
  if (/^(?:N|n|Nn)$/.test(presentation)) return inCase(nameOf(letter, value), presentation, width.most);
  if (letter === "f") return fraction(parts.second!, presentation, width);
  const digits = presentation.replace(/o$/, ";o");
  const text = writeNumbering(BigInt(letter === "Y" ? shortYear(value, presentation, width.most) : value), digits);
  return typeof text === "string" ? text.padStart(width.least, "0") : (text as Failure);
}

/** A year in two digits where the picture or the width asks for two. */
function shortYear(year: number, presentation: string, most: number): number {
  const digits = (presentation.match(/\d/g) ?? []).length;
  const size = most !== Infinity ? most : digits >= 2 ? digits : Infinity;
  return size < 10 ? year % 10 ** size : year;
}

/** The value of a component: undefined where it is not covered, null where the type has none. */
function valueOf(letter: string, { year, month, day, hour, minute, second }: MomentParts): number | null | undefined {
  const days = year === undefined ? undefined : daysFromDate(year, month!, day!);
  const weekday = days === undefined ? undefined : dateFromDays(days).weekday || 7;
  const values = lookup<number | undefined>({
    Y: year,
    M: month,
    D: day,
    d: days === undefined ? undefined : days - daysFromDate(year!, 1, 1) + 1,
    F: weekday,
    H: hour,
    h: hour === undefined ? undefined : hour % 12 || 12,
    P: hour === undefined ? undefined : hour < 12 ? 0 : 1,
    m: minute,
    s: second && Number(second.floor()),
    f: second && 0,
  });
  return letter in values ? (values[letter] ?? null) : undefined;
}

function nameOf(letter: string, value: number): string {
  if (letter === "M") return monthNames[value - 1];
  if (letter === "F") return dayNames[value % 7];
  return letter === "P" ? ["Am", "Pm"][value] : String(value);
}

function inCase(name: string, presentation: string, most: number): string {
  const short = most < name.length ? name.slice(0, Math.max(3, most)) : name;
  return presentation === "N" ? short.toUpperCase() : presentation === "n" ? short.toLowerCase() : short;
}

/** The fraction of a second in as many digits as the picture or the width asks for. */
function fraction(second: Decimal, presentation: string, width: { least: number; most: number }): string {
  const digits = second.toString().split(".")[1] ?? "";
  const asked = presentation.length > 1 ? presentation.length : Math.max(width.least, 1);
  const most = width.most !== Infinity ? width.most : presentation.length > 1 ? presentation.length : Infinity;
  return digits.slice(0, most).replace(/0+$/, "").padEnd(asked, "0");
}
