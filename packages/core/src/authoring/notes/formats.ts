/** Notes on formats of numbers and dates that are those of another language. */
import type { Diagnostic } from "../../diagnostics/index.ts";
import { dateFormatFor } from "../../dialects/tasks/index.ts";
import type { Bound } from "../../evaluate/index.ts";
import { ungrouped } from "../../syntax/index.ts";
import { type Asked, note, writing } from "./asked.ts";

/** How a number is written: zeros fill up so many digits before the point, so many stand behind it, and thousands are set apart. */
interface NumberFormat {
  readonly digits: number;
  readonly decimals: number;
  readonly isGrouped: boolean;
}

/** A way of writing number formats: what is read as one, and how one is written. */
interface Language {
  readonly read: (text: string) => NumberFormat | undefined;
  readonly write: (format: NumberFormat) => string;
}

/** A format between signs: `,` for thousands, the width with a 0 before it, the decimals. */
const ofDirective =
  (pattern: RegExp): Language["read"] =>
  (text) => {
    const { grouped, zero, width = "", decimals = "0" }: Partial<Record<string, string>> = pattern.exec(text)?.groups ?? {};
    if (zero === undefined || (zero === "" && width !== "")) return undefined;
    const behind = Number(decimals);
    // The width is that of all, the point with it.
    return { digits: Math.max(1, Number(width) - (behind > 0 ? behind + 1 : 0)), decimals: behind, isGrouped: grouped === "," };
  };

const zeros = (count: number): string => "0".repeat(count);
const point = (decimals: number): string => (decimals > 0 ? `.${zeros(decimals)}` : "");
const directive = ({ digits, decimals, isGrouped }: NumberFormat, whole: string): string => {
  const width = digits > 1 ? `0${digits + (decimals > 0 ? decimals + 1 : 0)}` : "";
  return `${isGrouped ? "," : ""}${width}${decimals > 0 ? `.${decimals}f` : whole}`;
};

const digitsRead: Language["read"] = (text) => {
  const {
    grouped,
    whole,
    decimals = "",
  }: Partial<Record<string, string>> = /^(?<grouped>#,##|#*)(?<whole>0+)(?:\.(?<decimals>0+))?$/.exec(text)?.groups ?? {};
  return whole === undefined
    ? undefined
    : { digits: whole.length, decimals: decimals.length, isGrouped: grouped?.includes(",") === true };
};

const languages = {
  /** 0.00, #,##0 */
  digits: {
    read: digitsRead,
    write: ({ digits, decimals, isGrouped }) => (isGrouped ? "#,##0" : zeros(digits)) + point(decimals),
  },
  /** FM0000, FM9999990.00 */
  words: {
    read: (text) => digitsRead(text.replace(/^FM9*/, "")),
    write: ({ digits, decimals, isGrouped }) =>
      `FM${isGrouped ? "999,999,990" : digits > 1 ? zeros(digits) : "9999999990"}${point(decimals)}`,
  },
  /** %04d, %.2f */
  percent: {
    read: ofDirective(/^%(?<grouped>,?)(?<zero>0?)(?<width>\d*)(?:\.(?<decimals>\d+))?[dfi]$/),
    write: (format) => `%${directive(format, "d")}`,
  },
  /** {:04d}, {:.2f} */
  braces: {
    read: ofDirective(/^\{:(?<grouped>,?)(?<zero>0?)(?<width>\d*)(?:\.(?<decimals>\d+))?[df]?\}$/),
    write: (format) => `{:${directive(format, format.isGrouped ? "" : "d")}}`,
  },
} satisfies Record<string, Language>;

/** The functions that write numbers by a format, by dialect, with the language of their formats. */
const functions: Readonly<Record<string, Readonly<Record<string, keyof typeof languages>>>> = {
  openformula: { text: "digits" },
  xpath: { "format-number": "digits" },
  postgresql: { to_char: "words" },
  sqlite: { printf: "percent", format: "percent" },
  duckdb: { printf: "percent", format: "braces" },
};

/** A format of numbers, or of dates in a function that writes both, as other languages have them. */
export function foreignNumberFormat({ source }: Bound, { program: { dialect } }: Asked): Diagnostic[] {
  const own = source.kind === "call" ? functions[dialect.id]?.[source.name.toLowerCase()] : undefined;
  if (source.kind !== "call" || own === undefined || source.args.length !== 2) return [];
  return source.args.map(ungrouped).flatMap((arg) => {
    if (arg.kind !== "literal" || typeof arg.value !== "string") return [];
    const { value } = arg;
    const told = (of: string, wanted: string) => [
      note("foreign-format", arg.range, { of, text: value, wanted }, [writing(arg.range, dialect.textLiteral(wanted))]),
    ];
    if (languages[own].read(value)) return [];
    const read = Object.values(languages).reduce<NumberFormat | undefined>((found, { read }) => found ?? read(value), undefined);
    if (read) return told("number", languages[own].write(read));
    const date = dialect.id === "openformula" && value.includes("%") ? dateFormatFor(value, "letters") : undefined;
    return date === undefined ? [] : told("date", date);
  });
}
