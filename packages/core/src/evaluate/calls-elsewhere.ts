import type { Dialect } from "../dialects/dialect.ts";
import { namesOf } from "../dialects/row.ts";
import { type Part, type TaskId, filled, templateOf } from "../dialects/tasks/index.ts";
import { type Rule, habit } from "./habit.ts";
import { closingOf, masked, mostChanges, operandStart, outside, rewrittenCalls, splitOutside } from "./outside.ts";

/** What a task makes of operands; undefined where it is not said. */
export function done({ id }: Dialect, task: TaskId, operands: Readonly<Record<string, string>>): string | undefined {
  const template = templateOf(task, id);
  const parts = Object.entries(operands).map(([slot, text]) => [slot, { text, isOpen: false }]);
  return template && filled(template, Object.fromEntries(parts) as Readonly<Record<string, Part>>);
}

/** A call that splits a text, with what it takes. */
export const splitting =
  /^(?:split|tokenize|string_to_array|string_split|str_split|regexp_split_to_array|explode)\s*\(([^]*)\)$/i;

/** f(x)[n]: an item of a list in brackets of its own, or the nth piece of a text. */
const subscripts: Rule = (source, dialect) => {
  const mask = masked(source);
  const found = /(?<=\))\s*\[\s*(\d+)\s*\]/.exec(mask);
  const start = found ? operandStart(mask, found.index) : undefined;
  // Behind a method places are counted from 0.
  if (!found || start === undefined || /\.\s*$/.test(mask.slice(0, start))) return [];
  const list = source.slice(start, found.index);
  const n = found[1] === "0" ? "1" : found[1];
  const put = (text: string, said: string) =>
    habit(source, source.slice(0, start) + text + source.slice(found.index + found[0].length), said);
  const [text, delimiter, more] = splitOutside(splitting.exec(list)?.[1] ?? "", /[,;]/).map((part) => part.trim());
  const isPiece = delimiter !== undefined && more === undefined;
  const piece = isPiece ? done(dialect, "piece", { text, delimiter, n }) : undefined;
  return [
    ...put(`(${list})[${n}]`, "brackets stand around a list of which an item is taken"),
    ...(piece === undefined ? [] : put(piece, `the nth piece is written ${piece} here`)),
  ];
};

/** A separator with nothing behind it. */
const emptyArguments: Rule = (source) =>
  habit(
    source,
    outside(source, (text) => text.replace(/[,;]\s*(?=[,;)])/g, "")),
    "a separator has an argument behind it",
  );

/** A bracket that is closed before the last argument: LEFT(x);3 */
const lateArguments: Rule = (source) => {
  const mask = masked(source);
  const found = /\)\s*([,;][^()]+)$/.exec(mask);
  return found
    ? habit(
        source,
        `${source.slice(0, found.index)}${source.slice(found.index + 1).trim()})`,
        "the bracket closes behind the last argument",
      )
    : [];
};

/** Places where a bracket is tried, at most. */
const mostPlaces = 12;

/** A bracket that closes one argument too early, or too late: UPPER(LEFT(x);1), LEFT(UPPER(x;1)) */
const misplacedBracket: Rule = (source) => {
  const mask = masked(source);
  const places = [/\)\s*[,;][^(),;]+/g, /[,;][^(),;]+\)/g].flatMap((at) => [...mask.matchAll(at)]).slice(0, mostPlaces);
  return places.flatMap(({ index, 0: found }) => {
    const part = source.slice(index, index + found.length);
    const turned = part.startsWith(")") ? `${part.slice(1)})` : `)${part.slice(0, -1)}`;
    const depth = [...mask.slice(0, index)].reduce((sum, sign) => sum + (sign === "(" ? 1 : sign === ")" ? -1 : 0), 0);
    // Outside all brackets it would be no argument.
    if (depth < 2) return [];
    return habit(source, source.slice(0, index) + turned + source.slice(index + found.length), "a ) stands in another place");
  });
};

/** Brackets that are not closed: one of them before a separator or a sign, any other at the end. */
const lackingBracket: Rule = (source) => {
  const mask = masked(source);
  const lacking = [...mask].reduce((count, sign) => count + (sign === "(" ? 1 : sign === ")" ? -1 : 0), 0);
  if (lacking < 1 || lacking > 2) return [];
  const places = [...mask.matchAll(/[,;]|\s*(?:[<>=&+]|\|\|)|$/g)].map(({ index }) => index).slice(0, mostPlaces);
  return places.flatMap((at) =>
    habit(source, `${source.slice(0, at)})${source.slice(at)}${")".repeat(lacking - 1)}`, "a ) is lacking"),
  );
};

/** x IN ('a', 'b') without brackets, or where there is no IN. */
const members: Rule = (source, dialect) => {
  const bare = source.replace(/\bin\s+((?:'[^']*'|\d+)(?:\s*,\s*(?:'[^']*'|\d+))*)/gi, "in ($1)");
  const mask = masked(source);
  const found = /\s+in\s*\(/i.exec(mask);
  const open = found ? found.index + found[0].length - 1 : 0;
  const [start, close] = found ? [operandStart(mask, found.index), closingOf(mask, open)] : [];
  const either = templateOf("either", dialect.id);
  const called = /^(\w+\()\{a\}(.)\{b\}\)$/.exec(either ?? "");
  if (!found || start === undefined || close === undefined || !called)
    return habit(source, bare, "those among which one is stand in brackets");
  const value = source.slice(start, found.index);
  const each = splitOutside(source.slice(open + 1, close), /[,;]/).map((part) => `${value}=${part.trim()}`);
  return habit(
    source,
    `${source.slice(0, start)}${called[1]}${each.join(called[2])})${source.slice(close + 1)}`,
    "one of several is asked for with a comparison for each here",
  );
};

/** A sign or a word between two numbers that is another here, or a function: a % b, a // b, a div b, a ^ b. */
const betweenNumbers =
  (sign: string, write: (dialect: Dialect, a: string, b: string) => string | undefined, said: string): Rule =>
  (source, dialect) => {
    const between = new RegExp(`\\s*${sign}\\s*(\\$?[\\p{L}_][\\p{L}\\p{N}_]*(?!\\()|\\d+(?:\\.\\d+)?)`, "iu");
    let text = source;
    for (let i = 0; i < mostChanges; i++) {
      const mask = masked(text);
      const found = between.exec(mask);
      const start = found ? operandStart(mask, found.index) : undefined;
      const written = start === undefined ? undefined : write(dialect, text.slice(start, found!.index), found![1]);
      const next = written && text.slice(0, start) + written + text.slice(found!.index + found![0].length);
      if (next === undefined || next === text) break;
      text = next;
    }
    return habit(source, text, said);
  };

/** Two values without anything between them, which can only be joined. */
const besideEachOther: Rule = (source, dialect) => {
  const joined = /^\{a\}(\s*[&|]+\s*)\{b\}$/.exec(templateOf("join", dialect.id) ?? "");
  const sign =
    joined?.[1] ?? (dialect.rows.some(({ name, notation }) => name === "||" && notation === "operator") ? " || " : undefined);
  if (sign === undefined) return [];
  const mask = masked(source);
  const at = /(?<=[)\0])\s*(?=[$\p{L}])|(?<=[\p{L}\p{N}_)])\s*(?=\0)/u.exec(mask);
  // Among arguments it is rather a separator that is lacking.
  if (at && mask.slice(0, at.index).lastIndexOf("(") > mask.slice(0, at.index).lastIndexOf(")")) return [];
  const words = new Set(dialect.rows.flatMap((row) => (row.notation === "operator" ? namesOf(row) : [])));
  const [next = ""] = /^\p{L}+/u.exec(mask.slice((at?.index ?? 0) + (at?.[0].length ?? 0))) ?? [];
  if (!at || words.has(next.toLowerCase())) return [];
  return habit(
    source,
    source.slice(0, at.index) + sign + source.slice(at.index + at[0].length),
    `${sign.trim()} is lacking between two texts`,
  );
};

/** The first of some values whose condition, which stands before it, holds; the one that is left over, or nothing, where none does. */
function chosenInTurn(dialect: Dialect, parts: readonly string[]): string | undefined {
  const count = Math.floor(parts.length / 2);
  const pairs = Array.from({ length: count }, (_, i) => [parts[2 * i], parts[2 * i + 1]] as const);
  const other = parts.length % 2 === 1 ? parts.at(-1)! : undefined;
  if (templateOf("choose", dialect.id)?.startsWith("case")) {
    const whens = pairs.map(([condition, then]) => `when ${condition} then ${then}`);
    return `case ${whens.join(" ")}${other === undefined ? "" : ` else ${other}`} end`;
  }
  return pairs.reduceRight<string | undefined>(
    (otherwise, [condition, then]) => otherwise && done(dialect, "choose", { condition, then, else: otherwise }),
    other ?? dialect.phrases.nothing,
  );
}

/** What stands for a value: pairs of one and what it gives, and perhaps what all others give. */
function decoded(dialect: Dialect, value: string, parts: readonly string[]): string | undefined {
  const given = parts.map((part, i) =>
    i % 2 === 0 && i < parts.length - 1 ? done(dialect, "sameText", { a: value, b: part }) : part,
  );
  return given.some((part) => part === undefined) ? undefined : chosenInTurn(dialect, given as readonly string[]);
}

/** TRANSLATE(text, from, to) as a replacement of each character, where none of them is put in before it is replaced. */
function translated(dialect: Dialect, [text, from, to, more]: readonly string[]): string | undefined {
  const [olds, news] = [from, to].map((part) => [...(/^(["'])([^]*)\1$/.exec(part ?? "")?.[2] ?? "")]);
  if (olds.length === 0 || more !== undefined || olds.some((old, i) => news.indexOf(old) >= 0 && news.indexOf(old) < i))
    return undefined;
  return olds.reduce<string | undefined>((said, old, i) => {
    const put = { old: dialect.textLiteral(old), new: dialect.textLiteral(news[i] ?? "") };
    return said && done(dialect, "replace", { text: said, ...put });
  }, text);
}

/** Parts of dates, LTRIM with the zeros that go. */
const calls: Rule = (source, dialect) => {
  const rewritten = (names: string, rewrite: (args: readonly string[], name: string) => string | undefined, said: string) =>
    habit(
      source,
      rewrittenCalls(source, names, (name, inside) =>
        rewrite(
          splitOutside(inside, /[,;]/).map((part) => part.trim()),
          name,
        ),
      ),
      said,
    );
  return [
    ...rewritten(
      "datepart|date_part|extract",
      ([field, date, more]) => {
        const [, part] = /^'?(year|month|day)'?$/i.exec(field) ?? [];
        return part === undefined || date === undefined || more !== undefined
          ? undefined
          : done(dialect, part.toLowerCase() as TaskId, { date });
      },
      "a part of a date is taken otherwise here",
    ),
    ...rewritten(
      "list_transform|list_apply|array_transform|array_apply",
      ([list, name, more]) =>
        /^'?[a-z_]\w*'?$/i.test(name ?? "") && more === undefined
          ? `list_transform(${list}, x -> ${name.replaceAll("'", "")}(x))`
          : undefined,
      "what is done to each item is written with its name here",
    ),
    ...rewritten(
      "nvl2",
      ([value, then, otherwise, more]) => {
        const condition = more === undefined && otherwise !== undefined ? done(dialect, "isMissing", { value }) : undefined;
        return condition && done(dialect, "choose", { condition, then: otherwise, else: then });
      },
      "a choice by whether a value is missing is written otherwise here",
    ),
    ...rewritten(
      "decode|switch",
      ([value, ...pairs]) => (pairs.length < 2 ? undefined : decoded(dialect, value, pairs)),
      "a choice by a value is written otherwise here",
    ),
    ...rewritten(
      "choose|elt",
      ([number, ...values]) =>
        chosenInTurn(
          dialect,
          values.flatMap((value, i) => [`${number} = ${i + 1}`, value]),
        ),
      "a choice by a number is written otherwise here",
    ),
    ...rewritten(
      "field",
      ([value, ...values]) => decoded(dialect, value, [...values.flatMap((each, i) => [each, `${i + 1}`]), "0"]),
      "which of several values it is is written otherwise here",
    ),
    ...rewritten("translate", (args) => translated(dialect, args), "each character is replaced by itself here"),
    ...rewritten(
      "ifs",
      (args) => (args.length < 2 ? undefined : chosenInTurn(dialect, args)),
      "a choice between several is written otherwise here",
    ),
    ...["string_agg", "group_concat", "listagg"].flatMap((here) =>
      rewritten(
        "string_agg|group_concat|listagg",
        // Where a word stands before the separator, all that stands between commas is joined.
        (args) => `${here}(${args.join(dialect.rows.some(({ name }) => name === `${here} separator`) ? " separator " : ", ")})`,
        `the texts of rows are joined with ${here} here`,
      ),
    ),
    ...rewritten(
      "convert",
      ([first, second, more]) => {
        const isType = (text: string) =>
          /^(?:text|varchar|char|string|int|integer|bigint|decimal|numeric|float|double|date)\b/i.test(text);
        if (second === undefined || more !== undefined || isType(first) === isType(second)) return undefined;
        return isType(second) ? `cast(${first} as ${second})` : `cast(${second} as ${first})`;
      },
      "a cast is written with as here",
    ),
    ...rewritten(
      "string-join",
      (args) => {
        if (args.length < 3) return undefined;
        // A separator is written, what is joined is not; otherwise it stands last.
        const literals = args.filter((arg) => /^['"]/.test(arg));
        const separator = literals.length === 1 ? literals[0] : args.at(-1)!;
        return `string-join((${args.filter((arg) => arg !== separator).join(", ")}), ${separator})`;
      },
      "what is joined stands in brackets of its own",
    ),
    ...rewritten(
      "[lr]?trim",
      ([text, characters, more], name) =>
        !/^'.'$/u.test(characters ?? "") || more !== undefined
          ? undefined
          : `trim(${{ ltrim: "leading", rtrim: "trailing" }[name] ?? "both"} ${characters} from ${text})`,
      "what is taken away stands before from here",
    ),
  ];
};

/** Calls of other languages, and what is left out or too much in them. */
export const callsElsewhere: readonly Rule[] = [
  calls,
  subscripts,
  emptyArguments,
  lateArguments,
  lackingBracket,
  misplacedBracket,
  members,
  betweenNumbers(
    "(?:\\^|\\*\\*)",
    ({ rows }, a, b) => (rows.some(({ name }) => name === "power") ? `power(${a}, ${b})` : undefined),
    "a power is written otherwise here",
  ),
  betweenNumbers("%", (dialect, a, b) => done(dialect, "remainder", { a, b }), "the remainder is written otherwise here"),
  betweenNumbers(
    "(?:\\bdiv\\b|//)",
    (dialect, a, b) => done(dialect, "wholeQuotient", { a, b }),
    "a whole quotient is written otherwise here",
  ),
  besideEachOther,
];
