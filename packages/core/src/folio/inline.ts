import { agree } from "../contrast/equal.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { type Column, type Sample, compile } from "../evaluate/index.ts";
import { type Expression, type Name, childrenOf } from "../syntax/index.ts";
import type { Value } from "../values/index.ts";
import type { Plan } from "./columns.ts";

/** A column as one expression over the columns of the sample, or why it cannot be one. */
export type Inlined =
  { readonly name: string; readonly expression: string } | { readonly name: string; readonly refused: string };

/** Characters that one expression may have. */
const most = 50_000;

/**
 * Puts the other calculated columns that a column needs into its expression, with only the brackets that are needed. What is
 * given has been evaluated on the sample and on rows of traps, and gives the same as the columns one by one.
 */
export function inlined(plan: Plan, name: string, sample: Sample): Inlined {
  const { dialect } = plan;
  const refuse = (refused: string): Inlined => ({ name, refused });
  if (plan.where || plan.only) return refuse("a condition says where it holds, which one expression does not");
  const whole = new Map<string, string>();
  for (const { column } of plan.steps) {
    if (column.names.length > 1) {
      if (column.names.includes(name)) return refuse("it is an item of a list that becomes several columns");
      continue;
    }
    const [own] = column.names;
    const put = substituted(dialect, column.expression, (written) => {
      const made = [...whole].find(([each]) => dialect.namesColumn(written, each));
      return made && made[0] !== own ? made[1] : undefined;
    });
    if (typeof put !== "string") {
      if (own === name) return refuse(put.refused);
      continue;
    }
    if (put.length > most) return refuse(`it would have more than ${most} characters`);
    whole.set(own, dialect.print(dialect.parse(put).tree));
    if (own === name) break;
  }
  const expression = whole.get(name);
  if (expression === undefined) return refuse("there is no such calculated column");
  const apart = difference(plan, name, expression, sample);
  return apart === undefined ? { name, expression } : refuse(apart);
}

/** A source with other expressions in the place of names, each in brackets. */
function substituted(
  dialect: Dialect,
  source: string,
  expressionFor: (name: string) => string | undefined,
): string | { readonly refused: string } {
  let result = source;
  const places = new Map<number, { readonly node: Name; readonly scope: readonly string[] }>();
  for (const found of freeNames(dialect.parse(source).tree, [])) places.set(found.node.range.start, found);
  for (const { node, scope } of [...places.values()].sort((a, b) => b.node.range.start - a.node.range.start)) {
    const expression = expressionFor(node.name);
    if (expression === undefined) continue;
    const captured = [...freeNames(dialect.parse(expression).tree, [])].find((inner) => scope.includes(inner.node.name));
    if (captured)
      return { refused: `a variable is called like the column ${dialect.columnText(captured.node.name)}; call it otherwise` };
    result = `${result.slice(0, node.range.start)}(${expression})${result.slice(node.range.end)}`;
  }
  return result;
}

/** The names that are no variables of the expression, with the variables that hold where each stands. */
function* freeNames(node: Expression, scope: readonly string[]): Generator<{ node: Name; scope: readonly string[] }> {
  if (node.kind === "name") {
    if (!scope.includes(node.name)) yield { node, scope };
  } else if (node.kind === "binding") {
    yield* freeNames(node.source, scope);
    yield* freeNames(node.body, [...scope, node.variable]);
  } else if (node.kind === "lambda") yield* freeNames(node.body, [...scope, ...node.parameters]);
  else for (const child of childrenOf(node)) yield* freeNames(child, scope);
}

const trapTexts = ["", " ", "a", "Ab c, d; e", " x  y ", "ß", "12", "-1.5", "2019-04-03", "%_\\'\"", "İÉ𝒜"];
const trapNumbers = [0, 1, -1, 2.5, 1000000, 3];

/** Rows in which every column goes through the classic traps, each at its own pace. */
function trapRows({ columns }: Sample): Sample {
  const rows = 4 * trapTexts.length;
  const isNumeric = ({ values }: Column) => values.every((value) => value === null || typeof value === "number");
  return {
    columns: columns.map((column, place) => {
      const pool: readonly Value[] = [null, ...(isNumeric(column) ? trapNumbers : trapTexts)];
      return {
        name: column.name,
        values: Array.from({ length: rows }, (_, row) => pool[(row * (place + 1) + Math.floor(row / pool.length)) % pool.length]),
      };
    }),
    rows,
  };
}

/** Where the expression gives another value than the column does; undefined where it never does. */
function difference(plan: Plan, name: string, expression: string, sample: Sample): string | undefined {
  const program = compile(plan.dialect, expression, sample);
  if (!program.ok) return `as one expression it is refused: ${expression}`;
  for (const [rows, what] of [
    [sample, "row"],
    [trapRows(sample), "a row of traps,"],
  ] as const) {
    const values = program.run(rows);
    const stepwise = [...plan.stages(rows)].find(({ step }) => step.column.names[0] === name)!.values;
    const at = values.findIndex((value, row) => !agree(value, stepwise[row]));
    if (at >= 0) return `as one expression it gives something else on ${what} ${at + 1}: ${expression}`;
  }
  return undefined;
}
