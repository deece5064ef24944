import type { Column, Sample } from "../evaluate/index.ts";
import { Decimal, Failure, type Value, integer, isDate, isFailure } from "../values/index.ts";

/** What the texts of a column can be read as. */
export type TextKind = "text" | "number" | "truth value" | "date";

export const textKinds: readonly TextKind[] = ["text", "number", "truth value", "date"];

/** A number as it is written: one in double precision where that says the same, otherwise a whole number or decimal of any size. */
export function exactNumber(text: string): number | bigint | Decimal {
  if (/^-?\d+$/.test(text)) return text.length < 16 ? Number(text) : integer(BigInt(text));
  const exact = Decimal.parse(text);
  const double = Number(text);
  if (!exact) return double;
  return Number.isFinite(double) && Decimal.parse(String(double))?.compare(exact) === 0 ? double : exact;
}

/** Digits of which a number is one, and not a code: no zero before others, and no more than every system keeps. */
const number = /^-?(?:0|[1-9]\d{0,14})(?:\.\d{1,15})?$/;
const truthValue = /^(?:true|false)$/i;
const isoDate = /^(\d{4})-(\d{2})-(\d{2})$/;

/** The narrowest kind of one text. Codes stay texts: zeros in front, more than 15 digits, an exponent, anything beside the digits. */
export function kindOfText(text: string): TextKind {
  if (number.test(text)) return "number";
  if (truthValue.test(text)) return "truth value";
  const date = isoDate.exec(text);
  return date && isDate(Number(date[1]), Number(date[2]), Number(date[3])) ? "date" : "text";
}

/** The kind that all texts of a column have; empty ones and nothing do not count, and without any other it is text. */
export function commonKind(values: Iterable<Value>): TextKind {
  let common: TextKind | undefined;
  for (const value of values) {
    if (value === null || value === "") continue;
    const kind = typeof value === "string" ? kindOfText(value) : "text";
    if (kind === "text" || (common !== undefined && kind !== common)) return "text";
    common = kind;
  }
  return common ?? "text";
}

/** A text as a value of a kind: an empty one is nothing, one that is not of the kind an error. A date stays the text that it is. */
export function readAs(kind: TextKind, text: string): Value {
  if (kind === "text") return text;
  if (text === "") return null;
  const isOfKind = kindOfText(text) === kind;
  if (kind === "number")
    return isOfKind || /^-?\d+(?:\.\d+)?$/.test(text) ? exactNumber(text) : new Failure("not-a-number", { text });
  if (kind === "truth value") return isOfKind ? /^t/i.test(text) : new Failure("not-a-boolean", { text });
  return isOfKind ? text : new Failure("not-a-date", { text });
}

/** Reads the columns of a sample whose cells are texts, each as one kind; what the first rows say holds for those that follow. */
export class KindReader {
  /** The kind of each column. */
  readonly kinds = new Map<string, TextKind>();
  /** Columns with texts that are not of the kind that their first rows have. */
  readonly misfits = new Map<string, { count: number; text: string; row: number }>();
  #rows = 0;

  /** @param asked kinds by column names; a column that is not among them is read as what all its texts are, or as `others` */
  constructor(
    readonly asked: ReadonlyMap<string, TextKind> = new Map(),
    readonly others?: TextKind,
  ) {}

  read({ columns, rows }: Sample): Sample {
    const read = columns.map((column): Column => {
      const { name, values } = column;
      let kind = this.kinds.get(name);
      if (!kind) this.kinds.set(name, (kind = this.asked.get(name) ?? this.others ?? commonKind(values)));
      if (kind === "text" || (kind === "date" && !this.asked.has(name))) return column;
      const before = this.#rows;
      const readAll = () =>
        values.map((value, row) => {
          const found = typeof value === "string" ? readAs(kind, value) : value;
          if (isFailure(found) && !this.asked.has(name)) this.#note(name, value as string, before + row);
          return found;
        });
      let own: readonly Value[] | undefined;
      // Most columns are only passed on as they were written.
      return {
        name,
        get values() {
          return (own ??= readAll());
        },
        written: values,
      };
    });
    this.#rows += rows;
    return { columns: read, rows };
  }

  #note(name: string, text: string, row: number): void {
    const known = this.misfits.get(name);
    if (known) known.count++;
    else this.misfits.set(name, { count: 1, text, row });
  }
}
