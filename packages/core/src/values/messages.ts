import type { Facts } from "./value.ts";
import { typeWords } from "./type-words.ts";

const types = (given: unknown): string => list((given as readonly string[]).map(typeWords));
const list = (value: unknown, most = 8): string => {
  const items = value as readonly string[];
  return items.length > most ? `${items.slice(0, most).join(", ")}, …` : items.join(", ");
};
const hint = (value: unknown, before: string, after = "?"): string =>
  Array.isArray(value) && value.length > 0 ? ` ${before} ${list(value)}${after}` : "";

/** Every sentence that a user can read about an expression, by code; made from facts in this one place. */
const messages = {
  // Reading an expression
  "empty-expression": () => "There is no expression here; write one, for example a column name.",
  expected: (f: Facts) => `Expected ${String(f.expected)}, found ${String(f.found)}.`,
  "unclosed-quote": (f: Facts) => `The quote ${String(f.quote)} that opens here is not closed.`,
  "unclosed-comment": () => "The comment that opens here is not closed.",
  "unclosed-bracket": (f: Facts) =>
    `The bracket ${String(f.bracket)} that opens here is not closed; expected ${String(f.expected)}.`,
  "wrong-separator": (f: Facts) => `Arguments are separated by "${String(f.expected)}" here, not by "${String(f.found)}".`,
  "unexpected-character": (f: Facts) => `"${String(f.character)}" means nothing here.`,
  "extra-text": (f: Facts) => `The expression ends before "${String(f.found)}"; one expression is read.`,
  "too-deep": (f: Facts) => `The expression is nested deeper than ${String(f.limit)} levels (limit "nestingDepth").`,
  "too-long": (f: Facts) =>
    `The expression has ${String(f.length)} characters, more than ${String(f.limit)} (limit "expressionLength").`,
  "reserved-word": (f: Facts) =>
    `"${String(f.word)}" is a word of the language here; a column of that name is written ${String(f.column)}.`,
  "bad-number": (f: Facts) => `"${String(f.text)}" is not a number here.`,
  "bad-literal": (f: Facts) => `This literal cannot be read: ${String(f.problem)}.`,
  "not-covered": (f: Facts) => `Not covered yet: ${String(f.what)}.`,
  habit: (f: Facts) => {
    const all = f.said as readonly string[];
    const said = all.length < 2 ? all.join("") : `${all.slice(0, -1).join(", ")}, and ${all.at(-1)}`;
    return `${said[0].toUpperCase()}${said.slice(1)}.`;
  },
  // Binding names and types
  "unknown-function": (f: Facts) =>
    `There is no function ${String(f.name)} here${f.does && f.said === undefined ? `, nor one for ${String(f.does)}` : ""}.${
      f.said ? ` For ${String(f.does)} write ${String(f.said)}.` : ""
    }${hint(f.nearest, "Did you mean")}`,
  "unknown-column": (f: Facts) =>
    `There is no column ${String(f.name)}.${hint(f.nearest, "Did you mean")}${hint(f.columns, "The columns are:", ".")}`,
  "argument-count": (f: Facts) => `${String(f.name)} takes ${String(f.takes)}, ${String(f.given)} given: ${String(f.signature)}.`,
  "argument-type": (f: Facts) => `${String(f.name)} does not take ${types(f.given)}: ${String(f.signature)}.`,
  "ambiguous-call": (f: Facts) => `${String(f.name)} could be meant in several ways for ${types(f.given)}; cast an argument.`,
  "constant-wanted": (f: Facts) =>
    `${String(f.name)} wants the same ${String(f.parameter)} for every row, not one that depends on a column.`,
  "swapped-arguments": (f: Facts) =>
    `${String(f.name)} takes the ${String(f.first)} first and the ${String(f.second)} second; these look swapped.`,
  "text-with-number": (f: Facts) => `${String(f.name)} compares a text with a number here: ${String(f.compared)}.`,
  // What may not be meant
  "null-compared": (f: Facts) => `Nothing is ${String(f.name)} null, not even null: the comparison gives nothing on every row.`,
  "counts-from-one": () => "Counting starts at 1 here; 0 is before the first.",
  "foreign-wildcard": (f: Facts) => `${list(f.used)} stands for itself here; the wildcard is ${list(f.wanted)}.`,
  "foreign-group": (f: Facts) => `${String(f.used)} stands for itself here; a group is named ${String(f.wanted)}.`,
  "lost-escape": (f: Facts) => `The text loses the backslash of ${String(f.sign)}; it is written twice.`,
  "column-in-quotes": (f: Facts) => `"${String(f.text)}" is a text here; the column is written ${String(f.column)}.`,
  "joins-not": (f: Facts) => `${String(f.name)} does not join texts here.`,
  "text-as-condition": () => "This is taken for a condition; each side of AND and OR is a whole condition.",
  "name-as-text": (f: Facts) =>
    `There is no column ${String(f.name)}, so it is read as a text.${hint(f.nearest, "Did you mean")}`,
  "pattern-as-text": (f: Facts) => `"${String(f.text)}" is searched for as it stands here, not as a pattern.`,
  "other-case": (f: Facts) =>
    `"${String(f.text)}" stands in no row; "${String(f.there)}" has it in other letters or with spaces around it, which differs here.`,
  "separator-first": (f: Facts) => `The separator comes first; "${String(f.text)}" is one of the joined texts here.`,
  "ordered-as-texts": (f: Facts) => `${String(f.column)} is ordered as a text here, letter by letter: "10" comes before "9".`,
  "no-row-changed": (f: Facts) => `"${String(f.text)}" fits nothing on any of ${String(f.rows)} rows: none is changed.`,
  "wildcard-compared": (f: Facts) => `"${String(f.text)}" is compared as it stands here, with its signs * or %.`,
  "negative-start": () => "A negative start lies before the first character here, and does not count from the end.",
  "negative-taken": () => "A negative length does not leave out the last characters here.",
  "null-among": () => "With a null among them it is never false that a value is one of them, and NOT IN is never true.",
  "month-beside-hour": (f: Facts) => `"${String(f.text)}" has the month beside the hour; minutes are "${String(f.wanted)}".`,
  "first-replaced": (f: Facts) => `Only the first that fits is replaced here; ${String(f.rows)} rows have more.`,
  "counts-bytes": (f: Facts) => `${String(f.name)} counts bytes here: "å" has two.`,
  "group-not-there": (f: Facts) =>
    `There is no group ${String(f.group)} in "${String(f.pattern)}": it has ${f.count === 0 ? "none" : String(f.count)}.`,
  "whole-not-group": (f: Facts) => `The whole of what "${String(f.pattern)}" fits is given here, and not its group.`,
  "repeats-sign": (f: Facts) => `"${String(f.text)}" is a pattern here, in which * repeats the sign before it; any signs are .*.`,
  "foreign-format": (f: Facts) =>
    `"${String(f.text)}" is a ${String(f.of)} format of another language; here it is "${String(f.wanted)}".`,
  "minutes-beside-year": (f: Facts) => `"${String(f.text)}" has minutes beside the year; the month is "${String(f.wanted)}".`,
  "whole-quotient": () => "The quotient of whole numbers is cut to a whole one before it is rounded.",
  "sum-of-joined": (f: Facts) => `${String(f.sign)} comes first here: what is joined is calculated with.`,
  "chained-comparison": () => "The outcome of the first comparison, true or false, is compared with what follows.",
  "column-separates": (f: Facts) => `The separator comes first; ${String(f.column)} stands in its place.`,
  "searched-in-text": (f: Facts) =>
    `"${String(f.text)}" is searched for ${String(f.column)} here; the other way round it is found on ${String(f.rows)} rows.`,
  "replaced-in-text": (f: Facts) => `The text in which is replaced is "${String(f.text)}" here, not ${String(f.column)}.`,
  "fits-nothing": (f: Facts) =>
    `"${String(f.text)}" fits no row, as patterns are written here; "${String(f.wanted)}" fits ${String(f.rows)}.`,
  "never-holds": (f: Facts) => `This holds on none of ${String(f.rows)} rows.`,
  "delimiter-taken": (f: Facts) => `The result ${String(f.verb)} with the "${String(f.text)}" that is searched for.`,
  "text-column-as-condition": (f: Facts) =>
    `${String(f.column)} is a text, and taken for a condition: it holds where the text begins with a number other than 0.`,
  "text-calculated": (f: Facts) =>
    `"${String(f.text)}" is read as ${String(f.number)} here: what stands behind its digits is left out.`,
  "string-as-number": () => "A type of this name reads numbers here, and 07 becomes 7; that of texts is text.",
  "empty-range": () => "Nothing lies between these: the smaller comes first.",
  "split-sign": () => "=~ is = and ~ here: what follows is read as a number, and its bits are turned.",
  "power-as-bits": () => "^ sets bits against each other here; it is no power.",
  "texts-beside": (f: Facts) => `Texts beside each other are one here: "${String(f.text)}".`,
  "separator-of-rows": (f: Facts) =>
    `"${String(f.text)}" is joined to each text here; a separator stands behind the word separator.`,
  "sign-alone": (f: Facts) =>
    `"${String(f.text)}" means something else than itself in a pattern; the sign is written "${String(f.wanted)}".`,
  "counts-from-the-start": () => "A position counted from the start says how many are taken from the end here.",
  "counts-what-follows": () => "So many as stand behind what is searched for are taken from the start here.",
  "never-reached": (f: Facts) =>
    `This branch is never reached: on each of the ${String(f.rows)} rows on which its condition holds an earlier one does.`,
  "size-not-heeded": (f: Facts) => `The size ${String(f.size)} cuts nothing here: the text is longer on ${String(f.rows)} rows.`,
  "same-branches": (f: Facts) => `Every branch gives ${String(f.result)}.`,
  "never-missing": (f: Facts) => `${String(f.text)} is never missing: what stands behind it is not asked for.`,
  "never-both": (f: Facts) => `${String(f.subject)} cannot be both, so this never holds.`,
  "always-one": (f: Facts) => `${String(f.subject)} is always one or the other, so this always holds.`,
  alone: (f: Facts) => `${String(f.name)} has one value to take, and gives it as it is.`,
  decided: (f: Facts) => `${String(f.text)} decides this, whatever else is asked.`,
  "catches-others": (f: Facts) =>
    `${String(f.name)} catches only what is not available, and what comes on ${String(f.rows)} rows is another error: ${String(f.problem)}`,
  "item-of-one": (f: Facts) =>
    `${String(f.column)} is one value: a number in brackets takes it as the first, and no character of it.`,
  "fits-everything": (f: Facts) => `"${String(f.text)}" fits every text.`,
  "false-otherwise": () => "Where the condition does not hold this gives false, as nothing is written for it.",
  "sign-place": () => "The result begins with a space, the place of a sign; FM leaves it out.",
  "trims-letters": (f: Facts) =>
    `"${String(f.text)}" is a set of characters here: each of them goes, in any order. On row ${String(f.row)} more goes than that text.`,
  "always-fails": (f: Facts) => `This is an error wherever it is reached. ${String(f.problem)}`,
  "same-everywhere": (f: Facts) =>
    `It gives ${String(f.result)} on all ${String(f.rows)} rows, though it reads ${list(f.columns)}.`,
  "unknown-type": (f: Facts) => `There is no type ${String(f.name)} here that is covered.`,
  "condition-type": (f: Facts) => `A condition must be true or false here, not ${typeWords(String(f.given))}.`,
  "condition-sees-later": (f: Facts) => `A condition sees the rows as they were; ${String(f.name)} is calculated from them.`,
  "column-twice": (f: Facts) => `The column ${String(f.name)} is given twice; put one expression into the other.`,
  "column-cycle": (f: Facts) => `These columns need one another: ${(f.round as readonly string[]).join(" → ")}.`,
  "branch-types": (f: Facts) => `The branches do not have one type: ${types(f.given)}.`,
  "aggregate-of-row": (f: Facts) =>
    `${String(f.name)} is an aggregate: in a query it reads all rows of the table; here it sees the one row.`,
  "mixed-collations": (f: Facts) =>
    `The collations ${list(f.names)} are both written for values that stand side by side; keep one.`,
  "nested-aggregate": () => "An aggregate cannot stand within another.",
  "ungrouped-column": (f: Facts) => `Beside an aggregate the column ${String(f.name)} stands only within one.`,
  "row-alone": () =>
    "A row of several values stands only where it is compared with another of as many values; compare the values one by one, or take one of them.",
  "too-many-rows": (f: Facts) => `One value is wanted here, and the query gives ${String(f.given)} rows.`,
  // Evaluating a row
  "not-found": () => "What is searched for is not there.",
  "negative-length": (f: Facts) => `The length ${String(f.length)} is negative.`,
  "negative-count": (f: Facts) => `The count ${String(f.count)} is negative.`,
  "text-longer": (f: Facts) => `The text is longer than ${String(f.length)} already.`,
  "start-beyond-end": (f: Facts) => `The start ${String(f.start)} lies beyond the end of the text.`,
  "start-below-first": (f: Facts) => `The start ${String(f.start)} lies before the first position, ${String(f.first)}.`,
  "trim-character": (f: Facts) => `"${String(f.text)}" is not one character, which TRIM takes away.`,
  "logarithm-argument": () => "There is no logarithm of a number that is not above 0.",
  "power-argument": () => "There is no such power or root.",
  "not-of-one-length": () => "The two texts must have the same length, and not be empty.",
  "empty-fill": () => "Nothing is given to fill up with.",
  "zero-ordinal": () => "The number of a piece must not be 0.",
  "ordinal-below-one": (f: Facts) => `The number of the occurrence, ${String(f.n)}, is below 1.`,
  "no-such-group": (f: Facts) => `The pattern has no group ${String(f.group)}.`,
  "group-below-zero": (f: Facts) => `The number of the group, ${String(f.group)}, is below 0.`,
  "side-not-known": (f: Facts) => `The end option must be 0 or 1, not ${String(f.side)}.`,
  "fraction-refused": (f: Facts) => `${String(f.value)} is not a whole number.`,
  "empty-text": () => "Empty text has no first character.",
  "no-such-character": (f: Facts) => `No character has the number ${String(f.code)} here.`,
  "pattern-syntax": (f: Facts) =>
    `The pattern "${String(f.pattern)}" cannot be read at ${String(f.offset)}: ${String(f.problem)}.`,
  "escape-sequence": (f: Facts) =>
    `The pattern "${String(f.pattern)}" cannot be read at ${String(f.offset)}: ${String(f.problem)}.`,
  "pattern-flags": (f: Facts) => `The pattern option "${String(f.flags)}" is not allowed here.`,
  "escape-length": (f: Facts) => `The escape "${String(f.escape)}" must be one character or empty.`,
  "pattern-budget": (f: Facts) => `Matching the pattern "${String(f.pattern)}" took too many steps (limit "patternSteps").`,
  "pattern-matches-empty": (f: Facts) => `The pattern "${String(f.pattern)}" matches empty text, which is not allowed here.`,
  "replacement-syntax": (f: Facts) =>
    `The replacement "${String(f.replacement)}" cannot be read at ${String(f.offset)}: $ needs a digit, \\ needs \\ or $.`,
  "text-too-long": (f: Facts) =>
    `The text would have ${String(f.length)} characters, more than ${String(f.limit)} (limit "textLength").`,
  "time-spent": (f: Facts) => `This row took longer than ${String(f.limit)} milliseconds (limit "milliseconds").`,
  "run-stopped": (f: Facts) => `The run was stopped after ${String(f.rows)} rows; this one was not evaluated.`,
  "beyond-memory": () => "The result, or a text on the way to it, is larger than can be held in memory.",
  "normal-form": (f: Facts) => `"${String(f.form)}" is no normal form; use one of ${list(f.forms)}.`,
  "division-by-zero": () => "Division by zero.",
  "number-out-of-range": () => "The number is out of range.",
  "kinds-do-not-compare": (f: Facts) => `A ${String(f.a)} and a ${String(f.b)} cannot be compared.`,
  "values-do-not-compare": (f: Facts) => `A ${String(f.a)} and a ${String(f.b)} cannot be put in order.`,
  "not-a-number": (f: Facts) => `"${String(f.text)}" is not a number.`,
  "not-a-boolean": (f: Facts) => `"${String(f.text)}" is neither true nor false.`,
  "not-a-date": (f: Facts) =>
    `"${String(f.text)}" is not a date${f.format === undefined ? "" : ` by the format "${String(f.format)}"`}.`,
  "wrong-kind": (f: Facts) => `Expected ${String(f.expected)}, got ${String(f.given)}.`,
  "no-atomic-value": () => "A function has no value that could be taken for a text or a number.",
  "no-truth-value": (f: Facts) => `Expected a value that is true or false, got ${String(f.given)}.`,
  "not-finite": (f: Facts) => `${String(f.number)} is no number that could be exact.`,
  "too-many-items": (f: Facts) => `Expected one item, got ${String(f.given)}.`,
  "steps-spent": (f: Facts) => `The expression took more than ${String(f.limit)} steps (limit "steps").`,
  "calls-too-deep": (f: Facts) => `Functions call each other more than ${String(f.limit)} deep (limit "callDepth").`,
  "list-too-long": (f: Facts) =>
    `The list would have ${String(f.length)} items, more than ${String(f.limit)} (limit "listLength").`,
  "wrong-count": (f: Facts) =>
    Number(f.given) < Number(f.least)
      ? `There should be at least ${String(f.least)} items, and there are ${String(f.given)}.`
      : `There should be at most ${String(f.most)} items, and there are ${String(f.given)}.`,
  "error-value": (f: Facts) => String(f.kind),
  raised: (f: Facts) => `The expression raised an error: ${String(f.text)}`,
  "bad-index": (f: Facts) => `There is no item ${String(f.index)}.`,
  "invalid-value": (f: Facts) => `${String(f.problem)}.`,
} satisfies Record<string, (facts: Facts) => string>;

/** What can be wrong with an expression, or go wrong on a row; a code without a sentence does not compile. */
export type MessageCode = keyof typeof messages;

export const messageFor = (code: MessageCode, facts: Facts): string => messages[code](facts);
