import type { Dialect } from "../dialects/dialect.ts";
import { type Part, type TaskId, filled, isClosed, joinedAs, templateOf } from "../dialects/tasks/index.ts";
import type { Sign } from "./ways.ts";

/** What an expression may be made of. */
export type Node =
  | { readonly column: string }
  | { readonly constant: string | number }
  | { readonly task: TaskId; readonly given: Readonly<Record<string, Node>> }
  | { readonly joined: readonly Node[] }
  | { readonly sign: Sign; readonly sides: readonly [Node, Node] };

/** How a node is written; undefined where the dialect cannot say it. */
export function written(node: Node, dialect: Dialect): Part | undefined {
  if ("column" in node) return { text: dialect.columnText(node.column), isOpen: false };
  if ("constant" in node) {
    const { constant } = node;
    return { text: typeof constant === "number" ? String(constant) : dialect.textLiteral(constant), isOpen: false };
  }
  if ("joined" in node) {
    const template = templateOf("join", dialect.id);
    const parts = node.joined.map((each) => written(each, dialect));
    if (template === undefined || parts.includes(undefined)) return undefined;
    return { text: joinedAs(template, parts as Part[]), isOpen: !isClosed(template) };
  }
  if ("sign" in node) {
    const [left, right] = node.sides.map((each) => written(each, dialect)?.text);
    const sign = node.sign === "/" && dialect.family === "query" ? "div" : node.sign;
    return left === undefined || right === undefined ? undefined : { text: `${left} ${sign} ${right}`, isOpen: true };
  }
  const template = templateOf(node.task, dialect.id);
  if (template === undefined) return undefined;
  const parts = Object.entries(node.given).map(([name, each]) => [name, written(each, dialect)] as const);
  if (parts.some(([, part]) => part === undefined)) return undefined;
  const text = filled(template, Object.fromEntries(parts) as Record<string, Part>);
  return { text: workedOut(text), isOpen: !isClosed(template) };
}

/** Whether a dialect says all that is done. */
export function isSaid(node: Node, dialect: Dialect): boolean {
  if ("joined" in node) return node.joined.every((each) => isSaid(each, dialect));
  return (
    !("task" in node) ||
    (templateOf(node.task, dialect.id) !== undefined && Object.values(node.given).every((each) => isSaid(each, dialect)))
  );
}

/** A text with the sizes of literals, and sums of numbers, worked out. */
const workedOut = (text: string): string =>
  text
    .replace(/\b(?:char_length|string-length|length|LEN)\((?:'([^']*)'|"([^"]*)")\)/g, (_, a?: string, b?: string) =>
      String([...(a ?? b)!].length),
    )
    .replace(/(?<=\)) ?(?:\/\/?|\bdiv\b) ?1(?![\d.])/g, "")
    .replace(/\((\d+) ?- ?1\)(?= ?\*)/g, (_, n: string) => String(Number(n) - 1))
    .replace(/(?<=[,;(] ?)(\d+) ?\+ ?(\d+)(?=[),;])/g, (_, a: string, b: string) => String(Number(a) + Number(b)));
