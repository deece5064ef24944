import { agree } from "../contrast/equal.ts";
import type { Diagnostic } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { worked } from "../dialects/step.ts";
import { type Column, type Program, type RunBudget, type Sample, columnsUsed, compile } from "../evaluate/index.ts";
import { isText, mistake } from "../evaluate/mistakes.ts";
import { type Job, type Treatment, treatment } from "../lists/index.ts";
import { type Name, walk } from "../syntax/index.ts";
import { type Value, exactData, isFailure, isList } from "../values/index.ts";
import { inOrder } from "./order.ts";
import { treated, typeAfter } from "./treated.ts";
import { type Type, conditionType } from "../dialects/types.ts";

/** A calculated column: its name, and the expression that gives its values. */
export interface CalculatedColumn {
  /** One name; several take the items of the list that the expression gives. A column of the sample is replaced. */
  readonly names: readonly string[];
  readonly expression: string;
  /** What is done with what the expression gives, one after another. */
  readonly then?: readonly Job[];
  /** Whether it only helps others and is not among the columns that are given. */
  readonly isHelper?: true;
}

/** Which rows are changed, and which are given at all. */
export interface PlanOptions {
  /** Values are given only on rows where this is true; it sees the rows as they were. */
  readonly where?: string | undefined;
  /** Rows on which this is not true are left out; it sees the rows as they were. */
  readonly only?: string | undefined;
  /** A column whose lists become rows, one for each item; where there is none the row stays, with nothing. */
  readonly unfold?: string | undefined;
  /** For columns that are replaced, texts that become what was decided, whatever the expression gives. */
  readonly decided?: ReadonlyMap<string, ReadonlyMap<string, string>> | undefined;
}

/** What is wrong, or worth a warning, in one of the expressions of a plan. */
export interface PlanProblem {
  /** The column's name, or `where` or `only`. */
  readonly of: string;
  readonly source: string;
  readonly diagnostics: readonly Diagnostic[];
}

/** A column at its turn. */
export interface PlanStep {
  readonly column: CalculatedColumn;
  readonly program: Program;
  /** The jobs of the column, where it has any. */
  readonly treatment?: Treatment;
  /** The names of the columns that it reads. */
  readonly uses: readonly string[];
}

/** A step on the rows of a sample. */
export interface Stage {
  readonly step: PlanStep;
  /** The columns that it sees. */
  readonly sample: Sample;
  readonly values: readonly Value[];
  /** For each job of the column that has rules, how many places each rule replaced. */
  readonly hits?: readonly (Uint32Array | undefined)[];
}

/** What became of one calculated column; rows are 0-based, of the sample that was given. */
export interface Changes {
  readonly name: string;
  /** Rows whose value is no error and is written otherwise than what was there; for a new column those that have one. */
  readonly changed: readonly number[];
  readonly failed: readonly number[];
  readonly empty: number;
  readonly nothing: number;
  /** Rows whose list has more items than there are names. */
  readonly overflowing: readonly number[];
  /** For each job of the column that has rules, how many places each rule replaced, on rows that are left out, too. */
  readonly hits?: readonly (Uint32Array | undefined)[];
}

/** What became of the rows of a sample. */
export interface Applied {
  /** All columns; the values that were calculated are plain data, and numbers of more digits than that holds. */
  readonly sample: Sample;
  /** For each row the one that it was made from, 0-based. */
  readonly rows: readonly number[];
  /** Rows on which a condition is an error. */
  readonly unknown: readonly number[];
  readonly changes: readonly Changes[];
}

/** Calculated columns in an order in which they can be evaluated. */
export interface Plan {
  readonly dialect: Dialect;
  readonly steps: readonly PlanStep[];
  /** The conditions, where they are given. */
  readonly where: Program | undefined;
  readonly only: Program | undefined;
  /** The names of the columns that it gives: those of the sample, then the new ones as they are given, helpers left out. */
  readonly names: readonly string[];
  /** The names of the columns of the sample. */
  readonly given: ReadonlySet<string>;
  /** The names of those that are calculated. */
  readonly calculated: ReadonlySet<string>;
  readonly problems: readonly PlanProblem[];
  /** Whether it can run: no problem is an error. */
  readonly ok: boolean;
  /** The steps on the rows of a sample, one after another; conditions do not count. */
  stages(sample: Sample): Generator<Stage>;
  /** The rows with their calculated columns. The sample must have the columns of the one that the plan was made for. */
  run(sample: Sample, budget?: RunBudget): Applied;
  /** Whether all rows must be there before the first value is known, as where something is counted over a column. */
  readsWholeColumns(sample: Sample): boolean;
}

/**
 * Plans calculated columns over those of a sample. Each sees the new values of the others, in whatever order they are given;
 * the expression for a column of the sample sees that column's old value. Never throws: what is wrong stands in `problems`.
 */
export function planColumns(
  dialect: Dialect,
  columns: readonly CalculatedColumn[],
  sample: Sample,
  { where: changing, only: giving, unfold, decided }: PlanOptions = {},
): Plan {
  const given = sample.columns.map(({ name }) => name);
  const calculated = new Set(columns.flatMap(({ names }) => names));
  const helpers = new Set(columns.filter(({ isHelper }) => isHelper).flatMap((column) => column.names));
  const names = [...given, ...[...calculated].filter((name) => !given.includes(name) && !helpers.has(name))];
  const problems: PlanProblem[] = [];
  const note = (of: string, source: string, diagnostics: readonly Diagnostic[]) => {
    if (diagnostics.length > 0) problems.push({ of, source, diagnostics });
  };
  const condition = (of: string, source: string | undefined): Program | undefined => {
    if (source === undefined) return undefined;
    const program = compile(dialect, source, sample);
    const wrong = conditionMistake(program, calculated, given);
    note(of, source, wrong ? [wrong] : program.diagnostics);
    return program;
  };
  const [where, only] = [condition("where", changing), condition("only", giving)];
  if (unfold !== undefined && !names.includes(unfold))
    note("unfold", unfold, [mistake("unknown-column", { start: 0, end: unfold.length }, { name: unfold, columns: names })]);

  const { ordered, problems: ofOrder } = inOrder(dialect, columns, given);
  const types = new Map<string, Type>();
  const now = [...sample.columns];
  const steps = ordered.map((column): PlanStep => {
    const program = compile(dialect, column.expression, { columns: [...now], rows: sample.rows });
    const uses = [...columnsUsed(program)].map((place) => now[place].name);
    const made = column.then && treatment(column.then, (value) => dialect.plain(value));
    const wrong = ofOrder.get(column);
    note(column.names.join(","), column.expression, wrong ? [wrong] : program.diagnostics);
    for (const name of column.names) {
      const raw = sample.columns.find((each) => each.name === name);
      const whole = made ? typeAfter(dialect, made) : program.type;
      const own = column.names.length > 1 ? (whole.item ?? whole) : whole;
      // A literal has no type before it stands somewhere; what is mixed has one that takes both.
      const isOpen = /^(?:unknown|literal|null)$/.test(String(own));
      const together = where && raw ? [dialect.types.columnType(raw.values), own] : [own];
      const type = (isOpen || together.length > 1 ? dialect.types.unify(together) : undefined) ?? own;
      types.set(name, type);
      put(now, { name, values: [], type });
    }
    return { column, program, uses, ...(made && { treatment: made }) };
  });

  /** The steps, each value of which stands only on the rows that are changed. */
  function* stages(rows: Sample, isChanged?: readonly boolean[], budget?: RunBudget): Generator<Stage> {
    const seen = [...rows.columns];
    for (const step of steps) {
      const seenNow: Sample = { columns: [...seen], rows: rows.rows };
      const plainly = step.program.run(seenNow, budget);
      const hits = step.treatment?.newHits();
      const given = step.treatment
        ? plainly.map((value, row) => treated(dialect, step.treatment!, value, !isChanged || isChanged[row] ? hits : undefined))
        : plainly;
      const values = step.column.names.length === 1 ? withDecisions(given, step.column.names[0], rows, decided) : given;
      yield { step, sample: seenNow, values, ...(hits && { hits }) };
      step.column.names.forEach((name, place) => {
        const type = types.get(name)!;
        const own = ofNames(values, step.column.names.length, place);
        const raw = rows.columns.find((each) => each.name === name)?.values;
        const kept = (row: number) => (raw ? (dialect.types.readColumn?.(type, raw[row]) ?? raw[row]) : null);
        put(seen, { name, values: isChanged ? own.map((value, row) => (isChanged[row] ? value : kept(row))) : own, type });
      });
    }
  }

  const plan: Plan = {
    dialect,
    steps,
    where,
    only,
    names,
    given: new Set(given),
    calculated,
    problems,
    ok: !problems.some(({ diagnostics }) => diagnostics.some(({ severity }) => severity === "error")),
    stages: (rows) => stages(rows),
    run(rows, budget) {
      const truths = (program: Program) =>
        program.run(rows, budget).map(worked(dialect.types.conversion(program.type, conditionType)?.convert));
      const [changes, gives] = [where && truths(where), only && truths(only)];
      const all = Array.from({ length: rows.rows }, (_, row) => row);
      const isChanged = changes?.map((value) => value === true);
      const kept = gives ? all.filter((row) => gives[row] === true) : all;
      const own = isChanged ? kept.filter((row) => isChanged[row]) : kept;
      const columnsNow = new Map(rows.columns.map((column) => [column.name, column.written ?? column.values]));
      const told: Changes[] = [];
      for (const { step, values, hits } of stages(rows, isChanged, budget))
        step.column.names.forEach((name, place, { length }) => {
          const results = ofNames(values, length, place);
          const cells = columnsNow.get(name);
          const plain = (row: number) =>
            isFailure(results[row]) ? results[row] : (exactData(results[row], (value) => dialect.plain(value)) as Value);
          const now = isChanged ? all.map((row) => (isChanged[row] ? plain(row) : (cells?.[row] ?? null))) : all.map(plain);
          columnsNow.set(name, now);
          const isOver = (row: number) => isList(values[row]) && values[row].length > length;
          const overflowing = length > 1 && place === length - 1 ? own.filter(isOver) : [];
          told.push({ name, ...changesOf(now, cells, own), overflowing, ...(hits && place === 0 && { hits }) });
        });
      const taken = (values: readonly Value[]) => (gives ? kept.map((row) => values[row]) : values);
      const whole = names.map((name): Column => ({ name, values: taken(columnsNow.get(name)!) }));
      return {
        ...(unfold === undefined ? { sample: { columns: whole, rows: kept.length }, rows: kept } : unfolded(whole, kept, unfold)),
        unknown: all.filter((row) => isFailure(changes?.[row] ?? null) || isFailure(gives?.[row] ?? null)),
        changes: told,
      };
    },
    readsWholeColumns(rows) {
      if (rows.rows === 0) return false;
      plan.run({ columns: rows.columns.map(({ name, values }) => ({ name, values: values.slice(0, 1) })), rows: 1 });
      return programsOf(plan).some((program) => program.readsWholeColumns);
    },
  };
  return plan;
}

/** All expressions of a plan. */
export const programsOf = ({ steps, where, only }: Plan): Program[] => [
  ...steps.map(({ program }) => program),
  ...[where, only].filter((each) => each !== undefined),
];

/** The places of the columns that a plan reads; what a step sees begins with those of the sample. */
export const placesUsed = (plan: Plan): Set<number> => new Set(programsOf(plan).flatMap((each) => [...columnsUsed(each)]));

/** What became of the values on some rows, beside the cells that were there. */
function changesOf(
  values: readonly Value[],
  cells: readonly Value[] | undefined,
  rows: readonly number[],
): Omit<Changes, "name" | "overflowing"> {
  return {
    changed: rows.filter((row) => !isFailure(values[row]) && !isWrittenAs(values[row], cells?.[row] ?? null)),
    failed: rows.filter((row) => isFailure(values[row])),
    empty: rows.filter((row) => values[row] === "").length,
    nothing: rows.filter((row) => values[row] === null).length,
  };
}

/** Whether a value stands in a file as the cell does: a number in the place of a text that was read as one, with all its digits. */
const isWrittenAs = (value: Value, cell: Value): boolean =>
  agree(value, cell) ||
  (typeof cell === "string" && (typeof value === "number" || typeof value === "boolean") && String(value) === cell);

/** Puts a column in the place of the one of its name, or behind all. */
function put(columns: Column[], column: Column): void {
  const place = columns.findIndex(({ name }) => name === column.name);
  columns[place < 0 ? columns.length : place] = column;
}

/** Values with what was decided for single texts in their place. */
function withDecisions(
  values: readonly Value[],
  name: string,
  { columns }: Sample,
  decided: PlanOptions["decided"],
): readonly Value[] {
  const decisions = decided?.get(name);
  const column = columns.find((each) => each.name === name);
  if (!decisions || !column) return values;
  const cells = column.written ?? column.values;
  return values.map((value, row) => (typeof cells[row] === "string" ? (decisions.get(cells[row]) ?? value) : value));
}

/** The values for one of several names: the item at its place, nothing where the list is shorter. */
function ofNames(values: readonly Value[], count: number, place: number): readonly Value[] {
  if (count === 1) return values;
  return values.map((value) => (isFailure(value) ? value : isList(value) ? (value[place] ?? null) : place === 0 ? value : null));
}

/** What is wrong with a condition: it names a column that is only calculated later, or gives no truth value. */
function conditionMistake(program: Program, calculated: ReadonlySet<string>, given: readonly string[]): Diagnostic | undefined {
  const { dialect, tree, type } = program;
  const early = [...walk(tree)].find(
    (node): node is Name =>
      node.kind === "name" &&
      [...calculated].some((name) => dialect.namesColumn(node.name, name)) &&
      !given.some((name) => dialect.namesColumn(node.name, name)),
  );
  if (early) return mistake("condition-sees-later", early.range, { name: dialect.columnText(early.name) });
  if (!program.ok) return undefined;
  return isText(type) || !dialect.types.conversion(type, conditionType)
    ? mistake("condition-type", tree.range, { given: String(type) })
    : undefined;
}

/** The rows with one for each item of a column's lists. */
function unfolded(columns: readonly Column[], rows: readonly number[], name: string): Pick<Applied, "sample" | "rows"> {
  const lists = columns.find((column) => column.name === name)!.values;
  const places = lists.flatMap((value, row) =>
    isList(value) && value.length > 1 ? value.map((_, item) => ({ row, item })) : [{ row, item: 0 }],
  );
  const item = (value: Value, at: number): Value => (isList(value) ? (value[at] ?? null) : value);
  return {
    sample: {
      columns: columns.map((column) => ({
        name: column.name,
        values: places.map(({ row, item: at }) => (column.name === name ? item(column.values[row], at) : column.values[row])),
      })),
      rows: places.length,
    },
    rows: places.map(({ row }) => rows[row]),
  };
}
