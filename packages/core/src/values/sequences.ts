import { Decimal } from "./decimal.ts";
import { ArrayItem, Double, Failure, FunctionItem, MapItem, Moment, type Value, isFailure } from "./value.ts";

/** The items of a value: a sequence is a list of two or more, one item is itself, none is null. */
export const itemsOf = (value: Value): readonly Value[] =>
  value === null ? [] : Array.isArray(value) ? (value as readonly Value[]) : [value];

/** Whether no item is an object or nothing: a list, something missing or failed, a value of a kind of its own. */
const arePlain = (items: readonly Value[]): boolean => items.every((item) => typeof item !== "object");

/** The value that is this sequence of items; sequences within are opened. */
export function sequenceOf(items: readonly Value[]): Value {
  if (arePlain(items)) return items.length === 0 ? null : items.length === 1 ? items[0] : items;
  const flat: Value[] = [];
  let failure: Failure | undefined;
  const take = (item: Value): void => {
    if (item instanceof Failure) failure ??= item;
    flat.push(item);
  };
  for (const item of items) {
    if (typeof item !== "object") flat.push(item);
    else if (Array.isArray(item)) (item as readonly Value[]).forEach(take);
    else if (item !== null) take(item);
  }
  return failure ?? (flat.length === 0 ? null : flat.length === 1 ? flat[0] : flat);
}

/** The atomic items (F&O 3.1, 2.4): arrays are opened, functions and maps have none. */
export function atoms(value: Value): readonly Value[] | Failure {
  if (typeof value !== "object") return [value];
  if (Array.isArray(value) && arePlain(value as readonly Value[])) return value as readonly Value[];
  const result: Value[] = [];
  for (const item of itemsOf(value)) {
    if (isFailure(item)) return item;
    if (item instanceof ArrayItem) {
      const inner = atoms(sequenceOf(item.members));
      if (isFailure(inner)) return inner;
      result.push(...inner);
    } else if (item instanceof FunctionItem || item instanceof MapItem) {
      return new Failure("no-atomic-value");
    } else result.push(item);
  }
  return result;
}

/** Whether a value is a number of any kind. */
export const isNumeric = (value: Value): boolean =>
  typeof value === "number" || typeof value === "bigint" || value instanceof Decimal || value instanceof Double;

/** A number as the nearest one of double precision. */
export const asDouble = (value: Value): number =>
  value instanceof Double ? value.value : value instanceof Decimal ? value.toNumber() : Number(value);

/** The type's name of an item, by XML Schema and XPath, for messages and type tests. */
export function itemType(item: Value): string {
  if (typeof item === "string") return "xs:string";
  if (typeof item === "boolean") return "xs:boolean";
  if (typeof item === "number" || typeof item === "bigint") return "xs:integer";
  if (item instanceof Decimal) return "xs:decimal";
  if (item instanceof Double) return "xs:double";
  if (item instanceof Moment) return `xs:${item.type}`;
  return item instanceof ArrayItem
    ? "array(*)"
    : item instanceof MapItem
      ? "map(*)"
      : item === null
        ? "an empty sequence"
        : Array.isArray(item)
          ? "a sequence"
          : "function(*)";
}

/** The failure of an item of another type than is expected. */
export const wrongKind = (expected: string, given: Value) => new Failure("wrong-kind", { expected, given: itemType(given) });

/** One atomic item, null for none, a failure for several. */
export function atomOf(value: Value): Value {
  if (value === null || typeof value === "string") return value;
  const found = atoms(value);
  if (isFailure(found)) return found;
  return found.length > 1 ? new Failure("too-many-items", { given: found.length }) : (found[0] ?? null);
}
