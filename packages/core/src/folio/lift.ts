import type { Dialect } from "../dialects/dialect.ts";
import { isPure } from "../dialects/row.ts";
import { type Program, type Sample, compile } from "../evaluate/index.ts";
import { type Expression, childrenOf, sameTree, ungrouped, walk } from "../syntax/index.ts";
import type { OperationId } from "../text/index.ts";
import { type TextRange, isFailure } from "../values/index.ts";
import { type CalculatedColumn, type Plan, planColumns } from "./columns.ts";
import { trapRows, tried } from "./proof.ts";

/** Columns that give together what one expression gives, helpers first; or why there are none. */
export type Lifted = { readonly columns: readonly CalculatedColumn[] } | { readonly refused: string };

/** What an operation gives, as part of a name. */
const nouns: Readonly<Partial<Record<OperationId, string>>> = {
  slice: "part",
  segment: "piece",
  reverse: "reversed",
  locate: "position",
  test: "has",
  find: "match",
  "replace-span": "replaced",
  substitute: "replaced",
  translate: "replaced",
  recase: "recased",
  normalize: "normalized",
  trim: "trimmed",
  measure: "length",
  join: "joined",
  split: "pieces",
  repeat: "repeated",
  pad: "padded",
  compare: "comparison",
  calculate: "number",
};

/** A sub-expression that can stand in a column of its own. */
interface Part {
  readonly text: string;
  readonly node: Expression;
}

/**
 * Takes the function calls and casts within an expression out into helper columns, each once, named after what they give.
 * What is shown has been evaluated on the sample and on rows of traps, and gives the same as the one expression; where an
 * error fails a whole query, a part that may fail although the expression does not stays where it is.
 */
export function lifted(dialect: Dialect, name: string, source: string, sample: Sample): Lifted {
  const program = compile(dialect, source, sample);
  if (!program.ok) return { refused: "the expression is refused" };
  let parts = partsOf(dialect, source, program.tree, sample);
  for (;;) {
    if (parts.length === 0) return { refused: "there is nothing in it that a column of its own would make clearer" };
    const columns = columnsOf(dialect, name, source, program.tree, parts, sample);
    const plan = planColumns(dialect, columns, sample);
    if (!plan.ok) return { refused: "taken apart it is refused" };
    const early = dialect.errorScope === "query" ? failing(plan, program, sample) : undefined;
    if (early === undefined) {
      const stepwise = (rows: Sample) => [...plan.stages(rows)].find(({ step }) => step.column.names[0] === name)!.values;
      const { apart, emptyForNothing } = tried(dialect, source, sample, stepwise);
      if (apart === undefined && !emptyForNothing) return { columns };
      return { refused: "taken apart it gives something else on a row of the sample or of traps" };
    }
    const failed = parts[columns.indexOf(early)].text;
    parts = parts.filter(({ text }) => text !== failed && !text.includes(failed));
  }
}

/** A helper that fails on a row on which the whole expression does not. */
function failing(plan: Plan, program: Program, sample: Sample): CalculatedColumn | undefined {
  for (const rows of [sample, trapRows(sample, [])]) {
    const whole = program.run(rows);
    for (const { step, values } of plan.stages(rows))
      if (step.column.isHelper && values.some((value, row) => isFailure(value) && !isFailure(whole[row]))) return step.column;
  }
  return undefined;
}

/** The parts of an expression that read columns and no variables, inner ones first; each text once. */
function partsOf(dialect: Dialect, source: string, root: Expression, { columns }: Sample): Part[] {
  const whole = ungrouped(root);
  const found = new Map<string, Part>();
  const visit = (node: Expression): void => {
    // What stands in a loop or a query is worked out for each turn.
    if (["binding", "lambda", "filter", "query", "apply"].includes(node.kind)) return;
    childrenOf(node).forEach(visit);
    const isStep = node.kind === "cast" || (node.kind === "call" && node.notation === "function");
    if (!isStep || node === whole) return;
    const text = source.slice(node.range.start, node.range.end);
    const reads = [...walk(node)].some(
      (each) => each.kind === "name" && columns.some((column) => dialect.namesColumn(each.name, column.name)),
    );
    if (reads && sameTree(dialect.parse(text).tree, node)) found.set(dialect.print(node), { text, node });
  };
  visit(whole);
  return [...found.values()];
}

function columnsOf(
  dialect: Dialect,
  name: string,
  source: string,
  root: Expression,
  parts: readonly Part[],
  sample: Sample,
): CalculatedColumn[] {
  const taken = new Set([...sample.columns.map((column) => column.name.toLowerCase()), name.toLowerCase()]);
  const names = new Map<string, string>();
  for (const { node } of parts) {
    const stem = stemFor(dialect, node, sample);
    let own = stem;
    for (let n = 2; taken.has(own.toLowerCase()); n++) own = `${stem}_${n}`;
    taken.add(own.toLowerCase());
    names.set(dialect.print(node), own);
  }
  /** A stretch of the source with the parts within it by their names. */
  const written = (node: Expression, range: TextRange): string => {
    const inner: { readonly range: TextRange; readonly name: string }[] = [];
    const visit = (each: Expression): void => {
      const own = each === node ? undefined : names.get(dialect.print(each));
      if (own !== undefined && source.slice(each.range.start, each.range.end) !== "")
        inner.push({ range: each.range, name: own });
      else childrenOf(each).forEach(visit);
    };
    visit(node);
    let text = source.slice(range.start, range.end);
    const places = new Map(inner.map((each) => [each.range.start, each]));
    for (const {
      range: { start, end },
      name: own,
    } of [...places.values()].sort((a, b) => b.range.start - a.range.start))
      text = text.slice(0, start - range.start) + dialect.columnText(own) + text.slice(end - range.start);
    return text;
  };
  return [
    ...parts.map(({ node }) => ({
      names: [names.get(dialect.print(node))!],
      expression: written(node, node.range),
      isHelper: true as const,
    })),
    { names: [name], expression: written(ungrouped(root), { start: 0, end: source.length }) },
  ];
}

/** A name for what a part gives: of which column, if it is of one, and what. */
function stemFor(dialect: Dialect, node: Expression, { columns }: Sample): string {
  const read = new Set(
    [...walk(node)].flatMap((each) =>
      each.kind === "name" ? columns.filter((column) => dialect.namesColumn(each.name, column.name)).map((c) => c.name) : [],
    ),
  );
  const row = node.kind === "call" ? dialect.rows.find((each) => each.name.toLowerCase() === node.name.toLowerCase()) : undefined;
  const noun =
    node.kind === "cast"
      ? node.type.toLowerCase()
      : ((row && isPure(row) ? nouns[row.operation] : undefined) ?? (node.kind === "call" ? node.name : "value"));
  const word = (text: string) =>
    text
      .toLowerCase()
      .replace(/[^\p{L}\p{M}\p{N}]+/gu, "_")
      .replace(/^_+|_+$/g, "");
  return read.size === 1 ? `${word([...read][0])}_${word(noun)}` : word(noun);
}
