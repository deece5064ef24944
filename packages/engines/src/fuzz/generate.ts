import { type Dialect, type FunctionRow, arity, isPure } from "indigo-quill/dialects";
import { decimals, integers, patternsFor, slotTexts, trapTexts } from "./pools.ts";
import { pick, random } from "./random.ts";

/** How expressions of one dialect are written down: its own forms and the arguments of its own types. */
export interface Style {
  /** Arguments for a parameter type, or for `row slot`; undefined where the type is one of the common kinds. */
  readonly atoms?: Readonly<Record<string, readonly string[]>>;
  /** How calls that are neither functions nor plain operators are written, by the row's name; undefined for a row that cannot be written. */
  readonly forms?: Readonly<Record<string, (args: readonly string[]) => string>>;
  /** How functions that are not called in the plain way are written, by name. */
  readonly calls?: Readonly<Record<string, (args: readonly string[]) => string>>;
  /** Functions that are tried on the atoms of their own types alone, and that no other call takes as an argument. */
  readonly apart?: (row: FunctionRow) => boolean;
  /** Rows that the engine cannot be asked about in an expression. */
  readonly skip?: readonly string[];
  /** What a parameter of a type may be given: `text`, `integer`, `decimal`, `boolean`, or any of them. */
  kindOf(type: string): "text" | "integer" | "decimal" | "boolean" | "any" | undefined;
  readonly columns: Readonly<Record<"text" | "integer" | "decimal" | "boolean", readonly string[]>>;
}

/** One case in `breakage` gives an argument of a kind that is not asked for. */
const breakage = 0.04;

/** Makes expressions from the rows of a dialect's table. */
export function generator(dialect: Dialect, style: Style, seed: number): (row: FunctionRow) => string {
  const next = random(seed);
  const rows = dialect.rows.filter((row) => !style.skip?.includes(row.name));
  const quote = (text: string) => dialect.textLiteral(text);

  function atom(type: string, slot: string, row: FunctionRow): string {
    const own = style.atoms?.[`${row.name} ${slot}`] ?? style.atoms?.[type];
    if (own && (next() < 0.9 || style.apart?.(row))) return pick(next, own);
    const kind = next() < breakage && !style.apart?.(row) ? "any" : (style.kindOf(type) ?? "any");
    switch (kind === "any" ? pick(next, ["text", "integer", "decimal", "text"] as const) : kind) {
      case "text": {
        const patterns = slot === "needle" || slot === "old" || slot === "delimiter" ? patternsFor(languageOf(row)) : undefined;
        const pool = patterns ?? slotTexts[slot];
        if (pool && next() < 0.75) return quote(pick(next, pool));
        return next() < 0.6 ? pick(next, style.columns.text) : quote(pick(next, trapTexts));
      }
      case "integer":
        return next() < 0.25 ? pick(next, style.columns.integer) : String(pick(next, integers));
      case "decimal":
        return next() < 0.3 ? pick(next, style.columns.decimal) : pick(next, decimals);
      default:
        return pick(next, style.columns.boolean);
    }
  }

  function argument(type: string, slot: string, row: FunctionRow, depth: number): string {
    if (depth > 0 && next() < 0.3 && !style.apart?.(row)) {
      const kind = style.kindOf(type);
      const fitting = rows
        .filter((each) => !style.apart?.(each))
        .filter((each) => each.result === type || (kind === "any" && !each.name.startsWith("is ")));
      if (fitting.length > 0) return call(pick(next, fitting), depth - 1);
    }
    return atom(type, slot, row);
  }

  function call(row: FunctionRow, depth: number): string {
    const { least, most } = arity(row);
    const count = least + Math.floor(next() * (Math.min(most, least + 2) - least + 1));
    const args = Array.from({ length: count }, (_, i) => {
      const { type, slot } = row.parameters[Math.min(i, row.parameters.length - 1)];
      return argument(type, slot, row, depth);
    });
    return written(row, args);
  }

  function written(row: FunctionRow, args: readonly string[]): string {
    const { name, notation } = row;
    const own = style.forms?.[name];
    if (own && notation === "operator") return own(args);
    const call = style.calls?.[name];
    if (call) return call(args);
    if (notation !== "operator") return `${name}(${args.join(", ")})`;
    if (name === "not") return `(not ${args[0]})`;
    if (args.length === 1)
      return /^is /.test(name) ? `(${args[0]} ${name})` : /^\w/.test(name) ? `(${args[0]} ${name})` : `(${name} ${args[0]})`;
    return `(${args[0]} ${name} ${args[1]}${args.length > 2 ? ` escape ${args[2]}` : ""})`;
  }

  return (row) => call(row, 2);
}

const languageOf = (row: FunctionRow): string | undefined =>
  isPure(row) ? (row.answers as Readonly<Record<string, string>>).pattern : undefined;

/** A row of the columns that generated expressions name. */
export function rowFor(next: () => number): Readonly<Record<string, string | number | boolean | null>> {
  return {
    label: pick(next, trapTexts),
    remark: pick(next, trapTexts),
    n: pick(next, [0, 1, 2, 3, -1, 12]),
    d: pick(next, [1.5, 2.25, -0.5, 12.125]),
    gap: next() < 0.7 ? null : "gap",
  };
}
