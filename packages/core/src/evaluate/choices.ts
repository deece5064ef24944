import type { Diagnostic, MessageCode } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { type Choice, type Expression, resultsOf, walk } from "../syntax/index.ts";
import { Failure, limitCodes } from "../values/index.ts";
import { type Bound, controlled, dependsOnRow, isBroken } from "./bound.ts";
import { constantValue } from "./constants.ts";
import { mistake } from "./mistakes.ts";
import type { Reports } from "./reports.ts";
import type { Together, Unified } from "./together.ts";
import { typeOf } from "../dialects/types.ts";

/** Problems of a constant that matter only where it is looked at. */
const ofValues: ReadonlySet<MessageCode> = new Set<MessageCode>([
  "pattern-syntax",
  "escape-sequence",
  "not-a-boolean",
  "not-a-number",
  "not-a-date",
  "number-out-of-range",
  "no-such-group",
]);

/** Binds choices: CASE, IF as syntax, and their like. */
export class Choices {
  readonly #dialect: Dialect;
  readonly #reports: Reports;
  readonly #together: Together;
  readonly #bind: (node: Expression) => Bound;
  /** The failures of conditions that were worked out before any row. */
  readonly #ofConditions = new Set<Diagnostic>();

  constructor(dialect: Dialect, reports: Reports, together: Together, bind: (node: Expression) => Bound) {
    this.#dialect = dialect;
    this.#reports = reports;
    this.#together = together;
    this.#bind = bind;
  }

  /** A choice; of a query's condition nothing is worked out beforehand. */
  bind(node: Choice, isQuery: boolean): Bound {
    const conditions = node.branches.map((branch) => this.#bind(branch.condition));
    const tests = conditions.map((condition) => this.#together.condition(condition));
    const taken = isQuery ? undefined : this.#taken(tests);
    const isTaken = (i: number) => !(taken instanceof Set) || taken.has(i);
    const results = resultsOf(node).map((result, i) => (isTaken(i) ? this.#bind(result) : this.#untaken(result)));
    if (taken instanceof Failure) {
      const failed = mistake(taken.code, taken.range ?? node.range, taken.facts);
      this.#ofConditions.add(failed);
      return this.#reports.broken(node, failed);
    }
    const last = node.otherwise && node.form !== "coalesce" ? results.pop() : undefined;
    const { type, items: unified } =
      this.#nullif(node, last) ?? this.#together.unified([...(last ? [last] : []), ...results], node, !node.otherwise);
    const items = last ? [...unified.slice(1), unified[0]] : unified;
    const kept = tests.filter((_, i) => isTaken(i));
    const parts = [...kept, ...items.filter((_, i) => isTaken(i))];
    return controlled({ form: "choice", tests: kept.length }, node, type, parts);
  }

  /** A branch that no row takes: a value in it that cannot be read is no error, a name that is not there is one. */
  #untaken(node: Expression): Bound {
    const isKept = (each: Diagnostic) => !ofValues.has(each.code) && !this.#ofConditions.has(each);
    const { result, isSilent } = this.#reports.aside(() => this.#bind(node), isKept);
    return !isSilent && isBroken(result) ? { kind: "constant", value: null, type: typeOf("null"), source: node } : result;
  }

  /** The branches of a choice that a row may take, where conditions that no row changes are worked out first; or the failure of one. */
  #taken(tests: readonly Bound[]): ReadonlySet<number> | Failure | undefined {
    if (!this.#dialect.types.simplifiesChoices) return undefined;
    const taken = new Set<number>();
    for (const [i, test] of tests.entries()) {
      // What is compared with a constant that cannot be read is an error of its row, though no row is looked at.
      const isSteady = !dependsOnRow(test) && ![...walk(test.source)].some(({ kind }) => kind === "name");
      const holds = isSteady ? constantValue(test, this.#dialect) : undefined;
      if (holds instanceof Failure) return holds.code === "not-covered" || limitCodes.has(holds.code) ? undefined : holds;
      if (holds !== false && holds !== null) taken.add(i);
      if (holds === true) return taken;
    }
    return taken.add(tests.length);
  }

  /** The result of NULLIF, where its type depends on what it is compared with. */
  #nullif({ form, branches }: Choice, result: Bound | undefined): Unified | undefined {
    const { types } = this.#dialect;
    const condition = branches[0]?.condition;
    if (form !== "nullif" || !types.nullifType || !result || condition?.kind !== "call") return undefined;
    const type = types.nullifType(result.type, this.#bind(condition.args[1]).type);
    return { type, items: [this.#together.as(type, result), { kind: "constant", value: null, type, source: condition }] };
  }
}
