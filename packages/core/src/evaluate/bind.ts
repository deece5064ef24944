import type { Diagnostic, MessageCode } from "../diagnostics/index.ts";
import type { Conversion, Dialect, Variable } from "../dialects/dialect.ts";
import { type Decision, type FunctionRow, arity, isDeciding, isPure, parameterAt } from "../dialects/row.ts";
import type { Step } from "../dialects/step.ts";
import {
  type Binding,
  type Call,
  type Choice,
  type Expression,
  type Filter,
  type Lambda,
  type Name,
  type Query,
  childrenOf,
  isRow,
  ungrouped,
  walk,
} from "../syntax/index.ts";
import { decisiveOf, operationOf, truthBy } from "../text/index.ts";
import { Failure, isFailure, sameRange, limitCodes } from "../values/index.ts";
import {
  type Bound,
  type BoundOperation,
  type Control,
  dependsOn,
  dependsOnRow,
  isBroken,
  mayBeOf,
  partsOf,
  share,
} from "./bound.ts";
import { constantValue, isKnownNull } from "./constants.ts";
import { notAvailable } from "./control.ts";
import { castBound, convertBound } from "./conversions.ts";
import { mistake, swappedArguments, textWithNumber, unknownColumn, unknownFunction, wrongCount, wrongTypes } from "./mistakes.ts";
import { Overloads, isOfOneType, isWrittenAs } from "./overloads.ts";
import { withoutRows } from "./rows.ts";
import { boundOperation, rowsByName, withDefaults } from "./slots.ts";

/** Problems of a constant that matter only where it is looked at. */
const ofValues: ReadonlySet<MessageCode> = new Set<MessageCode>([
  "pattern-syntax",
  "not-a-boolean",
  "not-a-number",
  "not-a-date",
  "number-out-of-range",
  "no-such-group",
]);

/** A column of a sample as the binder sees it. */
export interface BindColumn {
  readonly name: string;
  readonly type: string;
}

/** Resolves the names, overloads and types of a tree; reports what does not fit. */
export class Binder {
  readonly diagnostics: Diagnostic[] = [];
  readonly #scope: Variable[] = [];
  readonly #rows: ReadonlyMap<string, readonly FunctionRow[]>;
  readonly #overloads: Overloads;

  constructor(
    readonly dialect: Dialect,
    readonly columns: readonly BindColumn[],
    /** For mends that move a part of it. */
    readonly source: string,
  ) {
    this.#rows = rowsByName(dialect);
    this.#overloads = new Overloads(dialect.types);
  }

  /** Binds the whole of a tree: beside an aggregate, columns stand only within one in some dialects. */
  bindWhole(tree: Expression): Bound {
    const bound = this.bind(tree);
    const isAggregate = ({ source }: Bound) =>
      source.kind === "call" && this.rowsNamed(source.name).some((row) => row.aggregate && source.args.length <= arity(row).most);
    const outside: Bound[] = [];
    let aggregates = 0;
    const seen = new Set<Bound>();
    const visit = (part: Bound, within?: Bound): void => {
      if (seen.has(part)) return;
      seen.add(part);
      const found = isAggregate(part) ? part : undefined;
      if (found && within && found.source !== within.source)
        this.diagnostics.unshift(mistake("nested-aggregate", found.source.range));
      if (found) aggregates++;
      if (part.kind === "column" && !within) outside.push(part);
      for (const child of partsOf(part)) visit(child, found ?? within);
    };
    visit(bound);
    if (this.dialect.types.groups && aggregates > 0 && outside.length > 0) {
      const { source } = outside[0];
      const name = this.dialect.columnText((source as Name).name);
      this.diagnostics.unshift(mistake("ungrouped-column", source.range, { name }));
    }
    return this.#afterQueries(bound);
  }

  /** What is made of the queries outside functions that are values. */
  readonly #queries: Bound[] = [];

  #aboutQuery(bound: Bound): Bound {
    // It is evaluated where it stands, and before the whole.
    if (this.#scope.length === 0 && this.dialect.types.rows?.eager) {
      this.#queries.push(bound);
      share(bound);
    }
    return bound;
  }

  /** A whole that fails where one of the queries in it does. */
  #afterQueries(whole: Bound): Bound {
    const queries = this.#queries;
    if (queries.length === 0) return whole;
    return controlled({ form: "unless-failing" }, whole.source, whole.type, [whole, ...queries]);
  }

  bind(node: Expression): Bound {
    // A node of the tree may stand in several places; within a function its variables may mean something else in each.
    const isPlace = this.#scope.length > 0 || this.#inArray || node.kind === "literal";
    const known = isPlace ? undefined : this.#known.get(node);
    if (known) {
      if (known.kind !== "column" && known.kind !== "constant") share(known);
      return known;
    }
    const bound = this.#bound(node);
    if (this.dialect.types.carriesCollation) this.#checkCollations(node, this.dialect.types.carriesCollation(bound.type));
    if (!isPlace) this.#known.set(node, bound);
    return bound;
  }

  readonly #known = new Map<Expression, Bound>();

  /** The collations that are written for texts, or for what they are made of. */
  readonly #collations = new WeakMap<Expression, string>();
  /** Comparisons with the subject of a CASE, whose collation does not count as written there. */
  readonly #subjects = new WeakSet<Expression>();
  /** What queries select, whose collation does not count as written beside them. */
  readonly #selected = new WeakSet<Expression>();

  #checkCollations(node: Expression, isCarried: boolean): void {
    const own = node.kind === "call" ? /^collate (.*)$/.exec(node.name)?.[1] : undefined;
    const sides =
      node.kind === "choice" ? resultsOf(node) : node.kind === "group" || this.#subjects.has(node) ? [] : childrenOf(node);
    const written = sides.map(ungrouped).filter((side) => !this.#selected.has(side));
    const names = [...new Set(written.map((side) => this.#collations.get(side)))].filter((name) => name !== undefined);
    if (own === undefined && names.length > 1) this.diagnostics.push(mistake("mixed-collations", node.range, { names }));
    const [name] = own === undefined ? names : [own];
    if (name !== undefined && node.kind !== "query" && isCarried) this.#collations.set(node, name);
  }

  #bound(node: Expression): Bound {
    switch (node.kind) {
      case "literal":
        return { kind: "constant", value: node.value, type: node.type, source: node };
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
        if (!cast) return this.#broken(node, mistake("unknown-type", node.typeRange, { name: node.type }));
        const { type, convert = [], tries } = cast;
        if (operand.kind === "constant" && operand.type === "unknown" && !this.dialect.types.dynamic && !isBroken(operand))
          return { ...this.#converted(operand, { cost: 0, convert }, type), source: node };
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
        const unified = this.#unified(items, node);
        const type = form === "sequence" ? "any" : `${unified.type}[]`;
        return controlled({ form: "list", written: form }, node, type, unified.items);
      }
      case "binding":
        return this.#binding(node);
      case "lambda":
        return this.#lambda(node);
      case "filter":
        return this.#filter(node);
      case "apply": {
        const parts = [node.callee, ...node.args].map((child) => this.bind(child));
        return controlled({ form: "apply" }, node, "any", parts);
      }
      case "function-reference":
        return this.#reference(node.name, node.arity, node);
      case "query":
        return this.#query(node);
      case "missing":
        return {
          kind: "constant",
          value: new Failure("expected", { expected: "a value", found: "nothing" }, node.range),
          type: "unknown",
          source: node,
        };
    }
  }

  /** The failures that stand for parts that were reported. */
  readonly #reported = new WeakSet<Failure>();

  /** Reports, and stands for the sub-expression by the failure that it is. */
  #broken(node: Expression, diagnostic: Diagnostic): Bound {
    this.diagnostics.push(diagnostic);
    const { code, facts, range } = diagnostic;
    const value = new Failure(code, facts, range);
    this.#reported.add(value);
    return { kind: "constant", value, type: "unknown", source: node };
  }

  #name(node: Name): Bound {
    const variable = this.#scope.findLast(({ name }) => name === node.name);
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
    const args = node.args.map((arg) => this.bind(arg));
    this.#inArray = outer;
    return args;
  }

  /** A call once for each item of an array that is given where one value is wanted: an array of its results, errors among them. */
  #lifted(node: Call, args: readonly Bound[]): Bound {
    const names = args.map((arg, i) => (arg.type.endsWith("[]") ? `#item ${i} of ${node.range.start}` : undefined));
    return this.#declare(
      names.filter((name) => name !== undefined),
      "any",
      (variables) => {
        const items = node.args.map((arg, i): Expression => {
          const name = names[i];
          return name === undefined ? arg : { kind: "name", name, range: arg.range };
        });
        const inner = this.bind({ ...node, args: items });
        const lists = args.filter((_, i) => names[i] !== undefined);
        return controlled({ form: "lift", variables }, node, "any[]", [inner, ...lists]);
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
    if (condition && rules?.checksConditions && this.#scope.length === 0) this.#queries.push(...this.#failingParts(condition));
    const type = rules?.queryType?.(this.bind(result).type) ?? bound.type;
    return this.#aboutQuery({ ...bound, type, source: node });
  }

  /** The parts of a condition, joined by AND, that fail on every row. */
  #failingParts(condition: Expression): readonly Bound[] {
    const node = ungrouped(condition);
    if (node.kind === "call" && node.name === "and") return node.args.flatMap((arg) => this.#failingParts(arg));
    const bound = this.bind(node);
    return !dependsOnRow(bound) && isFailure(constantValue(bound, this.dialect) ?? null) ? [bound] : [];
  }

  #scalar(node: Query, result: Expression): Bound {
    const { type, items } = this.#unified([this.bind(result)], node);
    return controlled({ form: "query" }, node, type, items);
  }

  /** The comparisons of a BETWEEN, by what all three parts are compared as. */
  readonly #within = new Map<Expression, { readonly type: string | undefined; readonly types: readonly string[] }>();

  #noteBetween(node: Call): void {
    const { types } = this.dialect;
    if (!types.betweenType || node.written?.form !== "between") return;
    if (node.written.parts.some((part) => isRow(ungrouped(part)))) return;
    const three = node.written.parts.map((part) => this.bind(part).type);
    for (const comparison of node.args) this.#within.set(comparison, { type: types.betweenType(three), types: three });
  }

  #call(node: Call): Bound {
    const { rows: rules } = this.dialect.types;
    const plain = rules && withoutRows(node, rules);
    if (plain) {
      const [query] = node.args.map(ungrouped);
      for (const arg of node.args.map(ungrouped))
        if (arg.kind === "query")
          for (const row of arg.rows) valuesOf(row).forEach((item) => this.#selected.add(ungrouped(item)));
      // EXISTS does not look at what is selected, but the names in it must be there.
      if (node.name === "exists" && query.kind === "query")
        for (const row of query.rows) valuesOf(row).forEach((item) => this.bind(item));
      const bound = { ...this.bind(plain), source: node, plain };
      return node.args.some((arg) => ungrouped(arg).kind === "query") ? this.#aboutQuery(bound) : bound;
    }
    this.#noteBetween(node);
    const given = this.#boundArguments(node);
    const rows = this.rowsNamed(node.name).filter((row) => isWrittenAs(row, node));
    if (rows.length === 0) return this.#broken(node, unknownFunction(node, this.dialect));
    const sized = rows.filter((row) => given.length >= arity(row).least && given.length <= arity(row).most);
    if (sized.length === 0) return this.#broken(node, wrongCount(node, rows, this.dialect));
    const args = node.notation === "operator" || sized.every(isOfOneType) ? this.#side(given) : given;
    // A part that could not be bound has been reported; an error written as a literal is a value.
    const broken = args.find((arg) => arg.kind === "constant" && isFailure(arg.value) && this.#reported.has(arg.value));
    if (broken) return broken;
    if (this.#inArray && !this.#takesArrays(node) && args.some((arg) => arg.type.endsWith("[]"))) return this.#lifted(node, args);
    const types = args.map((arg) => arg.type);
    const bound = this.#resolved(node, sized, args, types);
    return this.#choosing(node, sized, args, types, bound) ?? bound;
  }

  /** A call whose overload is chosen on the row: by what the arguments turn out to be that may be of another type than they have. */
  #choosing(
    node: Call,
    sized: readonly FunctionRow[],
    args: readonly Bound[],
    types: readonly string[],
    usual: Bound,
  ): Bound | undefined {
    const { onRow } = this.dialect.types;
    if (!onRow || isBroken(usual)) return undefined;
    const isOpen = (arg: Bound) => onRow.isOpen(arg.type) && mayBeOf(onRow.type, arg);
    const open = args.filter(isOpen);
    if (open.length === 0) return undefined;
    const others = args.map((arg) => (isOpen(arg) ? onRow.type : arg.type));
    const chosen = (of: readonly string[]) => this.#overloads.fitting(`${node.notation} ${node.name} `, sized, of).at(0)?.row;
    if (chosen(others) === undefined || chosen(others) === chosen(types)) return undefined;
    for (const arg of open) share(arg);
    // What is to be said of the call has been said.
    const said = this.diagnostics.length;
    const other = this.#resolved(node, sized, args, others);
    this.diagnostics.length = said;
    return controlled({ form: "overload" }, node, usual.type, [usual, other, ...open]);
  }

  /** A call as the overload that fits arguments of these types best. */
  #resolved(node: Call, sized: readonly FunctionRow[], args: readonly Bound[], types: readonly string[]): Bound {
    const within = this.#within.get(node);
    const apt = within?.type === undefined ? sized : sized.filter((row) => parameterAt(row, 0).type === within.type);
    const fitting = this.#overloads.fitting(`${node.notation} ${node.name} ${within?.type ?? ""}`, apt, types, within?.types);
    if (fitting.length === 0) return this.#broken(node, wrongTypes(node, types, sized, this.dialect, this.source));
    const [{ row, conversions, cost }] = fitting;
    const next = fitting.at(1);
    const isOpen =
      types.every((type) => type === "unknown") && next && (row.aggregate ?? (types.length > 1 && next.cost === cost));
    // What is compared together has one type that all parts take.
    const refusal = within?.type === undefined ? this.dialect.types.refuses?.(row, types) : undefined;
    if (refusal === "argument-type") return this.#broken(node, wrongTypes(node, types, sized, this.dialect, this.source));
    const what = `${node.name} of ${types.join(" and ")}`;
    if (refusal) return this.#broken(node, mistake(refusal, node.range, { name: node.name, given: types, what }));
    if (
      isOpen &&
      (row.notation === "operator" || row.aggregate) &&
      (!row.parameters.some((p) => p.type === "text") || row.result.endsWith("[]"))
    ) {
      return this.#broken(node, mistake("ambiguous-call", node.range, { name: node.name, given: types }));
    }
    const loose = args.findIndex((arg, i) => parameterAt(row, i).constant && dependsOnRow(arg));
    if (loose >= 0) {
      const facts = { name: node.name, parameter: parameterAt(row, loose).name };
      return this.#broken(node, mistake("constant-wanted", node.args[loose].range, facts));
    }
    if (row.aggregate) this.diagnostics.push(mistake("aggregate-of-row", node.nameRange, { name: node.name }, [], "warning"));
    const swapped = swappedArguments(node, row, this.source);
    if (swapped) this.diagnostics.push(swapped);
    const mixed = textWithNumber(node, types, this.dialect, this.source);
    // Both comparisons of a BETWEEN stand in one place.
    const isTold = ({ code, range }: Diagnostic) => code === mixed?.code && sameRange(range, node.range);
    if (mixed && !this.diagnostics.some(isTold)) this.diagnostics.push(mixed);
    const converted = args.map((arg, i) => this.#converted(arg, conversions[i], parameterAt(row, i).type));
    // The escape is read only with a pattern, and an error of its own where that is not null, in some with the subject, too.
    const escape = row.parameters.findIndex((parameter) => parameter.type === "escape");
    const guards = escape < 0 ? 0 : this.dialect.types.folds ? 1 : this.dialect.types.nullFirst ? escape : 0;
    const isGuarded = (i: number) => guards > 1 && i === escape;
    const unreadable = converted.find((arg, i) => isBroken(arg) && !isBroken(args[i]) && !isGuarded(i));
    const constant = (i: number) => (args[i] && !dependsOnRow(args[i]) ? constantValue(args[i], this.dialect) : undefined);
    const type = this.dialect.types.resultType(row, types, constant);
    const isStrict = isPure(row)
      ? "missing" in row.answers && row.answers.missing === "null"
      : !isDeciding(row) && this.dialect.code[row.code].strict === true;
    const slots = isPure(row) ? operationOf(row.operation).slots : undefined;
    const isNothing = (arg: Bound, i: number) => {
      const slot = slots?.find(({ name }) => name === parameterAt(row, i).slot);
      return isKnownNull(arg, this.dialect) && !(slot && (slot.nullable || slot.kind === "texts"));
    };
    if (this.dialect.types.nullFirst && isStrict && converted.some(isNothing))
      return { kind: "constant", value: null, dropped: converted, type, source: node };
    // An engine that works out constants first reads a pattern and its escape together, and before the subject; AND and OR
    // look at what they need.
    const isRead = this.dialect.types.folds
      ? converted.slice(1).every(({ kind }) => kind === "constant")
      : isPure(row) || (!isDeciding(row) && !("lazy" in this.dialect.code[row.code]));
    if (unreadable && isRead) return { ...unreadable, source: node, type };
    const written = guards > 0 ? converted.at(escape) : undefined;
    if (written && (written.kind !== "constant" || isBroken(written))) {
      const parts = converted.slice(escape - guards, escape + 1);
      converted[escape] = controlled({ form: "unless-null" }, node.args[escape], "escape", parts);
    }
    if (isPure(row) && row.operation === "connect") return this.#connected(node, row, args, converted, type);
    if (isDeciding(row)) return this.#deciding(node, row, args, withDefaults(row, converted), type);
    return this.#fitted({
      ...(isPure(row)
        ? boundOperation(row, converted)
        : {
            kind: "code",
            code: this.dialect.code[row.code],
            given: args,
            children: withDefaults(row, converted),
            isCondition: this.#conditions.has(node),
          }),
      source: node,
      type,
    });
  }

  /** AND, OR and their like: a side that no row changes may settle it, and conditions may be looked at otherwise. */
  #connected(
    node: Call,
    row: FunctionRow & Step<"connect">,
    args: readonly Bound[],
    converted: readonly Bound[],
    type: string,
  ): Bound {
    const { constants, inConditions } = row.answers;
    const bound: Bound & BoundOperation = { ...boundOperation(row, converted), source: node, type };
    if (inConditions === "rows left open" && this.#conditions.has(node))
      return { ...bound, answers: { ...bound.answers, evaluates: "rows left open" } };
    const decisive = decisiveOf(row.fixed?.joiner ?? null);
    if (decisive === undefined || constants === "none") return bound;
    const valueOf = (part: Bound) => (dependsOnRow(part) ? undefined : constantValue(part, this.dialect));
    const isWritten = (side: Bound) => side.kind === "constant" && typeof side.value === "number";
    const at = converted.findIndex((side, i) => (constants === "any" || isWritten(args[i])) && valueOf(side) === decisive);
    // Where constants are worked out, one before it that fails is an error, whatever comes after.
    const isFailing = (side: Bound) => constants === "any" && valueOf(side) instanceof Failure;
    if (at < 0 || converted.slice(0, at).some(isFailing)) return bound;
    // What stands before it is looked at first.
    const dropped = converted.slice(0, at);
    return { kind: "constant", value: truthBy(row.answers.truth)(decisive), dropped, type, source: node };
  }

  /** A function that chooses among its arguments, which are of one type where its result is. */
  #deciding(node: Call, row: FunctionRow & Decision, args: readonly Bound[], parts: readonly Bound[], type: string): Bound {
    const together = (results: readonly Bound[]) => (row.result === "unified" ? this.#unified(results, node).items : results);
    switch (row.decides) {
      case "first that holds": {
        const tests = parts.length >> 1;
        const conditions = Array.from({ length: tests }, (_, i) => this.#condition(args[2 * i] ?? parts[2 * i]));
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
        return controlled({ form: "nth" }, node, type, [parts[0], ...together(parts.slice(1))]);
      case "unless failing":
        return controlled({ form: "recover", caught: row.caught }, node, type, together(parts));
    }
  }

  #condition(bound: Bound): Bound {
    const conversion = this.dialect.types.conversion(bound.type, "condition");
    if (conversion) return this.#converted(bound, conversion, "condition");
    this.diagnostics.push(mistake("condition-type", bound.source.range, { given: bound.type }));
    return bound;
  }

  /** Checks the range of a result where the dialect's types have one. */
  #fitted(bound: Bound): Bound {
    const size = bound.kind === "operation" ? operationOf(bound.operation).result : undefined;
    const fits = size === "small" ? undefined : this.dialect.types.fits?.(bound.type, size === "part");
    if (!fits) return bound;
    return {
      kind: "convert",
      inner: bound,
      implicit: true,
      source: bound.source,
      type: bound.type,
      convert: fits,
    };
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
    for (const { condition } of node.branches) this.#noteCondition(condition);
    if (node.written?.form === "case") for (const { condition } of node.branches) this.#subjects.add(condition);
    const conditions = node.branches.map((branch) => this.bind(branch.condition));
    const tests = conditions.map((condition) => this.#condition(condition));
    const taken = isQuery ? undefined : this.#taken(tests);
    const isTaken = (i: number) => !(taken instanceof Set) || taken.has(i);
    const results = resultsOf(node).map((result, i) => (isTaken(i) ? this.bind(result) : this.#untaken(result)));
    if (taken instanceof Failure) {
      const failed = mistake(taken.code, taken.range ?? node.range, taken.facts);
      this.#ofConditions.add(failed);
      return this.#broken(node, failed);
    }
    const last = node.otherwise && node.form !== "coalesce" ? results.pop() : undefined;
    const { type, items: unified } =
      this.#nullif(node, last) ?? this.#unified([...(last ? [last] : []), ...results], node, !node.otherwise);
    const items = last ? [...unified.slice(1), unified[0]] : unified;
    const kept = tests.filter((_, i) => isTaken(i));
    const parts = [...kept, ...items.filter((_, i) => isTaken(i))];
    return controlled({ form: "choice", tests: kept.length }, node, type, parts);
  }

  /** The failures of conditions that were worked out before any row. */
  readonly #ofConditions = new Set<Diagnostic>();

  /** A branch that no row takes: a value in it that cannot be read is no error, a name that is not there is one. */
  #untaken(node: Expression): Bound {
    const told = this.diagnostics.length;
    const bound = this.bind(node);
    const own = this.diagnostics.splice(told);
    this.diagnostics.push(...own.filter((each) => !ofValues.has(each.code) && !this.#ofConditions.has(each)));
    return own.length > 0 && isBroken(bound) ? { kind: "constant", value: null, type: "null", source: node } : bound;
  }

  /** The branches of a choice that a row may take, where conditions that no row changes are worked out first; or the failure of one. */
  #taken(tests: readonly Bound[]): ReadonlySet<number> | Failure | undefined {
    const { types } = this.dialect;
    if (!types.simplifiesChoices) return undefined;
    const taken = new Set<number>();
    for (const [i, test] of tests.entries()) {
      // What is compared with a constant that cannot be read is an error of its row, though no row is looked at.
      const isSteady = !dependsOnRow(test) && ![...walk(test.source)].some(({ kind }) => kind === "name");
      const holds = isSteady ? constantValue(test, this.dialect) : undefined;
      if (holds instanceof Failure) {
        if (holds.code === "not-covered" || limitCodes.has(holds.code)) return undefined;
        return holds;
      }
      if (holds !== false && holds !== null) taken.add(i);
      if (holds === true) return taken;
    }
    return taken.add(tests.length);
  }

  /** The result of NULLIF, where its type depends on what it is compared with. */
  #nullif({ form, branches }: Choice, result: Bound | undefined): { type: string; items: readonly Bound[] } | undefined {
    const { types } = this.dialect;
    const condition = branches[0]?.condition;
    if (form !== "nullif" || !types.nullifType || !result || condition?.kind !== "call") return undefined;
    const type = types.nullifType(result.type, this.bind(condition.args[1]).type);
    const nothing: Bound = { kind: "constant", value: null, type, source: condition };
    if (result.type === type) return { type, items: [result, nothing] };
    return { type, items: [this.#converted(result, types.conversion(result.type, type) ?? { cost: 0 }, type), nothing] };
  }

  /** What stands side by side, where a whole number that is written may have the type of the others. */
  #side(parts: readonly Bound[]): readonly Bound[] {
    const { types } = this.dialect;
    if (!types.numberBeside || parts.length < 2) return parts;
    const others = parts.filter((part) => writtenNumber(part) === undefined).map(({ type }) => type);
    return parts.map((part) => {
      const value = writtenNumber(part);
      return value === undefined ? part : { ...part, type: types.numberBeside!(value, part.type, others) };
    });
  }

  /** Brings sub-expressions to one type, or reports that there is none. */
  #unified(parts: readonly Bound[], node: Expression, isOpen = false): { type: string; items: readonly Bound[] } {
    const { types } = this.dialect;
    const items = this.#side(parts);
    const type = types.unify(
      items.map((item) => item.type),
      isOpen,
    );
    if (type === undefined) {
      this.diagnostics.push(mistake("branch-types", node.range, { given: items.map((item) => item.type) }));
      return { type: "unknown", items };
    }
    const unified = items.map((item) =>
      item.type === type ? item : this.#converted(item, types.conversion(item.type, type) ?? { cost: 0 }, type),
    );
    return { type, items: unified };
  }

  /** A conversion put around; where types are known before a row is, a constant that does not convert is reported. */
  #converted(bound: Bound, conversion: Conversion, type: string): Bound {
    const result = convertBound(bound, conversion, type);
    const isLater = conversion.late || (this.dialect.types.dynamic && !conversion.early);
    if (isLater || !isBroken(result) || isBroken(bound)) return result;
    const { code, facts } = (result as { value: Failure }).value;
    return this.#broken(bound.source, mistake(code, bound.source.range, facts));
  }

  #declare<T>(names: readonly string[], type: string, body: (variables: Variable[]) => T): T {
    const variables = names.map((name): Variable => ({ name, type, value: null }));
    this.#scope.push(...variables);
    try {
      return body(variables);
    } finally {
      this.#scope.length -= variables.length;
    }
  }

  #binding(node: Binding): Bound {
    const source = this.bind(node.source);
    const isLet = node.form === "let";
    const names = [node.variable, ...(node.form === "each" ? ["position()", "last()"] : [])];
    return this.#declare(names, isLet ? source.type : "any", (variables) => {
      const body = this.bind(node.body);
      return controlled({ form: node.form, variables }, node, isLet ? body.type : "any", [source, body]);
    });
  }

  #lambda(node: Lambda): Bound {
    const outer = [...this.#scope];
    return this.#declare(node.parameters, "any", (variables) =>
      controlled({ form: "function", name: "", variables, outer }, node, "any", [this.bind(node.body)]),
    );
  }

  #filter(node: Filter): Bound {
    const base = this.bind(node.base);
    return this.#declare([".", "position()", "last()"], "any", (variables) => {
      const predicate = this.bind(node.predicate);
      // `[last() - 1]` is the same for every item.
      const isAlike = !dependsOn(predicate, variables[0]) && !dependsOn(predicate, variables[1]);
      return controlled({ form: "filter", variables, isAlike }, node, "any", [base, predicate]);
    });
  }

  /** A named function as a value: called by binding a call whose arguments are variables. */
  #reference(name: string, count: number, node: Expression): Bound {
    const names = Array.from({ length: count }, (_, i) => `#${i}`);
    return this.#declare(names, "any", (variables) => {
      const args = names.map((arg): Expression => ({ kind: "name", name: arg, range: node.range }));
      const call = this.bind({ kind: "call", name, nameRange: node.range, args, notation: "function", range: node.range });
      return controlled({ form: "function", name, variables, outer: [] }, node, "any", [call]);
    });
  }
}

const controlled = (control: Control, source: Expression, type: string, children: readonly Bound[]): Bound => ({
  kind: "control",
  control,
  source,
  type,
  children,
});

/** The whole number that a part is written as, with its sign. */
function writtenNumber({ source }: Bound): number | bigint | undefined {
  const node = ungrouped(source);
  const isSigned = node.kind === "call" && node.name === "-" && node.args.length === 1;
  const literal = isSigned ? ungrouped(node.args[0]) : node;
  if (literal.kind !== "literal" || (typeof literal.value !== "number" && typeof literal.value !== "bigint")) return undefined;
  return isSigned ? -literal.value : literal.value;
}

/** The values of a row, or the value by itself. */
const valuesOf = (row: Expression): readonly Expression[] => (isRow(row) ? row.items : [row]);

const resultsOf = ({ branches, otherwise }: Choice): Expression[] => [
  ...branches.map(({ result }) => result),
  ...(otherwise ? [otherwise] : []),
];
