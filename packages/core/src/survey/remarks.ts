import type { ColumnSurvey, Found } from "./survey.ts";

/** Something in a column that is worth a look: what it is, on how many rows, and the first of them. */
export interface Remark {
  readonly what: string;
  readonly rows: number;
  readonly first: readonly Found[];
  /** Whether the first ones are texts that are nearly the same. */
  readonly isAlike?: true;
}

const sum = (found: readonly Found[]): number => found.reduce((total, { count }) => total + count, 0);
const counted = (count: number, one: string): string => `${count} ${one}${count === 1 ? "" : "s"}`;

/** What is worth a look in a column. */
export function remarksOn({
  exceptions,
  outerSpace,
  innerSpace,
  unseen,
  uncomposed,
  near,
  odd,
  cases,
  kind,
  kinds,
  shapes,
}: ColumnSurvey): Remark[] {
  const several = (what: string, found: readonly Found[]): Remark[] =>
    found.length === 0 ? [] : [{ what, rows: sum(found), first: found.slice(0, 2) }];
  const one = (what: string, found: Found | undefined) => several(what, found ? [found] : []);
  const lettered = cases.filter(({ what }) => what !== "no letters");
  const isUniform = lettered.length > 1 && lettered[0].count >= 0.8 * sum(lettered);
  const alike = { what: `nearly the same (${counted(near.length, "group")})`, rows: sum(near.flat()), isAlike: true } as const;
  return [
    ...several(`not a ${kind}, as nearly all are`, exceptions),
    ...(kind === "text" ? kinds.filter(({ what }) => what !== "text").flatMap((found) => one(`a ${found.what}`, found)) : []),
    ...one("white space at the ends", outerSpace),
    ...one("inside, other than one plain space", innerSpace),
    ...unseen.slice(0, 5).flatMap((found) => one(named(found.what), found)),
    ...one("not composed (normal form C)", uncomposed),
    ...several(`not ${lettered[0]?.what}, as nearly all are`, isUniform ? lettered.slice(1) : []),
    ...(near.length > 0 ? [{ ...alike, first: near[0].slice(0, 3) }] : []),
    ...several(`not ${shapes[0]?.what}, as nearly all are`, odd),
  ];
}

const names: Readonly<Record<string, string>> = {
  "\t": "tab",
  "\n": "line feed",
  "\r": "carriage return",
  "\u00a0": "no-break space",
  "\u00ad": "soft hyphen",
  "\u200b": "zero width space",
  "\u200d": "zero width joiner",
  "\u2009": "thin space",
  "\u202f": "narrow no-break space",
  "\u3000": "ideographic space",
  "\ufeff": "byte order mark",
};

const named = (char: string): string => {
  const code = `U+${char.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0")}`;
  return names[char] ? `${names[char]} (${code})` : code;
};
