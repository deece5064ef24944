import type { Dialect } from "../dialects/dialect.ts";
import { type Decision, type FunctionRow, isDeciding, isPure, parameterAt } from "../dialects/row.ts";
import type { Step } from "../dialects/step.ts";
import type { Call } from "../syntax/index.ts";
import { decisiveOf, isOfMany, operationOf, truthBy } from "../text/index.ts";
import type { Answers } from "../traits/index.ts";
import { Failure, type Value } from "../values/index.ts";
import { workBound } from "./conversions.ts";
import { type Bound, type BoundOperation, controlled, dependsOnRow, isBroken, settle } from "./bound.ts";
import { constantValue, isKnownNull } from "./constants.ts";
import { notAvailable } from "./control.ts";
import { boundOperation, boundStep, withDefaults } from "./slots.ts";
import type { Together } from "./together.ts";
import { type Type, typeOf } from "../dialects/types.ts";

/** A call whose overload is chosen. */
export interface ChosenCall {
  readonly node: Call;
  readonly row: FunctionRow;
  /** The types that the overload was chosen by. */
  readonly types: readonly Type[];
  readonly args: readonly Bound[];
  /** The arguments as the types of the parameters. */
  readonly converted: readonly Bound[];
  /** Whether nothing is asked but which rows it holds for. */
  readonly isCondition: boolean;
}

/** Binds calls by what their rows are: operations, decisions, code; and what is known of them before any row. */
export class Calls {
  readonly #dialect: Dialect;
  readonly #together: Together;

  constructor(dialect: Dialect, together: Together) {
    this.#dialect = dialect;
    this.#together = together;
  }

  bind(call: ChosenCall): Bound {
    const { node, row, types, args, isCondition } = call;
    const converted =
      isPure(row) && row.result.startsWith("unified") ? [...this.#together.unified(call.args, node).items] : [...call.converted];
    // The escape is read only with a pattern, and an error of its own where that is not null, in some with the subject, too.
    const escape = row.parameters.findIndex((parameter) => parameter.type === "escape");
    const guards = escape < 0 ? 0 : this.#dialect.types.folds ? 1 : this.#dialect.types.nullFirst ? escape : 0;
    const isGuarded = (i: number) => guards > 1 && i === escape;
    const unreadable = converted.find((arg, i) => isBroken(arg) && !isBroken(args[i]) && !isGuarded(i));
    const constant = (i: number) => (args[i] && !dependsOnRow(args[i]) ? constantValue(args[i], this.#dialect) : undefined);
    const type = this.#dialect.types.resultType(row, types, constant);
    const isStrict = isPure(row)
      ? "missing" in row.answers && row.answers.missing === "null"
      : !isDeciding(row) && this.#dialect.code[row.code].strict === true;
    const slots = isPure(row) ? operationOf(row.operation).slots : undefined;
    const stopsAtItem = isPure(row) && "missingItem" in row.answers && row.answers.missingItem === "null";
    const isNothing = (arg: Bound, i: number) => {
      const slot = slots?.find(({ name }) => name === parameterAt(row, i).slot);
      const isKept = slot?.nullable && !(isPure(row) && slot.keptBy && (row.answers as Answers)[slot.keptBy] === "null");
      return isKnownNull(arg, this.#dialect) && !(slot && (isKept || (isOfMany(slot) && !stopsAtItem)));
    };
    const { types: rules } = this.#dialect;
    if (rules.nullFirst && isStrict && converted.some(isNothing))
      return { kind: "constant", value: null, dropped: converted, type: rules.typeOfNothing?.(type, row) ?? type, source: node };
    // An engine that works out constants first reads a pattern and its escape together, and before the subject; AND and OR
    // look at what they need.
    const isRead = this.#dialect.types.folds
      ? converted.slice(1).every(({ kind }) => kind === "constant")
      : isPure(row) || (!isDeciding(row) && !("lazy" in this.#dialect.code[row.code]));
    if (unreadable && isRead) {
      const value = settle((unreadable as { value: Value }).value, unreadable.source.range, this.#dialect);
      return { kind: "constant", value, source: node, type };
    }
    const written = guards > 0 ? converted.at(escape) : undefined;
    if (written && (written.kind !== "constant" || isBroken(written))) {
      const parts = converted.slice(escape - guards, escape + 1);
      converted[escape] = controlled({ form: "unless-null" }, node.args[escape], typeOf("escape"), parts);
    }
    if (isPure(row) && row.operation === "connect") return this.#connected({ ...call, converted }, row, type);
    if (isDeciding(row)) return this.#deciding(node, row, args, withDefaults(row, converted), type);
    if (!isPure(row)) {
      const code = this.#dialect.code[row.code];
      const children = withDefaults(row, converted);
      return this.#fitted({ kind: "code", code, given: args, children, isCondition, source: node, type });
    }
    const bound: Bound = { ...boundOperation(row, converted), source: node, type };
    return this.#fitted(row.then ? { ...boundStep(row.then, bound), row, afterwards: true, source: node, type } : bound);
  }

  /** AND, OR and their like: a side that no row changes may settle it, and conditions may be looked at otherwise. */
  #connected({ node, args, converted, isCondition }: ChosenCall, row: FunctionRow & Step<"connect">, type: Type): Bound {
    const { constants, inConditions } = row.answers;
    const bound: Bound & BoundOperation = { ...boundOperation(row, converted), source: node, type };
    if (inConditions === "rows left open" && isCondition)
      return { ...bound, answers: { ...bound.answers, evaluates: "rows left open" } };
    const decisive = decisiveOf(row.fixed?.joiner ?? null);
    if (decisive === undefined || constants === "none") return bound;
    const valueOf = (part: Bound) => (dependsOnRow(part) ? undefined : constantValue(part, this.#dialect));
    const isWritten = (side: Bound) => side.kind === "constant" && typeof side.value === "number";
    const at = converted.findIndex((side, i) => (constants === "any" || isWritten(args[i])) && valueOf(side) === decisive);
    // Where constants are worked out, one before it that fails is an error, whatever comes after.
    const isFailing = (side: Bound) => constants === "any" && valueOf(side) instanceof Failure;
    if (at < 0 || converted.slice(0, at).some(isFailing)) return bound;
    // What stands before it is looked at first, and what it was made from.
    const dropped = converted.slice(0, at + 1);
    return { kind: "constant", value: truthBy(row.answers.truth)(decisive), dropped, type, source: node };
  }

  /** A function that chooses among its arguments, which are of one type where its result is. */
  #deciding(node: Call, row: FunctionRow & Decision, args: readonly Bound[], parts: readonly Bound[], type: Type): Bound {
    const together = (results: readonly Bound[]) =>
      row.result === "unified" ? this.#together.unified(results, node).items : results;
    switch (row.decides) {
      case "first that holds": {
        const tests = parts.length >> 1;
        const conditions = Array.from({ length: tests }, (_, i) => this.#together.condition(args[2 * i] ?? parts[2 * i]));
        const results = parts.filter((_, i) => i % 2 === 1 || i === 2 * tests);
        const none = new Failure("error-value", { kind: notAvailable }, node.range, notAvailable);
        const fallback: Bound = { kind: "constant", value: none, type, source: node };
        const isOpen = parts.length % 2 === 0 && row.none === "not available";
        const children = [...conditions, ...together(results), ...(isOpen ? [fallback] : [])];
        return controlled({ form: "choice", tests }, node, type, children);
      }
      case "first present":
        return controlled({ form: "first-present" }, node, type, together(parts));
      case "nth":
        return controlled({ form: "nth", none: row.none }, node, type, [parts[0], ...together(parts.slice(1))]);
      case "unless failing":
        return controlled({ form: "recover", caught: row.caught }, node, type, together(parts));
    }
  }

  /** Checks the range of a result where the dialect's types have one. */
  #fitted(bound: Bound): Bound {
    const size = bound.kind === "operation" ? operationOf(bound.operation).result : undefined;
    const fits = size === "small" ? undefined : this.#dialect.types.fits?.(bound.type, size === "part");
    return fits ? workBound(bound, fits, bound.type) : bound;
  }
}
