import {
  Decimal,
  Double,
  Failure,
  MapItem,
  ArrayItem,
  Moment,
  type Value,
  Interval,
  asDouble,
  compareMoments,
  durationTypes,
  isNumeric,
  itemType,
} from "../../values/index.ts";

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
  return new Failure("kinds-do-not-compare", { a: itemType(a), b: itemType(b) });
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

/** Whether an item is of an item type such as `xs:integer`, `item()`, `map(*)`. */
export function isOfType(item: Value, type: string): boolean | Failure {
  const own = itemType(item);
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
  if (durationTypes.some((name) => type === `xs:${name}`))
    return item instanceof Interval && (own === type || type === "xs:duration");
  return new Failure("not-covered", { what: `the type ${type}` });
}
