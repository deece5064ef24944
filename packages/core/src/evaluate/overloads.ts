import type { Conversion, TypeRules } from "../dialects/dialect.ts";
import { type FunctionRow, parameterAt } from "../dialects/row.ts";
import { type Type, typeOf } from "../dialects/types.ts";
import type { Call } from "../syntax/index.ts";

/** A row that takes the types of a call, with the conversion of each argument. */
export interface Fit {
  readonly row: FunctionRow;
  readonly conversions: readonly Conversion[];
  readonly cost: number;
}

/** The cost of a row that is meant for another collation. */
const elsewhere = 100;

/** Which rows of a name take arguments of some types. */
export class Overloads {
  readonly #types: TypeRules;
  readonly #fits = new Map<string, readonly Fit[]>();

  constructor(types: TypeRules) {
    this.#types = types;
  }

  /**
   * The rows of a name whose parameters take the types, best first, preferred by the types of all that they are compared
   * with; remembered, since a long list asks the same again.
   */
  fitting(name: string, rows: readonly FunctionRow[], types: readonly Type[], together = types): readonly Fit[] {
    const key = `${name} ${types.join()} ${together.join()}`;
    const known = this.#fits.get(key);
    if (known) return known;
    const found = rows
      .flatMap((row): Fit[] => {
        const conversions = types.map((type, i) => this.#types.conversion(type, this.#wanted(row, types, together, i)));
        if (conversions.some((c) => c === undefined)) return [];
        const all = conversions as readonly Conversion[];
        const preferred = this.#types.preference?.(row, together) ?? 0;
        const isOther = row.collations?.includes(this.#types.collationOf?.(together, row) ?? "") === false;
        return [
          { row, conversions: all, cost: all.reduce((sum, { cost }) => sum + cost, preferred + (isOther ? elsewhere : 0)) },
        ];
      })
      .sort((a, b) => a.cost - b.cost);
    this.#fits.set(key, found);
    return found;
  }

  /**
   * The type that is wanted of an argument: of `item.list` the type of `list`, as `item.integer[]`, say, and of `side.decimal` the
   * decimal that all those have together which stand beside it.
   */
  #wanted(row: FunctionRow, types: readonly Type[], together: readonly Type[], index: number): Type {
    const { type } = parameterAt(row, index);
    const [kind, name] = type.split(".");
    if (kind === "item" && name) return typeOf(`item.${String(types[row.parameters.findIndex((each) => each.name === name)])}`);
    if (kind !== "side" || !together.some((other) => other.name === name && String(other) !== name)) return typeOf(type);
    const all = together.reduce<Type | undefined>((common, other) => {
      const both = common === undefined ? other : this.#types.unify([common, other]);
      return both !== undefined && both.name === name ? both : common;
    }, undefined);
    return typeOf(all?.name === name ? `side.${String(all)}` : type);
  }
}

/** Whether a function takes nothing but values of one type. */
export const isOfOneType = ({ parameters }: FunctionRow): boolean => parameters.every(({ type }) => type === parameters[0].type);

/** Whether a call may mean a row: an operator is no function under its own name, but for forms whose name has a space. */
export function isWrittenAs(row: FunctionRow, { name, notation }: Call): boolean {
  return notation === "operator" || row.notation !== "operator" || row.name !== name || name.includes(" ");
}
