/** Notes on formats that are those of another language. */
import type { Diagnostic } from "../../diagnostics/index.ts";
import { dateFormatFor, foreignFormat, foreignNumberFormat } from "../../dialects/tasks/index.ts";
import type { Bound } from "../../evaluate/index.ts";
import { ungrouped } from "../../syntax/index.ts";
import { type Asked, note, writing } from "./asked.ts";

/** A format of dates of another language, in functions whose formats no operation reads. */
function dateMeant(format: string, called: string): string | undefined {
  if (called === "openformula text") return format.includes("%") ? dateFormatFor(format, "letters") : undefined;
  return /^xpath format-(?:date|time|datetime)$/.test(called) ? foreignFormat(format, "xpath") : undefined;
}

/** A format of numbers as other languages have it, or of dates in a function that writes both. */
export function foreignFormats({ source }: Bound, { program: { dialect } }: Asked): Diagnostic[] {
  if (source.kind !== "call" || source.args.length !== 2) return [];
  const { name } = source;
  return source.args.map(ungrouped).flatMap((arg) => {
    if (arg.kind !== "literal" || typeof arg.value !== "string") return [];
    const { value, range } = arg;
    const told = (of: string, wanted: string) => [
      note("foreign-format", range, { of, text: value, wanted }, [writing(range, dialect.textLiteral(wanted))]),
    ];
    const number = foreignNumberFormat(value, dialect.id, name);
    if (number !== undefined) return told("number", number);
    const date = dateMeant(value, `${dialect.id} ${name.toLowerCase()}`);
    return date === undefined ? [] : told("date", date);
  });
}
