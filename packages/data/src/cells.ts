import { Decimal, Failure, type Value } from "indigo-quill";
import { DataError } from "./table.ts";
import { exactJson } from "indigo-quill/values";

export function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value) && !(value instanceof Decimal);
}

/** An error as it is written here. */
function failureOf(value: Record<string, unknown>): Failure | undefined {
  const names = Object.keys(value);
  return names.length === 1 && typeof value.error === "string"
    ? new Failure("error-value", { kind: value.error }, undefined, value.error)
    : undefined;
}

/**
 * Collects rows of nested data as columns. The fields of an object become columns of their own, `place.country`; a list that
 * holds objects is kept as its JSON text. A name that a row lacks is null there; columns are in the order in which they first occur.
 */
export class NestedRows {
  readonly columns = new Map<string, Value[]>();
  /** Columns in which lists with objects are kept as JSON text, with how many there are. */
  readonly asText = new Map<string, number>();
  #rows = 0;
  halves = 0;

  get rows(): number {
    return this.#rows;
  }

  add(row: Record<string, unknown>): void {
    this.#fields("", row);
    this.#rows++;
    for (const values of this.columns.values()) if (values.length < this.#rows) values.push(null);
  }

  #fields(prefix: string, record: Record<string, unknown>): void {
    for (const [name, value] of Object.entries(record)) {
      const own = prefix + name;
      const failure = isRecord(value) ? failureOf(value) : undefined;
      // An object without fields is nothing.
      if (isRecord(value) && !failure && Object.keys(value).length > 0) this.#fields(`${own}.`, value);
      else if (isRecord(value) && !failure) this.#put(own, null);
      else this.#put(own, failure ?? this.#cell(own, value));
    }
  }

  #put(name: string, value: Value): void {
    let values = this.columns.get(name);
    if (!values) this.columns.set(name, (values = new Array<Value>(this.#rows).fill(null)));
    if (values.length > this.#rows) throw new DataError(`"${name}" is given twice, by itself and as a field of an object`);
    values.push(value);
    if (typeof value === "string" && !value.isWellFormed()) this.halves++;
  }

  #cell(name: string, value: unknown): Value {
    if (value === null || value === undefined) return null;
    if (!Array.isArray(value)) return value as Value;
    if (!hasRecord(value)) return value.map((item) => this.#cell(name, item));
    this.asText.set(name, (this.asText.get(name) ?? 0) + 1);
    return exactJson(value);
  }

  /** What had to be changed to make cells of the data. */
  warnings(): string[] {
    const found = [...this.asText].map(
      ([name, count]) => `"${name}": ${count} ${count === 1 ? "list of objects is" : "lists of objects are"} kept as JSON text`,
    );
    if (this.halves > 0)
      found.push(
        `${this.halves} ${this.halves === 1 ? "text holds" : "texts hold"} half a character, which no file can be given back`,
      );
    return found;
  }
}

const hasRecord = (items: readonly unknown[]): boolean =>
  items.some((item) => (Array.isArray(item) ? hasRecord(item) : isRecord(item)));
