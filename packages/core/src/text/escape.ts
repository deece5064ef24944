import type { AnswerOf } from "../traits/index.ts";
import { Failure, type Value, stretches } from "../values/index.ts";
import { GrowingText } from "./growing.ts";
import { isWatched, mapped, taken } from "./pieces.ts";
import { operation, optional, text } from "./operation.ts";

const percents = new Map<string, string>();

/** A character as its UTF-8 bytes in hexadecimal, each after a percent sign. */
function percent(char: string): string {
  let encoded = percents.get(char);
  if (encoded === undefined) {
    encoded = Array.from(utf8(char), (byte) => "%" + byte.toString(16).toUpperCase().padStart(2, "0")).join("");
    percents.set(char, encoded);
  }
  return encoded;
}

/** Percent-encodes the characters of a shape. */
const percentEncode =
  (shape: RegExp) =>
  (value: string): Value => {
    const result = new GrowingText();
    for (const stretch of stretches(value)) {
      result.add(stretch.replace(shape, percent));
      if (result.isTooLong) break;
    }
    return result.finish();
  };

/** The bytes of a character in UTF-8, without a host interface, which the core does not use. */
function utf8(char: string): number[] {
  const code = char.codePointAt(0)!;
  const tail = (shift: number) => 0x80 | ((code >> shift) & 63);
  if (code < 0x80) return [code];
  if (code < 0x800) return [0xc0 | (code >> 6), tail(0)];
  if (code < 0x10000) return [0xe0 | (code >> 12), tail(6), tail(0)];
  return [0xf0 | (code >> 18), tail(12), tail(6), tail(0)];
}

const reserved = new Set(
  "all analyse analyze and any array as asc asymmetric authorization between bigint binary bit boolean both case cast char character check coalesce collate collation column concurrently constraint create cross current_catalog current_date current_role current_schema current_time current_timestamp current_user dec decimal default deferrable desc distinct do else end except exists extract false fetch float for foreign freeze from full grant greatest group grouping having ilike in initially inner inout int integer intersect interval into is isnull join lateral leading least left like limit localtime localtimestamp national natural nchar none normalize not notnull null nullif numeric offset on only or order out outer overlaps overlay placing position precision primary real references returning right row select session_user setof similar smallint some substring symmetric table tablesample then time timestamp to trailing treat trim true union unique user using values varchar variadic verbose when where window with xmlattributes xmlconcat xmlelement xmlexists xmlforest xmlnamespaces xmlparse xmlpi xmlroot xmlserialize xmltable".split(
    " ",
  ),
);

const schemes: Readonly<Record<AnswerOf<"scheme">, (value: string) => Value>> = {
  "uri part": percentEncode(/[^A-Za-z0-9\-_.~]/gu),
  iri: percentEncode(/[^\x21-\x7e]|[<>"{}|\\^`]/gu),
  "html uri": percentEncode(/[^\x20-\x7e]/gu),
  "sql literal": (value) => {
    const quoted = `'${value.replace(/'/g, "''")}'`;
    return value.includes("\\") ? ` E${quoted.replace(/\\/g, "\\\\")}`.trimStart() : quoted;
  },
  "sql name": (value) => (/^[a-z_][a-z0-9_]*$/.test(value) && !reserved.has(value) ? value : `"${value.replace(/"/g, '""')}"`),
};

/** Makes a text safe in another language. */
export const escape = operation({
  id: "escape",
  family: "substitute",
  summary: "makes a text safe to stand in another language",
  slots: [text("text")],
  traits: ["missing", "scheme"],
  prepare({ scheme }) {
    const make = schemes[scheme];
    return (value: string) => {
      const result = make(value);
      return typeof result === "string" && isWatched() ? mapped(value, result, (char) => make(char) as string) : result;
    };
  },
});

/** The characters of a text, each with the marks that follow it. */
const withMarks = (value: string): readonly string[] => value.match(/\P{M}\p{M}*|\p{M}+/gu) ?? [];

const forms = ["NFC", "NFD", "NFKC", "NFKD"];

/** Brings a text to a Unicode normal form. */
export const normalize = operation({
  id: "normalize",
  family: "recase",
  summary: "brings a text to a Unicode normal form",
  slots: [text("text"), optional(text("form"))],
  traits: ["missing", "asked"],
  prepare({ asked }) {
    return (value: string, form: string = "NFC"): Value => {
      const name = (asked === "text" ? form.trim() : form).toUpperCase();
      if (name === "" && asked === "text") return taken(0, value);
      if (!forms.includes(name)) return new Failure("normal-form", { form, forms });
      const normal = value.normalize(name);
      if (asked !== "text") return normal === value;
      return isWatched() ? mapped(value, normal, (char) => char.normalize(name), withMarks) : normal;
    };
  },
});
