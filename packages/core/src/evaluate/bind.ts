import type { Diagnostic } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { refusalOf } from "../dialects/refusals.ts";
import { type FunctionRow, arity, parameterAt } from "../dialects/row.ts";
import { type Call, type Choice, type Expression, type Name, type Query, isRow, ungrouped } from "../syntax/index.ts";
import { Failure } from "../values/index.ts";
import { type Bound, controlled, dependsOnRow, isBroken, mayBeOf, share } from "./bound.ts";
import { aggregateMistakes } from "./aggregates.ts";
import { Calls } from "./calls.ts";
import { Choices } from "./choices.ts";
import { Collations } from "./collations.ts";
import { castBound, workBound } from "./conversions.ts";
import {
  mistake,
  swappedArguments,
  textWithNumber,
  unknownColumn,
  unknownFunction,
  noSuchType,
  wrongCount,
  wrongTypes,
} from "./mistakes.ts";
import { Overloads, isOfOneType, isWrittenAs } from "./overloads.ts";
import { constantValue } from "./constants.ts";
import { Queries } from "./queries.ts";
import { Reports } from "./reports.ts";
import { withoutRows } from "./rows.ts";
import { Scopes } from "./scopes.ts";
import { rowsByName } from "./slots.ts";
import { Together } from "./together.ts";
import { Type, anyType, typeOf, unknownType } from "../dialects/types.ts";

/** A column of a sample as the binder sees it. */
export interface BindColumn {
  readonly name: string;
  readonly type: Type;
}

/** Resolves the names, overloads and types of a tree; reports what does not fit. */
export class Binder {
  readonly #reports = new Reports();
  readonly #scopes = new Scopes((node) => this.bind(node));
  readonly #rows: ReadonlyMap<string, readonly FunctionRow[]>;
  readonly #overloads: Overloads;
  readonly #together: Together;
  readonly #collations = new Collations(this.#reports);
  readonly #choices: Choices;
  readonly #calls: Calls;
  readonly #queries: Queries;

  constructor(
    readonly dialect: Dialect,
    readonly columns: readonly BindColumn[],
    /** For mends that move a part of it. */
    readonly source: string,
  ) {
    this.#rows = rowsByName(dialect);
    this.#overloads = new Overloads(dialect.types);
    this.#together = new Together(dialect.types, this.#reports);
    this.#choices = new Choices(dialect, this.#reports, this.#together, (node) => this.bind(node));
    this.#calls = new Calls(dialect, this.#together);
    this.#queries = new Queries(dialect, (node) => this.bind(node));
  }

  get diagnostics(): readonly Diagnostic[] {
    return this.#reports.diagnostics;
  }

  /** Binds the whole of a tree: beside an aggregate, columns stand only within one in some dialects. */
  bindWhole(tree: Expression): Bound {
    const bound = this.bind(tree);
    const isAggregate = ({ source }: Bound) =>
      source.kind === "call" && this.rowsNamed(source.name).some((row) => row.aggregate && source.args.length <= arity(row).most);
    this.#reports.diagnostics.unshift(...aggregateMistakes(bound, isAggregate, this.dialect));
    const shown = this.dialect.types.shown?.(bound.type);
    return this.#queries.after(shown ? workBound(bound, shown, bound.type) : bound);
  }

  bind(node: Expression): Bound {
    // A node of the tree may stand in several places; within a function its variables may mean something else in each.
    const isPlace = !this.#scopes.isEmpty || this.#inArray || node.kind === "literal";
    const known = isPlace ? undefined : this.#known.get(node);
    if (known) {
      if (known.kind !== "column" && known.kind !== "constant") share(known);
      return known;
    }
    const bound = this.#bound(node);
    if (this.dialect.types.carriesCollation) this.#collations.check(node, this.dialect.types.carriesCollation(bound.type));
    if (!isPlace) this.#known.set(node, bound);
    return bound;
  }

  readonly #known = new Map<Expression, Bound>();

  #bound(node: Expression): Bound {
    switch (node.kind) {
      case "literal":
        return { kind: "constant", value: node.value, type: typeOf(node.type), source: node };
      case "group":
        return this.bind(node.inner);
      case "name":
        return this.#name(node);
      case "call":
        return this.#call(node);
      case "choice":
        return this.#choice(node);
      case "cast": {
        const operand = this.bind(node.operand);
        const cast = this.dialect.types.cast(operand.type, node.type);
        if (!cast) return this.#broken(node, noSuchType(node, operand.type, this.dialect, this.source));
        const { type, convert = [], tries } = cast;
        if (operand.kind === "constant" && operand.type === unknownType && !this.dialect.types.dynamic && !isBroken(operand))
          return { ...this.#together.converted(operand, { cost: 0, convert }, type), source: node };
        const bound = castBound(operand, convert, type, node);
        return tries ? controlled({ form: "recover", caught: "own" }, node, type, [bound]) : bound;
      }
      case "list": {
        const { form } = node;
        if (form === "row") {
          const isValue = this.dialect.types.rows?.areValues;
          const what = { what: "rows as values of their own; compare them, or take one of their values" };
          return this.#broken(node, isValue ? mistake("not-covered", node.range, what) : mistake("row-alone", node.range));
        }
        const items = node.items.map((item) => this.bind(item));
        const unified = this.#together.unified(items, node);
        const type = form === "sequence" ? anyType : Type.list(unified.type);
        return controlled({ form: "list", written: form }, node, type, unified.items);
      }
      case "binding":
        return this.#scopes.binding(node);
      case "lambda":
        return this.#scopes.lambda(node);
      case "filter":
        return this.#scopes.filter(node);
      case "apply": {
        const parts = [node.callee, ...node.args].map((child) => this.bind(child));
        return controlled({ form: "apply" }, node, anyType, parts);
      }
      case "function-reference":
        return this.#scopes.reference(node.name, node.arity, node);
      case "query":
        return this.#query(node);
      case "missing":
        return {
          kind: "constant",
          value: new Failure("expected", { expected: "a value", found: "nothing" }, node.range),
          type: unknownType,
          source: node,
        };
    }
  }

  #broken(node: Expression, diagnostic: Diagnostic): Bound {
    return this.#reports.broken(node, diagnostic);
  }

  #name(node: Name): Bound {
    const variable = this.#scopes.named(node.name);
    if (variable) return { kind: "variable", variable, type: variable.type, source: node };
    const column = this.columns.findIndex(({ name }) => this.dialect.namesColumn(node.name, name));
    if (column >= 0) return { kind: "column", column, type: this.columns[column].type, source: node };
    if (node.fallback) return this.bind(node.fallback);
    const names = this.columns.map(({ name }) => name);
    return this.#broken(node, unknownColumn(node, this.dialect, names));
  }

  /** Whether what is bound stands within a function over arrays, in a dialect that then does each step item by item. */
  #inArray = false;

  #takesArrays(node: Call): boolean {
    return this.dialect.types.liftsArrays === true && this.rowsNamed(node.name).some((row) => row.family === "list");
  }

  #boundArguments(node: Call): readonly Bound[] {
    const outer = this.#inArray;
    this.#inArray ||= this.#takesArrays(node);
    const args: Bound[] = [];
    for (const arg of node.args)
      args.push(arg.kind === "lambda" ? this.#scopes.lambda(arg, this.#given(node, args)) : this.bind(arg));
    this.#inArray = outer;
    return args;
  }

  /** A call once for each item of an array that is given where one value is wanted: an array of its results, errors among them. */
  #lifted(node: Call, args: readonly Bound[]): Bound {
    const names = args.map((arg, i) => (arg.type.item ? `#item ${i} of ${node.range.start}` : undefined));
    return this.#scopes.declare(
      names.filter((name) => name !== undefined),
      anyType,
      (variables) => {
        const items = node.args.map((arg, i): Expression => {
          const name = names[i];
          return name === undefined ? arg : { kind: "name", name, range: arg.range };
        });
        const inner = this.bind({ ...node, args: items });
        const lists = args.filter((_, i) => names[i] !== undefined);
        return controlled({ form: "lift", variables }, node, Type.list(anyType), [inner, ...lists]);
      },
    );
  }

  /** The one value of a query: null where its condition does not hold. */
  #query(node: Query): Bound {
    const [result, another] = node.rows;
    if (another) return this.#broken(node, mistake("too-many-rows", node.range, { given: node.rows.length }));
    const { range, condition } = node;
    const bound = condition
      ? this.#choice({ kind: "choice", branches: [{ condition, result }], range }, true)
      : this.#scalar(node, result);
    const rules = this.dialect.types.rows;
    if (condition && this.#scopes.isEmpty) this.#queries.noteCondition(condition);
    const type = rules?.queryType?.(this.bind(result).type) ?? bound.type;
    return this.#noted({ ...bound, type, source: node });
  }

  /** What is made of a query outside functions. */
  #noted(bound: Bound): Bound {
    if (this.#scopes.isEmpty) this.#queries.note(bound);
    return bound;
  }

  #scalar(node: Query, result: Expression): Bound {
    const { type, items } = this.#together.unified([this.bind(result)], node);
    return controlled({ form: "query" }, node, type, items);
  }

  /** The comparisons of a BETWEEN, an IN and a CASE, by what all parts are compared as, with the types of all parts. */
  readonly #within = new Map<Expression, { readonly type: Type | undefined; readonly types: readonly Type[] }>();

  #noteTogether(node: Call): void {
    const form = node.written?.form;
    if (!node.written || (form !== "between" && form !== "in")) return;
    this.#noteForm(form, node.written.parts, node.args);
  }

  #noteForm(form: "between" | "in" | "case", parts: readonly Expression[], comparisons: readonly Expression[]): void {
    const { types } = this.dialect;
    if (!types.togetherType || parts.some((part) => isRow(ungrouped(part)))) return;
    const all = parts.map((part) => this.bind(part).type);
    // Of a long list each type is looked at once.
    const within = { type: types.togetherType(all, form), types: form === "in" ? [...new Set(all)] : all };
    for (const comparison of comparisons) this.#within.set(comparison, within);
  }

  #call(node: Call): Bound {
    const { rows: rules } = this.dialect.types;
    const plain = rules && withoutRows(node, rules);
    if (plain) {
      const [query] = node.args.map(ungrouped);
      for (const arg of node.args.map(ungrouped))
        if (arg.kind === "query")
          for (const row of arg.rows) valuesOf(row).forEach((item) => this.#collations.noteSelected(item));
      // EXISTS does not look at what is selected, but the names in it must be there.
      if (node.name === "exists" && query.kind === "query")
        for (const row of query.rows) valuesOf(row).forEach((item) => this.bind(item));
      // Which of two rows comes first takes all of them, where constants are worked out beforehand.
      const ordered = this.dialect.types.folds && /^[<>]=?$/.test(node.name) ? node.args.map(ungrouped) : [];
      const items = ordered.filter(isRow).flatMap((row) => row.items);
      const dropped = items.map((item) => this.bind(item));
      const bound = { ...this.bind(plain), source: node, plain, ...(dropped.length > 0 && { dropped }) };
      return node.args.some((arg) => ungrouped(arg).kind === "query") ? this.#noted(bound) : bound;
    }
    this.#noteTogether(node);
    const given = this.#boundArguments(node);
    const rows = this.rowsNamed(node.name).filter((row) => isWrittenAs(row, node));
    if (rows.length === 0) return this.#broken(node, unknownFunction(node, this.dialect, this.source));
    const sized = rows.filter((row) => given.length >= arity(row).least && given.length <= arity(row).most);
    if (sized.length === 0) return this.#broken(node, wrongCount(node, rows, this.dialect, this.source));
    const args = node.notation === "operator" || sized.every(isOfOneType) ? this.#together.side(given) : given;
    const broken = args.find((arg) => this.#reports.isReported(arg));
    if (broken) return broken;
    if (this.#inArray && !this.#takesArrays(node) && args.some((arg) => arg.type.item)) return this.#lifted(node, args);
    const types = args.map((arg) => arg.type);
    const bound = this.#resolved(node, sized, args, types);
    return this.#withListed(node, this.#choosing(node, sized, args, types, bound) ?? bound);
  }

  /** A list of IN whose constants are worked out beforehand, all of those that do not depend on a row. */
  #withListed(node: Call, bound: Bound): Bound {
    if (!this.dialect.types.folds || node.written?.form !== "in") return bound;
    const listed = node.written.parts.slice(1).filter((part) => !isRow(ungrouped(part)));
    const dropped = listed.map((part) => this.bind(part)).filter((item) => !dependsOnRow(item));
    return dropped.length > 1 ? { ...bound, dropped } : bound;
  }

  /** A call whose overload is chosen on the row: by what the arguments turn out to be that may be of another type than they have. */
  #choosing(
    node: Call,
    sized: readonly FunctionRow[],
    args: readonly Bound[],
    types: readonly Type[],
    usual: Bound,
  ): Bound | undefined {
    const { onRow } = this.dialect.types;
    if (!onRow || isBroken(usual)) return undefined;
    const isOpen = (arg: Bound) => onRow.isOpen(arg.type) && mayBeOf(onRow.type, arg);
    const open = args.filter(isOpen);
    if (open.length === 0) return undefined;
    const others = args.map((arg) => (isOpen(arg) ? onRow.type : arg.type));
    const chosen = (of: readonly Type[]) => this.#overloads.fitting(`${node.notation} ${node.name} `, sized, of).at(0)?.row;
    if (chosen(others) === undefined || chosen(others) === chosen(types)) return undefined;
    for (const arg of open) share(arg);
    // What is to be said of the call has been said.
    const { result: other } = this.#reports.aside(() => this.#resolved(node, sized, args, others));
    return controlled({ form: "overload" }, node, usual.type, [usual, other, ...open]);
  }

  /** A call as the overload that fits arguments of these types best. */
  #resolved(node: Call, sized: readonly FunctionRow[], args: readonly Bound[], types: readonly Type[]): Bound {
    const within = this.#within.get(node);
    const apt = within?.type === undefined ? sized : sized.filter((row) => parameterAt(row, 0).type === String(within.type));
    const fitting = this.#overloads.fitting(
      `${node.notation} ${node.name} ${String(within?.type ?? "")}`,
      apt,
      types,
      within?.types,
    );
    if (fitting.length === 0) return this.#broken(node, wrongTypes(node, types, sized, this.dialect, this.source));
    const [{ row, conversions, cost }] = fitting;
    const next = fitting.at(1);
    const isOpen =
      types.every((type) => type === unknownType) && next && (row.aggregate ?? (types.length > 1 && next.cost === cost));
    // What is compared together has one type that all parts take.
    const refusal = within?.type === undefined ? (refusalOf(row, types) ?? this.dialect.types.refuses?.(row, types)) : undefined;
    if (refusal === "argument-type") return this.#broken(node, wrongTypes(node, types, sized, this.dialect, this.source));
    const what = `${node.name} of ${types.join(" and ")}`;
    if (refusal) return this.#broken(node, mistake(refusal, node.range, { name: node.name, given: types.map(String), what }));
    if (
      isOpen &&
      (row.notation === "operator" || row.aggregate) &&
      (!row.parameters.some((p) => p.type === "text") || row.result.endsWith("[]"))
    ) {
      return this.#broken(node, mistake("ambiguous-call", node.range, { name: node.name, given: types.map(String) }));
    }
    const loose = args.findIndex((arg, i) => parameterAt(row, i).constant && dependsOnRow(arg));
    if (loose >= 0) {
      const facts = { name: node.name, parameter: parameterAt(row, loose).name };
      return this.#broken(node, mistake("constant-wanted", node.args[loose].range, facts));
    }
    if (row.aggregate) this.#reports.push(mistake("aggregate-of-row", node.nameRange, { name: node.name }, [], "warning"));
    const swapped = swappedArguments(node, row, this.source);
    if (swapped) this.#reports.push(swapped);
    const mixed = textWithNumber(node, types, this.dialect, this.source);
    // Both comparisons of a BETWEEN stand in one place.
    if (mixed) this.#reports.pushOnce(mixed);
    const converted = args.map((arg, i) => {
      const { constant, type } = parameterAt(row, i);
      return this.#together.converted(constant ? this.#settled(arg) : arg, conversions[i], typeOf(type));
    });
    return this.#calls.bind({ node, row, types, args, converted, isCondition: this.#conditions.has(node) });
  }

  /** What must be the same for every row, as the value that it is. */
  #settled(bound: Bound): Bound {
    const value = bound.kind === "constant" ? undefined : constantValue(bound, this.dialect);
    return value === undefined ? bound : { kind: "constant", value, by: bound, type: bound.type, source: bound.source };
  }

  rowsNamed(name: string): readonly FunctionRow[] {
    return this.#rows.get(this.dialect.functionCase === "ignored" ? name.toLowerCase() : name) ?? [];
  }

  /** What only decides which rows something is done for. */
  readonly #conditions = new WeakSet<Expression>();

  #noteCondition(condition: Expression): void {
    const node = ungrouped(condition);
    this.#conditions.add(node);
    if (node.kind === "call" && /^(?:and|or)$/.test(node.name)) node.args.forEach((arg) => this.#noteCondition(arg));
  }

  #choice(node: Choice, isQuery = false): Bound {
    for (const { condition } of node.branches) {
      this.#noteCondition(condition);
      if (node.written?.form !== "case" || condition.kind !== "call") continue;
      this.#collations.noteSubject(condition);
      this.#noteForm("case", condition.args, [condition]);
    }
    return this.#choices.bind(node, isQuery);
  }

  /** What a function that is an argument is called with, by the list before it. */
  #given(node: Call, [list]: readonly Bound[]): readonly Type[] {
    const [row] = this.rowsNamed(node.name);
    return (list && row && this.dialect.types.lambdaTypes?.(parameterAt(row, 1).type, list.type)) ?? [];
  }
}

/** The values of a row, or the value by itself. */
const valuesOf = (row: Expression): readonly Expression[] => (isRow(row) ? row.items : [row]);
