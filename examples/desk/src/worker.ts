/** Evaluates for the page in a thread of its own, which the page can stop. */
import { DataError } from "@indigo-quill/data";
import {
  type Diagnostic,
  Failure,
  type Program,
  type Sample,
  type TextRange,
  type TraceStep,
  type Value,
  columnsUsed,
  compile,
  defaultLimits,
  message,
} from "indigo-quill";
import { expressionsFor, format, notesOf, patternsOn, rulerOf, visibleText } from "indigo-quill/authoring";
import {
  type Contrast,
  type Parting,
  type RowDifference,
  type Untold,
  apartOn,
  contrast as contrastSides,
  coverage,
  untoldText,
  explainEffect,
  explainFailure,
  explainParting,
  hunt,
  showValue,
  titlesOf,
} from "indigo-quill/contrast";
import { dialectLoaders } from "indigo-quill/dialects/load";
import { walk } from "indigo-quill/syntax";
import { describeTrait } from "indigo-quill/traits";
import type {
  ContrastFindings,
  Findings,
  Question,
  Shown,
  SideFindings,
  StepFindings,
  TableFindings,
  TraceFindings,
  UntoldFindings,
  WantedFindings,
} from "./findings.ts";
import { pageSize } from "./findings.ts";
import { problemsShown, shown } from "./shown.ts";
import { typeWords } from "indigo-quill/values";
import { type Rows, readRows } from "./bench/rows.ts";
import { type Scratch, withScratch } from "./sample.ts";

/** Values of a step, parts of a pattern, steps beside the rows, questions that no row answers, groups of rows and rows of a group. */
const most = { values: 6, parts: 24, steps: 8, untold: 2, groups: 20, groupRows: 14 };

/** Milliseconds that a row may take here, all of them, looking for causes, hunting for rows, and for what no row tells. */
const patience = { row: 300, rows: 600, causes: 400, hunt: 300, untold: 400 };

/** Rows beyond which no more of a file is taken while one types. */
const rowLimit = 20_000;

const formatWidth = 60;

function sideFindings(
  { dialect, source, ok, type, diagnostics }: Program,
  title: string,
  notes: readonly Diagnostic[] = [],
): SideFindings {
  const formatted = ok ? format(dialect, source, formatWidth) : undefined;
  const isKept = formatted?.ok && formatted.comments.length === 0 && formatted.text !== source;
  return {
    title,
    isOk: ok && source !== "",
    type: typeWords(type.name),
    problems: problemsShown([...diagnostics, ...notes], source),
    formatted: isKept ? formatted.text : undefined,
  };
}

/** The places of the columns that the expressions read; the first three while none does. */
function shownColumns(programs: readonly Program[], sample: Sample): number[] {
  const used = new Set(programs.flatMap((program) => [...columnsUsed(program)]));
  const all = sample.columns.map((_, i) => i);
  return used.size > 0 ? all.filter((i) => used.has(i)) : all.slice(0, 3);
}

const isRunnable = ({ ok, source }: Program): boolean => ok && source !== "";

const placeOf = ({ start, end }: TextRange): string => `${start} ${end}`;

/** The steps whose values are worth a column: no literal, no column, and not the whole; inner ones first. */
function stepsShown(program: Program, sample: Sample): readonly TraceStep[] {
  if (sample.rows === 0) return [];
  const plain = new Set(
    [...walk(program.tree)].flatMap(({ kind, range }) => (kind === "literal" || kind === "name" ? [placeOf(range)] : [])),
  );
  return program
    .trace(sample, 0)
    .filter(({ depth, range }) => depth > 0 && !plain.has(placeOf(range)))
    .reverse()
    .slice(0, most.steps);
}

function valuesOfSteps(program: Program, sample: Sample, row: number, steps: readonly TraceStep[]): (Shown | undefined)[] {
  if (steps.length === 0) return [];
  const found = new Map(program.trace(sample, row).map(({ range, values }) => [placeOf(range), values.at(-1)]));
  return steps.map(({ range }) => {
    const value = found.get(placeOf(range));
    return value === undefined ? undefined : shown(value, program.dialect);
  });
}

function tableFindings(
  { page, selected, steps: areStepsShown }: Question,
  { sample, rows: { isCut = false } }: Evaluated,
  programs: readonly Program[],
  values: readonly (readonly Value[])[],
): TableFindings {
  const columns = shownColumns(programs, sample);
  const first = page * pageSize;
  const steps = areStepsShown && isRunnable(programs[0]) ? stepsShown(programs[0], sample) : [];
  const cellText = (value: Value) => (value === null || value === undefined ? null : String(value));
  return {
    rowCount: sample.rows,
    isCut,
    columns: sample.columns.map(({ name }) => name),
    shownColumns: columns,
    steps: steps.map(({ text }) => visibleText(text, false)),
    rows: Array.from({ length: Math.max(0, Math.min(pageSize, sample.rows - first)) }, (_, i) => ({
      row: first + i,
      steps: valuesOfSteps(programs[0], sample, first + i, steps),
      cells: columns.map((column) => shown((sample.columns[column].written ?? sample.columns[column].values)[first + i])),
      values: programs.map((program, side) =>
        isRunnable(program) ? shown(values[side][first + i], program.dialect) : undefined,
      ),
    })),
    selectedCells: Object.fromEntries(
      sample.columns.map(({ name, values: cells, written }) => [name, cellText((written ?? cells)[selected])]),
    ),
  };
}

function traceFindings(program: Program, sample: Sample, row: number): TraceFindings {
  const { dialect, ok, source } = program;
  if (!ok) return { title: dialect.title, source, steps: undefined };
  const traced = program.trace(sample, row);
  const patterns = patternsOn(program, traced);
  const steps = traced.map((step): StepFindings => {
    const failure = step.born ? step.values.find((value) => value instanceof Failure) : undefined;
    return {
      key: `${step.range.start}-${step.range.end}-${step.depth}`,
      range: step.range,
      text: visibleText(step.text, false),
      depth: step.depth,
      values: step.values.slice(0, most.values).map((value) => shown(value, dialect)),
      turns: step.values.length,
      became: step.became && { how: step.became.how, value: shown(step.became.value, dialect) },
      failure: failure instanceof Failure ? message(failure) : undefined,
      isBorn: step.born,
      ruler: step.taken && rulerOf(step.taken.text, step.taken.range),
      parts: (patterns.get(step)?.parts ?? []).slice(0, most.parts),
    };
  });
  return { title: dialect.title, source, steps };
}

/** The first cause in a few words: the question and both answers, or what each side is given. */
function inShort({ causes: [first = []], experiment }: Parting) {
  const told = experiment?.is === "given" ? experiment.given : undefined;
  return first.flatMap(({ trait, answers }) => {
    const { question } = describeTrait(trait);
    return told
      ? told.map(({ name, values }) => ({
          trait: name || "written",
          question,
          answers: values.map((value) => (value === undefined ? "none" : showValue(value))).join(" / "),
        }))
      : [{ trait, question, answers: answers.join(" / ") }];
  });
}

function contrastFindings({ rows, unknown, groups, programs, more }: Contrast, { selected, page }: Question): ContrastFindings {
  const titles = titlesOf(programs);
  const onPage = rows.slice(page * pageSize, (page + 1) * pageSize).filter(({ agree }) => !agree);
  return {
    differing: rows.filter(({ agree }) => !agree).length,
    unknown: unknown.map(({ side, rows: own, failure }) => ({
      title: titles[side],
      count: own.length,
      why: explainFailure(failure),
    })),
    apart: new Map(onPage.map((row) => [row.row, apartOn(row)])),
    causes: new Map(
      onPage.map(({ row, differences: [difference] }) => [
        row,
        difference.isUnsought ? undefined : difference.parting ? inShort(difference.parting) : [],
      ]),
    ),
    isUnfinished: more !== undefined,
    groups: groups.slice(0, most.groups).map(({ rows: own, difference: first }) => {
      const holdsSelected = own.includes(selected);
      // Of the selected row its own values are told.
      const sameSides = ({ sides }: RowDifference) => sides.join() === first.sides.join();
      const { sides, parting, another, isUnsought, effect } =
        (holdsSelected && rows[selected].differences.find(sameSides)) || first;
      const pair: [string, string] = [titles[sides[0]], titles[sides[1]]];
      const tried = holdsSelected && parting ? parting : undefined;
      const dialect = tried && programs[sides[tried.side]].dialect;
      const places = tried
        ? [tried, ...(tried.further ?? [])].flatMap(({ ranges }) => ranges.map((range, i) => ({ side: sides[i], range })))
        : [];
      return {
        rows: own.slice(0, most.groupRows),
        size: own.length,
        holdsSelected,
        parting: parting && explainParting(parting, pair),
        instead: isUnsought ? "Not looked for yet" : another,
        effect: explainEffect(effect, pair),
        experiments: (tried?.causes ?? []).map((_, i) => ({ side: sides[tried!.side], value: shown(tried!.replay(i), dialect) })),
        places,
      };
    }),
  };
}

/** The smallest rows on which the first two expressions differ, as scratch rows. */
function huntedRows(programs: readonly Program[], sample: Sample): Scratch[] {
  const sides = programs.slice(0, 2).map(({ dialect, source }) => ({ dialect, expression: source }));
  const { caught } = hunt(sides, { sample, milliseconds: patience.hunt, most: 3 });
  return caught.map(({ row }) => scratchOf(row, sample));
}

/** A row that was made, as one types it. */
const scratchOf = (row: Readonly<Record<string, Value>>, { columns }: Sample): Scratch =>
  Object.fromEntries(columns.map(({ name }) => [name, (row[name] ?? null) === null ? null : String(row[name])]));

/** What no row tells about the expression, with the smallest rows that would. */
function untoldFindings({ dialect, source }: Program, sample: Sample): UntoldFindings[] {
  const rows = Math.min(sample.rows, pageSize);
  const first: Sample = { rows, columns: sample.columns.map((column) => ({ ...column, values: column.values.slice(0, rows) })) };
  const { untold } = coverage({ dialect, expression: source }, first, patience.untold);
  // That a value is missing is the least of surprises; what a written number hides is the greatest.
  const rank = ({ trait, hiddenBy }: Untold) => (hiddenBy ? 0 : trait === "missing" ? 2 : 1);
  return [...untold]
    .sort((a, b) => rank(a) - rank(b))
    .slice(0, most.untold)
    .map((each) => ({ sentence: untoldText(each), ...(each.row && { row: scratchOf(each.row, sample) }) }));
}

let lastWanted: { readonly key: string; readonly rows: Rows; readonly found: WantedFindings } | undefined;

/** What gives the wanted values, tried on them and on the rows of the page; found anew only where another thing is asked. */
function wantedFindings(question: Question, evaluated: Evaluated): WantedFindings {
  const { wanted, page, scratch, sides } = question;
  const key = JSON.stringify([wanted, page, scratch, sides[0].dialect]);
  if (lastWanted?.key !== key || lastWanted.rows !== evaluated.rows)
    lastWanted = { key, rows: evaluated.rows, found: wantedOn(question, evaluated) };
  return lastWanted.found;
}

function wantedOn({ wanted, page }: Question, { sample, programs: [{ dialect }] }: Evaluated): WantedFindings {
  const first = Math.min(page * pageSize, sample.rows);
  const onPage = Array.from({ length: Math.min(pageSize, sample.rows - first) }, (_, i) => first + i);
  const rows = [...new Set([...onPage, ...wanted.map(([row]) => row)])].filter((row) => row < sample.rows);
  const tried: Sample = {
    rows: rows.length,
    columns: sample.columns.map(({ name, values }) => ({ name, values: rows.map((row) => values[row]) })),
  };
  const { candidates, telling } = expressionsFor(dialect, tried, new Map(wanted.map(([row, text]) => [rows.indexOf(row), text])));
  return {
    candidates: candidates.map(({ expression, values }) => ({
      expression,
      values: onPage.map((_, i) => shown(values[i], dialect)),
    })),
    telling: telling.map((place) => rows[place]),
  };
}

let loaded: { file: File | undefined; rows: Rows } | undefined;

/** The rows of a question; a text where its file cannot be read. */
async function rowsOf(file: File | undefined): Promise<Rows | string> {
  if (loaded && loaded.file === file) return loaded.rows;
  try {
    loaded = { file, rows: await readRows(file, rowLimit) };
    return loaded.rows;
  } catch (error) {
    // The file may also have gone since it was chosen.
    if (!(error instanceof DataError || error instanceof DOMException)) throw error;
    return `${file!.name}: ${error.message}`;
  }
}

/** What selecting a row, or turning a page, leaves as it is. */
interface Evaluated {
  readonly key: string;
  readonly rows: Rows;
  readonly sample: Sample;
  readonly programs: readonly Program[];
  values?: readonly (readonly Value[])[];
  contrast?: Contrast | undefined;
  untold?: readonly UntoldFindings[];
}
let last: Evaluated | undefined;

async function evaluated({ sides, scratch }: Question, rows: Rows): Promise<Evaluated> {
  const key = JSON.stringify([sides, scratch]);
  if (last?.rows === rows && last.key === key) return last;
  const sample = withScratch(rows.sample, scratch);
  const limits = { ...defaultLimits, milliseconds: patience.row };
  const made = await Promise.all(sides.map(({ dialect }) => dialectLoaders[dialect]()));
  return (last = { key, rows, sample, programs: sides.map(({ text }, i) => compile(made[i](), text, sample, limits)) });
}

/** The answer to a question, part by part, what is quick first. */
async function* answer(question: Question): AsyncGenerator<Partial<Findings>> {
  const rows = await rowsOf(question.file);
  if (typeof rows === "string") {
    yield { notices: [rows], isRefused: true };
    return;
  }
  yield { notices: rows.notices };
  const now = await evaluated(question, rows);
  const { sample, programs } = now;
  const titles = titlesOf(programs);
  yield { sides: programs.map((program, i) => sideFindings(program, titles[i])) };
  const budget = { milliseconds: patience.rows };
  now.values ??= programs.map((program) => (isRunnable(program) ? program.run(sample, budget) : []));
  yield { table: tableFindings(question, now, programs, now.values) };
  const values = now.values;
  yield { sides: programs.map((program, i) => sideFindings(program, titles[i], notesOf(program, sample, values[i]))) };
  const { selected } = question;
  const isThere = selected >= 0 && selected < sample.rows;
  yield { traces: isThere ? programs.map((program) => traceFindings(program, sample, selected)) : [] };
  if (question.wanted.length > 0) yield { wanted: wantedFindings(question, now) };
  if (programs.filter(isRunnable).length >= 2) yield* contrasted(question, now);
  if (question.isSettled && isRunnable(programs[0])) yield { untold: (now.untold ??= untoldFindings(programs[0], sample)) };
}

/** Where the expressions part, and the rows that are hunted for; asked once more it goes on where the time was up. */
function* contrasted(question: Question, now: Evaluated): Generator<Partial<Findings>> {
  const { sample, programs } = now;
  const { causes: milliseconds } = patience;
  const sides = programs.map(({ dialect, source }) => ({ dialect, expression: source }));
  now.contrast = now.contrast
    ? (now.contrast.more?.(milliseconds) ?? now.contrast)
    : contrastSides(sides, sample, { milliseconds });
  yield { contrast: contrastFindings(now.contrast, question) };
  const { hunt: asked } = question;
  if (asked > 0 && programs.slice(0, 2).every(isRunnable)) yield { hunted: { hunt: asked, rows: huntedRows(programs, sample) } };
}

self.onmessage = async ({ data: { id, question } }: MessageEvent<{ id: number; question: Question }>) => {
  for await (const part of answer(question)) self.postMessage({ id, part, isLast: false });
  self.postMessage({ id, part: {}, isLast: true });
};
