import { lookup } from "../../values/index.ts";
import { type Part, filled, templateOf } from "./said.ts";

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
  return whole === undefined ? undefined : { digits: whole.length, decimals: decimals.length, isGrouped: grouped.includes(",") };
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

/** The functions that write numbers by a format, by dialect, with the language of their formats; the usual one first. */
const functions = lookup<readonly (readonly [call: string, language: keyof typeof languages])[]>({
  openformula: [["TEXT({number};{format})", "digits"]],
  xpath: [["format-number({number}, {format})", "digits"]],
  postgresql: [["to_char({number}, {format})", "words"]],
  sqlite: [
    ["printf({format}, {number})", "percent"],
    ["format({format}, {number})", "percent"],
  ],
  duckdb: [
    ["printf({format}, {number})", "percent"],
    ["format({format}, {number})", "braces"],
  ],
});

/** A format of numbers that is not one in the language of a function, as it is written there; undefined for any other text. */
export function foreignNumberFormat(format: string, dialect: string, name: string): string | undefined {
  const [, own] = functions[dialect]?.find(([call]) => call.toLowerCase().startsWith(`${name.toLowerCase()}(`)) ?? [];
  if (own === undefined || languages[own].read(format)) return undefined;
  const read = readAny(format);
  return read && languages[own].write(read);
}

function readAny(format: string): NumberFormat | undefined {
  for (const { read } of Object.values(languages)) {
    const found = read(format);
    if (found) return found;
  }
  return undefined;
}

/** Functions that write a number by a format in some language. */
const formatting = /^(?:to_char|text|format|printf|format-number|number_format|sprintf)$/i;

/** What a function of another language that writes numbers by a format is here; undefined for any other call. */
export function numberFormatted(
  name: string,
  args: readonly Part[],
  dialect: string,
  literal: (text: string) => string,
): string | undefined {
  const [quote] = literal("");
  const at = args.findIndex(({ text }) => text.startsWith(quote) && text.endsWith(quote));
  if (!formatting.test(name) || args.length !== 2 || at < 0) return undefined;
  const [number, read] = [args[1 - at], readAny(args[at].text.slice(1, -1))];
  if (!read) return undefined;
  const [call, language] = functions[dialect]?.[0] ?? [];
  if (call !== undefined && language !== undefined)
    return filled(call, { number, format: { text: literal(languages[language].write(read)), isOpen: false } });
  const { digits, decimals, isGrouped } = read;
  if (isGrouped) return undefined;
  const [task, count] = decimals > 0 ? (["decimals", decimals] as const) : (["zeroFilled", digits] as const);
  const template = decimals > 0 && digits > 1 ? undefined : templateOf(task, dialect);
  return template && filled(template, { number, digits: { text: String(count), isOpen: false } });
}
