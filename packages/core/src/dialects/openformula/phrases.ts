import type { Phrases } from "../dialect.ts";
import { textLiteral } from "./printer.ts";

export const phrases: Phrases = {
  replace: (text, old, put) => `SUBSTITUTE(${text};${old};${put})`,
  replaceOne: (text, old, put, place) => `SUBSTITUTE(${text};${old};${put};${place})`,
  same: (text, other) => `EXACT(${text};${other})`,
  contains: (text, part) => `ISNUMBER(FIND(${part};${text}))`,
  lower: (text) => `LOWER(${text})`,
  among: (text, values) => `OR(${values.map((value) => `EXACT(${text};${value})`).join(";")})`,
  any: (conditions) => (conditions.length === 1 ? conditions[0] : `OR(${conditions.join(";")})`),
  choose: (cases, other) => cases.reduceRight((rest, [condition, value]) => `IF(${condition};${value};${rest})`, other),
  nothing: textLiteral(""),
};
