/** Notes on what an expression gives on all rows. */
import { agree, showValue } from "../../contrast/index.ts";
import { type Diagnostic, message } from "../../diagnostics/index.ts";
import { columnsUsed, otherReading, unconverted } from "../../evaluate/index.ts";
import { type Value, isFailure } from "../../values/index.ts";
import { type Asked, type Operation, constantOf, inner, note, slotOf, valuesOf, writing } from "./asked.ts";

/** The fewest rows of which it says something that all give the same; and that all do on which nothing is missing. */
const fewestRows = 3;
const fewestThere = 10;

/** Operations that give true or false, in whatever form. */
const conditions: ReadonlySet<string> = new Set(["is", "distinct", "not", "connect", "truth-of", "test", "compare"]);

/** One result on all rows, though what is read differs; what is only true or false, and what is made of all rows, may be so. */
export function sameEverywhere({ program, sample, values }: Asked): Diagnostic[] {
  const read = [...columnsUsed(program)];
  // A missing or empty value often gives another result, whatever is asked.
  const isThere = (row: number) => read.every((i) => !["", null].includes(sample.columns[i].values[row] as string | null));
  const there = values.filter((_, row) => isThere(row));
  const told = there.length < fewestThere ? values : there;
  const [first] = told;
  // What a choice gives depends on which rows there are.
  const isChosen = program.bound.kind === "control" && program.bound.control.form !== "filter";
  if (read.length === 0 || program.readsWholeColumns || told.length < fewestRows || (isChosen && !isFailure(first))) return [];
  const isFirst = (value: Value) => agree(value, first) && !(isFailure(value) && isFailure(first) && value.code !== first.code);
  if (!told.every(isFirst)) return [];
  const inputs = new Set(values.map((_, row) => JSON.stringify(read.map((i) => String(sample.columns[i].values[row])))));
  const { bound } = program;
  const made = unconverted(bound);
  const isTruth =
    typeof first === "boolean" || (made.kind === "operation" && ("truth" in made.answers || conditions.has(made.operation)));
  if (inputs.size < fewestRows || (isTruth && !isFailure(first))) return [];
  const columns = read.map((i) => program.dialect.columnText(sample.columns[i].name));
  const result = isFailure(first) ? `an error (${message(first).replace(/\.$/, "")})` : showValue(first);
  const fix = isFailure(first) || first === null ? otherReading(program, sample, first ?? program.bound.source) : undefined;
  return [note("same-everywhere", program.tree.range, { result, rows: told.length, columns }, fix ? [fix] : [])];
}

/** The slots that hold what is looked for, by operations that leave a text as it is where that is not there. */
const leaving: Readonly<Record<string, readonly string[]>> = {
  substitute: ["old"],
  translate: ["from"],
  segment: ["delimiter"],
};

/** What changes no row, as what it looks for stands in none. */
export function nothingChanged(part: Operation, asked: Asked): Diagnostic[] {
  const { program, sample, first } = asked;
  const column = inner(slotOf(part, "text"));
  const place = (leaving[part.operation] ?? []).map((name) => constantOf(slotOf(part, name))).find((each) => each !== undefined);
  if (column?.kind !== "column" || typeof place?.value !== "string" || place.part.source.kind !== "literal") return [];
  const given = first.columns[column.column].values;
  const values = valuesOf(asked, part);
  if (values.length < fewestRows || given.every((value) => typeof value !== "string")) return [];
  if (given.some((value, row) => value !== values[row])) return [];
  const { range } = place.part.source;
  const halved = place.value.replaceAll("\\\\", "\\");
  const isDoubled = halved !== place.value && part.answers.pattern !== "literal";
  const fixes = isDoubled ? [writing(range, program.dialect.textLiteral(halved))] : [];
  const rows = Math.min(sample.rows, first.rows);
  return [note("no-row-changed", range, { text: place.value, rows }, fixes)];
}
