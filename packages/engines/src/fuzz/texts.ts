import { pick } from "./random.ts";

type Next = () => number;

/** Every Unicode space, and what is taken for one here and there. */
const spaces = [..." \t\n\v\f\r\u0085\u00a0\u1680\u2000\u2003\u2007\u2009\u200a\u200b\u2028\u2029\u202f\u205f\u3000\ufeff"];

/** Characters beyond U+FFFF: letters with case and without, digits, marks, emoji, parts of a flag. */
const wide = [..."😀😃🌿🌳🍂🐝👍🏽🇩🇪𐐀𐐨𐐷𐐏𝐀𝐚𝟘𝟙𝒜𝓐𠀀𠜎𡃁𪚥🄰🅰🞄🀄🂡𐌀𐌰𐎠𑀓𑁦𒀀𓀀𖠀𝄞𞤀𞤢🌸"];

const words = [
  "Alnus", "alnus", "glutinosa", "ABC", "abc", "x", "a", "aXbXc", "Åsa", "été", "straße", "ŠKODA", "İstanbul", "ﬁr", "Щука",
  "ΣΊΣΥΦΟΣ", "e\u0301te\u0301", "n\u0303", "ǅ", "ŉ", "o'neil-smith", "2nd", "007", "12.50", "-3", "1e3", "12abc", "0x1F", "true",
  "null", "100%", "a_b", "a\\b", "(x)", "[y]", "aaa", "#12#x#", "a,b,,c", "foobarbequebaz", "×hybrid", "9223372036854775807",
  "2019-04-03", "2019-02-30", "2020-02-29 07:08:09", "03/04/2019", "2019/4/3", "19-4-3", "4/3/19", "12:30", "20190403", "99999-1-1",
]; // prettier-ignore

/** A text with the classic traps: words, joined by marks, with white space of any kind at its ends and within. */
export function trapText(next: Next): string {
  const roll = next();
  if (roll < 0.06) return "";
  if (roll < 0.1) return pick(next, spaces).repeat(1 + Math.floor(next() * 2));
  const space = () => (next() < 0.7 ? " " : pick(next, spaces));
  const word = () => (next() < 0.85 ? pick(next, words) : pick(next, wide) + (next() < 0.5 ? "b" : ""));
  let text = word();
  for (let more = next(); more > 0.55; more = next()) text += pick(next, [" ", ", ", ",", "  ", ";", "-", space(), ""]) + word();
  if (next() < 0.15) text = space() + text;
  return next() < 0.15 ? text + space() : text;
}

/** A date or time as it is written by hand: with any mark between, and parts of any length. */
export function dateText(next: Next): string {
  const mark = pick(next, ["-", "-", "/", ".", ""]);
  const part = (most: number) => String(Math.floor(next() * (most + 2))).padStart(next() < 0.7 ? 2 : 1, "0");
  const year = pick(next, ["2019", "2020", "1999", "19", "1900", "0001", "9999", "10000"]);
  const [month, day] = [part(12), part(31)];
  const date = next() < 0.8 ? [year, month, day].join(mark) : [day, month, year].join(mark);
  return next() < 0.7
    ? date
    : `${date}${pick(next, [" ", "T", "  "])}${part(23)}:${part(59)}${next() < 0.6 ? `:${part(59)}` : ""}`;
}

/** A pattern of a flavour: `posix`, `pcre` or `re2`. */
export function pattern(next: Next, flavour: string, depth = 2): string {
  const atoms = [
    "a",
    "l",
    "n",
    "X",
    ",",
    " ",
    "\\d",
    "\\w",
    "\\s",
    ".",
    "[a-z]",
    "[^,]",
    "[A-Zé]",
    "[[:alpha:]]",
    "[[:punct:]]",
    "é",
    "\\.",
    "\\W",
    "[0-9x]",
  ];
  const own =
    {
      posix: ["\\m", "\\M", "\\y"],
      pcre: [
        "\\b",
        "(?i)a",
        "(?=a)",
        "\\h",
        "(?>a+)",
        "a++",
        "(?<=l)",
        "(?!x)",
        "\\K",
        "(*SKIP)",
        "(*PRUNE)",
        "(*F)",
        "(?|(a)|(l))\\1",
        "(?(?=a)a|l)",
        "(l|n(?R)?)",
        "\\R",
        "(?<w>\\w)(?&w)",
      ],
      re2: ["\\b", "(?i)a", "\\pL"],
    }[flavour] ?? [];
  const atom = (): string => {
    const roll = next();
    if (depth > 0 && roll < 0.2) return `(${pattern(next, flavour, depth - 1)})`;
    if (depth > 0 && roll < 0.25) return `(?:${pattern(next, flavour, depth - 1)})`;
    return roll < 0.3 && own.length > 0 ? pick(next, own) : pick(next, atoms);
  };
  let text = next() < 0.12 ? "^" : "";
  for (let i = 0, count = 1 + Math.floor(next() * 3); i < count; i++)
    text += atom() + pick(next, ["", "", "", "+", "*", "?", "{2}", "{1,2}", "+?", "*?"]);
  if (next() < 0.1) text += "$";
  if (next() < 0.12) text += `|${atom()}`;
  return next() < 0.04 ? text + pick(next, ["(", "[", "*", "\\", "{2,1}"]) : text;
}

/** A pattern of marks: `%` and `_` of LIKE, or `*`, `?` and sets of GLOB. */
export function marks(next: Next, isGlob: boolean): string {
  const parts = isGlob
    ? ["*", "?", "*", "[a-c]", "[^a]", "[0-9]", "[]]", "A", "a", "ln", "é", "😀", " "]
    : ["%", "_", "%", "A", "a", "ln", "É", "\\%", "\\_", "\\\\", "!%", " ", "😀", ".", "ß"];
  let text = "";
  for (let i = 0, count = 1 + Math.floor(next() * 4); i < count; i++) text += pick(next, parts);
  return text;
}

/** A format of dates from the tokens of one of them. */
export function dateFormat(next: Next, tokens: readonly string[]): string {
  let text = "";
  for (let i = 0, count = 1 + Math.floor(next() * 4); i < count; i++)
    text += (i === 0 ? "" : pick(next, ["-", ".", "/", " ", ":", "", ", "])) + pick(next, tokens);
  return text;
}
