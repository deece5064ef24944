import { type Dialect, type FunctionRow, arity, isPure } from "indigo-quill/dialects";
import { decimals, integers, slotTexts } from "./pools.ts";
import { pick, random } from "./random.ts";
import { dateFormat, dateText, marks, pattern, trapText } from "./texts.ts";

/** A kind of value that an argument may want. */
export type Kind = "text" | "integer" | "decimal" | "boolean";

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
  /** What a parameter of a type may be given: one of the kinds, or any of them. */
  kindOf(type: string): Kind | "any" | undefined;
  readonly columns: Readonly<Record<Kind, readonly string[]>>;
  /** Casts to a kind, `$` being the operand. */
  readonly casts: Readonly<Record<Kind, readonly string[]>>;
  /** Forms that give a kind, with a letter in braces for each part: {t}, {i}, {d}, {b} or {a} for any. */
  readonly syntax: Readonly<Record<Kind, readonly string[]>>;
  /** Forms that give the kind of their parts {x}. */
  readonly choices: readonly string[];
  /** The flavour of its regular expressions. */
  readonly flavour: string;
  /** The tokens of a format of dates, by the parameter's `row slot`. */
  readonly dateTokens?: Readonly<Record<string, readonly string[]>>;
}

/** One case in so many gives an argument of a kind that is not asked for. */
const breakage = 0.03;

const kinds: Readonly<Record<string, Kind>> = { t: "text", i: "integer", d: "decimal", b: "boolean" };

/** Makes expressions from the rows of a dialect's table and the forms of its grammar, two to four calls deep on average. */
export function generator(dialect: Dialect, style: Style, seed: number): (row: FunctionRow) => string {
  const next = random(seed);
  const rows = dialect.rows.filter((row) => !style.skip?.includes(row.name));
  // Beside an aggregate no column may stand outside one.
  const nested = rows.filter((row) => !row.aggregate && !style.apart?.(row));
  const byResult = new Map<string, FunctionRow[]>();
  for (const row of nested) byResult.set(row.result, [...(byResult.get(row.result) ?? []), row]);
  const quote = (text: string) => dialect.textLiteral(text);

  /** A text for a needle or a pattern, in the language that the row's answers say. */
  function needle(row: FunctionRow, slot: string): string | undefined {
    const language = isPure(row) ? (row.answers as Readonly<Record<string, string>>).pattern : undefined;
    if (!["needle", "old", "delimiter", "pattern"].includes(slot) || language === undefined || language === "literal")
      return undefined;
    if (language === "glob") return marks(next, true);
    return language.startsWith("like") || language === "similar" ? marks(next, false) : pattern(next, style.flavour);
  }

  function leaf(kind: Kind): string {
    switch (kind) {
      case "text":
        return next() < 0.6 ? pick(next, style.columns.text) : quote(next() < 0.9 ? trapText(next) : dateText(next));
      case "integer":
        return next() < 0.35 ? pick(next, style.columns.integer) : pick(next, integers.slice(0, next() < 0.9 ? 18 : undefined));
      case "decimal":
        return next() < 0.3 ? pick(next, style.columns.decimal) : pick(next, decimals);
      case "boolean":
        return pick(next, style.columns.boolean);
    }
  }

  function atom(type: string, slot: string, row: FunctionRow): string {
    const named = `${row.name} ${slot}`;
    const tokens = style.dateTokens?.[named];
    if (tokens && next() < 0.6) return quote(dateFormat(next, tokens));
    const own = style.atoms?.[named] ?? style.atoms?.[type];
    if (own && (next() < 0.9 || style.apart?.(row))) return pick(next, own);
    const text = needle(row, slot);
    if (text !== undefined && next() < 0.8) return quote(text);
    const kind = style.kindOf(type) ?? "any";
    if (kind === "text" && slotTexts[slot] && next() < 0.75) return quote(pick(next, slotTexts[slot]));
    return leaf(kind === "any" ? pick(next, ["text", "integer", "decimal", "text"]) : kind);
  }

  const filled = (form: string, kind: Kind, depth: number): string =>
    form.replace(/\{(\w+)\}/g, (_, part: string) => {
      if (part === "like") return quote(marks(next, false));
      if (part === "regex") return quote(pattern(next, style.flavour));
      if (part === "x") return value(kind, depth);
      return value(kinds[part] ?? pick(next, ["text", "integer", "decimal"]), depth);
    });

  /** Any expression of a kind. */
  function value(kind: Kind, depth: number): string {
    const roll = next();
    if (depth <= 0 || roll < 0.35) return leaf(kind);
    if (roll < 0.5) return filled(pick(next, style.choices), kind, depth - 1);
    if (roll < 0.58)
      return pick(next, style.casts[kind]).replace("$", () => value(pick(next, ["text", "integer", "decimal", kind]), depth - 1));
    if (kind === "boolean" && roll < 0.8) return filled(pick(next, style.syntax.boolean), kind, depth - 1);
    if (style.syntax[kind].length > 0 && roll < 0.68) return filled(pick(next, style.syntax[kind]), kind, depth - 1);
    const fitting = nested.filter((row) => style.kindOf(row.result) === kind);
    return fitting.length > 0 ? call(pick(next, fitting), depth - 1) : leaf(kind);
  }

  function argument(type: string, slot: string, row: FunctionRow, depth: number): string {
    if (depth <= 0 || style.apart?.(row) || next() < 0.42) return atom(type, slot, row);
    if (next() < breakage) return value(pick(next, ["text", "integer", "decimal", "boolean"]), depth - 1);
    const kind = style.kindOf(type);
    if (kind === undefined) {
      const same = byResult.get(type);
      return same ? call(pick(next, same), depth - 1) : atom(type, slot, row);
    }
    // What says how a call works is seldom calculated.
    if (["flags", "form", "escape", "count", "field"].includes(slot) && next() < 0.8) return atom(type, slot, row);
    return value(kind === "any" ? pick(next, ["text", "integer", "decimal", "text", "boolean"]) : kind, depth - 1);
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
    if (row.aggregate && args.length === 0) return `${name}(*)`;
    if (notation !== "operator") return `${name}(${args.join(`${dialect.separator} `)})`;
    if (name === "not") return `(not ${args[0]})`;
    if (args.length === 1) return /^\w/.test(name) ? `(${args[0]} ${name})` : `(${name} ${args[0]})`;
    return `(${args[0]} ${name} ${args[1]}${args.length > 2 ? ` escape ${args[2]}` : ""})`;
  }

  return (row) => {
    const inner = call(row, 3);
    // One case in five stands within a form of the grammar.
    if (row.aggregate || style.apart?.(row) || next() < 0.8) return inner;
    const kind = style.kindOf(row.result);
    if (kind === undefined || kind === "any") return inner;
    return filled(pick(next, style.choices), kind, 1).replace(kind === "text" ? /\blabel\b/ : /\bn\b/, () => inner);
  };
}

export interface FuzzColumns {
  readonly label: string | null;
  readonly remark: string | null;
  readonly n: number | null;
  readonly d: number;
  readonly gap: string | null;
}

/** A row of the columns that generated expressions name. */
export function rowFor(next: () => number): FuzzColumns {
  return {
    label: next() < 0.9 ? trapText(next) : dateText(next),
    remark: next() < 0.06 ? null : trapText(next),
    n: next() < 0.06 ? null : pick(next, [0, 1, 2, 3, -1, 12, 5, 2147483647]),
    d: pick(next, [1.5, 2.25, -0.5, 12.125, 0, 0.05]),
    gap: next() < 0.7 ? null : "gap",
  };
}
