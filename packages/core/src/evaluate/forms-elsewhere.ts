import type { Dialect } from "../dialects/dialect.ts";
import { type TaskId, filled, templateOf } from "../dialects/tasks/index.ts";
import { isPure, namesOf } from "../dialects/row.ts";
import { callsElsewhere, done } from "./calls-elsewhere.ts";
import { datesElsewhere } from "./dates-elsewhere.ts";
import { choicesElsewhere } from "./choices-elsewhere.ts";
import { type Rule, habit } from "./habit.ts";
import { methodsElsewhere } from "./methods-elsewhere.ts";
import {
  inParts,
  bare,
  halves,
  masked,
  mostChanges,
  operandStart,
  outside,
  rewrittenCalls,
  splitOutside,
  stretches,
} from "./outside.ts";

/** What types of other languages are for: a task, and what it takes. */
const typeTasks: readonly (readonly [RegExp, TaskId, slot: string])[] = [
  [/^(?:str(?:ing)?|n?text|n?varchar|n?char|character(?: varying)?|n?clob)$/, "toText", "number"],
  [/^(?:u?int(?:eger)?\d*|(?:big|small|tiny|medium)int|long|short|signed|unsigned|whole)(?: integer)?$/, "toWhole", "text"],
  [/^(?:number|numeric|dec(?:imal)?|float\d*|double(?: precision)?|real)$/, "toNumber", "text"],
  [/^date$/, "toDate", "text"],
];

/** A value as another type, as a dialect writes it; undefined where more is asked than that. */
function cast(dialect: Dialect, operand: string, type: string): string | undefined {
  const [, name, size] = /^\s*(?:xs:)?([^()]*?)\s*(?:\(\s*(\d+)\s*\))?\s*$/.exec(type.toLowerCase()) ?? [];
  const [, task, slot] = typeTasks.find(([types]) => types.test(name ?? "")) ?? [];
  if (task === undefined || slot === undefined) return undefined;
  const isOpen = !/^(?:\$?[\p{L}_][\p{L}\p{N}_]*(?:\([^()]*\))?|'[^']*')$/u.test(operand);
  const template = templateOf(task, dialect.id);
  const written = template && filled(template, { [slot]: { text: operand.trim(), isOpen } });
  if (size === undefined || written === undefined) return written;
  // A text of so many characters is cut.
  return task === "toText" ? done(dialect, "first", { text: written, count: size }) : undefined;
}

/** A cast to a type of another language: CAST(x AS t), x::t. */
const casts: Rule = (source, dialect) => {
  let said = "";
  const told = (written: string | undefined) => {
    if (written !== undefined) said ||= `the cast is written ${written} here`;
    return written;
  };
  let text = rewrittenCalls(source, "cast", (_, inside) => {
    const [operand, type, more] = splitOutside(inside, /\s+as\s+/);
    return type === undefined || more !== undefined ? undefined : told(cast(dialect, operand, type));
  });
  for (let i = 0; i < mostChanges; i++) {
    const mask = masked(text);
    const found = /::\s*(\w+(?:\s*\([\d, ]*\))?)/.exec(mask);
    const start = found ? operandStart(mask, found.index) : undefined;
    const written = found && start !== undefined ? told(cast(dialect, text.slice(start, found.index), found[1])) : undefined;
    if (!found || written === undefined) break;
    text = text.slice(0, start) + written + text.slice(found.index + found[0].length);
  }
  return habit(source, text, said);
};

const trims: Readonly<Record<string, string>> = { both: "trim", leading: "ltrim", trailing: "rtrim" };

/** The forms of SQL with words between their arguments, as calls with nothing but arguments. */
const words: Rule = (source, { separator, rows }) => {
  const isHere = (wanted: string) => rows.some((row) => namesOf(row).includes(wanted));
  const call = (name: string, ...args: readonly string[]) => `${name}(${args.map((arg) => arg.trim()).join(`${separator} `)})`;
  const text = rewrittenCalls(source, "substring|substr|position|overlay|trim|extract", (name, inside) => {
    if (name === "trim") {
      const [, side = "both", characters = "", of] =
        /^\s*(both|leading|trailing)?\s*([^]*?)\s*\bfrom\s+([^]+)$/i.exec(inside) ?? [];
      return of === undefined ? undefined : call(trims[side.toLowerCase()], of, ...(characters === "" ? [] : [characters]));
    }
    if (name === "extract" && isHere(name)) return undefined;
    const parts = splitOutside(inside, name === "position" ? /\bin\b/ : /\b(?:placing|from|for)\b/);
    if (parts.length < 2) return undefined;
    if (name === "extract") return call(parts[0].trim().toLowerCase(), parts[1]);
    return name.startsWith("subst") && parts.length === 2 && /\bfor\b/i.test(inside)
      ? call("left", ...parts)
      : call(name, ...parts);
  });
  return habit(source, text, "arguments have nothing but a separator between them here");
};

/** SUBSTRING with commas, where it has words between its arguments. */
const substringWords: Rule = (source) =>
  habit(
    source,
    rewrittenCalls(source, "substring|substr|mid", (_, inside) => {
      const [text, start, count, more] = splitOutside(inside, /,/).map((part) => part.trim());
      if (start === undefined || more !== undefined) return undefined;
      return `substring(${text} from ${start}${count === undefined ? "" : ` for ${count}`})`;
    }),
    "the arguments of substring have from and for between them here",
  );

/** A field of a date with its arguments the other way round, or with the words of another form. */
const fieldOfDate: Rule = (source, dialect) => {
  let said = "";
  const text = rewrittenCalls(source, "extract|date_part|datepart", (_, inside) => {
    const parts = splitOutside(inside, /\bfrom\b|,/).map((part) => part.trim());
    const fields = parts.map((part) => dateFields.find((field) => field === part.replace(/^'(.*)'$/, "$1").toLowerCase()));
    const at = fields.findIndex((field) => field !== undefined);
    if (parts.length !== 2 || at < 0) return undefined;
    const date = parts[1 - at];
    const written = done(dialect, fields[at]!, ["hour", "minute", "second"].includes(fields[at]!) ? { moment: date } : { date });
    said = `a field of a date is written ${String(written)} here`;
    return written;
  });
  return habit(source, text, said);
};
const dateFields: readonly TaskId[] = ["year", "quarter", "month", "week", "day", "hour", "minute", "second"];

const trimmed: Readonly<Record<string, string>> = { trim: "both", btrim: "both", ltrim: "leading", rtrim: "trailing" };

/** TRIM with a comma, where it has words between what is taken off and the text. */
const trimWords: Rule = (source) =>
  habit(
    source,
    rewrittenCalls(source, "b?trim|[lr]trim", (name, inside) => {
      const [first, second, more] = splitOutside(inside, /,/).map((part) => part.trim());
      if (second === undefined || more !== undefined) return undefined;
      const [text, sign] = /^'.'$/u.test(first) ? [second, first] : [first, second];
      return /^'.'$/u.test(sign) ? `trim(${trimmed[name]} ${sign} from ${text})` : undefined;
    }),
    "trim has from between the sign and the text here",
  );

/** ISNULL(x, y) or ISNULL(x), where that is a word of the grammar. */
const missing: Rule = (source) => {
  const rewritten = (count: number, write: (inside: string) => string, said: string) =>
    habit(
      source,
      rewrittenCalls(source, "isnull", (_, inside) => (splitOutside(inside, /,/).length === count ? write(inside) : undefined)),
      said,
    );
  return [
    ...rewritten(2, (inside) => `coalesce(${inside})`, "another value where one is missing is written with coalesce here"),
    ...rewritten(1, (inside) => `(${inside} is null)`, "whether a value is missing is asked with is null here"),
  ];
};

/** NOT before a condition, where it is a function: all of what it stands before, as far as AND or OR. */
const negations: Rule = (source) => {
  const negated = (condition: string) => condition.replace(/^(\s*not)\s+(?!\()([^]*\S)/i, "$1($2)");
  const text = inParts(source, (part) => splitKeeping(part, /\s+(?:and|or)\s+/i, negated));
  return habit(source, text, "not is a function here");
};

/** A part with something done to each stretch between signs outside brackets. */
function splitKeeping(part: string, at: RegExp, change: (stretch: string) => string): string {
  let [text, rest] = ["", part];
  for (const stretch of splitOutside(part, at)) {
    const sign = at.exec(rest.slice(stretch.length));
    text += change(stretch) + (sign?.index === 0 ? sign[0] : "");
    rest = rest.slice(stretch.length + (sign?.index === 0 ? sign[0].length : 0));
  }
  return text;
}

/** An operand and a text with words between them, as they are written, and the whole with something in their place. */
function besideText(source: string, words: string) {
  const mask = masked(source);
  const found = new RegExp(`\\s+${words}\\s+(?=\\0)`, "i").exec(mask);
  const start = found ? operandStart(mask, found.index) : undefined;
  if (!found || start === undefined) return undefined;
  const from = found.index + found[0].length;
  const end = from + /^\0+/.exec(mask.slice(from))![0].length;
  return {
    operand: source.slice(start, found.index),
    text: source.slice(from, end),
    put: (written: string) =>
      habit(source, source.slice(0, start) + written + source.slice(end), `that is written ${written} here`),
  };
}

/** x LIKE 'a%', where there is no LIKE; only signs at the ends may stand for others. */
const likes: Rule = (source, dialect) => {
  const found = besideText(source, "like");
  const [, before, plain, after] = /^.(%?)([^%_]*)(%?).$/.exec(found?.text ?? "") ?? [];
  if (!found || plain === undefined) return [];
  const task = before ? (after ? "contains" : "endsWith") : after ? "startsWith" : "sameText";
  const needle = dialect.textLiteral(plain);
  const written = done(dialect, task, task === "sameText" ? { a: found.operand, b: needle } : { text: found.operand, needle });
  return written === undefined ? [] : found.put(written);
};

/** x BETWEEN a AND b */
const ranges: Rule = (source, dialect) =>
  habit(
    source,
    inParts(source, (part) => {
      const { inner, put } = bare(part);
      const [, value, low, high] = /^(\S+)\s+between\s+(\S+)\s+and\s+(\S+)$/i.exec(inner) ?? [];
      const written =
        high === undefined ? undefined : done(dialect, "both", { a: `${value} >= ${low}`, b: `${value} <= ${high}` });
      return written === undefined ? part : put(written);
    }),
    "a range is two comparisons here",
  );

/** Words between two operands, each with what it is for. */
const between: readonly (readonly [words: string, TaskId])[] = [
  ["(?:contains|includes|has)", "contains"],
  ["(?:starts?|begins?)(?:_?with|\\s+with)", "startsWith"],
  ["ends?(?:_?with|\\s+with)", "endsWith"],
];

/** x contains 'a', x starts with 'a' */
const tests: Rule = (source, dialect) =>
  between.flatMap(([words, task]) => {
    const found = besideText(source, words);
    const written = found && done(dialect, task, { text: found.operand, needle: found.text });
    return written === undefined ? [] : found!.put(written);
  });

/** x = null, x is null, and their opposites, where a function asks for what is missing. */
const nulls: Rule = (source, dialect) => {
  if (templateOf("isMissing", dialect.id)?.endsWith("null")) return [];
  const mask = masked(source);
  const found = /\s*(==?|!=|<>|\bis\s+not\b|\bis\b|\beq\b)\s*\bnull\b(?:\(\))?/i.exec(mask);
  const start = found ? operandStart(mask, found.index) : undefined;
  if (!found || start === undefined) return [];
  const missing = done(dialect, "isMissing", { value: source.slice(start, found.index) });
  const isThere = /not|!=|<>/i.test(found[1]);
  const written = isThere && missing ? done(dialect, "opposite", { condition: missing }) : missing;
  const text = source.slice(0, start) + String(written) + source.slice(found.index + found[0].length);
  return written === undefined ? [] : habit(source, text, `whether something is missing is asked by ${written}`);
};

/** a < b < c */
const chained: Rule = (source, dialect) => {
  const [left, low, middle, high, right, more] = source.split(/\s*([<>]=?)\s*/);
  if (
    right === undefined ||
    more !== undefined ||
    /[&|]|\b(?:and|or)\b/i.test(source) ||
    stretches(source).some(({ isQuoted }) => isQuoted)
  )
    return [];
  const both = done(dialect, "both", { a: `${left} ${low} ${middle}`, b: `${middle} ${high} ${right}` });
  return both === undefined ? [] : habit(source, both, "two comparisons are joined here, each with both of its sides");
};

/** x = 'a' or 'b', OR(x = "a"; "b") */
export const alternatives: Rule = (source, dialect) => {
  const literal = "(?:'[^']*'|\"[^\"]*\"|\\d+(?:\\.\\d+)?)";
  const called = new RegExp(
    `\\b(or)\\(\\s*([^=<>;,()]+?)\\s*=\\s*(${literal}(?:\\s*${dialect.separator}\\s*${literal})+)\\s*\\)`,
    "gi",
  );
  const whole = source.replace(called, (_, or: string, value: string, all: string) => {
    const each = splitOutside(all, new RegExp(dialect.separator)).map((part) => `${value}=${part.trim()}`);
    return `${or}(${each.join(dialect.separator)})`;
  });
  if (whole !== source) return habit(source, whole, "each side of or is a whole condition");
  const list = new RegExp(`([^\\s=<>!(),;]+)\\s*=\\s*(${literal}(?:\\s+or\\s+${literal})+)(?!\\s*[=<>])`, "gi");
  const template = templateOf("oneOf", dialect.id);
  if (!template?.includes("({first}")) return [];
  const text = source.replace(list, (_, value: string, all: string) =>
    template.replace("{value}", value).replace(/\(.*\)/, `(${all.split(/\s+or\s+/i).join(", ")})`),
  );
  return habit(source, text, "each side of or is a whole condition");
};

/** A function before what it takes, without brackets, or with others. */
const unbracketed: Rule = (source, { rows }, columns) => {
  const names = new Set(
    rows.flatMap((row) => (row.notation === "operator" ? [] : namesOf(row).map((name) => name.toLowerCase()))),
  );
  const known = new Set(columns.map((name) => name.toLowerCase()));
  const isCalled = (name: string) => names.has(name.toLowerCase()) && !/^not$/i.test(name);
  const said = "what a function takes stands in brackets";
  const before = outside(source, (part) =>
    part.replace(
      /([\p{L}_][\p{L}\p{N}_-]*)\s+(\$?([\p{L}_][\p{L}\p{N}_]*))/gu,
      (whole, name: string, column: string, bareName: string) =>
        isCalled(name) && known.has(bareName.toLowerCase()) ? `${name}(${column})` : whole,
    ),
  );
  const around = source.replace(
    /([\p{L}_][\p{L}\p{N}_-]*)(?:\[([^[\]]*)\]|\{([^{}]*)\})/gu,
    (whole, name: string, inside?: string, other?: string) => (isCalled(name) ? `${name}(${inside ?? other ?? ""})` : whole),
  );
  const all = source.replace(/^\s*([\p{L}_][\p{L}\p{N}_-]*)\s+([^(\s][^]*)$/u, (whole, name: string, rest: string) =>
    isCalled(name) ? `${name}(${rest})` : whole,
  );
  return [before, around, all].flatMap((text) => habit(source, text, said));
};

/** POSITION with a comma: the literal is what is searched for. */
const positionWords: Rule = (source) =>
  habit(
    source,
    rewrittenCalls(source, "position", (_, inside) => {
      const [first, second, more] = splitOutside(inside, /,/).map((part) => part.trim());
      if (second === undefined || more !== undefined) return undefined;
      const isTurned = /^['"]/.test(second) && !/^['"]/.test(first);
      return isTurned ? `position(${second} in ${first})` : `position(${first} in ${second})`;
    }),
    "position has in between its arguments here",
  );

/** x ?? 'none' */
const elseMarks: Rule = (source, dialect) =>
  habit(
    source,
    inParts(source, (part) => {
      const { inner, put } = bare(part);
      const [value, other] = halves(inner, "\\?\\?|\\?:");
      const written = other === undefined ? undefined : done(dialect, "fallback", { value, other });
      return written === undefined ? part : put(written);
    }),
    "another value where one is missing is written otherwise here",
  );

/** Columns in backquotes. */
const backquoted: Rule = (source, dialect, columns) =>
  habit(
    source,
    source.replace(/`([^`]+)`/g, (whole, name: string) => {
      const known = columns.find((column) => column.toLowerCase() === name.toLowerCase());
      return known === undefined ? whole : dialect.columnText(known);
    }),
    "backquotes are no signs of a column here",
  );

/** A pattern between slashes. */
const slashed: Rule = (source, dialect) =>
  habit(
    source,
    source.replace(
      /([(,;~]\s*|\b(?:regexp|rlike|like|matches)\s+)\/((?:\\.|[^/\n\\])+)\/(?=\s*(?:[,;)]|$))/gi,
      (_, before: string, pattern: string) => before + dialect.textLiteral(pattern.replaceAll("\\/", "/")),
    ),
    "a pattern stands in quotes",
  );

/** ILIKE, where LIKE does not heed the case, or where both sides are made lower case first. */
const caseBlind: Rule = (source, dialect) => {
  const named = (wanted: string) => dialect.rows.find(({ name }) => name === wanted);
  const like = named("like");
  if (!like || !isPure(like) || named("ilike")) return [];
  if ((like.answers as { case?: string }).case !== "minded")
    return habit(source, source.replace(/\bilike\b/gi, "like"), "like is the same for upper and lower case letters here");
  const found = besideText(source, "ilike");
  const lower = found && done(dialect, "lower", { text: found.operand });
  return lower === undefined ? [] : found!.put(`${lower} like ${found!.text.toLowerCase()}`);
};

/** A regular expression that is a plain text, perhaps at an end, where there are none. */
const plainPatterns: Rule = (source, dialect) => {
  const found = besideText(source, "(?:regexp|rlike|matches|~)");
  const [, start, plain, end] = /^.(\^?)([\p{L}\p{N} ,;:#/_-]+)(\$?).$/u.exec(found?.text ?? "") ?? [];
  if (!found || plain === undefined || templateOf("matches", dialect.id) !== undefined) return [];
  const task = start ? (end ? "sameText" : "startsWith") : end ? "endsWith" : "contains";
  const needle = dialect.textLiteral(plain);
  const written = done(dialect, task, task === "sameText" ? { a: found.operand, b: needle } : { text: found.operand, needle });
  return written === undefined ? [] : found.put(written);
};

/** A pattern beside a text with a word or a sign of other languages. */
const patternWords: Rule = (source, dialect) => {
  const found = besideText(source, "(?:regexp|rlike|matches|=~|~)");
  const written = found && done(dialect, "matches", { text: found.operand, pattern: found.text });
  return written === undefined ? [] : found!.put(written);
};

const replaced =
  (wrong: RegExp, right: string, said: string): Rule =>
  (source) =>
    habit(source, source.replace(wrong, right), said);

/** Forms of other languages, that are more than another sign or word. */
export const formsElsewhere: readonly Rule[] = [
  ...methodsElsewhere,
  ...choicesElsewhere,
  casts,
  substringWords,
  words,
  fieldOfDate,
  trimWords,
  missing,
  positionWords,
  elseMarks,
  backquoted,
  replaced(/\btrim\s*\(\s*(leading|trailing|both)\s+('[^']*')\s*,?\s*(?!from\b|,)/gi, "trim($1 $2 from ", "from is lacking"),
  replaced(
    /\bcase\s+([\w$]+)\s+when\s+(?=[<>]|(?:not\s+)?(?:i?like|in|between|is|regexp)\b)/gi,
    "case when $1 ",
    "CASE without a value before WHEN takes whole conditions",
  ),
  replaced(
    /([\w$]+)(\s*(?:[<>]=?|<>|!=|=|\blike\b)\s*(?:'[^']*'|[\d.]+)\s+)(and|or)\s+(?=[<>=]|like\b)/gi,
    "$1$2$3 $1 ",
    "each side of and, and of or, is a whole condition",
  ),
  replaced(/,\s*(?=(?:else|when|end)\b)/gi, " ", "nothing stands between the branches of CASE"),
  replaced(/\bwhen\s+('[^']*'|[\d.]+)\s+end\b/gi, "else $1 end", "what comes otherwise stands behind else"),
  replaced(/(\bwhen\b[^':]*):\s*/gi, "$1 then ", "then stands behind a condition of CASE"),
  replaced(/\bbetween\s*\(\s*([^(),]+),\s*([^(),]+)\)/gi, "between $1 and $2", "between has and between its limits"),
  replaced(/\bbetween\s+(\S+?)\s*(?:\bor\b|\bto\b|,)\s*/gi, "between $1 and ", "between has and between its limits"),
  negations,
  likes,
  ranges,
  replaced(/\s+in\s*(?=\([^()]*\))/gi, " = ", "one of several is asked for with = here"),
  tests,
  nulls,
  chained,
  alternatives,
  unbracketed,
  replaced(
    /\b(i?like|glob|similar\s+to|regexp)\s+(?!['"$])([%*]*[\p{L}\p{N}_]*[%*_]+[\p{L}\p{N}_%*]*)/giu,
    "$1 '$2'",
    "a pattern stands in quotes",
  ),
  replaced(/('[^']*')\s+(?:(?:with|by|to|into)\s+)?(?=')/gi, "$1, ", "texts have a comma between them"),
  replaced(/\s+(?:is\s*n['’]?t|(?<!\bis\s+)not)\s+null\b/gi, " is not null", "what is there is asked for with is not null"),
  slashed,
  caseBlind,
  plainPatterns,
  patternWords,
  replaced(/\[\s*last\s*\]/gi, "[last()]", "last is a function here"),
  replaced(/\blet\s+(\$[\w-]+)\s*=\s*/gi, "let $1 := ", "let has := behind the variable"),
  replaced(/\s+mod\s+/gi, " % ", "mod is written % here"),
  replaced(/!(?![=~(])\s*(\$?[\p{L}_][\w.-]*(?:\([^()]*\))?)/gu, "not($1)", "not is a function here"),
  replaced(/\bis\s+not\s+empty\b/gi, "<> ''", "an empty text is written ''"),
  replaced(/\bis\s+empty\b/gi, "= ''", "an empty text is written ''"),
  replaced(/\bis\s+not\s+(?=['\d])/gi, "<> ", "another value is asked for with <>"),
  replaced(/\bis\s+(?=['\d])/gi, "= ", "a value is asked for with ="),
  ...datesElsewhere,
  ...callsElsewhere,
];
