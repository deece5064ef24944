/** Date formats whose tokens have no mark: words like YYYY and Month, beside which all else is text. */

/** A token as it is written. */
export interface FormatWord {
  /** As the table of tokens has it. */
  readonly token: string;
  readonly written: string;
  /** With what stands before and behind it. */
  readonly source: string;
  /** FM stands before it: no zeros and blanks fill it up. */
  readonly isBare: boolean;
  /** FM or TM stands before it: no blanks fill a name up. */
  readonly isTight: boolean;
  /** TH or th, where it stands behind. */
  readonly suffix: string | undefined;
}

/** What stands for itself, between quotes or not. */
export interface FormatText {
  readonly text: string;
  readonly isQuoted: boolean;
}

/** How words are read: in capitals or small letters, names of months and days with a capital, too, and with FM, TM and TH; or in any case. */
export type WordCase = "words" | "words in any case";

const shapes = new Map<string, RegExp>();

/** The longest token comes first. */
const anyOf = (tokens: readonly string[]): string =>
  tokens
    .toSorted((a, b) => b.length - a.length)
    .map((token) => token.replace(/[\\^$.*+?()[\]{}|]/g, "\\$&"))
    .join("|") || "(?!)";

function shapeOf(tokens: ReadonlyMap<string, string>, wordCase: WordCase): RegExp {
  const key = `${wordCase} ${[...tokens.keys()].join(" ")}`;
  const known = shapes.get(key);
  if (known) return known;
  const all = [...tokens.keys()];
  const isName = (token: string) => / name\b/.test(tokens.get(token)!);
  const capital = (token: string) => token[0] + token.slice(1).toLowerCase();
  const written = all.flatMap((token) => [token, token.toLowerCase(), ...(isName(token) ? [capital(token)] : [])]);
  const made =
    wordCase === "words"
      ? new RegExp(
          `(?:FM|fm|TM|tm)$|(FM|fm|TM|tm)?(?:(${anyOf(written)})(TH|th|SP|sp)?|"((?:\\\\[^]|[^"\\\\])*)"?|(\\\\"|[^]))`,
          "gu",
        )
      : new RegExp(`()(?:(${anyOf(all)})()|"([^"]*)"?|([^]))`, "giu");
  shapes.set(key, made);
  return made;
}

type Parts = readonly (FormatWord | FormatText)[];

/** The format that was read last by a table: it is the same on most rows. */
const lastRead = new WeakMap<
  ReadonlyMap<string, string>,
  { readonly format: string; readonly wordCase: WordCase; readonly parts: Parts }
>();

/** The words and the texts of a format, by a table of tokens with what they stand for. */
export function formatWords(format: string, tokens: ReadonlyMap<string, string>, wordCase: WordCase = "words"): Parts {
  const last = lastRead.get(tokens);
  if (last?.format === format && last.wordCase === wordCase) return last.parts;
  const parts = readWords(format, tokens, wordCase);
  lastRead.set(tokens, { format, wordCase, parts });
  return parts;
}

function readWords(format: string, tokens: ReadonlyMap<string, string>, wordCase: WordCase): Parts {
  const hasEscapes = wordCase === "words";
  const bySmall = new Map([...tokens.keys()].map((token) => [token.toLowerCase(), token]));
  return [...format.matchAll(shapeOf(tokens, wordCase))].map(([source, before = "", word, after, quoted, char]) => {
    if (word !== undefined)
      return {
        token: tokens.has(word) ? word : bySmall.get(word.toLowerCase())!,
        written: word,
        source,
        isBare: /^fm$/i.test(before),
        isTight: before !== "",
        suffix: /^th$/i.test(after) ? after : undefined,
      };
    if (quoted !== undefined) return { text: hasEscapes ? quoted.replace(/\\([^])/g, "$1") : quoted, isQuoted: true };
    return { text: hasEscapes && char === '\\"' ? '"' : (char ?? ""), isQuoted: false };
  });
}

/** A name in the case of its token: MONTH, Month or month. */
export const inCaseOf = (written: string, name: string): string =>
  written[0] !== written[0].toUpperCase()
    ? name.toLowerCase()
    : written.length === 1 || written[1] === written[1].toUpperCase()
      ? name.toUpperCase()
      : name;

/** The ending of an ordinal: st, nd, rd or th. */
export const ordinalEnding = (digits: string): string =>
  /1\d$/.test(digits) ? "th" : (["th", "st", "nd", "rd"][Number(digits.slice(-1))] ?? "th");
