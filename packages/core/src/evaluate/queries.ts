import type { Dialect } from "../dialects/dialect.ts";
import { type Expression, ungrouped } from "../syntax/index.ts";
import { isFailure } from "../values/index.ts";
import { type Bound, controlled, dependsOnRow, share } from "./bound.ts";
import { constantValue } from "./constants.ts";

/** The queries of a tree outside functions: each is evaluated where it stands, and in some dialects before the whole. */
export class Queries {
  readonly #before: Bound[] = [];

  constructor(
    readonly dialect: Dialect,
    readonly bind: (node: Expression) => Bound,
  ) {}

  note(bound: Bound): void {
    if (!this.dialect.types.rows?.eager) return;
    this.#before.push(bound);
    share(bound);
  }

  /** A condition of a query is looked at before any row where the dialect says so. */
  noteCondition(condition: Expression): void {
    if (this.dialect.types.rows?.checksConditions) this.#before.push(...this.#failingParts(condition));
  }

  /** The parts of a condition, joined by AND, that fail on every row. */
  #failingParts(condition: Expression): readonly Bound[] {
    const node = ungrouped(condition);
    if (node.kind === "call" && node.name === "and") return node.args.flatMap((arg) => this.#failingParts(arg));
    const bound = this.bind(node);
    return !dependsOnRow(bound) && isFailure(constantValue(bound, this.dialect) ?? null) ? [bound] : [];
  }

  /** A whole that fails where one of the queries in it does. */
  after(whole: Bound): Bound {
    if (this.#before.length === 0) return whole;
    return controlled({ form: "unless-failing" }, whole.source, whole.type, [whole, ...this.#before]);
  }
}
