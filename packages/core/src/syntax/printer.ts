import { type Doc, bracketed, group, layOut, line, nest, soft } from "./layout.ts";
import { type Call, type Expression, type Literal, type Name, ungrouped } from "./tree.ts";

/** What a node is written as, and how tightly that binds; `atom` where nothing can come in between. */
export interface Printed {
  readonly doc: Doc;
  readonly power: number;
}

export const atom = Infinity;
export const printed = (doc: Doc, power = atom): Printed => ({ doc, power });

/** How a form of the grammar is written, whose parts are given. */
export interface Form {
  readonly print: (printer: Printer, parts: readonly Expression[], negated: boolean) => Printed;
  /** Whether NOT may stand within it. */
  readonly negatable?: boolean;
}

type KindPrinters = {
  readonly [K in Expression["kind"]]?: (printer: Printer, node: Extract<Expression, { kind: K }>) => Printed;
};

/** How the nodes of a tree are written in a dialect: the grammar's tables, read the other way. */
export interface PrintTable {
  readonly literal: (node: Literal) => Printed;
  readonly name: (node: Name) => string;
  /** How tightly infix operators bind; they group to the left. */
  readonly infix: Readonly<Record<string, number>>;
  /** The power of operators that cannot follow each other without brackets. */
  readonly unchained?: number;
  readonly prefix: Readonly<Record<string, number>>;
  /** Whether a minus sign right before a number would be read as a part of it. */
  readonly foldsSign?: (operand: Literal) => boolean;
  /** Forms by what was written, or by the name of an operator. */
  readonly forms: Readonly<Record<string, Form>>;
  /** Forms of functions that are not called in the plain way, by name. */
  readonly calls: Readonly<Record<string, Form>>;
  /** Kinds of node that are written in a way of the dialect's own. */
  readonly kinds: KindPrinters;
  readonly separator: "," | ";";
  /** How tightly an argument has to bind. */
  readonly argumentPower?: number;
}

/** Writes trees down with only the brackets that are needed, so that they read back as the same trees. */
export class Printer {
  constructor(readonly table: PrintTable) {}

  /** A node as an operand that must bind more tightly than `power`; in brackets where it does not. */
  operand(node: Expression, power: number): Doc {
    const { doc, power: own } = this.node(node);
    return own > power ? doc : group("(", doc, ")");
  }

  /** A node where only the separator ends it. */
  argument(node: Expression): Doc {
    return this.operand(node, this.table.argumentPower ?? 0);
  }

  /** Arguments between brackets. */
  list(open: string, nodes: readonly Expression[], close: string): Doc {
    const items = nodes.map((node) => this.argument(node));
    return bracketed(open, items, [this.table.separator, line], close);
  }

  node(node: Expression): Printed {
    if (node.kind === "group") return this.node(node.inner);
    const { forms, kinds } = this.table;
    const written = node.written && forms[node.written.form];
    if (written) return written.print(this, node.written.parts, false);
    const own = kinds[node.kind] as ((printer: Printer, node: Expression) => Printed) | undefined;
    if (own) return own(this, node);
    switch (node.kind) {
      case "literal":
        return this.table.literal(node);
      case "name":
        return printed(this.table.name(node));
      case "call":
        return this.#call(node);
      default:
        throw new TypeError(`${node.kind} is not written in this dialect`);
    }
  }

  #call(node: Call): Printed {
    const { forms, calls, infix, prefix } = this.table;
    const own = (node.notation === "operator" ? forms : calls)[node.name];
    // One sign may stand before a value and between two.
    const standsBefore = (call: Call) => call.notation === "operator" && call.args.length === 1 && call.name in prefix;
    const isPrefix = standsBefore(node);
    if (own && !isPrefix) return own.print(this, node.args, false);
    if (node.notation === "operator") {
      if (node.name === "not" && node.args.length === 1) {
        const inner = ungrouped(node.args[0]);
        const named = inner.written?.form ?? (inner.kind === "call" && !standsBefore(inner) ? inner.name : "");
        if (forms[named]?.negatable) return forms[named].print(this, inner.written?.parts ?? (inner as Call).args, true);
      }
      if (isPrefix) return this.#prefix(node.name, node.args[0], prefix[node.name]);
      if (node.args.length === 2 && node.name in infix) return this.#chain(node, infix[node.name]);
    }
    return printed([node.name, this.list("(", node.args, ")")]);
  }

  #prefix(name: string, operand: Expression, power: number): Printed {
    const inner = ungrouped(operand);
    if (name === "-" && inner.kind === "literal" && this.table.foldsSign?.(inner))
      return printed(["-(", this.node(inner).doc, ")"], power);
    const isSigned = inner.kind === "call" && inner.args.length === 1 && (this.table.prefix[inner.name] ?? 0) >= power;
    const doc = this.operand(operand, isSigned ? power - 0.5 : power);
    // Two signs side by side are another operator, or a comment.
    const isApart = /\w$/.test(name) || /^[^\w\s("'`[$?]/.test(layOut(doc, Infinity));
    return printed([name, isApart ? " " : "", doc], power);
  }

  /** Operators of one name in a row, without recursion, since a row may be long. */
  #chain({ name, args }: Call, power: number): Printed {
    const rest: Doc[] = [];
    const continues = (node: Expression): node is Call =>
      node.kind === "call" &&
      node.name === name &&
      !node.written &&
      node.notation === "operator" &&
      node.args.length === 2 &&
      power !== this.table.unchained;
    // What stands on the right without brackets of its own was grouped in halves.
    const pending = [...args];
    for (;;) {
      const last = pending.pop()!;
      if (pending.length === 0 ? continues(ungrouped(last)) : continues(last)) pending.push(...(ungrouped(last) as Call).args);
      else if (pending.length > 0) rest.unshift([line, name, " ", this.operand(last, power)]);
      else {
        const leftPower = power === this.table.unchained ? power : power - 0.5;
        return printed(group(this.operand(last, leftPower), nest(...rest)), power);
      }
    }
  }
}

/** The text of a tree, in lines of `width` characters where that can be. */
export const printWith = (table: PrintTable, tree: Expression, width = Infinity): string =>
  layOut(new Printer(table).node(tree).doc, width);

/**
 * A form from how it is written, with `$1`, `$2` for its parts: `$1<` may bind as tightly as the form
 * itself, `$1>` must bind more tightly, a plain `$1` is ended by what follows; `$1w` is a word; `$*` is
 * what is left, between separators. `[not ]` stands where the form is negated, `{ escape $3>}` where
 * there is such a part. Inside a form's own brackets `inner` is what `>` asks for.
 */
export function form(power: number, template: string, inner = power): Form {
  const pieces = template.match(/\$(?:\d[<>w]?|\*)|\[[^\]]*\]|\{[^}]*\}|[(), ]|[^$[{(), ]+/g)!;
  return {
    negatable: template.includes("["),
    print: (printer, parts, negated) => printed(group(fill(pieces, printer, parts, negated, inner)), power),
  };
}

function fill(pieces: readonly string[], printer: Printer, parts: readonly Expression[], negated: boolean, power: number): Doc {
  const named = Math.max(0, ...pieces.map((piece) => Number(/^\$(\d)/.exec(piece)?.[1] ?? 0)));
  const levels: Doc[][] = [[]];
  const put = (doc: Doc) => void levels[levels.length - 1].push(doc);
  for (const piece of pieces) {
    if (piece.startsWith("[")) put(negated ? piece.slice(1, -1) : "");
    else if (piece === "(") {
      put("(");
      levels.push([soft]);
    } else if (piece === ")") {
      const inner = levels.pop()!;
      put([nest(...inner), soft, ")"]);
    } else if (piece === " ") put(levels.length > 1 ? line : " ");
    else if (piece === "$*")
      put(
        parts
          .slice(named)
          .flatMap((part, i) => (i === 0 ? [printer.argument(part)] : [printer.table.separator, line, printer.argument(part)])),
      );
    else if (piece.startsWith("{")) {
      const inner = piece.slice(1, -1).match(/\$\d[<>w]?|[^$]+/g)!;
      const place = Number(/\$(\d)/.exec(piece)![1]);
      if (parts.length >= place) for (const each of inner) put(each.startsWith("$") ? part(each) : each);
    } else put(piece.startsWith("$") ? part(piece) : piece);
  }
  return levels[0];

  function part(piece: string): Doc {
    const node = parts[Number(piece[1]) - 1];
    if (piece[2] === "w") return node.kind === "literal" ? String(node.value) : "";
    if (piece[2] === "<") return printer.operand(node, power - 0.5);
    return piece[2] === ">" ? printer.operand(node, power) : printer.argument(node);
  }
}
