import { step } from "../dialects/step.ts";
import { type OperationId, operationOf } from "../text/index.ts";
import { type Bound, type BoundOperation, dependsOn, unconverted } from "./bound.ts";
import { type Recognised, recognised } from "./idiom.ts";
import { idioms } from "./idioms.ts";
import { type Job, comesTo, constantOf, implied, isNumber, movedLater, ofCode, stepAt } from "./shapes.ts";

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

const counted = { missing: "null", first: "1", negativePosition: "nowhere", noItem: "null" };

/** The item of a list by its place, written as a filter. */
const itemByFilter: Job = (bound) => {
  if (bound.kind !== "control" || bound.control.form !== "filter") return undefined;
  const [list, position] = bound.children;
  return typeof constantOf(position) === "number" ? comesTo(bound, "item", counted, { list, position }) : undefined;
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

const jobs: readonly Recognised[] = [
  ofCode,
  typedDate,
  movedLater,
  yearsApart,
  wholeYears,
  repeatedByLoop,
  itemByFilter,
  // Those that are exact are so of others, which hold for more.
  ...idioms.filter(({ exact }) => !exact).map(recognised),
];

/** The operations that a part comes to by what it is made of, beside its own. */
export function jobsOf(bound: Bound): readonly (Bound & BoundOperation)[] {
  const found = known.get(bound);
  if (found) return found;
  // While its jobs are looked for it is what is written, and what was found so far.
  const own: (Bound & BoundOperation)[] = [];
  known.set(bound, own);
  for (const job of jobs) {
    const made = job(bound, jobsOf);
    if (made) own.push(made);
  }
  return own;
}

const known = new WeakMap<Bound, readonly (Bound & BoundOperation)[]>();
