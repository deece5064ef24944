import { type Diagnostic, type Fix, type MessageCode, nearest } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { type FunctionRow, arity, isPure, namesOf, signature } from "../dialects/row.ts";
import {
  type TaskId,
  dateFormatted,
  isClosed,
  isForeign,
  isSetOff,
  meantBy,
  numberFormatted,
  tasks,
  templateOf,
} from "../dialects/tasks/index.ts";
import { type Call, type Cast, type Expression, type Name, ungrouped } from "../syntax/index.ts";
import type { Facts, TextRange } from "../values/index.ts";
import { type Type, unknownType } from "../dialects/types.ts";

/** A problem found while binding. */
export const mistake = (
  code: MessageCode,
  range: TextRange,
  facts: Facts = {},
  fixes: readonly Fix[] = [],
  severity: Diagnostic["severity"] = "error",
): Diagnostic => ({ code, severity, range, facts, fixes });

const replacedBy = (range: TextRange, text: string): Fix => ({ title: `Write ${text}`, edits: [{ range, text }] });

/** A name that is no column: the nearest columns, or a text that lacks its quotes. */
export function unknownColumn(node: Name, dialect: Dialect, columns: readonly string[]): Diagnostic {
  // A name of a letter or two is rather that of a column than a function without its brackets.
  const reason = node.name.length > 2 ? dialect.uncovered.get(node.name) : undefined;
  if (reason !== undefined) return mistake("not-covered", node.range, { what: `${node.name} (${reason})` });
  const name = dialect.columnText(node.name);
  const names = columns.map((column) => dialect.columnText(column));
  const near = nearest(name, names);
  const literal = dialect.textLiteral(node.name);
  const fixes = near.map((text) => replacedBy(node.range, text));
  if (!node.name.startsWith("$"))
    fixes.push({ title: `Write the text ${literal}`, edits: [{ range: node.range, text: literal }] });
  return mistake("unknown-column", node.range, { name, nearest: near, columns: names }, fixes);
}

/** Names of types that are tried as what a type that is not there may be meant by. */
const typeNames =
  "text varchar char character integer int bigint smallint tinyint decimal numeric real double float boolean bool date time timestamp datetime interval blob binary bytea signed unsigned xs:string xs:integer xs:decimal xs:double xs:boolean xs:date xs:time xs:dateTime".split(
    " ",
  );

/** A type that is not there: the nearest to which what is cast can be. */
export function noSuchType(node: Cast, from: Type, dialect: Dialect, source: string): Diagnostic {
  const name = source.slice(node.typeRange.start, node.typeRange.end);
  const near = nearest(name.toLowerCase(), typeNames).filter((type) => dialect.types.cast(from, type) !== undefined);
  return mistake(
    "unknown-type",
    node.typeRange,
    { name },
    near.map((type) => replacedBy(node.typeRange, type)),
  );
}

/** A function that is not there: not covered, or what it is for elsewhere as it is said here, or the nearest names. */
export function unknownFunction(node: Call, dialect: Dialect, source: string): Diagnostic {
  const { name, nameRange } = node;
  const reason = dialect.uncovered.get(name.toLowerCase());
  if (reason !== undefined) return mistake("not-covered", nameRange, { what: `the function ${name} (${reason})` });
  const meant = meantHere(node, dialect, source);
  if (meant) return mistake("unknown-function", nameRange, { name, ...meant.facts, nearest: [] }, meant.fixes);
  const form = formOf(name, dialect);
  if (form !== undefined) {
    const facts = { name, takes: "other arguments", given: node.args.length, signature: form };
    return mistake("argument-count", nameRange, facts);
  }
  const names = dialect.rows.filter((row) => row.notation !== "operator").flatMap(namesOf);
  const local = localName(name);
  const same = names.filter((each) => localName(each) === local);
  const near = same.length > 0 ? same : isForeign(name) ? [] : nearest(name, new Set(names));
  const fixes = near.map((text) => replacedBy(nameRange, text));
  return mistake("unknown-function", nameRange, { name, nearest: near }, fixes);
}

/** A name without the prefix of its namespace: `sqrt` of `math:sqrt`. */
const localName = (name: string): string => name.toLowerCase().replace(/^[\w-]+:/, "");

/** A form of syntax that is written like a call of a name, with what it takes: `nullif(value, given)`. */
function formOf(name: string, { id }: Dialect): string | undefined {
  const templates = (Object.keys(tasks) as TaskId[]).flatMap((task) => templateOf(task, id) ?? []);
  const own = templates.find((each) => isClosed(each) && each.toLowerCase().startsWith(`${name.toLowerCase()}({`));
  return own?.replace(/[{}]/g, "");
}

/** What stands by itself beside any sign. */
const closed: ReadonlySet<Expression["kind"]> = new Set<Expression["kind"]>(["name", "literal", "group", "list", "cast"]);

/** What a call is for in other languages, and the whole of it as it is said here. */
function meantHere({ name, args, range }: Call, dialect: Dialect, source: string) {
  const written = args.map((arg) => {
    const isClosed = arg.kind === "call" ? arg.notation === "function" : closed.has(arg.kind);
    return { text: source.slice(arg.range.start, arg.range.end), isOpen: !isClosed };
  });
  const literal = (text: string) => dialect.textLiteral(text);
  const dates = dateFormatted(name, written, dialect.id, literal);
  if (dates !== undefined) return { facts: { does: "a date by a format", said: dates }, fixes: [replacedBy(range, dates)] };
  const number = numberFormatted(name, written, dialect.id, literal);
  if (number !== undefined) return { facts: { does: "a number by a format", said: number }, fixes: [replacedBy(range, number)] };
  const meant = meantBy(name, written, dialect.id, literal);
  if (!meant) return undefined;
  const { does } = tasks[meant.task];
  if (meant.text === undefined) return { facts: { does }, fixes: [] };
  const text = meant.isClosed || isSetOff(source.slice(0, range.start), source.slice(range.end)) ? meant.text : `(${meant.text})`;
  return { facts: { does, said: text }, fixes: [replacedBy(range, text)] };
}

/** The types of numbers, which signs take alike. */
const numberTypes = /\b(?:u?(?:tiny|small|big|huge)?int(?:eger)?|decimal|double|real|numeric|floating)\b/g;

/** What a name takes, each once and not more than a reader takes in; of a sign all numbers are one. */
function signatures(rows: readonly FunctionRow[], dialect: Dialect): string {
  const written = rows.map((row) => {
    const own = signature(row, dialect);
    return row.notation === "operator" ? own.replace(numberTypes, "number") : own;
  });
  const all = [...new Set(written)];
  return [...all.slice(0, 6), ...(all.length > 6 ? [`and ${all.length - 6} more`] : [])].join("; ");
}

/** Too many arguments, or too few: what such a call is for elsewhere, or what can be left out. */
export function wrongCount(node: Call, rows: readonly FunctionRow[], dialect: Dialect, source: string): Diagnostic {
  const { name, nameRange, args } = node;
  const least = Math.min(...rows.map((row) => arity(row).least));
  const most = Math.max(...rows.map((row) => arity(row).most));
  const count = (n: number) => `${n} argument${n === 1 ? "" : "s"}`;
  const takes = least === most ? count(least) : most === Infinity ? `at least ${count(least)}` : `${least} to ${count(most)}`;
  const facts = { name, takes, given: args.length, signature: signatures(rows, dialect) };
  const meant = meantHere(node, dialect, source);
  const range = meant || args.length <= most ? nameRange : { start: args[most].range.start, end: args.at(-1)!.range.end };
  return mistake("argument-count", range, facts, meant?.fixes ?? withoutLetter(args, rows));
}

/** `replace(x, 'a', 'b', 'g')` where every place is replaced anyway: without the letter that says so. */
function withoutLetter(args: readonly Expression[], rows: readonly FunctionRow[]): Fix[] | undefined {
  const [before, last] = args.slice(-2);
  const replacesAll = rows.every(
    (row) =>
      isPure(row) && row.operation === "substitute" && row.answers.occurrences === "all" && arity(row).most === args.length - 1,
  );
  if (!replacesAll || last?.kind !== "literal" || last.value !== "g") return undefined;
  const range = { start: before.range.end, end: last.range.end };
  return [{ title: "Leave it out: every place is replaced", edits: [{ range, text: "" }] }];
}

/** Arguments of kinds that no row of this many takes. */
export function wrongTypes(
  node: Call,
  given: readonly Type[],
  rows: readonly FunctionRow[],
  dialect: Dialect,
  source: string,
): Diagnostic {
  const asMany = rows.filter((row) => arity(row).least <= given.length && given.length <= arity(row).most);
  const isOfNumbers = asMany.some((row) => isPure(row) && (row.operation === "compare" || row.operation === "calculate"));
  const fixes = isOfNumbers ? readAsNumbers(node, given, dialect, source) : [];
  const types = given.map((type) => (type === unknownType ? "text" : String(type)));
  return mistake("argument-type", node.range, { name: node.name, given: types, signature: signatures(asMany, dialect) }, fixes);
}

/** Whether a type is one of texts, whatever their length and collation. */
export const isText = (type: Type): boolean => /^(?:text|bpchar)/.test(type.name);

const relations = new Set(["=", "==", "<>", "!=", "<", "<=", ">", ">=", "eq", "ne", "lt", "le", "gt", "ge"]);

/** `qty > 3` with a column of texts, where that means something else than it says; a warning. */
export function textWithNumber(node: Call, types: readonly Type[], dialect: Dialect, source: string): Diagnostic | undefined {
  const compared = dialect.numberOfText?.compared;
  if (compared === undefined || node.notation !== "operator" || !relations.has(node.name)) return undefined;
  const fixes = readAsNumbers(node, types, dialect, source);
  return fixes.length > 0 ? mistake("text-with-number", node.range, { name: node.name, compared }, fixes, "warning") : undefined;
}

/** The texts of a call read as numbers, where numbers stand beside them; none where a text is written. */
function readAsNumbers({ args }: Call, types: readonly Type[], dialect: Dialect, source: string): Fix[] {
  // What a sign makes a text joins, and is no number.
  const isWritten = (arg: Expression) => {
    const inner = ungrouped(arg);
    return inner.kind === "literal" || (inner.kind === "call" && inner.notation === "operator");
  };
  // A number with an affinity, in SQLite, makes the text beside it one too.
  const isNumber = (type: Type, i: number) => {
    const arg = ungrouped(args[i]);
    const isLiteral = arg.kind === "literal" && arg.value !== null && !["string", "boolean"].includes(typeof arg.value);
    return (
      isLiteral ||
      (type.collation === undefined && /^(?:number|tinyint|smallint|integer|bigint|hugeint|decimal|double)\??$/.test(type.name))
    );
  };
  const texts = args.filter((arg, i) => isText(types[i]) && !isWritten(arg));
  if (!dialect.numberOfText || texts.length === 0 || !types.some(isNumber)) return [];
  const edits = texts.map((text) => {
    const { start, end } = ungrouped(text).range;
    return { range: text.range, text: dialect.numberOfText!.write(source.slice(start, end)) };
  });
  return [{ title: "Read the text as a number", edits }];
}

/** The slots of an operation that are taken for its text: what is searched for, or how much is cut. */
const takenForText: Readonly<Record<string, readonly string[]>> = {
  locate: ["needle"],
  test: ["needle"],
  segment: ["delimiter"],
  substitute: ["old"],
  split: ["delimiter"],
  slice: ["length", "start"],
  trim: ["characters"],
};

/** `FIND(label; "x")`: a literal where the text goes and a column where the needle goes; a warning. */
export function swappedArguments({ name, args }: Call, row: FunctionRow, source: string): Diagnostic | undefined {
  const others = isPure(row) && row.notation !== "operator" ? takenForText[row.operation] : undefined;
  if (!isPure(row) || !others) return undefined;
  const at = row.parameters.flatMap((p, i) => (["text", ...others].includes(p.slot) && i < args.length ? [i] : [])).slice(0, 2);
  if (at.length < 2 || !at.some((i) => row.parameters[i].slot === "text")) return undefined;
  const [a, b] = at.map((i) => ungrouped(args[i]));
  const [textArg, otherArg] = row.parameters[at[0]].slot === "text" ? [a, b] : [b, a];
  const isNumber = textArg.kind === "literal" && textArg.value !== null && typeof textArg.value !== "string";
  if (textArg.kind !== "literal") return undefined;
  if (row.operation === "substitute" && otherArg.kind === "literal") return textLast(name, args, row, source);
  if (otherArg.kind !== "name" || otherArg.name.startsWith("#")) return undefined;
  // A position may come from a column; a text that is a number is none.
  if (row.operation === "slice" && !isNumber) return undefined;
  const sought = row.operation === "slice" ? "number" : "text to look for";
  const [first, second] = at.map((i) =>
    row.parameters[i].slot === "text" ? (row.operation === "slice" ? "text" : "text to look in") : sought,
  );
  const written = at.map((i) => source.slice(args[i].range.start, args[i].range.end));
  const fix = { title: "Swap them", edits: at.map((i, k) => ({ range: args[i].range, text: written[1 - k] })) };
  const range = { start: Math.min(a.range.start, b.range.start), end: Math.max(a.range.end, b.range.end) };
  return mistake("swapped-arguments", range, { name, first, second }, [fix], "warning");
}

/** `SUBSTITUTE("a"; "b"; label)`: what is replaced and by what, and then the text; a warning. */
function textLast(name: string, args: readonly Expression[], row: FunctionRow, source: string): Diagnostic | undefined {
  const places = ["text", "old", "new"].map((slot) => row.parameters.findIndex((each) => each.slot === slot));
  const given = places.map((i) => args[i]);
  if (given.some((arg) => arg === undefined) || ungrouped(given[2]).kind !== "name") return undefined;
  const [text, old, put] = given.map(({ range }) => source.slice(range.start, range.end));
  const edits = [put, text, old].map((written, i) => ({ range: given[i].range, text: written }));
  const range = { start: Math.min(...given.map((arg) => arg.range.start)), end: Math.max(...given.map((arg) => arg.range.end)) };
  const facts = { name, first: "text to look in", second: "text to look for" };
  return mistake("swapped-arguments", range, facts, [{ title: "Put the text first", edits }], "warning");
}
