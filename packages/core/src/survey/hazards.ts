import { type Value, isFailure } from "../values/index.ts";

/** What may become of a text where a spreadsheet opens the file. */
export type Hazard =
  "leading zero" | "many digits" | "exponent" | "like a date" | "formula" | "day or month" | "too long" | "control";

/** What happens to each, in a few words. */
export const hazardText: Readonly<Record<Hazard, string>> = {
  "leading zero": "zeros in front, which are lost where it is read as a number",
  "many digits": "more than 15 digits, of which the last are lost where it is read as a number",
  exponent: "digits around an e, read as a number with an exponent",
  "like a date": "read as a date where it is none",
  formula: "begins like a formula, and may be run as one",
  "day or month": "a day and a month of which either may be the other",
  control: "control characters or halves of characters, which databases and XML refuse or lose",
  "too long": "more than 32,767 characters, more than a cell of a spreadsheet holds",
};

/** What is dangerous about a text that goes into another system; undefined where nothing is known to be. */
export function hazardOf(text: string): Hazard | undefined {
  if (text.length > 32_767) return "too long";
  if (/[\0-\x08\x0b\x0c\x0e-\x1f\x7f\ufffe\uffff]/.test(text) || !text.isWellFormed()) return "control";
  const first = text.charCodeAt(0);
  const isDigit = first >= 48 && first <= 57;
  // = + - @ and the tab and carriage return that some take away before one.
  if (!isDigit) return /^[=@\t\r]/.test(text) || /^[+-](?!\d*\.?\d*$)/.test(text) ? "formula" : undefined;
  if (/^0\d+$/.test(text)) return "leading zero";
  if (/^\d{16,}$/.test(text)) return "many digits";
  if (/^\d+e\d+$/i.test(text)) return "exponent";
  const dated = /^(\d{1,2})[./-](\d{1,2})(?:[./-](?:\d{2}|\d{4}))?$/.exec(text);
  if (!dated) return undefined;
  const [one, other] = [Number(dated[1]), Number(dated[2])];
  if (text === `${dated[1]}.${dated[2]}`) return undefined;
  const isDate = one > 0 && other > 0 && (one <= 12 || other <= 12) && Math.max(one, other) <= 31;
  if (!isDate) return undefined;
  const hasYear = text.length > dated[1].length + dated[2].length + 1;
  return !hasYear ? "like a date" : one <= 12 && other <= 12 && one !== other ? "day or month" : undefined;
}

/** Counts hazards in the columns of rows that come in pieces. */
export class HazardTally {
  readonly #found = new Map<string, { column: string; hazard: Hazard; count: number; row: number; text: string }>();

  /** @param row the place of the row, 0-based */
  add(column: string, value: Value, row: number): void {
    if (typeof value !== "string" || value === "" || isFailure(value)) return;
    const hazard = hazardOf(value);
    if (!hazard) return;
    const key = `${hazard}\n${column}`;
    const known = this.#found.get(key);
    if (known) known.count++;
    else this.#found.set(key, { column, hazard, count: 1, row, text: value });
  }

  list() {
    return [...this.#found.values()];
  }
}
