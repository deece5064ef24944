import type { RowRules } from "../dialects/dialect.ts";
import { type Call, type Choice, type Expression, type Literal, halved, isRow, ungrouped } from "../syntax/index.ts";

/**
 * A call about rows of values, or about a query without a table, as an expression of single values that means the same
 * (ISO 9075-2, 8.2, 8.4 and 8.10); undefined where the dialect does not take them there.
 */
export function withoutRows(node: Call, rules: RowRules): Expression | undefined {
  const { range } = node;
  const [first, second] = node.args.map(ungrouped);
  const call = (name: string, ...args: Expression[]): Call => ({ ...node, name, args, notation: "operator" });
  const both = (parts: readonly Expression[]) => halved(parts, (a, b) => call("and", a, b));
  const any = (parts: readonly Expression[]) => halved(parts, (a, b) => call("or", a, b));
  const choice = (...parts: (readonly [condition: Expression, result: Expression])[]): Choice => ({
    kind: "choice",
    branches: parts.map(([condition, result]) => ({ condition, result })),
    otherwise: rules.truth(false, range),
    range,
  });

  if (first?.kind === "query" && node.name === "exists")
    return first.condition ? choice([first.condition, rules.truth(true, range)]) : rules.truth(true, range);
  if (second?.kind === "query" && quantifiers.has(node.name)) {
    const isAll = node.name === "compare all";
    const relation = node.name === "in query" ? "=" : String((node.args[2] as Literal).value);
    const compare = (row: Expression) =>
      relation.startsWith("not ") ? call("not", call(relation.slice(4), first, row)) : call(relation, first, row);
    const found = (isAll ? both : any)(second.rows.map(compare));
    return second.condition ? choice([second.condition, found], [rules.truth(true, range), rules.truth(isAll, range)]) : found;
  }

  const rows = node.args.map((arg) => rowOf(arg, rules));
  const [left, right] = rows;
  if (!left || rows.includes(undefined) || !rules.compares.has(node.name)) return undefined;
  if (!right && rules.nullsLast) return rules.truth(node.name === "is not null", range);
  if (!right) return both(left.map((item) => call(node.name, item)));
  if (left.length !== right.length) return undefined;
  const pairs = left.map((item, i) => [item, right[i]] as const);
  const isNull = (item: Expression) => call("is null", item);
  const differ = (a: Expression, b: Expression) => call("is distinct from", a, b);
  const equal = (a: Expression, b: Expression) => (rules.nullsLast ? call("not", differ(a, b)) : call("=", a, b));
  /** One item before another, where null may stand behind every value. */
  const before = (name: string, a: Expression, b: Expression): Expression => {
    if (!rules.nullsLast) return call(name, a, b);
    if (name.startsWith(">")) return before(name.replace(">", "<"), b, a);
    const nothing = [isNull(a), rules.truth(false, range)] as const;
    const last = [isNull(b), rules.truth(true, range)] as const;
    return choice(...(name === "<" ? [nothing, last] : [last, nothing]), [call(name, a, b), rules.truth(true, range)]);
  };
  /** The first pair that is not equal decides; asked in halves, so that a long row makes no deep tree. */
  const ordered = (some: typeof pairs, name: string): Expression => {
    if (some.length === 1) return before(name, ...some[0]);
    const [first, second] = [some.slice(0, some.length >> 1), some.slice(some.length >> 1)];
    const same = both(first.map(([a, b]) => equal(a, b)));
    return call("or", ordered(first, node.name[0]), call("and", same, ordered(second, name)));
  };
  switch (node.name) {
    case "=":
      return both(pairs.map(([a, b]) => equal(a, b)));
    case "<>":
      return any(pairs.map(([a, b]) => (rules.nullsLast ? differ(a, b) : call("<>", a, b))));
    case "is distinct from":
      return any(pairs.map(([a, b]) => differ(a, b)));
    case "is":
    case "<=>":
      return both(pairs.map(([a, b]) => call(node.name, a, b)));
    default:
      return ordered(pairs, node.name);
  }
}

/** The values of a row, or of the one row of a query; undefined where there is none, or where it holds rows that may not be there. */
function rowOf(node: Expression, rules: RowRules): readonly Expression[] | undefined {
  const inner = ungrouped(node);
  if (inner.kind === "query" && rules.queries && !inner.condition && inner.rows.length === 1) return rowOf(inner.rows[0], rules);
  if (!isRow(inner) || (!rules.nested && inner.items.some((item) => isRow(ungrouped(item))))) return undefined;
  return inner.items;
}

const quantifiers: ReadonlySet<string> = new Set(["in query", "compare any", "compare all"]);
