/**
 * Types, as rows, conversions and bound expressions name them: a word, after a space what more is known (the decimals, the
 * collation), and `[]` for a list of such values.
 */

/** A type without what is known of it beside its name. */
export const plainType = (type: string): string => type.replace(/ [^[]+/, "");

function isNamed(type: string, name: string): boolean {
  if (name === "*") return true;
  if (name.endsWith("…")) return type.startsWith(name.slice(0, -1));
  return name.startsWith("…") ? type.endsWith(name.slice(1)) : plainType(type) === name || type === name;
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
