import { type Expression, childrenOf, resultsOf, ungrouped } from "../syntax/index.ts";
import { mistake } from "./mistakes.ts";
import type { Reports } from "./reports.ts";

/** The collations that are written for texts, or for what they are made of; two that differ do not mix. */
export class Collations {
  readonly #written = new WeakMap<Expression, string>();
  /** Comparisons with the subject of a CASE, whose collation does not count as written there. */
  readonly #subjects = new WeakSet<Expression>();
  /** What queries select, whose collation does not count as written beside them. */
  readonly #selected = new WeakSet<Expression>();
  readonly #reports: Reports;

  constructor(reports: Reports) {
    this.#reports = reports;
  }

  noteSubject(comparison: Expression): void {
    this.#subjects.add(comparison);
  }

  noteSelected(item: Expression): void {
    this.#selected.add(ungrouped(item));
  }

  /** Reports collations that do not mix; what `isCarried` is written for the whole, too. */
  check(node: Expression, isCarried: boolean): void {
    const own = node.kind === "call" ? /^collate (.*)$/.exec(node.name)?.[1] : undefined;
    const sides =
      node.kind === "choice" ? resultsOf(node) : node.kind === "group" || this.#subjects.has(node) ? [] : childrenOf(node);
    const written = sides.map(ungrouped).filter((side) => !this.#selected.has(side));
    const names = [...new Set(written.map((side) => this.#written.get(side)))].filter((name) => name !== undefined);
    if (own === undefined && names.length > 1) this.#reports.push(mistake("mixed-collations", node.range, { names }));
    const [name] = own === undefined ? names : [own];
    if (name !== undefined && node.kind !== "query" && isCarried) this.#written.set(node, name);
  }
}
