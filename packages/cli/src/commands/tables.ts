import { type Dialect, decisionText, isPure, signature } from "indigo-quill";
import {
  type ConversionLine,
  type FunctionRow,
  convertingSteps,
  functionsNamed,
  isOneOf,
  typeOf,
  namesOf,
  isStep,
  partsOfWork,
  stepsIn,
} from "indigo-quill/dialects";
import { dialectLoaders } from "indigo-quill/dialects/load";
import { families, operations } from "indigo-quill/text";
import { type TraitId, describeTrait, traits } from "indigo-quill/traits";
import { dialectOf } from "../input.ts";
import { type Style, styleFor } from "../output/style.ts";
import { table, wrapped } from "../output/table.ts";
import { type Streams, UsageError, exit } from "../streams.ts";

/** All traits, or one with its answers and the functions that give each. */
export async function traitsCommand(name: string | undefined, options: { json?: boolean }, streams: Streams): Promise<number> {
  const style = styleFor(streams);
  if (name !== undefined && !Object.hasOwn(traits, name))
    throw new UsageError(`there is no trait "${name}"; "iquill traits" lists them`);
  if (options.json) {
    const { concordanceOf } = await import("indigo-quill/authoring");
    const every = concordanceOf(await Promise.all(Object.keys(dialectLoaders).map((id) => dialectOf(id))));
    const wanted = name === undefined ? every : every.filter(({ trait }) => trait === name);
    streams.stdout.write(`${JSON.stringify(wanted, undefined, 1)}\n`);
    return exit.ok;
  }
  if (name === undefined) {
    const rows = Object.keys(traits).map((id) => [
      id,
      describeTrait(id as TraitId).question,
      Object.keys(describeTrait(id as TraitId).answers).join(" | "),
    ]);
    streams.stdout.write(table(["trait", "question", "answers"], rows, style));
    return exit.ok;
  }
  const { question, answers, isPurpose } = describeTrait(name as TraitId);
  const asking = Object.values(operations).filter((operation) => (operation.traits as readonly string[]).includes(name));
  const all = await Promise.all(Object.keys(dialectLoaders).map((id) => dialectOf(id)));
  const { bold, cyan } = style.colour;
  const { examplesOfAnswers } = await import("indigo-quill/authoring");
  const examples: Readonly<Record<string, { call: string; shown: string } | undefined>> = examplesOfAnswers(name as TraitId, all);
  const write = (text: string, lead: string, indent: string) =>
    streams.stdout.write(`${wrapped(text, style.width ?? 100, lead, indent)}\n`);
  streams.stdout.write(`${bold(question)}\n${isPurpose ? "The answer is what a function is for, not how it does it.\n" : ""}`);
  write(`${asking.map(({ id, summary }) => `${id} (${summary})`).join("; ")}.`, "Asked of: ", "  ");
  for (const [answer, consequence] of Object.entries(answers)) {
    write(consequence, `\n${cyan(answer)}  `, "  ");
    const example = examples[answer];
    if (example) write(`${example.call} gives ${example.shown}`, "  Example      ", " ".repeat(15));
    for (const dialect of all) {
      const names = dialect.rows
        .filter((row) => isPure(row) && (row.answers as Record<string, string>)[name] === answer)
        .flatMap(namesOf);
      const converts = convertingSteps(dialect).some((step) => (step.answers as Record<string, string>)[name] === answer);
      const given = [...new Set(names), ...(converts ? ["conversions"] : [])];
      if (given.length > 0) write(given.join(", "), `  ${dialect.title.padEnd(13)}`, " ".repeat(15));
    }
  }
  return exit.ok;
}

/** The functions of a dialect by group, or one in full, in a dialect or in all that have it. */
export async function functionsCommand(
  name: string | undefined,
  options: { in?: string; family?: string },
  streams: Streams,
): Promise<number> {
  const style = styleFor(streams);
  const { family: only } = options;
  if (only !== undefined && !(families as readonly string[]).includes(only))
    throw new UsageError(`there is no family "${only}"; use one of ${families.join(", ")}`);
  if (name === undefined && options.in === undefined)
    throw new UsageError("--in says of which dialect; a name alone is looked for in all");
  const ids = options.in === undefined ? Object.keys(dialectLoaders) : [options.in];
  const dialects = await Promise.all(ids.map((id) => dialectOf(id)));
  if (name === undefined) {
    streams.stdout.write(listed(dialects[0], only, style));
    return exit.ok;
  }
  const having = dialects
    .map((dialect) => ({ dialect, rows: functionsNamed(dialect.rows, name) }))
    .filter(({ rows }) => rows.length > 0);
  for (const { dialect, rows } of having) {
    if (dialects.length > 1) streams.stdout.write(`${style.colour.cyan(dialect.title)}\n`);
    for (const row of rows) streams.stdout.write(inFull(row, dialect, style));
  }
  return having.length > 0 ? exit.ok : otherwise(name, dialects, streams);
}

/** A name that is no function: how its job is said, CASE and CAST too. */
async function otherwise(name: string, dialects: readonly Dialect[], streams: Streams): Promise<number> {
  const { find } = await import("indigo-quill/authoring");
  const found = dialects.flatMap((dialect) => find(name, dialect, 1).map((each) => ({ dialect, each })));
  const where = dialects.length === 1 ? dialects[0].title : "No dialect";
  if (found.length === 0)
    throw new UsageError(
      `${where} has no ${dialects.length === 1 ? "" : "such "}function "${name}"; "iquill find" looks for one by words`,
    );
  for (const { dialect, each } of found) streams.stdout.write(`${dialect.title}: ${each.does}\n  ${each.written}\n`);
  return exit.ok;
}

/** The functions of a dialect, by family. */
function listed(dialect: Dialect, only: string | undefined, style: Style): string {
  const shown = families.flatMap((family) =>
    dialect.rows.filter((row) => row.family === family && row.notation !== "operator" && (only ?? family) === family),
  );
  const unique = [...new Map(shown.map((row) => [signature(row, dialect), row])).entries()];
  return table(
    ["family", "function", "what it gives"],
    unique.map(([text, row]) => [row.family, text, row.summary]),
    style,
  );
}

/** A function with its parameters, where it is known from, and what it answers. */
function inFull(row: FunctionRow, dialect: Dialect, style: Style): string {
  const width = style.width ?? 100;
  const taken = row.parameters.map(
    (p) => `${p.name}: ${p.type}${p.default === undefined ? "" : ` = ${JSON.stringify(p.default)}`}`,
  );
  const head = `${style.colour.bold(signature(row, dialect))}\n${row.summary}\nparameters: ${taken.join(", ") || "none"}; result: ${row.result}\nfrom: ${row.evidence}\n\n`;
  const decision = decisionText(row);
  const decided = decision === undefined ? "" : `${wrapped(decision, width, "", "")}\n\n`;
  if (!isPure(row)) return head + decided;
  const tokens =
    row.fixed?.tokens === undefined ? "" : `${wrapped(`what stands after %: ${row.fixed.tokens}`, width, "", "  ")}\n\n`;
  return `${head}${decided}${tokens}${answersText(row.answers, style)}\n`;
}

/** Each question with what is answered and what follows from it. */
function answersText(given: Readonly<Record<string, string>>, style: Style): string {
  const width = style.width ?? 100;
  const indent = " ".repeat(16);
  return Object.entries(given)
    .map(([trait, answer]) => {
      const { question, answers } = describeTrait(trait as TraitId);
      const told = wrapped(`${answer}: ${answers[answer]}`, width, indent, indent);
      return `${wrapped(question, width, trait.padEnd(16), indent)}\n${style.colour.cyan(told)}\n`;
    })
    .join("");
}

/** What a line of a table of conversions is written as: what becomes what, the cost, and by what in turn. */
function conversionCells([from, to, cost, work = []]: ConversionLine): string[] {
  const given = from.startsWith("> ") ? `what becomes ${from.slice(2)}` : from === "=" ? "the same" : from;
  if (cost === "never") return [given, to, cost, ""];
  const parts = partsOfWork(work).map((part) =>
    isStep(part) ? operations[part.operation].summary : "named" in part ? part.named : "its items so",
  );
  return [given, to, String(cost), parts.join("; then ") || "as it is"];
}

/** How types become others in a dialect without being asked, or in full what becomes one type. */
export async function conversionsCommand(type: string | undefined, options: { in: string }, streams: Streams): Promise<number> {
  const dialect = await dialectOf(options.in);
  const style = styleFor(streams);
  const { conversions } = dialect.types;
  const lines = type === undefined ? conversions : conversions.filter(([, to]) => to !== "*" && isOneOf(typeOf(type), to));
  if (lines.length === 0) {
    const known = [...new Set(conversions.flatMap(([, to]) => to.split("|")).filter((to) => to !== "*"))];
    throw new UsageError(`nothing becomes "${type}" in ${dialect.title}; there is ${known.join(", ")}`);
  }
  const header = ["from", "becomes", "cost", "by"];
  streams.stdout.write(table(header, lines.map(conversionCells), style));
  if (type === undefined) return exit.ok;
  for (const step of new Set(lines.flatMap(([, , , work = []]) => stepsIn(work))))
    streams.stdout.write(`\n${style.colour.bold(operations[step.operation].summary)}\n${answersText(step.answers, style)}`);
  return exit.ok;
}
