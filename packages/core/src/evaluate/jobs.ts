import { step } from "../dialects/step.ts";
import { type OperationId, operationOf } from "../text/index.ts";
import { type Bound, type BoundOperation, dependsOn, unconverted } from "./bound.ts";
import { type Answered, type Job, comesTo, constantOf, implied, isNumber, isSame, movedLater, ofCode, stepAt } from "./shapes.ts";

/** An operation that is carried out, its slots by name; conversions on the way to it are passed over. */
function partsBy(bound: Bound | readonly Bound[] | undefined, id: OperationId) {
  if (!bound || !("kind" in bound)) return undefined;
  const inner = unconverted(bound);
  const isWanted = (each: Bound) => each.kind === "operation" && each.operation === id;
  const call = isWanted(inner) ? inner : jobsOf(inner).find(isWanted);
  if (call?.kind !== "operation") return undefined;
  const slots = Object.fromEntries(operationOf(id).slots.map(({ name }, i) => [name, call.inputs[i]]));
  const one = (name: string): Bound | undefined => {
    const input = slots[name];
    return input && "kind" in input ? input : undefined;
  };
  const many = (name: string): readonly Bound[] => {
    const input = slots[name];
    return input && !("kind" in input) ? input : [];
  };
  return { answers: call.answers, fixed: call.fixed, one, many };
}

/** What a segment that is cut once answers besides. */
export const segmented = { zeroPiece: "empty", noPiece: "empty", emptyNeedle: "at the start" };
/** What a search that found nothing comes to, where a length less than one is taken from the start then. */
const cutBefore: Answered = { error: "error", empty: "empty", before: "empty" };

/** slice(x, 1, locate(x, d) - 1) */
export function cutBySearch(bound: Bound) {
  const sliced = partsBy(bound, "slice");
  const length = partsBy(sliced?.one("length"), "calculate");
  const located = partsBy(length?.one("a"), "locate");
  if (!sliced || !length || !located || sliced.answers.from !== "start" || !isNumber(sliced.one("start"), 1)) return undefined;
  if (constantOf(length.one("sign")) !== "-" || !isNumber(length.one("b"), 1) || located.one("start")) return undefined;
  const [text, searched, delimiter] = [sliced.one("text"), located.one("text"), located.one("needle")];
  if (!text || !searched || !delimiter || !isSame(text, searched)) return undefined;
  return { text, searched, delimiter, sliced: sliced.answers, located: located.answers };
}

const before: Job = (bound) => {
  const cut = cutBySearch(bound);
  if (!cut) return undefined;
  const { text, delimiter, sliced, located } = cut;
  const absent = located.absent === "zero" ? cutBefore[sliced.negativeLength] : located.absent;
  if (absent === undefined) return undefined;
  const answers = { ...segmented, missing: sliced.missing, part: "before", absent, case: located.case };
  return comesTo(bound, "segment", answers, { text, delimiter });
};

/** slice(x, locate(x, d) + size of d) */
const after: Job = (bound) => {
  const sliced = partsBy(bound, "slice");
  const start = partsBy(sliced?.one("start"), "calculate");
  const located = partsBy(start?.one("a"), "locate");
  if (!sliced || !start || !located || located.one("start") || constantOf(start.one("sign")) !== "+") return undefined;
  const [text, delimiter] = [sliced.one("text"), located.one("needle")];
  const needle = constantOf(delimiter);
  if (!text || !delimiter || typeof needle !== "string" || !isNumber(start.one("b"), [...needle].length)) return undefined;
  if (!isSame(text, located.one("text"))) return undefined;
  const absent = located.answers.absent === "zero" ? "whole" : located.answers.absent;
  const answers = {
    ...segmented,
    noPiece: absent,
    missing: sliced.answers.missing,
    part: "after",
    absent,
    case: located.answers.case,
  };
  return comesTo(bound, "segment", answers, { text, delimiter });
};

/** join(recase(slice(x, 1, 1)), recase(slice(x, 2))) */
const capitalised: Job = (bound) => {
  const items = partsBy(bound, "join")?.many("items") ?? [];
  const [first, rest] = items.map((item) => partsBy(item, "recase"));
  const [head, tail] = [first, rest].map((recased) => partsBy(recased?.one("text"), "slice"));
  if (items.length !== 2 || !first || !rest || first.answers.form !== "upper" || !head || !tail) return undefined;
  const text = head.one("text");
  const isSplit = isNumber(head.one("start"), 1) && isNumber(head.one("length"), 1) && isNumber(tail.one("start"), 2);
  if (!text || !isSplit || !isSame(text, tail.one("text"))) return undefined;
  const answers = { ...first.answers, form: "title", words: "nothing", restOfWord: "lowered" };
  return rest.answers.form === "lower" ? comesTo(bound, "recase", answers, { text }) : undefined;
};

/** join(repeat(c, n - measure(x)), x) */
const filled: Job = (bound) => {
  const items = partsBy(bound, "join")?.many("items") ?? [];
  if (items.length !== 2) return undefined;
  const at = items.findIndex((item) => partsBy(item, "repeat"));
  const repeated = partsBy(items[at], "repeat");
  const count = partsBy(repeated?.one("count"), "calculate");
  const [text, fill, length] = [items[1 - at], repeated?.one("text"), count?.one("a")];
  const measured = partsBy(count?.one("b"), "measure");
  if (!repeated || !fill || !length || !measured || constantOf(count?.one("sign")) !== "-") return undefined;
  if (!isSame(text, measured.one("text"))) return undefined;
  const { missing, negativeCount, tooLong } = repeated.answers;
  const longer = negativeCount === "error" ? "error" : "kept";
  const own = { negativeCount: "empty", emptyFill: "whole", side: at === 0 ? "left" : "right" };
  return comesTo(bound, "pad", { ...own, missing, longer, tooLong, unit: measured.answers.counted }, { text, length, fill });
};

/** slice(join("000000", x), from the end) */
const cutFromFill: Job = (bound) => {
  const sliced = partsBy(bound, "slice");
  const items = partsBy(sliced?.one("text"), "join")?.many("items") ?? [];
  const filling = constantOf(items[0]);
  if (!sliced || items.length !== 2 || typeof filling !== "string" || filling === "") return undefined;
  const size = Number(constantOf(sliced.answers.from === "end" ? sliced.one("length") : sliced.one("start")));
  const length = sliced.answers.from === "end" ? size : -size;
  if (!(length > 0) || length > filling.length || filling.replaceAll(filling[0], "") !== "") return undefined;
  const { missing, unit } = sliced.answers;
  const own = { negativeCount: "empty", emptyFill: "whole", side: "left", longer: "cut at the start", tooLong: "error" };
  const given = { text: items[1], length: implied(length, "number", bound), fill: implied(filling[0], "text", bound) };
  return comesTo(bound, "pad", { ...own, missing, unit }, given);
};

/** join(for each of 1 to n: text) */
const repeatedByLoop: Job = (bound) => {
  const joined = partsBy(bound, "join");
  const items = joined?.one("items");
  const loop = items && unconverted(items);
  if (loop?.kind !== "control" || loop.control.form !== "each") return undefined;
  const [list, text] = loop.children;
  const numbers = partsBy(list, "series");
  const [count, separator] = [numbers?.one("last"), constantOf(joined?.one("separator")) ?? ""];
  if (!joined || !count || !isNumber(numbers?.one("first"), 1) || separator !== "") return undefined;
  if (loop.control.variables.some((variable) => dependsOn(text, variable))) return undefined;
  const own = { negativeCount: "empty", fraction: "refused", tooLong: "error" };
  return comesTo(bound, "repeat", { ...own, missing: joined.answers.missing }, { text, count });
};

/** measure(what stands before d) + 1 */
const positionBySize: Job = (bound) => {
  const sum = partsBy(bound, "calculate");
  const measured = partsBy(sum?.one("a"), "measure");
  const cut = partsBy(measured?.one("text"), "segment");
  if (!sum || !measured || cut?.answers.part !== "before" || constantOf(sum.one("sign")) !== "+" || !isNumber(sum.one("b"), 1))
    return undefined;
  const [text, needle] = [cut.one("text"), cut.one("delimiter")];
  if (!text || !needle || cut.answers.absent !== "empty") return undefined;
  const own = { first: "1", pattern: "literal", absent: "first", startBelow: "nowhere", fraction: "refused" };
  const { missing, case: letterCase, emptyNeedle } = cut.answers;
  return comesTo(
    bound,
    "locate",
    { ...own, missing, emptyNeedle, case: letterCase, unit: measured.answers.counted },
    { text, needle },
  );
};

/** The item of a list by its place, written as a function or as a filter. */
function itemOf(bound: Bound): { list: Bound; place: Bound } | undefined {
  const item = partsBy(bound, "item");
  const [list, place] = [item?.one("list"), item?.one("position")];
  if (list && place) return { list, place };
  if (bound.kind !== "control" || bound.control.form !== "filter") return undefined;
  const [filtered, predicate] = bound.children;
  return typeof constantOf(predicate) === "number" ? { list: filtered, place: predicate } : undefined;
}

/** item(split(x, d), n) */
const pieceOfList: Job = (bound) => {
  const item = itemOf(bound);
  const split = partsBy(item?.list, "split");
  const [text, delimiter] = [split?.one("text"), split?.one("delimiter")];
  const mark = constantOf(delimiter);
  if (!item || !split || !text || !delimiter || typeof mark !== "string") return undefined;
  if (split.answers.pattern !== "literal" && /[\\^$.*+?()[\]{}|]/.test(mark)) return undefined;
  const { missing, case: letterCase } = split.answers;
  const own = { ...segmented, part: "nth", absent: "whole", noPiece: "null", case: letterCase };
  return comesTo(bound, "segment", { ...own, missing }, { text, delimiter, n: item.place });
};

/** segment(segment(x, d, through n), d, through -1) */
const pieceOfPieces: Job = (bound) => {
  const outer = partsBy(bound, "segment");
  const inner = partsBy(outer?.one("text"), "segment");
  if (!outer || !inner || outer.answers.part !== "through nth" || inner.answers.part !== "through nth") return undefined;
  const [text, delimiter, n] = [inner.one("text"), outer.one("delimiter"), inner.one("n")];
  if (!text || !delimiter || !n || !isNumber(outer.one("n"), -1) || !isSame(delimiter, inner.one("delimiter"))) return undefined;
  return comesTo(bound, "segment", { ...outer.answers, part: "nth", noPiece: "last" }, { text, delimiter, n });
};

/** Whether locate(x, d) is a number, or above 0. */
const found: Job = (bound) => {
  const asked = partsBy(bound, "is");
  const compared = partsBy(bound, "compare");
  const isAbove = constantOf(compared?.one("relation")) === ">" && isNumber(compared?.one("b"), 0);
  const located = partsBy(constantOf(asked?.one("what")) === "number" ? asked?.one("value") : compared?.one("a"), "locate");
  const [text, needle] = [located?.one("text"), located?.one("needle")];
  if (!located || !text || !needle || located.one("start") || !(asked || isAbove)) return undefined;
  const { pattern, case: letterCase, missing } = located.answers;
  const truth = (asked ?? compared)!.answers.truth;
  return comesTo(bound, "test", { missing, pattern, case: letterCase, where: "anywhere", truth }, { text, needle });
};

/** A pattern of LIKE that is a text with % at its ends. */
const likeText: Job = (bound) => {
  const tested = partsBy(bound, "test");
  const [text, escape, pattern] = [tested?.one("text"), tested?.one("flags"), constantOf(tested?.one("needle"))];
  const [, before, needle, behind] = (typeof pattern === "string" && /^(%?)([^%_\\]+)(%?)$/.exec(pattern)) || [];
  if (!tested?.answers.pattern.startsWith("like") || !text || needle === undefined) return undefined;
  // Another escape character than a backslash may stand in the text.
  if (escape && !["", "\\"].includes(String(constantOf(escape)))) return undefined;
  const where = before ? (behind ? "anywhere" : "end") : behind ? "start" : "whole";
  return comesTo(
    bound,
    "test",
    { ...tested.answers, pattern: "literal", where },
    { text, needle: implied(needle, "text", bound) },
  );
};

/** slice(x, 1, size of d) = d, or the same from the end */
const cutIs: Job = (bound) => {
  const compared = partsBy(bound, "compare");
  const sliced = partsBy(compared?.one("a"), "slice");
  const [text, needle] = [sliced?.one("text"), constantOf(compared?.one("b"))];
  if (!compared || !sliced || !text || typeof needle !== "string" || constantOf(compared.one("relation")) !== "=")
    return undefined;
  if (!isNumber(sliced.one("start"), 1) || !isNumber(sliced.one("length"), [...needle].length)) return undefined;
  const { case: letterCase, truth } = compared.answers;
  const own = { pattern: "literal", where: sliced.answers.from, missing: sliced.answers.missing };
  return comesTo(bound, "test", { ...own, case: letterCase, truth }, { text, needle: implied(needle, "text", bound) });
};

/** substitute of the first place, said by a number. */
const firstPlace: Job = (bound) => {
  const changed = partsBy(bound, "substitute");
  if (!changed || !isNumber(changed.one("which"), 1)) return undefined;
  const given = ["text", "old", "new", "flags"].flatMap((name) => {
    const part = changed.one(name);
    return part ? [[name, part] as const] : [];
  });
  return comesTo(bound, "substitute", { ...changed.answers, occurrences: "first" }, Object.fromEntries(given));
};

/** join with a slot that says that empty texts are left out. */
const joinedFilled: Job = (bound) => {
  const joined = partsBy(bound, "join");
  if (!joined || constantOf(joined.one("skipEmpty")) !== true) return undefined;
  const separator = joined.one("separator");
  const given = { items: joined.many("items"), ...(separator && { separator }) };
  return comesTo(bound, "join", { ...joined.answers, emptyItem: "skipped" }, given);
};

const borders = step("units-between", { missing: "null", unitsBetween: "borders" });
const wholeOnes = step("units-between", { missing: "null", unitsBetween: "whole ones" });

/** The year of one date less that of another. */
const yearsApart: Job = (bound) => {
  const less = partsBy(bound, "calculate");
  const [later, earlier] = [less?.one("a"), less?.one("b")].map((part) => {
    const field = partsBy(part, "calendar-field");
    return field?.fixed.field === "year" ? field.one("date") : undefined;
  });
  if (!less || constantOf(less.one("sign")) !== "-" || !later || !earlier) return undefined;
  return stepAt(bound, borders, { unit: implied("year", "text", bound), from: earlier, to: later });
};

/** The whole years of what lies between two dates. */
const wholeYears: Job = (bound) => {
  const field = partsBy(bound, "interval-field");
  const between = partsBy(field?.one("interval"), "interval-between");
  const [later, earlier] = [between?.one("later"), between?.one("earlier")];
  if (constantOf(field?.one("field")) !== "year" || between?.fixed.parts !== "years, months and days" || !later || !earlier)
    return undefined;
  return stepAt(bound, wholeOnes, { unit: implied("year", "text", bound), from: earlier, to: later });
};

const isoDate = step(
  "moment-of",
  { missing: "null", dateForms: "ISO 8601", clockOfDate: "left out", notADate: "error" },
  { wanted: "date", from: "text" },
);

/** A date of a type of its own, read as the text that it is. */
const typedDate: Job = (bound) => {
  const read = partsBy(bound, "typed-moment");
  const value = read?.one("value");
  if (bound.kind !== "operation" || bound.fixed.type !== "date" || !value) return undefined;
  return stepAt(bound, isoDate, { value });
};

/** Which way rounding cuts a quotient. */
const cuts: Answered = { down: "down", up: "up", "toward zero": "toward zero" };

/** a / b in whole numbers, by a sign of its own or by rounding the quotient */
const dividedToWhole: Job = (bound) => {
  const rounded = partsBy(bound, "round");
  const cut = rounded ? cuts[rounded.answers.direction] : "toward zero";
  const quotient = rounded
    ? partsBy(rounded.one("number"), "calculate")
    : bound.kind === "operation" && partsBy(bound, "calculate");
  if (!quotient || cut === undefined || rounded?.one("digits")) return undefined;
  const sign = constantOf(quotient.one("sign"));
  const isWhole = sign === "idiv" || (sign === "/" && (rounded !== undefined || quotient.answers.quotient === "integer"));
  const [a, b] = [quotient.one("a"), quotient.one("b")];
  return isWhole && a && b ? comesTo(bound, "whole-quotient", { wholeQuotient: cut }, { a, b }) : undefined;
};

const jobs: readonly Job[] = [
  dividedToWhole,
  ofCode,
  typedDate,
  movedLater,
  yearsApart,
  wholeYears,
  before,
  after,
  capitalised,
  filled,
  cutFromFill,
  repeatedByLoop,
  positionBySize,
  pieceOfList,
  pieceOfPieces,
  found,
  likeText,
  cutIs,
  firstPlace,
  joinedFilled,
];

/** The operations that a part comes to by what it is made of, beside its own. */
export function jobsOf(bound: Bound): readonly (Bound & BoundOperation)[] {
  const found = known.get(bound);
  if (found) return found;
  // While its jobs are looked for it is only what is written.
  known.set(bound, []);
  const own = jobs.flatMap((job) => job(bound) ?? []);
  known.set(bound, own);
  return own;
}

const known = new WeakMap<Bound, readonly (Bound & BoundOperation)[]>();
