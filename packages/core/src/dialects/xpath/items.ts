import {
  ArrayItem,
  Decimal,
  Double,
  Failure,
  FunctionItem,
  MapItem,
  Moment,
  type Value,
  compareMoments,
  isFailure,
  lookup,
} from "../../values/index.ts";
import { castMoment } from "./moments.ts";
import type { Work } from "../step.ts";
import { steps, stringOf } from "./steps.ts";

/** The items of a value: a sequence is a list of two or more, one item is itself, none is null. */
export const itemsOf = (value: Value): readonly Value[] =>
  value === null ? [] : Array.isArray(value) ? (value as readonly Value[]) : [value];

/** The value that is this sequence of items; sequences within are opened. */
export function sequenceOf(items: readonly Value[]): Value {
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
  const result: Value[] = [];
  for (const item of itemsOf(value)) {
    if (isFailure(item)) return item;
    if (item instanceof ArrayItem) {
      const inner = atoms(sequenceOf(item.members));
      if (isFailure(inner)) return inner;
      result.push(...inner);
    } else if (item instanceof FunctionItem || item instanceof MapItem) {
      return new Failure("wrong-kind", { expected: "an atomic value", given: "a function" }).named("err:FOTY0013");
    } else result.push(item);
  }
  return result;
}

export const isNumeric = (value: Value): boolean =>
  typeof value === "number" || typeof value === "bigint" || value instanceof Decimal || value instanceof Double;

export const asDouble = (value: Value): number =>
  value instanceof Double ? value.value : value instanceof Decimal ? value.toNumber() : Number(value);

/** The type's name of an item, for messages and type tests. */
export function typeOf(item: Value): string {
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

export const wrongKind = (expected: string, given: Value) => new Failure("wrong-kind", { expected, given: typeOf(given) });

/** One atomic item, null for none, a failure for several. */
export function atomOf(value: Value): Value {
  if (value === null || typeof value === "string") return value;
  const found = atoms(value);
  if (isFailure(found)) return found;
  return found.length > 1 ? new Failure("too-many-items", { given: found.length }) : (found[0] ?? null);
}

/** The effective boolean value (XPath 3.1, 2.4.3). */
export function truthOf(value: Value): boolean | Failure {
  if (isFailure(value)) return value;
  if (value === null) return false;
  if (typeof value === "boolean") return value;
  if (typeof value === "string") return value !== "";
  if (isNumeric(value)) {
    const number = asDouble(value);
    return number !== 0 && !Number.isNaN(number);
  }
  return new Failure("wrong-kind", { expected: "a value that is true or false", given: typeOf(value) }).named("err:FORG0006");
}

/** Whether two atomic items can be compared, and how they do: −1, 0, 1, or NaN. */
export function compareAtoms(a: Value, b: Value): number | Failure {
  if (typeof a === "string" && typeof b === "string") return compareCodePoints(a, b);
  if (isNumeric(a) && isNumeric(b)) {
    if (a instanceof Double || b instanceof Double) {
      const [x, y] = [asDouble(a), asDouble(b)];
      return x < y ? -1 : x > y ? 1 : x === y ? 0 : NaN;
    }
    const decimal = (value: Value) => (value instanceof Decimal ? value : Decimal.of(value as number));
    return decimal(a).compare(decimal(b));
  }
  if (typeof a === "boolean" && typeof b === "boolean") return Number(a) - Number(b);
  const order = a instanceof Moment && b instanceof Moment ? compareMoments(a, b) : undefined;
  if (order !== undefined) return order;
  return new Failure("kinds-do-not-compare", { a: typeOf(a), b: typeOf(b) });
}

function compareCodePoints(a: string, b: string): number {
  for (let i = 0; i < a.length && i < b.length;) {
    const [x, y] = [a.codePointAt(i)!, b.codePointAt(i)!];
    if (x !== y) return x < y ? -1 : 1;
    i += x > 0xffff ? 2 : 1;
  }
  return Math.sign(a.length - b.length);
}

/** Equal as map keys and for distinct-values: NaN is itself, kinds that do not compare differ. */
export function sameAtom(a: Value, b: Value): boolean {
  const order = compareAtoms(a, b);
  if (typeof order !== "number") return false;
  return order === 0 || (Number.isNaN(asDouble(a)) && Number.isNaN(asDouble(b)) && isNumeric(a) && isNumeric(b));
}

/** The text under which a map keeps a key. */
export function mapKey(key: Value): string {
  if (key instanceof Moment) return `${key.type}${key.text}`;
  if (isNumeric(key))
    return `n${key instanceof Double ? asDouble(key) : key instanceof Decimal ? key.trimmed().toString() : String(key)}`;
  return `${typeof key}${String(key)}`;
}

const integers: Readonly<Record<string, readonly [bigint | undefined, bigint | undefined]>> = lookup({
  integer: [undefined, undefined],
  nonNegativeInteger: [0n, undefined],
  positiveInteger: [1n, undefined],
  nonPositiveInteger: [undefined, 0n],
  negativeInteger: [undefined, -1n],
  long: [-(2n ** 63n), 2n ** 63n - 1n],
  int: [-(2n ** 31n), 2n ** 31n - 1n],
  short: [-32768n, 32767n],
  byte: [-128n, 127n],
  unsignedLong: [0n, 2n ** 64n - 1n],
  unsignedInt: [0n, 2n ** 32n - 1n],
  unsignedShort: [0n, 65535n],
  unsignedByte: [0n, 255n],
});

/** A number that an exact one can be made of (FOCA0002). */
export const finite = (item: Value): Value =>
  item instanceof Double && !Number.isFinite(item.value) ? new Failure("number-out-of-range").named("err:FOCA0002") : item;

/** A whole number of a type that has fewer of them. */
function withinType(name: string): (value: Value) => Value {
  const [least, most] = integers[name];
  return (value) => {
    const number = value as number | bigint;
    const isOutside = (least !== undefined && number < least) || (most !== undefined && number > most);
    return isOutside ? new Failure("not-a-number", { text: String(value) }) : value;
  };
}

function castBoolean(item: Value): Value {
  if (typeof item !== "string") return isNumeric(item) ? truthOf(item) : item;
  const text = item.trim();
  if (text === "true" || text === "1") return true;
  return text === "false" || text === "0" ? false : new Failure("not-a-boolean", { text: item });
}

/** Casts an atomic item to an `xs:` type (F&O 3.1, 19); undefined when the type is not covered. */
export function castAtom(type: string): Work | undefined {
  const name = type.replace(/^xs:/, "");
  if (name === "integer") return [finite, steps.integer];
  if (name in integers) return [finite, steps.integer, withinType(name)];
  if (name === "decimal") return [finite, steps.decimal];
  if (name === "double" || name === "float") return steps[name];
  if (name === "string" || name === "untypedAtomic" || name === "anyURI") return steps.text;
  if (name === "normalizedString") return (item) => stringOf(item).replace(/[\t\n\r]/g, " ");
  if (name === "token")
    return (item) =>
      stringOf(item)
        .replace(/[ \t\n\r]+/g, " ")
        .replace(/^ | $/g, "");
  return name === "boolean" ? castBoolean : castMoment(name);
}

/** Whether an item is of an item type such as `xs:integer`, `item()`, `map(*)`. */
export function isOfType(item: Value, type: string): boolean | Failure {
  const own = typeOf(item);
  const isAtomic = own.startsWith("xs:");
  if (type === "item()") return true;
  if (type === "xs:anyAtomicType") return isAtomic;
  if (/^map\(/.test(type)) return item instanceof MapItem;
  if (/^array\(/.test(type)) return item instanceof ArrayItem;
  if (/^function\(/.test(type)) return !isAtomic;
  if (type === "xs:decimal") return own === "xs:decimal" || own === "xs:integer";
  if (type === "xs:numeric") return isNumeric(item);
  if (["xs:string", "xs:boolean", "xs:integer", "xs:double", "xs:date", "xs:time", "xs:dateTime"].includes(type))
    return own === type;
  return new Failure("not-covered", { what: `the type ${type}` });
}
