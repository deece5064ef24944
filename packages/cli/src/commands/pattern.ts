import type { Dialect } from "indigo-quill";
import { type DialectFlavour, flavoursOf } from "indigo-quill/authoring";
import { showValue } from "indigo-quill/contrast";
import {
  type CarriedPattern,
  type ExplainedPattern,
  type Flavour,
  PatternError,
  carryPattern,
  explainPattern,
  patternFromWords,
  usualEscape,
} from "indigo-quill/patterns";
import { dialectOf } from "../input.ts";
import { partsText } from "../output/parts.ts";
import { type Style, styleFor } from "../output/style.ts";
import { type Streams, UsageError, exit } from "../streams.ts";

export interface PatternOptions {
  readonly in: string;
  readonly words?: string;
  readonly on?: readonly string[];
  readonly as?: readonly string[];
  readonly flavour?: string;
  readonly flags: string;
  readonly json?: boolean;
}

interface Carried {
  readonly dialect: Dialect;
  readonly to: DialectFlavour | undefined;
  readonly carried: CarriedPattern;
}

/** Explains a pattern part by part, carries it to other dialects, or makes one from words. */
export async function patternCommand(given: string | undefined, options: PatternOptions, streams: Streams): Promise<number> {
  const dialect = await dialectOf(options.in);
  const flavour = flavourIn(dialect, options.flavour);
  if ((given === undefined) === (options.words === undefined))
    throw new UsageError("give a pattern, or words to make one of with --words");
  const pattern = given ?? builtFrom(options.words!, flavour);
  const flags = options.flags === "" ? usualEscape(flavour) : options.flags;
  const explained = (options.on ?? [undefined]).map((text) => ({ text, ...explain(flavour, pattern, flags, text) }));
  const others = await Promise.all((options.as ?? []).map(async (id) => dialectOf(id)));
  const carried = others.map((each): Carried => {
    const tried = flavoursOf(each).map((to) => ({ to, carried: carryPattern(flavour, pattern, flags, to.flavour) }));
    const found = tried.find((one) => "pattern" in one.carried) ?? tried[0];
    return { dialect: each, ...(found ?? { to: undefined, carried: { refused: "it has no patterns" } }) };
  });
  if (options.json) streams.stdout.write(`${JSON.stringify(asJson(dialect, flavour, pattern, explained, carried))}\n`);
  else streams.stdout.write(textOf(dialect, pattern, explained, carried, styleFor(streams)));
  return carried.some((each) => "refused" in each.carried) ? exit.some : exit.ok;
}

function flavourIn(dialect: Dialect, wanted: string | undefined): Flavour {
  const flavours = flavoursOf(dialect);
  if (flavours.length === 0) throw new UsageError(`${dialect.title} has no patterns`);
  const found = wanted === undefined ? flavours[0] : flavours.find(({ flavour }) => flavour === wanted);
  if (!found)
    throw new UsageError(
      `${dialect.title} has no pattern language "${wanted}"; it has ${flavours.map(({ flavour }) => flavour).join(", ")}`,
    );
  return found.flavour;
}

const buildable: ReadonlySet<Flavour> = new Set<Flavour>(["posix", "open", "xpath", "pcre", "re2"]);

function builtFrom(words: string, flavour: Flavour): string {
  if (!buildable.has(flavour)) throw new UsageError(`patterns of "${flavour}" are not made from words; regular expressions are`);
  const built = patternFromWords(words, flavour);
  if ("pattern" in built) return built.pattern;
  throw new UsageError(
    `"${built.unknown}" (at ${built.offset}) is not known; say how many of what: letters, capital letters, digits, spaces, a dash, a dot, a word, a number, anything, start, end, or a text in quotes`,
  );
}

function explain(flavour: Flavour, pattern: string, flags: string, text: string | undefined): ExplainedPattern {
  try {
    return explainPattern(flavour, pattern, flags, text);
  } catch (error) {
    if (!(error instanceof PatternError)) throw error;
    throw new UsageError(
      `the pattern cannot be read at ${error.offset}: ${error.problem}\n  ${pattern}\n  ${" ".repeat(error.offset)}^`,
    );
  }
}

type Explained = ExplainedPattern & { readonly text: string | undefined };

function textOf(
  dialect: Dialect,
  pattern: string,
  explained: readonly Explained[],
  carried: readonly Carried[],
  style: Style,
): string {
  const { bold, dim } = style.colour;
  const lines = [`${bold(pattern)}   ${dim(`in ${dialect.title}: ${dialect.textLiteral(pattern)}`)}`, ""];
  for (const { text, parts, match } of explained) {
    if (text !== undefined) {
      const told = match ? `fits ${showValue(match.text)} in ${showValue(text)}` : `fits nothing in ${showValue(text)}`;
      lines.push(told);
    }
    lines.push(...partsText(parts, style));
    lines.push("");
  }
  for (const { dialect: other, to, carried: made } of carried) {
    if ("refused" in made) lines.push(`${other.title}: not to be had; ${made.refused}`);
    else {
      const flags = made.flags === "" ? "" : `  with the option ${made.flags}`;
      const isOther = to?.flavour !== flavoursOf(other)[0].flavour;
      lines.push(`${other.title}${isOther ? `, ${to?.flavour}` : ""}: ${bold(other.textLiteral(made.pattern))}${flags}`);
      if (to?.letters === "the same" && made.flags === "") lines.push("  upper and lower case letters are not told apart there");
      if (to?.letters === "by collation" && made.flags === "")
        lines.push("  whether upper and lower case letters are told apart depends on the collation there");
      for (const { text, matches } of made.differences)
        lines.push(`  not the same in ${showValue(text)}: ${matches.map(groupsText).join(" here, ")} there`);
    }
  }
  return `${lines.join("\n").trimEnd()}\n`;
}

const groupsText = (groups: readonly (string | undefined)[] | undefined): string => {
  if (!groups) return "nothing";
  const [whole, ...others] = groups.map((each) => (each === undefined ? "nothing" : showValue(each)));
  return others.length === 0 ? whole : `${whole} (${others.join(", ")})`;
};

const asJson = (
  dialect: Dialect,
  flavour: Flavour,
  pattern: string,
  explained: readonly Explained[],
  carried: readonly Carried[],
) => ({
  dialect: dialect.id,
  flavour,
  pattern,
  literal: dialect.textLiteral(pattern),
  explained: explained.map(({ text, parts, match }) => ({ ...(text !== undefined && { text, match: match ?? null }), parts })),
  ...(carried.length > 0 && {
    carried: carried.map(({ dialect: other, to, carried: made }) => ({
      dialect: other.id,
      flavour: to?.flavour,
      ...made,
      ...("pattern" in made && { literal: other.textLiteral(made.pattern) }),
    })),
  }),
});
