import type { Conversion, TypeRules } from "../dialects/dialect.ts";
import { type Expression, ungrouped } from "../syntax/index.ts";
import type { Failure } from "../values/index.ts";
import { type Bound, isBroken } from "./bound.ts";
import { convertBound } from "./conversions.ts";
import { mistake } from "./mistakes.ts";
import type { Reports } from "./reports.ts";
import { type Type, conditionType, unknownType } from "../dialects/types.ts";

/** Sub-expressions of one type. */
export interface Unified {
  readonly type: Type;
  readonly items: readonly Bound[];
}

/** Brings sub-expressions to the types that are wanted of them, and to one type where they stand side by side. */
export class Together {
  readonly #types: TypeRules;
  readonly #reports: Reports;

  constructor(types: TypeRules, reports: Reports) {
    this.#types = types;
    this.#reports = reports;
  }

  /** A conversion put around; where types are known before a row is, a constant that does not convert is reported. */
  converted(bound: Bound, conversion: Conversion, type: Type): Bound {
    const result = convertBound(bound, conversion, type);
    const isLater = conversion.late || (this.#types.dynamic && !conversion.early);
    if (isLater || !isBroken(result) || isBroken(bound)) return result;
    const { code, facts } = (result as { value: Failure }).value;
    return this.#reports.broken(bound.source, mistake(code, bound.source.range, facts));
  }

  /** The same by the dialect's conversion to a type; what has none stays as it is. */
  as(type: Type, bound: Bound): Bound {
    return bound.type === type ? bound : this.converted(bound, this.#types.conversion(bound.type, type) ?? { cost: 0 }, type);
  }

  /** What is true or false, or is reported not to be. */
  condition(bound: Bound): Bound {
    const conversion = this.#types.conversion(bound.type, conditionType);
    if (conversion) return this.converted(bound, conversion, conditionType);
    this.#reports.push(mistake("condition-type", bound.source.range, { given: String(bound.type) }));
    return bound;
  }

  /** What stands side by side, where a whole number that is written may have the type of the others. */
  side(parts: readonly Bound[]): readonly Bound[] {
    const types = this.#types;
    if (!types.numberBeside || parts.length < 2) return parts;
    const others = parts.filter((part) => writtenNumber(part) === undefined).map(({ type }) => type);
    return parts.map((part) => {
      const value = writtenNumber(part);
      return value === undefined ? part : { ...part, type: types.numberBeside!(value, part.type, others) };
    });
  }

  /** Brings sub-expressions to one type, or reports that there is none. */
  unified(parts: readonly Bound[], node: Expression, isOpen = false): Unified {
    const items = this.side(parts);
    const types = items.map((item) => item.type);
    const type = this.#types.unify(types, isOpen);
    if (type !== undefined) return { type, items: items.map((item) => this.as(type, item)) };
    this.#reports.push(mistake("branch-types", node.range, { given: types.map(String) }));
    return { type: unknownType, items };
  }
}

/** The whole number that a part is written as, with its sign. */
function writtenNumber({ source }: Bound): number | bigint | undefined {
  const node = ungrouped(source);
  const isSigned = node.kind === "call" && node.name === "-" && node.args.length === 1;
  const literal = isSigned ? ungrouped(node.args[0]) : node;
  if (literal.kind !== "literal" || (typeof literal.value !== "number" && typeof literal.value !== "bigint")) return undefined;
  return isSigned ? -literal.value : literal.value;
}
