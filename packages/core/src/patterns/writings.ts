import type { AssertionPlace } from "./ast.ts";
import type { Flavour } from "./compile.ts";

/** How a flavour writes what not all write alike. */
export interface Writing {
  readonly name: string;
  /** Ways to write a class of characters, first those that are preferred. */
  readonly classes: readonly string[];
  readonly places: Readonly<Partial<Record<AssertionPlace, string>>>;
  /** How every character but a line feed, and any character, is written. */
  readonly dot: { readonly butLineFeed: string; readonly any: string };
  readonly looks: boolean;
  readonly references: boolean;
  readonly atomic: boolean;
  readonly subtracts: boolean;
}

const shorthands = ["\\d", "\\s", "\\w", "\\D", "\\S", "\\W"];
const posixClasses = ["alpha", "digit", "alnum", "upper", "lower", "space", "blank", "punct", "xdigit"].map(
  (name) => `[:${name}:]`,
);
const properties = [
  ...["L", "Lu", "Ll", "N", "Nd", "P", "Z", "M", "S"].flatMap((name) => [`\\p{${name}}`, `\\P{${name}}`]),
  ...["\\p{L}\\p{M}", "\\p{L}\\p{N}", "\\p{L}\\p{N}_", "\\p{L}\\p{M}\\p{N}_", "\\p{L}_:", "\\p{L}\\p{N}._:\\-"],
];

const posix: Writing = {
  name: "POSIX",
  classes: [...shorthands, ...posixClasses],
  places: {
    "text start": "^",
    "text end": "$",
    "last line end": "(?=\\n?$)",
    "line start": "(?:^|(?<=\\n))",
    "inner line start": "(?:^|(?<=\\n))",
    "line end": "(?:$|(?=\\n))",
    "word start": "\\m",
    "word end": "\\M",
    "word edge": "\\y",
    "not word edge": "\\Y",
    "ascii word edge": "\\y",
    "not ascii word edge": "\\Y",
  },
  dot: { any: ".", butLineFeed: "[^\\n]" },
  looks: true,
  references: true,
  atomic: false,
  subtracts: false,
};

/** Places as both of Perl's descendants write them. */
const perlPlaces: Writing["places"] = {
  "text start": "^",
  "line start": "(?m:^)",
  "inner line start": "(?m:^)",
  "line end": "(?m:$)",
  "word edge": "\\b",
  "not word edge": "\\B",
  "ascii word edge": "\\b",
  "not ascii word edge": "\\B",
};

const pcre: Writing = {
  name: "PCRE2",
  classes: [...shorthands, ...properties, ...posixClasses],
  places: {
    ...perlPlaces,
    "text end": "\\z",
    "last line end": "$",
    "word start": "\\b(?=\\w)",
    "word end": "\\b(?<=\\w)",
  },
  dot: { any: "(?s:.)", butLineFeed: "." },
  looks: true,
  references: true,
  atomic: true,
  subtracts: false,
};

const re2: Writing = {
  ...pcre,
  name: "RE2",
  places: { ...perlPlaces, "text end": "$", "last line end": "$" },
  looks: false,
  references: false,
  atomic: false,
};

export const xpath: Writing = {
  name: "XPath",
  classes: [...shorthands, ...properties],
  places: { "text start": "^", "text end": "$", "last line end": "$" },
  dot: { any: "[\\s\\S]", butLineFeed: "[^\\n]" },
  looks: false,
  references: true,
  atomic: false,
  subtracts: true,
};

export const writings: Readonly<Partial<Record<Flavour, Writing>>> = { posix, open: posix, pcre, re2, xpath };
