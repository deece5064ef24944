import { Bytes, Failure, type Value, asciiTrimmed, isDate, isFailure, isoDate } from "../../values/index.ts";
import { worked } from "../step.ts";
import { readIntervalText } from "./intervals.ts";
import { steps } from "./steps.ts";
import { isNumeric } from "./types.ts";

const two = (digits: string): string => digits.padStart(2, "0");

/** A date, and what stands after it; undefined where there is none. */
function readDay(text: string): { date: string; rest: string } | undefined {
  const found = /^[ \t\n\v\f\r]*(\d{1,6})([-/ \\])(\d{1,2})\2(\d{1,2})([\s\S]*)$/.exec(text);
  if (!found || !isDate(Number(found[1]), Number(found[3]), Number(found[4]))) return undefined;
  return { date: isoDate(Number(found[1]), Number(found[3]), Number(found[4])), rest: found[5] };
}

function readClock(text: string): string | undefined {
  const found = /^(\d{1,2}):(\d{2})(?::(\d{2})(?:\.(\d{1,9}))?)?$/.exec(asciiTrimmed(text));
  if (!found || Number(found[1]) > 23 || Number(found[2]) > 59 || Number(found[3] ?? 0) > 59) return undefined;
  const fraction = (found[4] ?? "").slice(0, 6).replace(/0+$/, "");
  return `${two(found[1])}:${found[2]}:${found[3] ?? "00"}${fraction && `.${fraction}`}`;
}

function readDate(text: string): Value {
  const day = readDay(text);
  if (day && (day.rest.trim() === "" || readClock(day.rest.replace(/^[T ]/, "")) !== undefined)) return day.date;
  return /^[ \t\n\v\f\r]*(?:epoch|-?infinity)[ \t\n\v\f\r]*$|\(BC\)|^[ \t\n\v\f\r]*-\d+[-/]/i.test(text)
    ? new Failure("not-covered", { what: `the date ${text}` })
    : new Failure("not-a-date", { text });
}

function readTimestamp(text: string): Value {
  const day = readDay(text);
  const rest = day?.rest.replace(/^[T ]/, "") ?? "";
  const clock = asciiTrimmed(rest) === "" ? "00:00:00" : readClock(rest);
  if (day && clock) return `${day.date} ${clock}`;
  return day && /[zZ]|[+-]\d\d/.test(rest)
    ? new Failure("not-covered", { what: "time zones" })
    : new Failure("not-a-date", { text });
}

function readBytes(text: string): Value {
  const bytes: number[] = [];
  for (const [part, hex] of text.matchAll(/\\x([0-9a-fA-F]{2})|[\s\S]/g)) {
    if (hex !== undefined) bytes.push(parseInt(hex, 16));
    else if (part.charCodeAt(0) < 128 && part !== "\\") bytes.push(part.charCodeAt(0));
    else return new Failure("invalid-value", { problem: `"${text}" is not a blob: bytes outside ASCII are written \\xNN` });
  }
  return new Bytes(Uint8Array.from(bytes));
}

/** Reads the text form of a list. */
export function readList(text: string, item: string): Value {
  const inner = /^\[([\s\S]*)\]$/.exec(asciiTrimmed(text))?.[1];
  const bad = new Failure("invalid-value", { problem: `"${text}" is not a list` });
  if (inner === undefined) return bad;
  if (/[[{]/.test(inner)) return new Failure("not-covered", { what: "lists of lists as text" });
  if (asciiTrimmed(inner) === "") return [];
  const items: Value[] = [];
  const shape =
    /(?:[ \t\n\v\f\r]*'((?:[^'\\]|\\[\s\S]|'')*)'[ \t\n\v\f\r]*|[ \t\n\v\f\r]*"((?:[^"\\]|\\[\s\S])*)"[ \t\n\v\f\r]*|((?:[^,'"\\]|\\[\s\S])*))(,|$)/y;
  for (let more = true; more;) {
    const match = shape.exec(inner);
    if (!match) return bad;
    const quoted = match[1] ?? match[2];
    const value = quoted !== undefined ? quoted.replace(/\\([\s\S])/g, "$1") : asciiTrimmed(match[3]);
    items.push(quoted === undefined && /^null$/i.test(value) ? null : read(item, value));
    more = match[4] === ",";
  }
  return items.find(isFailure) ?? items;
}

/** A text read as a value of a type. */
export function read(type: string, text: string): Value {
  if (type.endsWith("[]")) return readList(text, type.slice(0, -2));
  if (isNumeric(type)) return worked(steps[type])(text);
  switch (type) {
    case "boolean":
      return worked(steps.truth)(text);
    case "date":
      return readDate(text);
    case "timestamp":
      return readTimestamp(text);
    case "time":
      return readClock(text) ?? new Failure("not-a-date", { text });
    case "interval":
      return readIntervalText(text);
    case "blob":
      return readBytes(text);
  }
  return text;
}
