import type { Flavour } from "./compile.ts";

/** A pattern that was built, or the word that is not known and where it stands, 0-based, in UTF-16 units. */
export type BuiltPattern = { readonly pattern: string } | { readonly unknown: string; readonly offset: number };

/** How classes of letters are written: by POSIX names, or by Unicode properties. */
type Writing = "posix" | "property";

/** Kinds of characters, by what stands for them in brackets. */
const kinds: readonly (readonly [words: RegExp, inner: string | Readonly<Record<Writing, string>>])[] = [
  [/^(?:capital letters?|capitals?|upper ?case letters?)$/, { posix: "[:upper:]", property: "\\p{Lu}" }],
  [/^(?:small letters?|lower ?case letters?)$/, { posix: "[:lower:]", property: "\\p{Ll}" }],
  [/^(?:letters?)$/, { posix: "[:alpha:]", property: "\\p{L}" }],
  [/^(?:digits?|numerals?)$/, "0-9"],
  [/^(?:spaces?|blanks?)$/, " "],
  [/^(?:tabs?)$/, "\\t"],
  [/^(?:white ?space)$/, "\\s"],
  [/^(?:dash(?:es)?|hyphens?|minus)$/, "\\-"],
  [/^(?:dots?|periods?|full stops?|points?)$/, "."],
  [/^(?:commas?)$/, ","],
  [/^(?:semicolons?)$/, ";"],
  [/^(?:colons?)$/, ":"],
  [/^(?:slash(?:es)?)$/, "/"],
  [/^(?:backslash(?:es)?)$/, "\\\\"],
  [/^(?:underscores?|underlines?)$/, "_"],
  [/^(?:hash(?:es)?|number signs?)$/, "#"],
  [/^(?:apostrophes?|single quotes?)$/, "'"],
  [/^(?:quotes?|double quotes?)$/, '"'],
  [/^(?:at signs?)$/, "@"],
  [/^(?:plus|plus signs?)$/, "+"],
  [/^(?:line feeds?|line breaks?|new ?lines?)$/, "\\n"],
  [/^(?:opening brackets?|opening parenthes[ei]s)$/, "("],
  [/^(?:closing brackets?|closing parenthes[ei]s)$/, ")"],
];

const numbers: Readonly<Record<string, number>> = {
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  eleven: 11,
  twelve: 12,
};

const count = String.raw`(\d+|${Object.keys(numbers).join("|")})`;
const numberOf = (text: string): number => numbers[text] ?? Number(text);

/** How often, at the start of a part: the quantifier, and what is left. */
const amounts: readonly (readonly [words: RegExp, quantifier: (found: RegExpExecArray) => string])[] = [
  [new RegExp(`^${count} ?(?:to|-|–) ?${count} `), ([, least, most]) => `{${numberOf(least)},${numberOf(most)}}`],
  [new RegExp(`^(?:at least|no less than) ${count} `), ([, least]) => `{${numberOf(least)},}`],
  [new RegExp(`^${count} or more `), ([, least]) => (numberOf(least) === 1 ? "+" : `{${numberOf(least)},}`)],
  [new RegExp(`^(?:at most|up to|no more than) ${count} `), ([, most]) => `{0,${numberOf(most)}}`],
  [/^(?:any number of|zero or more) /, () => "*"],
  [/^(?:some|several|many) /, () => "+"],
  [/^(?:perhaps|maybe|optionally|possibly|an optional|optional) (?:an? )?/, () => "?"],
  [new RegExp(`^(?:exactly )?${count} `), ([, exact]) => (numberOf(exact) === 1 ? "" : `{${numberOf(exact)}}`)],
  [/^(?:an?|the) /, () => ""],
];

/** Texts and places that are no kind of characters. */
const places: readonly (readonly [words: RegExp, pattern: (writing: Writing) => string])[] = [
  [/^(?:the )?(?:start|beginning)(?: of (?:the )?text)?$/, () => "^"],
  [/^(?:the )?end(?: of (?:the )?text)?$/, () => "$"],
  [/^(?:anything|any text|any characters|the rest|everything)$/, () => ".*"],
  [/^(?:any character|one character|a character|something)$/, () => "."],
  [/^(?:a |one )?word$/, (writing) => (writing === "posix" ? "[[:alpha:]]+" : "\\p{L}+")],
  [/^(?:a |one )?number$/, () => "[0-9]+"],
];

const escaped = (text: string): string => text.replace(/[\\.[\](){}*+?^$|]/g, "\\$&");

function innerOf(words: string, writing: Writing): string | undefined {
  const inner = kinds.find(([known]) => known.test(words))?.[1];
  return typeof inner === "object" ? inner[writing] : inner;
}

/** What stands in brackets for one or several kinds, `letter or digit`; undefined where a word is not known. */
function classOf(words: string, writing: Writing): string | undefined {
  const parts = words.split(/ or |\/(?=\w)/).map((each) => {
    const bare = each.trim().replace(/^an? /, "");
    const quoted = /^(["'])(.)\1$/u.exec(bare);
    return quoted ? quoted[2].replace(/[\\\][^-]/, "\\$&") : innerOf(bare, writing);
  });
  return parts.includes(undefined) ? undefined : parts.join("");
}

/** Whether a word is of several, so that it stands for one or more. */
const isPlural = (words: string): boolean => /(?:s|white ?space)$/.test(words) && !/(?:dash|hash|slash|plus|minus)$/.test(words);

/** One character that needs no brackets. */
const single = (inner: string): string => {
  if (/^(?:\\[dswtnpP](?:\{\w+\})?)$/.test(inner)) return inner;
  const [, plain] = /^\\?([^\\])$/u.exec(inner) ?? [];
  if (inner === "\\\\") return inner;
  return plain === undefined ? `[${inner}]` : escaped(plain);
};

/** A part of what is wanted as a pattern. */
function partOf(words: string, writing: Writing): string | undefined {
  const quoted = /^(?:the (?:text|word) )?(["'])(.*)\1$/su.exec(words);
  if (quoted && [...quoted[2]].length !== 1) return escaped(quoted[2]);
  const place = places.find(([known]) => known.test(words));
  if (place) return place[1](writing);
  const amount = amounts.find(([known]) => known.test(words));
  const found = amount?.[0].exec(words);
  const rest = found ? words.slice(found[0].length) : words;
  const inner = classOf(rest, writing);
  if (inner !== undefined) return single(inner) + (amount ? amount[1](found!) : isPlural(rest) ? "+" : "");
  const text = /^(["'])(.+)\1$/su.exec(rest);
  if (text && amount) return `(?:${escaped(text[2])})${amount[1](found!)}`;
  const isOne = places.find(([known]) => known.test(rest));
  return isOne && amount ? `(?:${isOne[1](writing)})${amount[1](found!)}` : undefined;
}

/** Splits what is wanted at commas, `then` and `followed by`, but not within quotes. */
function partsOf(text: string): { readonly words: string; readonly offset: number }[] {
  const found: { words: string; offset: number }[] = [];
  let [words, offset] = ["", 0];
  const close = (next: number) => {
    const before = /^\s*(?:and\s+)?/.exec(words)![0].length;
    const trimmed = words
      .slice(before)
      .replace(/\s+and\s*$/, "")
      .trim();
    if (trimmed !== "") found.push({ words: trimmed.replace(/ {2,}/g, " "), offset: offset + before });
    [words, offset] = ["", next];
  };
  for (const { 0: token, index } of text.matchAll(/"[^"]*"|'[^']*'|,|\b(?:and )?then\b|\bfollowed by\b|[^]/g)) {
    if (token === "," || token.endsWith("then") || token === "followed by") close(index + token.length);
    else words += token;
  }
  close(text.length);
  return found;
}

/**
 * A pattern from words: parts between commas, each how many of which kind, or a text in quotes: `3 letters, a dash, digits`.
 * A part in round brackets becomes a group.
 *
 * @param flavour one of `posix`, `open`, `xpath`, `pcre`, `re2`
 */
export function patternFromWords(words: string, flavour: Flavour): BuiltPattern {
  const writing = flavour === "posix" || flavour === "open" ? "posix" : "property";
  let pattern = "";
  for (const { words: part, offset } of partsOf(words)) {
    const opening = /^\(+/.exec(part)?.[0].length ?? 0;
    const closing = /\)+$/.exec(part)?.[0].length ?? 0;
    const bare = part.slice(opening, part.length - closing).trim();
    const made = partOf(/["']/.test(bare) ? bare : bare.toLowerCase(), writing);
    if (made === undefined) return { unknown: bare, offset: offset + opening };
    pattern += "(".repeat(opening) + made + ")".repeat(closing);
  }
  return { pattern };
}
