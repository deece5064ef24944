import { Decimal, Double, type Value, integer } from "../../values/index.ts";
import { isNumber, order } from "./compare.ts";
import { toDouble } from "./steps.ts";

type List = readonly Value[];

/** The mean of the squares of the distances from the mean, by Welford's method as the engine has it; `less` is taken from their number. */
function variance(items: List, less: number): number | null {
  let [count, mean, squares] = [0, 0, 0];
  for (const item of items) {
    const { value } = toDouble(item) as Double;
    const before = value - mean;
    mean += before / ++count;
    squares += before * (value - mean);
  }
  return count <= less ? null : count === 1 ? 0 : squares / (count - less);
}

const double = (value: number | null): Value => (value === null ? null : new Double(value));
const root = (value: number | null): Value => double(value === null ? null : Math.sqrt(value));

function median(items: List): Value {
  if (items.length === 0) return null;
  const sorted = [...items].sort(order);
  const middle = (sorted.length - 1) / 2;
  const [low, high] = [sorted[Math.floor(middle)], sorted[Math.ceil(middle)]];
  if (typeof low === "boolean" || !(isNumber(low) || low instanceof Double || low instanceof Decimal)) return low;
  const [a, b] = [toDouble(low) as Double, toDouble(high) as Double].map(({ value }) => value);
  return new Double(a + (b - a) * (middle % 1));
}

function mode(items: List): Value {
  let [best, most]: [Value, number] = [null, 0];
  const counts = new Map<string, number>();
  for (const item of items) {
    const key = `${typeof item}${String(item)}`;
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  for (const item of items) {
    const count = counts.get(`${typeof item}${String(item)}`)!;
    if (count > most) [best, most] = [item, count];
  }
  return best;
}

/** Aggregates of a list's items that are not null. */
export const statistics: Readonly<Record<string, (items: List) => Value>> = {
  median,
  mode,
  product: (items) =>
    items.length === 0 ? null : new Double(items.reduce<number>((all, item) => all * (toDouble(item) as Double).value, 1)),
  stddev_pop: (items) => root(variance(items, 0)),
  stddev_samp: (items) => root(variance(items, 1)),
  var_pop: (items) => double(variance(items, 0)),
  var_samp: (items) => double(variance(items, 1)),
  sem: (items) => {
    const size = variance(items, 0);
    return double(size === null ? null : Math.sqrt(size) / Math.sqrt(items.length));
  },
  bool_and: (items) => (items.length === 0 ? null : items.every((item) => item === true)),
  bool_or: (items) => (items.length === 0 ? null : items.includes(true)),
};

const binary = ["b", "kb", "mb", "gb", "tb"];

/** The number of bytes that a size like `1.5 MiB` is; undefined where it is none. */
export function bytesOfSize(text: string): Value | undefined {
  const match = /^[ \t\n\v\f\r]*(\d+(?:\.\d*)?|\.\d+)[ \t\n\v\f\r]*([a-z]*)[ \t\n\v\f\r]*$/i.exec(text);
  const name = match?.[2].toLowerCase().replace(/^(?:byte|bytes)$/, "b") ?? "";
  const thousands = binary.indexOf(name.length === 1 && name !== "b" ? `${name}b` : name);
  const binaries = binary.indexOf(name.replace("i", ""));
  if (!match || name === "" || (thousands < 0 && binaries < 0)) return undefined;
  return integer(BigInt(Math.floor(Number(match[1]) * (thousands >= 0 ? 1000 ** thousands : 1024 ** binaries))));
}
