import type { Fix } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import type { Failure } from "../values/index.ts";
import { type Trial, habitIn, longest } from "./habits.ts";
import { type Attempt, readOtherwise, withMends } from "./mends.ts";
import { type Limits, type Meant, type Program, defaultLimits, programOf } from "./program.ts";
import type { Sample } from "./sample.ts";

/** Compiles what may be meant by a text that is not read; what cannot be read either is not bound. */
function tried(dialect: Dialect, text: string, sample: Sample, limits: Limits): Trial {
  const { diagnostics } = dialect.parse(text, limits);
  const isRead = diagnostics.every((d) => d.severity !== "error");
  if (!isRead) return { ok: false, isRead, diagnostics };
  const { ok, diagnostics: found } = programOf(dialect, text, sample, limits);
  return { ok, isRead, diagnostics: found };
}

/** Rows of a sample on which a mend is tried. */
const triedRows = 20;

/** Tries texts on the first rows of a sample. */
const attemptsOn =
  (dialect: Dialect, sample: Sample, limits: Limits) =>
  (text: string): Attempt => {
    const program = programOf(dialect, text, sample, limits);
    const { ok, tree, diagnostics } = program;
    const rows = Array.from({ length: Math.min(sample.rows, triedRows) }, (_, row) => row);
    return { ok, tree, diagnostics, values: () => rows.map((row) => program.runRow(sample, row)) };
  };

/** How a call that fails on every row may be meant: the mend with which it gives values on most of the first rows. */
export function otherReading(
  { dialect, source, tree }: Program,
  sample: Sample,
  { range }: Pick<Failure, "range">,
): Fix | undefined {
  if (range === undefined || source.length > longest) return undefined;
  return readOtherwise(tree, range, dialect, source, attemptsOn(dialect, sample, defaultLimits));
}

/** Texts that are tried as what one that is refused may mean; a slip takes a dozen, the same slip all over a long text would take thousands. */
const mostTried = 300;

/** So many answers of a function, and then always the same. */
function upTo<T>(most: number, ask: (text: string) => T, then: T): (text: string) => T {
  let left = most;
  return (text) => (left-- > 0 ? ask(text) : then);
}

/** What is wrong with a text, with what may be meant by it. */
const meantIn =
  (dialect: Dialect, source: string, sample: Sample, limits: Limits): Meant =>
  (tree, found) => {
    const trial = upTo(mostTried, (text) => tried(dialect, text, sample, limits), { ...found, isUntried: true });
    const names = sample.columns.map(({ name }) => name);
    const habit = habitIn(source, found, dialect, names, trial);
    // What else is wrong comes of it.
    if (habit) return [habit];
    const { diagnostics } = found;
    const none: Attempt = { ok: false, tree, diagnostics, values: () => [] };
    return withMends({ tree, diagnostics }, dialect, source, upTo(mostTried, attemptsOn(dialect, sample, limits), none));
  };

/**
 * Reads, binds and compiles an expression for the columns of a sample. Never throws: what is
 * wrong stands in `diagnostics`.
 *
 * @example
 * const sample = sampleOf([{ label: "Alnus, glutinosa" }, { label: null }]);
 * const program = compile(postgresql(), "split_part(label, ', ', 2)", sample);
 * program.run(sample); // ["glutinosa", null]
 * program.trace(sample, 0).map(({ text }) => text); // ["split_part(label, ', ', 2)", "label", "', '", "2"]
 * program.origins(sample, 0).dropped[0].text; // "Alnus, "
 * compile(postgresql(), "upper(lable)", sample).ok; // false
 */
export function compile(dialect: Dialect, source: string, sample: Sample, limits: Limits = defaultLimits): Program {
  const isTried = source.trim() !== "" && source.length <= longest;
  return programOf(dialect, source, sample, limits, isTried ? meantIn(dialect, source, sample, limits) : undefined);
}
