import { marked } from "../../text/index.ts";
import { lookup } from "../../values/index.ts";
import { cutTo, fitted } from "../shared/sizes.ts";
import { type Step, partsOfWork, step } from "../step.ts";
import { asShown, bytesOf, conversion, ofCharacters, shown } from "./conversions.ts";

import { fractionOf } from "./second-digits.ts";
import { missing, steps } from "./steps.ts";
import { isBinary } from "./types.ts";
import { padded } from "./text-functions.ts";
import { type Type, typeOf } from "../types.ts";

export const castNames: Readonly<Record<string, string>> = lookup({
  char: "text",
  varchar: "text",
  "char character set utf8mb4": "text",
  "char character set utf8mb3": "narrow",
  "char character set utf8": "narrow",
  "char character set ascii": "ascii",
  nchar: "text",
  binary: "binary",
  varbinary: "binary",
  signed: "integer",
  "signed integer": "integer",
  integer: "integer",
  int: "integer",
  unsigned: "unsigned",
  "unsigned integer": "unsigned",
  "unsigned int": "unsigned",
  "signed int": "integer",
  decimal: "decimal",
  dec: "decimal",
  numeric: "decimal",
  double: "double",
  "double precision": "double",
  float: "float",
  date: "date",
  datetime: "datetime",
  time: "time",
});

/** What a character set lacks becomes a question mark. */
const without = (characters: string): Step =>
  step(
    "substitute",
    {
      missing,
      pattern: "pcre",
      case: "minded",
      occurrences: "all",
      replacement: "backslash digits",
      emptyMatch: "ends",
      emptyOld: "null",
    },
    { old: characters, new: "?" },
  );

/** NUL bytes behind others, up to so many. */
const filled = (size: number): Step => step("pad", { ...padded, side: "right", longer: "kept" }, { length: size, fill: "\0" });

/** What a cast to a type of some sizes does. */
export function castWork(type: string, sizes: readonly number[], from: Type): readonly Step[] {
  const [size, scale = 0] = sizes;
  const kind = from.name;
  const text = [...asShown(from), steps.text];
  const work = (to: string) => partsOfWork(conversion(from, typeOf(to))?.convert ?? []) as readonly Step[];
  switch (type) {
    case "text":
      return [...text, ...(size === undefined ? [] : [cutTo(size)])];
    case "narrow":
      return [...text, without("[\\x{10000}-\\x{10FFFF}]")];
    case "ascii":
      // Of bytes each is a character.
      return [...(isBinary(from) ? [bytesOf, steps["text of bytes"]] : text), without("[^\\x00-\\x7F]")];
    case "decimal":
      return [...work("decimal"), fitted("nearest", scale, size ?? 10)];
    case "integer":
      return [...work("integer"), steps.int64];
    case "unsigned":
      if (kind === "text") return [steps["unsigned of text"]];
      if (kind === "decimal" || kind === "double" || kind === "time") return [...work("decimal"), steps["unsigned of number"]];
      return [...work("integer"), steps.uint64];
    case "double":
      return [...work("double"), shown(...(sizes.length > 1 ? [scale, size] : []))];
    case "float":
      return [...work("double"), steps.float, step("fit-double", {}, { significant: 6 })];
    case "datetime":
    case "time":
      return [...work(type), step("fit-second", {}, { digits: size ?? 0 })];
    case "binary": {
      if (size === undefined) return work("binary");
      // A text is cut by its characters, and filled up by its bytes.
      const cut = isBinary(from)
        ? [bytesOf, steps["text of bytes"], cutTo(size)]
        : [...text, cutTo(size), bytesOf, steps["text of bytes"]];
      return [...cut, filled(size), ofCharacters];
    }
  }
  return work(type);
}

/** With the digits of the second's fraction that a literal is written with. */
const asWritten = (text: string, literal: string): string => marked.withSecondDigits(text, fractionOf(literal).length);

/** What DATE, TIMESTAMP and TIME before a text take: nothing but the date, a date and time, a time that is not too long. */
export const literals: Readonly<Record<string, (text: string) => string | undefined>> = lookup({
  "date literal": (text) =>
    /\d[ T]\d|:/.test(text) ? undefined : marked.readMoment(text) && marked.dateText(marked.readMoment(text)!),
  "datetime literal": (text) => {
    const moment = /\d[ T]\d.*\d\s*$|^\d{12,}/s.test(text) ? marked.readMoment(text) : undefined;
    return moment && asWritten(marked.momentText(moment), text);
  },
  "time literal": (text) => {
    const span = /-\d+-|[^\d\s]\s*$/.test(text) ? undefined : marked.readSpan(text);
    return span === undefined || Math.abs(span) > marked.longest ? undefined : asWritten(marked.spanText(span), text);
  },
});
