import type { Dialect } from "../dialects/dialect.ts";
import type { Sample } from "../evaluate/index.ts";
import { type Expression, type Name, childrenOf } from "../syntax/index.ts";
import type { Plan } from "./columns.ts";
import { saidJobs, tried } from "./proof.ts";

/** A column as one expression over the columns of the sample, or why it cannot be one. */
export type Inlined =
  | { readonly name: string; readonly expression: string; readonly emptyForNothing: boolean }
  | { readonly name: string; readonly refused: string };

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
  /** Whether what lists do gives empty text for nothing, as it has to in some dialects. */
  let mayEmpty = false;
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
    const printed = dialect.print(dialect.parse(put).tree);
    const said = column.then ? saidJobs(dialect, printed, column.then, sample) : { expression: printed, emptyForNothing: false };
    if ("refused" in said) return refuse(`${own}: ${said.refused}`);
    mayEmpty ||= said.emptyForNothing;
    whole.set(own, said.expression);
    if (own === name) break;
  }
  const expression = whole.get(name);
  if (expression === undefined) return refuse("there is no such calculated column");
  const stepwise = (rows: Sample) => [...plan.stages(rows)].find(({ step }) => step.column.names[0] === name)!.values;
  const { apart, emptyForNothing } = tried(dialect, expression, sample, stepwise);
  if (apart !== undefined || (emptyForNothing && !mayEmpty))
    return refuse(apart ?? `as one expression it gives an empty text where the columns give nothing: ${expression}`);
  return { name, expression, emptyForNothing };
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
