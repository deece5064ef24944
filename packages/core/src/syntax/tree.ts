import type { TextRange, Value } from "../values/index.ts";

/**
 * The expression tree that all dialects share. Every node has the range of source it stands for,
 * brackets around it included in a `group`.
 */
export type Expression =
  | Literal
  | Name
  | Call
  | Choice
  | Cast
  | ListExpression
  | Binding
  | Lambda
  | Filter
  | Apply
  | FunctionReference
  | Group
  | Query
  | Missing;

interface Node {
  readonly range: TextRange;
  readonly written?: Written;
}

/**
 * What stands in the source where the grammar reads one form as another: `x between a and b` is read as
 * two comparisons, and written as a form with three parts.
 */
export interface Written {
  readonly form: string;
  readonly parts: readonly Expression[];
}

/** A constant; `type` is the dialect's name for what is written (`text`, `integer`, `unknown`, …). */
export interface Literal extends Node {
  readonly kind: "literal";
  readonly value: Value;
  readonly type: string;
}

/** A column, a variable or the context item (`.`). */
export interface Name extends Node {
  readonly kind: "name";
  readonly name: string;
  /** What it means where there is no such column. */
  readonly fallback?: Literal;
}

/** A function call or an operator; operators are functions whose name is their symbol. */
export interface Call extends Node {
  readonly kind: "call";
  readonly name: string;
  readonly nameRange: TextRange;
  readonly args: readonly Expression[];
  readonly notation: "function" | "operator";
}

/** A conditional: the result of the first branch whose condition holds. */
export interface Choice extends Node {
  readonly kind: "choice";
  /** COALESCE and NULLIF, whose results are brought to one type in ways of their own. */
  readonly form?: "coalesce" | "nullif";
  readonly branches: readonly { readonly condition: Expression; readonly result: Expression }[];
  readonly otherwise?: Expression;
}

export interface Cast extends Node {
  readonly kind: "cast";
  readonly operand: Expression;
  readonly type: string;
  readonly typeRange: TextRange;
}

/** Several values side by side: a list or a sequence. */
export interface ListExpression extends Node {
  readonly kind: "list";
  readonly items: readonly Expression[];
  readonly form: "list" | "sequence" | "array" | "map" | "row";
}

/** A variable that stands for a value, or for each item in turn, in a body. */
export interface Binding extends Node {
  readonly kind: "binding";
  readonly form: "let" | "for" | "some" | "every" | "each";
  readonly variable: string;
  readonly source: Expression;
  readonly body: Expression;
}

export interface Lambda extends Node {
  readonly kind: "lambda";
  readonly parameters: readonly string[];
  readonly body: Expression;
}

/** The items of a list for which the predicate holds, or the one at a position. */
export interface Filter extends Node {
  readonly kind: "filter";
  readonly base: Expression;
  readonly predicate: Expression;
}

/** A call of a function that is itself a value. */
export interface Apply extends Node {
  readonly kind: "apply";
  readonly callee: Expression;
  readonly args: readonly Expression[];
}

export interface FunctionReference extends Node {
  readonly kind: "function-reference";
  readonly name: string;
  readonly arity: number;
}

/** Brackets around an expression. */
export interface Group extends Node {
  readonly kind: "group";
  readonly inner: Expression;
}

/** A query without a table: `(select a, b where c)`, or the rows of `(values (a), (b))`. */
export interface Query extends Node {
  readonly kind: "query";
  readonly form: "select" | "values";
  /** Each is one value, or a row of several. */
  readonly rows: readonly Expression[];
  readonly condition?: Expression;
}

/** A place where an expression is needed and none could be read; it covers what was skipped. */
export interface Missing extends Node {
  readonly kind: "missing";
}

/** The children of each kind of node, in source order; every walk reads this table. */
const children: { readonly [K in Expression["kind"]]: (node: Extract<Expression, { kind: K }>) => readonly Expression[] } = {
  literal: () => [],
  name: () => [],
  call: (node) => node.args,
  choice: (node) => [
    ...node.branches.flatMap((branch) => [branch.condition, branch.result]),
    ...(node.otherwise ? [node.otherwise] : []),
  ],
  cast: (node) => [node.operand],
  list: (node) => node.items,
  binding: (node) => [node.source, node.body],
  lambda: (node) => [node.body],
  filter: (node) => [node.base, node.predicate],
  apply: (node) => [node.callee, ...node.args],
  "function-reference": () => [],
  group: (node) => [node.inner],
  query: (node) => [...node.rows, ...(node.condition ? [node.condition] : [])],
  missing: () => [],
};

export function childrenOf(node: Expression): readonly Expression[] {
  return (children[node.kind] as (node: Expression) => readonly Expression[])(node);
}

/** Every node below and including `root`, parents first, in source order; one that stands in several places once. */
export function* walk(root: Expression): Generator<Expression> {
  const pending = [root];
  const seen = new Set<Expression>();
  while (pending.length > 0) {
    const node = pending.pop()!;
    if (seen.has(node)) continue;
    seen.add(node);
    yield node;
    pending.push(...[...childrenOf(node)].reverse());
  }
}

/** The results of a choice, what is taken otherwise last. */
export const resultsOf = ({ branches, otherwise }: Choice): Expression[] => [
  ...branches.map(({ result }) => result),
  ...(otherwise ? [otherwise] : []),
];

/** The expression inside any brackets. */
export function ungrouped(node: Expression): Expression {
  return node.kind === "group" ? ungrouped(node.inner) : node;
}

/** Whether several values stand side by side as one row of them. */
export const isRow = (node: Expression): node is ListExpression => node.kind === "list" && node.form === "row";

/** Whether two trees say the same, whatever brackets and white space they are written with. */
export function sameTree(a: unknown, b: unknown): boolean {
  const [left, right] = [meaning(a), meaning(b)];
  if (typeof left !== "object" || typeof right !== "object" || left === null || right === null) return Object.is(left, right);
  if (Array.isArray(left) && Array.isArray(right))
    return left.length === right.length && left.every((item, i) => sameTree(item, right[i]));
  if (Object.getPrototypeOf(left) !== Object.getPrototypeOf(right)) return false;
  // Forms whose parts are the same are read as the same.
  const [one, other] = [left, right].map((node) => (node as { written?: Written }).written);
  if (one !== undefined && one.parts.length > 0 && one.form === other?.form) return sameTree(one.parts, other.parts);
  const names = [left, right].map((node) => Object.keys(node).filter((name) => !placed.has(name)));
  return (
    names[0].length === names[1].length &&
    names[0].every((name) => sameTree((left as Record<string, unknown>)[name], (right as Record<string, unknown>)[name]))
  );
}

/** What says where a node stands, and how it was written where it says the same. */
const placed: ReadonlySet<string> = new Set(["range", "nameRange", "typeRange", "written"]);

const meaning = (value: unknown): unknown =>
  typeof value === "object" && value !== null && (value as { kind?: unknown }).kind === "group"
    ? meaning((value as Group).inner)
    : value;

/** Several parts joined two by two in halves, so that many of them do not make a deep tree. */
export function halved(parts: readonly Expression[], join: (a: Expression, b: Expression) => Expression): Expression {
  if (parts.length === 1) return parts[0];
  const middle = parts.length >> 1;
  return join(halved(parts.slice(0, middle), join), halved(parts.slice(middle), join));
}
