/**
 * A type, as rows, conversions and bound expressions write it: a word, after a space what more is known (the decimals, the
 * collation, what it was made from), and `[]` for a list of such values. It is taken apart and put together here only.
 */
interface Type {
  /** Its name, without what more is known of it or its items. */
  readonly name: string;
  readonly known: string | undefined;
  /** The type of the items, of a list. */
  readonly item: string | undefined;
}

const read = new Map<string, Type>();

function typeOf(type: string): Type {
  const found = read.get(type);
  if (found) return found;
  const item = type.endsWith("[]") ? type.slice(0, -2) : undefined;
  const space = item === undefined ? type.indexOf(" ") : -1;
  const made: Type = {
    name: item === undefined ? (space < 0 ? type : type.slice(0, space)) : `${nameOf(item)}[]`,
    known: space < 0 ? undefined : type.slice(space + 1),
    item,
  };
  read.set(type, made);
  return made;
}

/** The name of a type: `decimal` of `decimal 3`, `text[]` of a list of texts with a collation. */
export const nameOf = (type: string): string => typeOf(type).name;
/** What is known of a type beside its name: `3` of `decimal 3`. */
export const knownOf = (type: string): string | undefined => typeOf(type).known;
/** A type of which more is known, where it is. */
export const typed = (name: string, known: string | number | undefined): string =>
  known === undefined ? name : `${name} ${known}`;

export const isListType = (type: string): boolean => typeOf(type).item !== undefined;
/** The type of the items of a list; undefined of any other type. */
export const itemOf = (type: string): string | undefined => typeOf(type).item;
export const listOf = (item: string): string => `${item}[]`;

/** How many decimals a decimal type has; NaN where that is not known. */
export const scaleOf = (type: string): number => Number(knownOf(type)?.split(" ")[0] ?? NaN);
/** How many digits a decimal type has in all; undefined where that is not known. */
export function widthOf(type: string): number | undefined {
  const width = knownOf(type)?.split(" ")[1];
  return width === undefined ? undefined : Number(width);
}
/** A decimal type with so many decimals, NaN where their number is not known, and so many digits in all. */
export const decimalOf = (scale: number, width?: number): string =>
  typed("decimal", Number.isNaN(scale) ? undefined : width === undefined ? scale : `${scale} ${width}`);

function isNamed(type: string, name: string): boolean {
  if (name === "*") return true;
  if (name.endsWith("…")) return type.startsWith(name.slice(0, -1));
  return name.startsWith("…") ? type.endsWith(name.slice(1)) : nameOf(type) === name || type === name;
}

/**
 * Whether a type is one of those that are named: `text|date` names several, `!text` all others, `*` any, `text …` what begins
 * and `…[]` what ends so.
 *
 * @param type a type, like `decimal 3` or `text[]`
 * @param names what is named
 */
export function isOneOf(type: string, names: string): boolean {
  const isOther = names.startsWith("!");
  return (isOther ? names.slice(1) : names).split("|").some((name) => isNamed(type, name)) !== isOther;
}
