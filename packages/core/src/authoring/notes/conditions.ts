/** Notes on conditions that are joined and exclude each other, or leave nothing out. */
import type { Diagnostic } from "../../diagnostics/index.ts";
import { type Call, type Expression, ungrouped, walk } from "../../syntax/index.ts";
import type { Value } from "../../values/index.ts";
import { type Asked, isNumberText, note, signOf, textOf } from "./asked.ts";

/** A value that is compared with a literal. */
interface Comparison {
  readonly subject: string;
  readonly relation: string;
  readonly with: Value;
}

const relations: Readonly<Record<string, string>> = {
  eq: "=",
  "==": "=",
  ne: "<>",
  "!=": "<>",
  lt: "<",
  le: "<=",
  gt: ">",
  ge: ">=",
};
const turned: Readonly<Record<string, string>> = { "<": ">", ">": "<", "<=": ">=", ">=": "<=" };
/** What holds where a relation does not. */
const opposites: Readonly<Record<string, string>> = { "=": "<>", "<>": "=", "<": ">=", ">=": "<", ">": "<=", "<=": ">" };

function comparisonIn(node: Expression, program: Asked["program"]): Comparison | undefined {
  const inner = ungrouped(node);
  const sign = signOf(inner, program.source);
  if (inner.kind !== "call" || sign === undefined) return undefined;
  const relation = relations[sign] ?? sign;
  const [left, right] = inner.args.map(ungrouped);
  const isTurned = left.kind === "literal";
  const [subject, literal] = isTurned ? [right, left] : [left, right];
  // A sequence holds where one of its items does.
  if (program.dialect.family === "query" && subject.kind !== "name") return undefined;
  if (literal.kind !== "literal" || subject.kind === "literal" || literal.value === null || !(relation in opposites))
    return undefined;
  const text = textOf(program, literal);
  return {
    subject: textOf(program, subject),
    relation: isTurned ? (turned[relation] ?? relation) : relation,
    with: isNumberText(text) ? Number(text) : literal.value,
  };
}

/** A text without case and accents, which some languages do not heed. */
const bare = (text: string): string => text.normalize("NFD").replace(/\p{M}/gu, "").trim().toLowerCase();

/** Whether no value is in both relations; how texts are ordered hangs on the language. */
function excludesOther(one: Comparison, other: Comparison): boolean {
  const [a, b] = [one.with, other.with];
  const areEqualities = one.relation === "=" && other.relation === "=";
  if (typeof a === "string" && typeof b === "string") return areEqualities && bare(a) !== bare(b);
  if (typeof a !== "number" || typeof b !== "number") return false;
  if (areEqualities) return a !== b;
  const [low, high] = one.relation.startsWith(">") ? [one, other] : [other, one];
  if (!/^(?:>=?|=)$/.test(low.relation) || !/^(?:<=?|=)$/.test(high.relation)) return false;
  const [least, most] = low === one ? [a, b] : [b, a];
  return least > most || (least === most && (low.relation === ">" || high.relation === "<"));
}

/** What AND or OR joins, in one call or several within each other. */
function joinedBy(name: string, node: Call): readonly Expression[] {
  return node.args.flatMap((arg) => {
    const inner = ungrouped(arg);
    return inner.kind === "call" && inner.name.toLowerCase() === name && inner.notation === node.notation
      ? joinedBy(name, inner)
      : [arg];
  });
}

const others = { and: "or", or: "and" } as const;

/** The other word for AND or OR, in the letters of the one that is written; where it stands between two parts, or is called. */
function withOther(node: Call, { source }: Asked["program"]) {
  const isCalled = node.notation === "function";
  const from = isCalled ? node.nameRange.start : node.args[0].range.end;
  const found = new RegExp(`\\b${node.name}\\b`, "i").exec(source.slice(from, node.args[isCalled ? 0 : 1].range.start));
  if (!found) return [];
  const [word] = found;
  const start = from + found.index;
  const other = others[node.name.toLowerCase() as keyof typeof others];
  const text = word === word.toUpperCase() ? other.toUpperCase() : other;
  return [{ title: `Write ${text}`, edits: [{ range: { start, end: start + word.length }, text }] }];
}

/** `x = 'a' and x = 'b'`, which holds of nothing, and `x <> 'a' or x <> 'b'`, which holds of everything. */
export const excluding = ({ program }: Asked): Diagnostic[] =>
  [...walk(program.tree)].flatMap((node) => {
    const name = node.kind === "call" ? node.name.toLowerCase() : "";
    if (node.kind !== "call" || node.written || (name !== "and" && name !== "or")) return [];
    const all = joinedBy(name, node).flatMap((part) => comparisonIn(part, program) ?? []);
    // Everything is in one of two relations where nothing is in the opposites of both.
    const asked = name === "and" ? all : all.map((each) => ({ ...each, relation: opposites[each.relation] }));
    const found = asked.find((one, i) =>
      asked.slice(i + 1).some((other) => one.subject === other.subject && excludesOther(one, other)),
    );
    if (!found) return [];
    const isOfSame = asked.every(({ relation, subject }) => relation === "=" && subject === found.subject);
    const fixes = isOfSame && asked.length === 2 ? withOther(node, program) : [];
    return [note(name === "and" ? "never-both" : "always-one", node.range, { subject: found.subject }, fixes)];
  });
