import { lookup } from "../../values/index.ts";

/** How tightly operators bind (XPath 3.1, A.4). */
export const power = {
  ",": 1,
  single: 2,
  or: 4,
  and: 5,
  comparison: 6,
  "||": 7,
  to: 8,
  sum: 9,
  product: 10,
  "instance of": 13,
  castable: 15,
  cast: 16,
  "=>": 17,
  sign: 18,
  "!": 19,
  postfix: 21,
} as const;

export const symbols: Readonly<Record<string, number>> = {
  "=": power.comparison,
  "!=": power.comparison,
  "<": power.comparison,
  "<=": power.comparison,
  ">": power.comparison,
  ">=": power.comparison,
  "||": power["||"],
  "+": power.sum,
  "-": power.sum,
  "*": power.product,
};
export const words: Readonly<Record<string, number>> = lookup({
  or: power.or,
  and: power.and,
  eq: power.comparison,
  ne: power.comparison,
  lt: power.comparison,
  le: power.comparison,
  gt: power.comparison,
  ge: power.comparison,
  to: power.to,
  div: power.product,
  idiv: power.product,
  mod: power.product,
});

export const ncName = "[\\p{L}_][\\p{L}\\p{N}\\p{M}_.\\-·]*";
