import type { Variable } from "../dialects/dialect.ts";
import type { Binding, Expression, Filter, Lambda } from "../syntax/index.ts";
import { type Bound, controlled, dependsOn } from "./bound.ts";
import { Type, anyType } from "../dialects/types.ts";

/** The variables that are known where a part stands, and the forms that make some known. */
export class Scopes {
  readonly #variables: Variable[] = [];
  readonly #bind: (node: Expression) => Bound;

  constructor(bind: (node: Expression) => Bound) {
    this.#bind = bind;
  }

  get isEmpty(): boolean {
    return this.#variables.length === 0;
  }

  /** The variable of a name that was made known last. */
  named(name: string): Variable | undefined {
    return this.#variables.findLast((variable) => variable.name === name);
  }

  /** Binds with some variables; `types` says what each holds, or all of them. */
  declare<T>(names: readonly string[], types: Type | readonly Type[], body: (variables: Variable[]) => T): T {
    const typeAt = (i: number): Type => (types instanceof Type ? types : (types[i] ?? anyType));
    const variables = names.map((name, i): Variable => ({ name, type: typeAt(i), value: null }));
    this.#variables.push(...variables);
    try {
      return body(variables);
    } finally {
      this.#variables.length -= variables.length;
    }
  }

  binding(node: Binding): Bound {
    const source = this.#bind(node.source);
    const isLet = node.form === "let";
    const names = [node.variable, ...(node.form === "each" ? ["position()", "last()"] : [])];
    return this.declare(names, isLet ? source.type : anyType, (variables) => {
      const body = this.#bind(node.body);
      return controlled({ form: node.form, variables }, node, isLet ? body.type : anyType, [source, body]);
    });
  }

  lambda(node: Lambda, types: readonly Type[] = []): Bound {
    const outer = [...this.#variables];
    return this.declare(node.parameters, types, (variables) =>
      controlled({ form: "function", name: "", variables, outer }, node, anyType, [this.#bind(node.body)]),
    );
  }

  filter(node: Filter): Bound {
    const base = this.#bind(node.base);
    return this.declare([".", "position()", "last()"], anyType, (variables) => {
      const predicate = this.#bind(node.predicate);
      // `[last() - 1]` is the same for every item.
      const isAlike = !dependsOn(predicate, variables[0]) && !dependsOn(predicate, variables[1]);
      return controlled({ form: "filter", variables, isAlike }, node, anyType, [base, predicate]);
    });
  }

  /** A named function as a value: called by binding a call whose arguments are variables. */
  reference(name: string, count: number, node: Expression): Bound {
    const names = Array.from({ length: count }, (_, i) => `#${i}`);
    return this.declare(names, anyType, (variables) => {
      const args = names.map((arg): Expression => ({ kind: "name", name: arg, range: node.range }));
      const call = this.#bind({ kind: "call", name, nameRange: node.range, args, notation: "function", range: node.range });
      return controlled({ form: "function", name, variables, outer: [] }, node, anyType, [call]);
    });
  }
}
