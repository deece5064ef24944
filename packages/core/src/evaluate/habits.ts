import { type Diagnostic, applyFix } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { joinedAs, templateOf } from "../dialects/tasks/index.ts";
import { stretchText } from "./dates-elsewhere.ts";
import { formsElsewhere } from "./forms-elsewhere.ts";
import { type Habit, type Rule, habit } from "./habit.ts";
import { isText, mistake } from "./mistakes.ts";
import { outside, splitOutside, stretches } from "./outside.ts";
import { typeOf } from "../dialects/types.ts";

/** Everywhere outside quotes `wrong` as `right`. */
const sign =
  (wrong: RegExp, shown: string, ...rights: readonly string[]): Rule =>
  (source) =>
    (source.search(wrong) < 0 ? [] : rights).flatMap((right) =>
      habit(
        source,
        outside(source, (text) => text.replace(wrong, right)),
        `${shown} is written ${right.trim()} here`,
      ),
    );

/** What is left out wherever it matches. */
const without =
  (wrong: RegExp, said: string): Rule =>
  (source) =>
    habit(source, source.replace(wrong, ""), `${said} is no part of an expression here`);

const escaped = (text: string): string => text.replace(/[\\^$.*+?()[\]{}|]/g, "\\$&");

const curly: Rule = (source, dialect) => {
  const text = source.replace(/[“”„]([^“”„]*)[“”]/g, (_, inner: string) => dialect.textLiteral(inner));
  const single = text.replace(/[‘’‚]([^‘’‚]*)[‘’]/g, (_, inner: string) => dialect.textLiteral(inner));
  return habit(source, single, "curly quotes are written straight here");
};

/** A quote within a text, between letters: it is doubled. */
const quoteWithin: Rule = (source) =>
  ["'", '"'].flatMap((quote) =>
    habit(
      source,
      source.replace(new RegExp(`(?<=\\p{L})${quote}(?=\\p{L})`, "gu"), quote + quote),
      `a ${quote} within a text is written twice`,
    ),
  );

const separators: Rule = (source, { separator }) => {
  const wrong = separator === "," ? ";" : ",";
  return habit(
    source,
    outside(source, (text) => text.replaceAll(wrong, separator)),
    `arguments are separated by ${separator} here`,
  );
};

/** Columns as they are named elsewhere: with a sign before them, in square brackets, bare, with the table's name. */
const columnNames: Rule = (source, dialect, columns) => {
  const known = columns.filter((name) => name !== "").sort((a, b) => b.length - a.length);
  if (known.length === 0) return [];
  const names = known.map(escaped).join("|");
  const written = new RegExp(
    `(?:[$@?]|\\b\\w+\\.)?(?:\\[(${names})\\]|\\{(${names})\\})|(?:[$@?:]|\\b\\w+\\.)?(?<![\\p{L}\\p{N}_])(${names})(?![\\p{L}\\p{N}_(])`,
    "giu",
  );
  const byName = new Map(known.map((name) => [name.toLowerCase(), name]));
  let said = "";
  const text = outside(source, (part) =>
    part.replace(written, (given, bracketed?: string, braced?: string, bare?: string) => {
      const here = dialect.columnText(byName.get((bracketed ?? braced ?? bare!).toLowerCase())!);
      if (said === "" && given !== here) said = `${given} is written ${here} here`;
      return here;
    }),
  );
  return habit(source, text, said);
};

const selected: Rule = (source) => {
  const found = /^\s*select\s+([^]+?)(?:\s+from\s[^]*)?\s*;?\s*$/i.exec(source);
  return found ? habit(source, found[1], "only the expression is written, without SELECT and FROM") : [];
};

/** A closing bracket without an opening one. */
const extraBracket: Rule = (source) => {
  let depth = 0;
  let at = 0;
  for (const { text, isQuoted } of stretches(source)) {
    for (let i = 0; i < text.length && !isQuoted; i++) {
      depth += text[i] === "(" ? 1 : text[i] === ")" ? -1 : 0;
      if (depth < 0) return habit(source, source.slice(0, at + i) + source.slice(at + i + 1), "a ) without its ( is left out");
    }
    at += text.length;
  }
  return [];
};

/** `a and b` as the call that it is where AND and OR are functions; also among arguments, however they are separated. */
function logicCalled(text: string, separator: string): string {
  const parts = (whole: string, name: string, signs: RegExp, inner: (part: string) => string): string => {
    const found = splitOutside(whole, signs);
    if (found.length === 1) return inner(whole);
    return `${name}(${found.map((part) => inner(part.trim())).join(separator)})`;
  };
  const within = (part: string): string => {
    const [, before, inside, after] = /^([^(]*\()([^]*)(\)[^)]*)$/.exec(part) ?? [];
    if (inside === undefined) return part;
    return (
      before +
      splitOutside(inside, /(?<!\d),(?!\d)|;/)
        .map((each) => logicCalled(each, separator))
        .join(separator) +
      after
    );
  };
  return parts(text, "OR", /\s+or\s+|\s*\|\|\s*/, (one) => parts(one, "AND", /\s+and\s+|\s*&&\s*/, within));
}

const infixLogic: Rule = (source, { rows, separator }) =>
  rows.some(({ name, notation }) => name === "AND" && notation !== "operator")
    ? habit(source, logicCalled(source, separator), "AND and OR are functions here")
    : [];

/** x == null, x != null, where a comparison with it gives nothing. */
const comparedWithNull: readonly Rule[] = [
  ["={2,3}", "is null"],
  ["!={1,2}", "is not null"],
].map(
  ([signs, right]): Rule =>
    (source) =>
      habit(
        source,
        outside(source, (text) => text.replace(new RegExp(`\\s*(?<![<>=!:])${signs}\\s*null\\b`, "gi"), ` ${right}`)),
        `what is missing is asked for with ${right}`,
      ),
);

/** A text with columns in curly brackets, f'{x} m' or `${x} m`: its pieces are joined. */
const filledText: Rule = (source, dialect, columns) => {
  const [, , quoted, ticked] = /^\s*(?:f(['"])([^]*)\1|`([^]*)`)\s*$/.exec(source) ?? [];
  const template = quoted ?? ticked;
  if (template === undefined) return [];
  const known = new Map(columns.map((name) => [name.toLowerCase(), name]));
  const pieces = template.split(quoted === undefined ? /\$\{([^{}]*)\}/ : /\{([^{}]*)\}/);
  if (pieces.length === 1 || pieces.some((piece, i) => i % 2 === 1 && !known.has(piece.trim().toLowerCase()))) return [];
  const written = pieces.flatMap((piece, i) =>
    i % 2 === 1 ? [dialect.columnText(known.get(piece.trim().toLowerCase())!)] : piece === "" ? [] : [dialect.textLiteral(piece)],
  );
  const parts = written.map((each) => ({ text: each, isOpen: false }));
  const text = joinedAs(templateOf("join", dialect.id)!, parts);
  return [{ said: "texts and what stands between them are joined here", text }];
};

/** How others write what is written otherwise here; whoever uses one tries whether the text is read then. */
const habits: readonly Rule[] = [
  without(/^\s*=\s*/, "the = in front"),
  without(/[\s;,]+$/, "the sign at the end"),
  without(/\s+as\s+(?:"[^"]+"|[\p{L}_][\p{L}\p{N}_]*)\s*;?\s*$/iu, "a name for the result"),
  without(/^\s*where\s+/i, "WHERE"),
  selected,
  extraBracket,
  curly,
  ...comparedWithNull,
  filledText,
  sign(/(?<![<>=!:])==(?!=)/g, "==", "="),
  sign(/===/g, "===", "=", "eq"),
  sign(/!==/g, "!==", "<>", "!="),
  sign(/!=/g, "!=", "<>"),
  sign(/<>/g, "<>", "!="),
  sign(/(?<![<>=])=>/g, "=>", ">=", "->"),
  sign(/=</g, "=<", "<="),
  sign(/≥/g, "≥", ">="),
  sign(/≤/g, "≤", "<="),
  sign(/≠/g, "≠", "<>", "!="),
  sign(/[×]/g, "×", "*"),
  sign(/÷/g, "÷", "/", " div "),
  sign(/[–—−]/g, "a dash", "-"),
  sign(/\s*&&\s*/g, "&&", " and "),
  sign(/\s*\|\|\s*/g, "||", " or ", "&"),
  sign(/\s*(?<!&)&(?!&)\s*/g, "&", " || ", " and "),
  sign(/\s*(?<!\|)\|(?!\|)\s*/g, "|", " or "),
  sign(/\s+\.\s+/g, ".", "&", " || "),
  sign(/!(?![=~])\s*/g, "!", "not "),
  sign(/\s*%\s*/g, "%", " mod "),
  sign(/\s*\/\/\s*/g, "//", " idiv ", " div "),
  sign(/\s*\/\s*/g, "/", " div "),
  sign(/\*\*/g, "**", "^"),
  sign(/\s*~\s*/g, "~", " regexp "),
  (source) =>
    habit(
      source,
      outside(source, (text) => text.replace(/\b(true|false)\b(?!\()/gi, "$1()")),
      "true and false are functions here",
    ),
  (source) =>
    habit(
      source,
      outside(source, (text) => text.replace(/(\d),(\d)/g, "$1.$2")),
      "decimals are written with a point here",
    ),
  separators,
  (source) =>
    habit(
      source,
      source.replace(/\bif\s+(?!\()([^]+?)\s+then\b/g, "if ($1) then"),
      "the condition after if stands in brackets here",
    ),
  (source) =>
    habit(
      source,
      outside(source, (text) => text.replace(/(\$\w+)-(?=[$\d(])/g, "$1 - ")),
      "a - may be part of a name, and has a space before it where it subtracts",
    ),
  (source) =>
    /\bthen\b/.test(source) && !/\belse\b/.test(source) ? [{ said: "if has an else here", text: `${source} else ()` }] : [],
  (source) =>
    habit(
      source,
      source.replace(/\bcase\s+(?!when\b)([^]+?)\s+then\b/gi, "case when $1 then"),
      "a condition of CASE has WHEN before it",
    ),
  (source) =>
    /\bcase\b/i.test(source) && !/\bend\s*$/i.test(source) ? [{ said: "CASE ends with END", text: `${source} end` }] : [],
  infixLogic,
  ...formsElsewhere,
  columnNames,
  quoteWithin,
];

const joinedByPlus = sign(/\s*\+\s*/g, "joining", " || ");

/** Whether a + stands between texts only, or beside a text that is written and is no number. */
const isJoinedByPlus = (source: string, found: readonly Diagnostic[]): boolean =>
  !stretchText.test(source) &&
  (/\+\s*'(?!\s*[-+\d.]|PT?\d)|'[^'\d+-][^']*'\s*\+/.test(source) ||
    found.some(
      ({ code, facts: { name, given } }) =>
        code === "argument-type" && name === "+" && (given as readonly string[]).map(typeOf).every(isText),
    ));

/** The longest text, in UTF-16 units, for which other ways to write it are tried. */
export const longest = 1000;
/** The most ways of writing that are mended together. */
const most = 6;

/** What compiling a text tells. */
export interface Trial {
  readonly ok: boolean;
  /** Whether it could be read at all, so that names and types were looked at. */
  readonly isRead: boolean;
  readonly diagnostics: readonly Diagnostic[];
  /** Whether it was not compiled, as enough texts have been. */
  readonly isUntried?: true;
}

/**
 * How far from right a text is: what cannot be read is farthest, by what is left of it; then the more is wrong, and a function that
 * is not there may hide what is wrong around it.
 */
function wrongness(text: string, { isRead, diagnostics, isUntried }: Trial): number {
  if (isUntried) return Infinity;
  const errors = diagnostics.filter((d) => d.severity === "error");
  const unknown = errors.filter(({ code }) => code === "unknown-function");
  return isRead ? errors.length + unknown.length : longest + text.length - Math.min(...errors.map(({ range }) => range.start));
}

/**
 * What of a text that is not read is written as elsewhere, with the mend after which all of it is read: one way after the other, as
 * long as each brings the reader farther.
 */
export function habitIn(
  source: string,
  given: Trial,
  dialect: Dialect,
  columns: readonly string[],
  compile: (text: string) => Trial,
): Diagnostic | undefined {
  // Several ways of writing come to one text.
  const known = new Map<string, Trial>();
  const compiled = (text: string): Trial => {
    const trial = known.get(text) ?? compile(text);
    known.set(text, trial);
    return trial;
  };
  const [first] = given.diagnostics.filter((d) => d.severity === "error");
  // A name that is not there may be the half of one; any other mend that is enough stands, and of a function that is not there any.
  const own = first.code !== "unknown-column" && first.fixes[0];
  if (first.code === "unknown-function" && first.fixes.length > 0) return undefined;
  if (own && compiled(applyFix(source, own)).ok) return undefined;
  const said: string[] = [];
  let [text, now] = [source, given];
  while (said.length < most) {
    // Whether texts stand beside a + may be known only after what is around them is read.
    const rules = isJoinedByPlus(text, now.diagnostics) ? [joinedByPlus, ...habits] : habits;
    const ways = [
      ...(said.length > 0 ? namesElsewhere(text, now.diagnostics) : []),
      ...rules.flatMap((rule) => rule(text, dialect, columns)),
      ...wordWanted(text, now.diagnostics, dialect.separator),
    ];
    const tried = ways.flatMap((way) => {
      const trial = compiled(way.text);
      // What is written otherwise may be a function that has another name here.
      const further = trial.isRead && !trial.ok ? namesElsewhere(way.text, trial.diagnostics) : [];
      const own = further.map(({ said: also, text: other }) => ({ said: `${way.said}, and ${also}`, text: other }));
      return [{ habit: way, trial }, ...own.map((each) => ({ habit: each, trial: compiled(each.text) }))];
    });
    const read = tried.find(({ trial }) => trial.ok);
    const nearer = read ?? tried.find(({ habit, trial }) => wrongness(habit.text, trial) < wrongness(text, now));
    if (!nearer) return undefined;
    said.push(nearer.habit.said);
    text = nearer.habit.text;
    if (read) {
      const edit = editTo(source, text);
      return mistake("habit", edit.range, { said }, [{ title: `Write ${text}`, edits: [edit] }]);
    }
    now = nearer.trial;
  }
  return undefined;
}

/** A word that is wanted where something else stands, which is put there, in the place of a comma; or a separator before one more argument. */
function wordWanted(text: string, problems: readonly Diagnostic[], separator: string): Habit[] {
  const first = problems.find(({ severity }) => severity === "error");
  const [, word] = (first?.code === "expected" && /^"([a-z]+|\))"$/.exec(String(first.facts.expected))) || [];
  if (!first || word === undefined) return [];
  const { start, end } = first.range;
  const given = text.slice(start, end);
  const [before, after] = [text.slice(0, start).trimEnd(), text.slice(given === "," ? end : start).trimStart()];
  if (word === ")")
    return /^['"$\p{L}\p{N}]/u.test(given) ? [{ text: `${before}${separator} ${after}`, said: `a ${separator} is lacking` }] : [];
  const rest = text.slice(end).trimStart();
  return [
    { text: `${before} ${word} ${after}`, said: given === "," ? `"," is written "${word}" here` : `"${word}" is lacking` },
    ...(/^\p{L}+$/u.test(given) ? [{ text: `${before} ${word} ${rest}`, said: `"${given}" is written "${word}" here` }] : []),
  ];
}

/** A function of another language, as it is said here, or a text in quotes that are those of a column. */
function namesElsewhere(text: string, problems: readonly Diagnostic[]): Habit[] {
  return problems.flatMap(({ code, range, fixes, facts }): Habit[] => {
    if (code === "unknown-function" && facts.said !== undefined && fixes.length > 0)
      return [{ text: applyFix(text, fixes[0]), said: `${String(facts.name)} is no function here` }];
    const isQuoted = /['"`]/.test(text[range.start] ?? "") && (facts.nearest as readonly string[] | undefined)?.length === 0;
    if (code !== "unknown-column" || !isQuoted || fixes.length !== 1) return [];
    const written = text.slice(range.start, range.end);
    return [{ text: applyFix(text, fixes[0]), said: `${written} is a column here, a text is written ${fixes[0].edits[0].text}` }];
  });
}

/** What differs between two texts, between what begins and what ends them alike. */
export function editTo(source: string, text: string) {
  let start = 0;
  while (start < source.length && start < text.length && source[start] === text[start]) start++;
  let same = 0;
  const room = Math.min(source.length, text.length) - start;
  while (same < room && source.at(-1 - same) === text.at(-1 - same)) same++;
  return { range: { start, end: source.length - same }, text: text.slice(start, text.length - same) };
}
