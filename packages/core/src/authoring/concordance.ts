import { type RowOf, columnsOf, instead, othersTo, tryingRows } from "../contrast/index.ts";
import { convertingSteps } from "../dialects/conversions.ts";
import { type AnswerExample, examplesOfAnswers } from "./answers/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { type FunctionRow, isPure, namesOf } from "../dialects/row.ts";
import { type Program, type Sample, allPartsOf, compile, sampleOf } from "../evaluate/index.ts";
import { type Family, type OperationId, operationOf, operations } from "../text/index.ts";
import { type TraitId, describeTrait, traits } from "../traits/index.ts";
import type { TextRange, Value } from "../values/index.ts";

/** A function with where its answer stands, and the collations for which it gives that answer, where it is not for any. */
export interface AnsweringFunction {
  readonly name: string;
  readonly evidence: string;
  readonly collations?: readonly string[];
}

/** The functions of a dialect that give an answer; what is done without being written is none. */
export interface Answering {
  /** The dialect's id and title. */
  readonly dialect: string;
  readonly title: string;
  readonly functions: readonly AnsweringFunction[];
  /** Whether conversions answer so. */
  readonly converts: boolean;
}

/** A question with every dialect's answers. */
export interface ConcordanceEntry {
  readonly trait: TraitId;
  readonly question: string;
  /** Whether the answer is what a function is for. */
  readonly isPurpose: boolean;
  readonly families: readonly Family[];
  readonly operations: readonly { readonly id: OperationId; readonly summary: string }[];
  readonly answers: readonly {
    readonly answer: string;
    /** What follows from it, in a sentence. */
    readonly consequence: string;
    /** A value that shows it; left out where a question is about whole expressions. */
    readonly example?: AnswerExample;
    readonly dialects: readonly Answering[];
  }[];
}

const answersOf = (answers: object) => answers as Readonly<Record<string, string | undefined>>;

/** The functions of a dialect that answer a question so, each name once with its evidence. */
function answering(dialect: Dialect, trait: TraitId, answer: string): Answering | undefined {
  const { id, title, rows } = dialect;
  const functions = new Map<string, AnsweringFunction>();
  for (const row of rows) {
    if (!isPure(row) || answersOf(row.answers)[trait] !== answer) continue;
    const { evidence, collations } = row;
    for (const name of namesOf(row)) {
      const before = functions.get(name);
      const of =
        before && !before.collations ? undefined : collations && [...new Set([...(before?.collations ?? []), ...collations])];
      functions.set(name, { name, evidence, ...(of && { collations: of }) });
    }
  }
  const converts = convertingSteps(dialect).some((step) => answersOf(step.answers)[trait] === answer);
  if (functions.size === 0 && !converts) return undefined;
  return { dialect: id, title, functions: [...functions.values()], converts };
}

/** Every question that steps of these dialects are asked, with their answers. */
export function concordanceOf(dialects: readonly Dialect[]): ConcordanceEntry[] {
  return (Object.keys(traits) as TraitId[]).flatMap((trait): ConcordanceEntry[] => {
    const asking = Object.values(operations).filter((operation) => (operation.traits as readonly TraitId[]).includes(trait));
    const { question, answers: known, isPurpose = false } = describeTrait(trait);
    const examples: Readonly<Record<string, AnswerExample | undefined>> = examplesOfAnswers(trait, dialects);
    const answers = Object.entries(known).map(([answer, consequence]) => ({
      answer,
      consequence,
      ...(examples[answer] && { example: examples[answer] }),
      dialects: dialects.flatMap((dialect) => answering(dialect, trait, answer) ?? []),
    }));
    if (answers.every(({ dialects: given }) => given.length === 0)) return [];
    const families = [...new Set(asking.map(({ family }) => family))];
    return [
      {
        trait,
        question,
        isPurpose,
        families,
        operations: asking.map(({ id, summary }) => ({ id: id as OperationId, summary })),
        answers,
      },
    ];
  });
}

/** What stands in the slots of an example that are not the text: texts and numbers. */
const fillings: Readonly<Record<string, Value>> = {
  needle: "a",
  delimiter: ",",
  old: "a",
  separator: ", ",
  new: "-",
  fill: "*",
  characters: "a",
  from: "ab",
  to: "xy",
  start: 2,
  length: 3,
  n: 1,
  count: 2,
  digits: 1,
  sign: 0,
};

/** The column of an example. */
export const exampleColumn = "label";

/** A call of a function with a column and constants in its slots, or with a column of numbers; undefined where no such call is known. */
function exampleCall(dialect: Dialect, row: FunctionRow, numbers?: string): string | undefined {
  const written = ({ slot }: FunctionRow["parameters"][number], i: number): string | undefined => {
    const value = fillings[slot];
    if (slot === "text" || (i === 0 && value === undefined)) return dialect.columnText(exampleColumn);
    if (typeof value === "string") return dialect.textLiteral(value);
    return typeof value === "number" ? (numbers === undefined ? String(value) : dialect.columnText(numbers)) : undefined;
  };
  const given = row.parameters.filter(({ optional, slot }) => !optional || slot === "length").map(written);
  if (given.length === 0 || given.includes(undefined)) return undefined;
  if (row.notation !== "operator") return `${row.name}(${given.join(`${dialect.separator} `)})`;
  return given.length === 2 ? `${given[0]!} ${row.name} ${given[1]!}` : undefined;
}

/** An expression that shows a dialect's answer to a question. */
export interface Example {
  readonly dialect: string;
  readonly title: string;
  readonly expression: string;
}

/** A text, and for each dialect an expression of it whose value depends on the answer to a question. */
export interface Examples {
  readonly text: string;
  readonly of: readonly Example[];
}

/** Texts that tell answers apart. */
const texts = [
  "a, b",
  "Alnus glutinosa",
  "  a  b ",
  "",
  "12abc",
  " 12 ",
  "straße",
  "é",
  "2nd o'neil-SMITH",
  "a😀b",
  "aAa",
  "a,b,,c,",
  "ıİ",
  "e\u0301a",
  "x\ty",
  "ΑΣ",
  "ﬁ",
  "👨‍👩‍👧b",
  "banana",
  "%_",
  "1e3",
  "0x10",
  "-1.5",
  "true",
  "2020-02-29",
  "NaN",
  "\u00a0a",
  "a",
];

/** Examples for a question: of each dialect the first function of which some text tells the answer from another. */
export function examplesOf(dialects: readonly Dialect[], trait: TraitId): Examples | undefined {
  const sample = sampleOf(
    texts.map((text) => ({ [exampleColumn]: text })),
    { [exampleColumn]: "text" },
  );
  const found = dialects.flatMap((dialect) => {
    for (const row of dialect.rows) {
      if (!isPure(row) || answersOf(row.answers)[trait] === undefined) continue;
      const expression = exampleCall(dialect, row);
      const program = expression === undefined ? undefined : compile(dialect, expression, sample);
      if (!program?.ok) continue;
      const told = tellingRows(program, trait, sample);
      const values = program.run(sample).map((value) => JSON.stringify(dialect.plain(value)));
      if (told.length > 0) return [{ dialect: dialect.id, title: dialect.title, expression: program.source, told, values }];
    }
    return [];
  });
  if (found.length === 0) return undefined;
  // The one that tells most of them; of equal ones that on which they give the most different values, and not the empty one.
  const counts = texts.map(
    (text, at) =>
      found.filter(({ told }) => told.includes(at)).length +
      new Set(found.map(({ values }) => values[at])).size / 20 -
      (text === "" ? 0.5 : 0),
  );
  const text = texts[counts.indexOf(Math.max(...counts))];
  return { text, of: found.map(({ dialect, title, expression }) => ({ dialect, title, expression })) };
}

/** The rows on which another answer of a step would give another value. */
function tellingRows(program: Program, trait: TraitId, sample: Sample): number[] {
  const own = program.run(sample);
  const shown = (value: Value) => JSON.stringify(program.dialect.plain(value));
  const told = new Set<number>();
  for (const step of allPartsOf(program.bound)) {
    if (step.kind !== "operation" || step.implicit || step.answers[trait] === undefined) continue;
    for (const other of othersTo(step, [trait])) {
      const tried = program.experiment(instead(step, other));
      for (let row = 0; row < sample.rows; row++) if (shown(tried(sample, row)) !== shown(own[row])) told.add(row);
    }
  }
  return [...told];
}

/** A function of an expression, and what is different about its nearest of kin in another dialect. */
export interface Moved {
  readonly name: string;
  readonly range: TextRange;
  readonly operation: OperationId;
  /** The function there that does the same job with the fewest other answers; left out where none does that job. */
  readonly there?: string;
  readonly differences: readonly MovedDifference[];
}

/** A question that two functions answer differently. */
export interface MovedDifference {
  readonly trait: TraitId;
  readonly answers: readonly [string, string];
  /** A small row on which the other answer changes what the function gives, and both values; left out where none was found. */
  readonly row?: RowOf;
  /** The call for which the row is, where it is not the one that is written: that may never show it. */
  readonly call?: string;
  readonly values?: readonly [Value, Value];
}

/** For each function of an expression the one of another dialect that does its job, and the questions that they answer differently. */
export function movedTo(program: Program, target: Dialect): Moved[] {
  const calls = allPartsOf(program.bound).flatMap((part) =>
    part.kind === "operation" && part.row && !part.implicit ? [{ ...part, row: part.row }] : [],
  );
  const seen = new Set<FunctionRow>();
  return calls.flatMap((part): Moved[] => {
    if (seen.has(part.row)) return [];
    seen.add(part.row);
    const { operation, source, row } = part;
    // By itself: what is around it may hide what it gives.
    const { start, end } = source.range;
    const side = { dialect: program.dialect, expression: program.source.slice(start, end) };
    const made = tryingRows(side, columnsOf([side], {}));
    const call = exampleCall(program.dialect, row, "n");
    const inGeneral =
      call === undefined ? undefined : tryingRows({ ...side, expression: call }, { [exampleColumn]: "text", n: "integer" });
    const found = { name: row.name, range: source.range, operation };
    const asked = operationOf(operation).traits;
    const kin = target.rows.flatMap((other) => {
      if (!isPure(other) || other.operation !== operation) return [];
      const differences = asked.flatMap((trait) => {
        const [own, theirs] = [part.answers[trait], answersOf(other.answers)[trait]];
        return theirs === undefined || own === theirs ? [] : [{ trait, answers: [own, theirs] as const }];
      });
      const isOther = differences.some(({ trait }) => describeTrait(trait).isPurpose);
      return isOther || !sameFixed(part.fixed, other.fixed) ? [] : [{ there: other.name, differences }];
    });
    const isNamesake = ({ there }: { there: string }) => Number(there.toLowerCase() !== row.name.toLowerCase());
    const [best] = kin.sort((a, b) => a.differences.length - b.differences.length || isNamesake(a) - isNamesake(b));
    const shown = best?.differences.map((difference) => {
      const other = { trait: difference.trait, answer: difference.answers[1] };
      return { ...difference, ...(made.rowFor(operation, other) ?? withCall(inGeneral?.rowFor(operation, other), call)) };
    });
    return [best ? { ...found, there: best.there, differences: shown } : { ...found, differences: [] }];
  });
}

const withCall = <T extends object>(found: T | undefined, call: string | undefined) =>
  found && call !== undefined && { ...found, call };

const sameFixed = (a: object = {}, b: object = {}): boolean => JSON.stringify(a) === JSON.stringify(b);
