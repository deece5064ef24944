/** Holds all rows for the page: looks at them, tries columns, applies them, and goes back and forth. The newest draft wins. */
import { DataError, csvLines, jsonItems, readCsv, writeNdjson } from "@indigo-quill/data";
import { type Dialect, type Sample, type Value, isFailure } from "indigo-quill";
import { changedParts, visibleText } from "indigo-quill/authoring";
import { dialectLoaders } from "indigo-quill/dialects/load";
import { type CalculatedColumn, ChangedValues, type Plan, type PlanOptions, idleCleanups, planColumns } from "indigo-quill/folio";
import { type Job, ListProblem, type NamedList, Replacer, jobFrom, listFromTable } from "indigo-quill/lists";
import { Survey, remarksOn } from "indigo-quill/survey";
import type { Problem } from "../findings.ts";
import { problemsShown, shown } from "../shown.ts";
import { namesIn, openFolio } from "./folio.ts";
import type {
  Answer,
  CellHistory,
  CellShown,
  ColumnCounts,
  Draft,
  ExportFormat,
  PlanFindings,
  Request,
  Requests,
  RowsState,
  Step,
  StepEffects,
  TableHead,
  TableRow,
  View,
} from "./protocol.ts";
import { type Worked, mostRows, pieceRows, readRows, rowsAfter, sliceOf, take, unworked, withKinds } from "./rows.ts";

/** Milliseconds that a piece of the rows may take, and all of them while one types. */
const patience = { piece: 3000, rows: 20_000 };

/** Rows that the page has at hand. */
const glimpseRows = 200;

/** A step with the rows before it, and for each row after it the one that it was made from. */
interface Done extends StepEffects {
  readonly step: Step;
  readonly before: Sample;
  readonly from: readonly number[];
}

let now: Sample = { columns: [], rows: 0 };
let done: Done[] = [];
let worked: Worked | undefined;
let draftStep: Omit<Step, "at"> | undefined;
let helpers: ReadonlySet<string> = new Set();
let values: ChangedValues | undefined;

/** A newer request for the same has come. */
class Stale extends Error {}

/** Lets messages in; @throws Stale where a newer draft is among them */
async function breathe(isStale: () => boolean): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve));
  if (isStale()) throw new Stale();
}

const named = ({ columns }: Sample, name: string) => columns.find((column) => column.name === name);
const cells = (sample: Sample, name: string): readonly Value[] | undefined => {
  const column = named(sample, name);
  return column && (column.written ?? column.values);
};

/** Runs a plan over all rows, piece by piece; helpers are among the columns. */
async function workThrough(plan: Plan, sample: Sample, isStale: () => boolean): Promise<Worked> {
  const result = unworked(plan);
  const size = plan.readsWholeColumns(sample) ? Math.max(1, sample.rows) : pieceRows;
  const started = performance.now();
  for (let start = 0; start === 0 || start < sample.rows; start += size) {
    const piece = sliceOf(sample, start, Math.min(sample.rows, start + size));
    take(result, plan.run(piece, { milliseconds: patience.piece }), piece, start);
    await breathe(isStale);
    if (performance.now() - started > patience.rows)
      throw new Error("This takes too long here; the iquill command takes its time.");
  }
  return result;
}

const planOptions = ({ where, only, unfold, decided }: Omit<Step, "at">): PlanOptions => ({
  where,
  only,
  unfold,
  decided: decided && new Map(Object.entries(decided).map(([name, texts]) => [name, new Map(Object.entries(texts))])),
});

/** A plan in which helpers are columns like others, so that they can be shown. */
const planned = (dialect: Dialect, step: Omit<Step, "at">, sample: Sample): Plan =>
  planColumns(
    dialect,
    step.columns.map(({ isHelper: _, ...column }) => column),
    sample,
    planOptions(step),
  );

const helpersOf = ({ columns }: Omit<Step, "at">): Set<string> =>
  new Set(columns.filter(({ isHelper }) => isHelper).flatMap(({ names }) => names));

const dialectOf = async (id: string, options: Readonly<Record<string, string>>): Promise<Dialect> =>
  (await dialectLoaders[id]())(options);

const sentence = (text: string): Problem => ({ severity: "error", range: { start: 0, end: 0 }, sentence: text, mends: [] });

/** What is done by a draft, or what is wrong with its lists and jobs. */
function stepOf(draft: Draft, decided: Step["decided"]): { step: Omit<Step, "at">; problems: Record<string, Problem[]> } {
  const problems: Record<string, Problem[]> = {};
  const lists = new Map<string, NamedList>();
  for (const [name, csv] of Object.entries(draft.lists)) {
    try {
      lists.set(name, listFromTable(readCsv(csv).sample));
    } catch (error) {
      if (!(error instanceof ListProblem || error instanceof DataError)) throw error;
      problems[`list ${name}`] = [sentence(error.message)];
    }
  }
  const columns = draft.columns.flatMap(({ key, name, expression, isHelper, then }): CalculatedColumn[] => {
    const names = namesIn(name);
    if (names.length === 0 || expression.trim() === "") return [];
    const jobs = then.flatMap((written): Job[] => {
      try {
        return [jobFrom(written, (each) => lists.get(each))];
      } catch (error) {
        if (!(error instanceof ListProblem)) throw error;
        problems[key] = [...(problems[key] ?? []), sentence(error.message)];
        return [];
      }
    });
    return [{ names, expression, ...(jobs.length > 0 && { then: jobs }), ...(isHelper && { isHelper: true as const }) }];
  });
  const { dialect, options, where, only, unfold } = draft;
  return {
    step: {
      dialect,
      options,
      columns,
      ...(where.trim() !== "" && { where }),
      ...(only.trim() !== "" && { only }),
      ...(unfold.trim() !== "" && { unfold: unfold.trim() }),
      ...(decided && { decided }),
    },
    problems,
  };
}

async function tryDraft(draft: Draft, decided: Step["decided"], isStale: () => boolean): Promise<PlanFindings> {
  worked = undefined;
  const { step, problems } = stepOf(draft, decided);
  if (step.columns.length === 0 || Object.keys(problems).length > 0) return { problems };
  const dialect = await dialectOf(draft.dialect, draft.options);
  const plan = planned(dialect, step, now);
  const keys = new Map(draft.columns.map(({ key, name }) => [namesIn(name).join(","), key]));
  for (const { of, source, diagnostics } of plan.problems) {
    const key = keys.get(of) ?? of;
    problems[key] = [...(problems[key] ?? []), ...problemsShown(diagnostics, source)];
  }
  if (!plan.ok) return { problems };
  const result = await workThrough(plan, now, isStale);
  [worked, draftStep, helpers, values] = [result, step, helpersOf(step), undefined];
  const warnings = idleCleanups(plan, result.pieces[0].piece, result.pieces[0].applied).map(
    ({ name, raw, users }) =>
      `${name} is ${raw} cleaned up, and nothing uses it; ${users.join(", ")} still ${users.length === 1 ? "uses" : "use"} ${raw}.`,
  );
  for (const { names, then = [] } of step.columns)
    for (const job of then)
      if ("replace" in job)
        for (const { rule, by, kind } of new Replacer(job.replace).conflicts().slice(0, 5))
          warnings.push(
            `${names.join(", ")}: rule ${rule + 1} (${job.replace[rule].old}) and rule ${by + 1} (${job.replace[by].old}) are in each other's way: ${kind}.`,
          );
  const applied = result.pieces.map((each) => each.applied);
  return {
    problems,
    result: {
      given: now.rows,
      kept: result.from.length,
      changedRows: result.changedPlaces.length,
      values: valuesOf(result).list().length,
      counts: countsOf(plan, applied, step),
      warnings,
    },
  };
}

/** What became of each column, added up over the pieces. */
function countsOf(
  plan: Plan,
  applied: readonly Worked["pieces"][number]["applied"][],
  { columns }: Omit<Step, "at">,
): ColumnCounts[] {
  return plan.steps.flatMap(({ column }) =>
    column.names.map((name): ColumnCounts => {
      const all = applied.flatMap(({ changes }) => changes.filter((each) => each.name === name));
      const sum = (count: (each: (typeof all)[number]) => number) => all.reduce((total, each) => total + count(each), 0);
      const rules = (columns.find(({ names }) => names.includes(name))?.then ?? []).flatMap((job, i) => {
        if (!("replace" in job)) return [];
        return job.replace.map((rule, place) => ({
          rule: `${visibleText(rule.old, true)} → ${visibleText(rule.new, true)}`,
          count: sum(({ hits }) => hits?.[i]?.[place] ?? 0),
        }));
      });
      const used = rules.filter(({ count }) => count > 0).sort((a, b) => b.count - a.count);
      return {
        name,
        isNew: !plan.given.has(name),
        isHelper: helpers.has(name),
        changed: sum(({ changed }) => changed.length),
        failed: sum(({ failed }) => failed.length),
        empty: sum(({ empty }) => empty),
        nothing: sum(({ nothing }) => nothing),
        hits: used.slice(0, 50),
        unused: rules.length - used.length,
      };
    }),
  );
}

function valuesOf(result: Worked): ChangedValues {
  if (!values) {
    values = new ChangedValues(result.plan);
    for (const { applied, piece } of result.pieces) values.add(applied, piece);
  }
  return values;
}

/** The names of the columns that a view shows: those that are calculated, what they read, then the others. */
function shownNames(withHelpers: boolean): readonly string[] {
  if (!worked) return now.columns.map(({ name }) => name);
  const { plan, names } = worked;
  const read = new Set(plan.steps.flatMap(({ uses }) => uses));
  const rank = (name: string) => (plan.calculated.has(name) ? 0 : read.has(name) ? 1 : 2);
  return names.filter((name) => withHelpers || !helpers.has(name)).sort((a, b) => rank(a) - rank(b));
}

function head(view: View, withHelpers: boolean): TableHead {
  if (view === "values" && worked) {
    const names = ["column", "before", "after"];
    return { columns: names.map((name) => ({ name, kind: "given" as const })), rows: valuesOf(worked).list().length };
  }
  const kind = (name: string) =>
    !worked?.plan.calculated.has(name)
      ? "given"
      : helpers.has(name)
        ? "helper"
        : worked.plan.given.has(name)
          ? "replaced"
          : "new";
  return {
    columns: shownNames(withHelpers).map((name) => ({ name, kind: kind(name) })),
    rows: view === "changed" ? (worked?.changedPlaces.length ?? 0) : (worked?.from.length ?? now.rows),
  };
}

/** A cell with what it was, and which part of it is another. */
function changedCell(before: Value, after: Value, dialect: Dialect): CellShown {
  const both = typeof before === "string" && typeof after === "string" && before.length + after.length < 400;
  const visible = (parts: ReturnType<typeof changedParts>["before"]) =>
    parts.filter(({ text }) => text !== "").map(({ text, isChanged }) => ({ text: visibleText(text, true), isChanged }));
  const parts = both && before !== "" && after !== "" ? changedParts(before, after) : undefined;
  return {
    now: shown(after, dialect),
    before: shown(before, dialect),
    ...(parts && { parts: { before: visible(parts.before), after: visible(parts.after) } }),
  };
}

function rowsOf(view: View, withHelpers: boolean, from: number, count: number): TableRow[] {
  if (!worked) {
    const all = now.columns.map(({ name }) => cells(now, name)!);
    const size = Math.max(0, Math.min(count, now.rows - from));
    return Array.from({ length: size }, (_, i) => ({
      number: from + i + 1,
      cells: all.map((own) => ({ now: shown(own[from + i]) })),
    }));
  }
  const { plan, columns, changed, changedPlaces, from: rows } = worked;
  const { dialect } = plan;
  if (view === "values")
    return valuesOf(worked)
      .list()
      .slice(from, from + count)
      .map(({ column, before, after, count: number }) => {
        const cell = changedCell(before, after, dialect);
        const [was, is] = cell.parts ? [cell.parts.before, cell.parts.after] : [];
        const half = (value: Value, parts: typeof was): CellShown => ({
          now: shown(value, dialect),
          ...(parts && { parts: { before: parts, after: parts } }),
        });
        return { number, cells: [{ now: shown(column) }, half(before, was), half(after, is)] };
      });
  const places =
    view === "changed"
      ? changedPlaces.slice(from, from + count)
      : Array.from({ length: Math.max(0, Math.min(count, rows.length - from)) }, (_, i) => from + i);
  const names = shownNames(withHelpers);
  const before = new Map(names.map((name) => [name, cells(now, name)]));
  return places.map((place) => ({
    number: rows[place] + 1,
    cells: names.map((name): CellShown => {
      const value = columns.get(name)![place];
      return changed.get(name)?.has(place)
        ? changedCell(before.get(name)![rows[place]], value, dialect)
        : { now: shown(value, dialect) };
    }),
  }));
}

/** Applies a step to the rows as they are; `result` is what came of it where that is known. */
async function applyStep(step: Step, given?: Worked): Promise<void> {
  const result = given ?? (await workThrough(planned(await dialectOf(step.dialect, step.options), step, now), now, () => false));
  const left = helpersOf(step);
  const after = rowsAfter(result, now, left);
  const applied = result.pieces.map((each) => each.applied);
  const effects = countsOf(result.plan, applied, step)
    .filter(({ name }) => !left.has(name))
    .map(({ name, isNew, changed, failed, empty, nothing }) => [name, { isNew, changed, failed, empty, nothing, rows: "" }]);
  done.push({ step, before: now, from: result.from, rows: after.rows, effects: Object.fromEntries(effects) as Done["effects"] });
  now = withKinds(after).sample;
}

/** Goes to the rows after some steps, from the last one that is the same. */
async function moveTo(steps: readonly Step[]): Promise<void> {
  let same = 0;
  while (same < Math.min(done.length, steps.length) && JSON.stringify(done[same].step) === JSON.stringify(steps[same])) same++;
  if (same < done.length) {
    now = done[same].before;
    done = done.slice(0, same);
  }
  for (const step of steps.slice(same)) await applyStep(step);
  worked = undefined;
}

const state = (): RowsState => ({
  rows: now.rows,
  columns: now.columns.map(({ name }) => name),
  glimpse: sliceOf(now, 0, Math.min(now.rows, glimpseRows)),
  steps: done.map(({ rows, effects }) => ({ rows, effects })),
});

async function openRows(file: File | undefined, steps: readonly Step[]): Promise<Answer<"open">> {
  try {
    const { sample, notices } = await readRows(file, mostRows);
    [now, done] = [sample, []];
    await moveTo(steps);
    return { ...state(), notices };
  } catch (error) {
    // The file may also have gone since it was chosen.
    if (!(error instanceof DataError || error instanceof DOMException)) throw error;
    return { refused: `${file!.name}: ${error.message}` };
  }
}

async function look(isStale: () => boolean): Promise<Answer<"look">> {
  const survey = new Survey();
  for (let start = 0; start < now.rows; start += pieceRows) {
    survey.add(sliceOf(now, start, Math.min(now.rows, start + pieceRows)));
    await breathe(isStale);
  }
  return { rows: now.rows, columns: survey.result().map((column) => ({ survey: column, remarks: remarksOn(column) })) };
}

/** The steps that changed a cell of the rows as they are; `row` is 0-based. */
function history(row: number, column: string): CellHistory {
  const found: CellHistory["steps"][number][] = [];
  let [at, after] = [row, now];
  for (let i = done.length - 1; i >= 0; i--) {
    const { step, before, from } = done[i];
    const origin = from[at];
    const [was, is] = [cells(before, column)?.[origin], cells(after, column)?.[at]];
    const by = step.columns.find(({ names }) => names.includes(column));
    if (by && was !== is) found.unshift({ step: i + 1, by: by.expression, before: shown(was ?? null), after: shown(is ?? null) });
    [at, after] = [origin, before];
  }
  return { column, steps: found };
}

const plain = (value: Value): unknown => (isFailure(value) ? { error: value.standard ?? value.code } : value);

async function exported(format: ExportFormat): Promise<Blob> {
  const names = now.columns.map(({ name }) => name);
  const columns = now.columns.map((column) => column.written ?? column.values);
  const rowsFrom = (from: number) =>
    Array.from({ length: Math.min(pieceRows, now.rows - from) }, (_, i) => columns.map((own) => own[from + i]));
  const parts: BlobPart[] = [];
  if (format === "parquet" || format === "arrow") {
    const rows =
      format === "parquet"
        ? new (await import("@indigo-quill/data/parquet")).ParquetRows(names)
        : new (await import("@indigo-quill/data/arrow")).ArrowRows(names);
    for (let from = 0; from < now.rows; from += pieceRows)
      parts.push(rows.add(columns.map((own) => own.slice(from, from + pieceRows))) as BlobPart);
    parts.push((await rows.end()) as BlobPart);
    return new Blob(parts);
  }
  const separator = format === "csv" ? "," : "\t";
  if (format === "csv" || format === "tsv") parts.push(csvLines([names], separator));
  if (format === "json") parts.push("[\n");
  for (let from = 0; from < now.rows; from += pieceRows) {
    const rows = rowsFrom(from);
    if (format === "csv" || format === "tsv")
      parts.push(
        csvLines(
          rows.map((row) => row.map((value) => (isFailure(value) ? `#ERROR ${value.standard ?? value.code}` : value))),
          separator,
        ),
      );
    else {
      const data = rows.map((row) => row.map(plain));
      parts.push(format === "ndjson" ? writeNdjson(names, data) : (from > 0 ? ",\n" : "") + jsonItems(names, data));
    }
  }
  if (format === "json") parts.push("\n]\n");
  return new Blob(parts, { type: format === "csv" ? "text/csv" : "text/plain" });
}

const handlers: {
  [K in keyof Requests]: (request: Omit<Requests[K], "asks">, isStale: () => boolean) => Promise<Answer<K>> | Answer<K>;
} = {
  open: ({ file, steps }) => openRows(file, steps),
  look: (_, isStale) => look(isStale),
  plan: ({ draft, decided }, isStale) => tryDraft(draft, decided, isStale),
  head: ({ view, helpers: withHelpers }) => head(view, withHelpers),
  rows: ({ view, helpers: withHelpers, from, count }) => rowsOf(view, withHelpers, from, count),
  async apply({ at }) {
    if (!worked || !draftStep) throw new Error("There is nothing to apply.");
    const step: Step = { at, ...draftStep };
    await applyStep(step, worked);
    worked = undefined;
    return { ...state(), step };
  },
  async move({ steps }) {
    await moveTo(steps);
    return state();
  },
  cell: ({ row, column }) => history(row, column),
  export: ({ format }) => exported(format),
  folio: ({ text, files }) => openFolio(text, files),
};

/** The newest request of each kind, and what runs: one after another, a newer draft stops an older one. */
const newest = new Map<Request["kind"], number>();
let queue: Promise<void> = Promise.resolve();

self.onmessage = ({ data: { id, request } }: MessageEvent<{ id: number; request: Request }>) => {
  newest.set(request.kind, id);
  const isStale = () => (request.kind === "plan" || request.kind === "look") && newest.get(request.kind) !== id;
  queue = queue.then(async () => {
    try {
      if (isStale()) throw new Stale();
      const handle = handlers[request.kind] as (given: Request, isStale: () => boolean) => unknown;
      self.postMessage({ id, answer: await handle(request, isStale) });
    } catch (error) {
      self.postMessage(error instanceof Stale ? { id, isStale: true } : { id, error: (error as Error).message });
    }
  });
};
