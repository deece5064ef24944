import type { Diagnostic } from "../diagnostics/index.ts";
import type { Expression } from "../syntax/index.ts";
import { Failure, isFailure, sameRange } from "../values/index.ts";
import type { Bound } from "./bound.ts";
import { unknownType } from "../dialects/types.ts";

/** What is found wrong while a tree is bound. */
export class Reports {
  readonly diagnostics: Diagnostic[] = [];
  /** The failures that stand for parts that were reported. */
  readonly #reported = new WeakSet<Failure>();

  push(...diagnostics: readonly Diagnostic[]): void {
    this.diagnostics.push(...diagnostics);
  }

  /** Reports, unless the same has been said of the place. */
  pushOnce(diagnostic: Diagnostic): void {
    const isTold = ({ code, range }: Diagnostic) => code === diagnostic.code && sameRange(range, diagnostic.range);
    if (!this.diagnostics.some(isTold)) this.push(diagnostic);
  }

  /** Reports, and stands for the sub-expression by the failure that it is. */
  broken(node: Expression, diagnostic: Diagnostic): Bound {
    this.push(diagnostic);
    const { code, facts, range } = diagnostic;
    const value = new Failure(code, facts, range);
    this.#reported.add(value);
    return { kind: "constant", value, type: unknownType, source: node };
  }

  /** Whether a part could not be bound, and this has been reported; an error written as a literal is a value. */
  isReported(part: Bound): boolean {
    return part.kind === "constant" && isFailure(part.value) && this.#reported.has(part.value);
  }

  /** Does something, and takes back what it reports: all of it, or what is not `kept`. */
  aside<T>(act: () => T, kept: (diagnostic: Diagnostic) => boolean = () => false): { result: T; isSilent: boolean } {
    const told = this.diagnostics.length;
    const result = act();
    const own = this.diagnostics.splice(told);
    this.push(...own.filter(kept));
    return { result, isSilent: own.length === 0 };
  }
}
