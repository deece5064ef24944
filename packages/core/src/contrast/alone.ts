import { type Bound, unconverted } from "../evaluate/index.ts";
import { type OperationId, operationOf } from "../text/index.ts";
import type { TraitId } from "../traits/index.ts";
import { type TextRange, type Value, isFailure } from "../values/index.ts";
import { type BoundStep, type OtherAnswer, instead, othersTo } from "./answers.ts";
import { kindOfOutcome } from "./equal.ts";
import { type Parting, alike, isBehaviour, isByChance, nameOf } from "./parting.ts";
import { type Cells, type Evaluated, type Step, withAnswers } from "./swap.ts";
import { askedOf, isEqual, wholeParting } from "./whole.ts";

/** Operations whose result is what they are given, changed: one side may have such a step and the other none. */
const changing: ReadonlySet<OperationId> = new Set<OperationId>([
  "trim",
  "recase",
  "normalize",
  "fit",
  "pad",
  "round",
  "substitute",
  "translate",
  "reverse",
  "escape",
  "replace-span",
]);

/** Those whose result is another value of the same kind. */
const turning: ReadonlySet<OperationId> = new Set<OperationId>(["calculate", "not"]);

/** What is done to a value without being asked; a side that does not do so may refuse it. */
const converting: ReadonlySet<OperationId> = new Set<OperationId>([
  "number-of",
  "text-of",
  "truth-of",
  "moment-of",
  "typed-moment",
]);

const reading: ReadonlySet<OperationId> = new Set<OperationId>(["moment-of", "typed-moment"]);

/** A step of one side, of which the other has no like, with what it does. */
function partingAlone(
  left: Evaluated,
  right: Evaluated,
  side: 0 | 1,
  step: Step,
  [trait, own, other]: readonly [TraitId, string, string],
  replayed: 0 | 1,
  is: "without" | "converted" | "as if",
  replay: () => Value,
): Parting {
  const name = nameOf(step);
  const ranges: [TextRange, TextRange] = [left.root.source.range, right.root.source.range];
  ranges[side] = step.range;
  const inputs = operationOf(step.bound.operation).slots.flatMap(({ name: slot, settled }, i): [string, Value][] => {
    const value = step.slots[i];
    return value === undefined || settled ? [] : [[slot, value]];
  });
  return {
    ...wholeParting(
      left,
      right,
      Object.fromEntries(inputs),
      trait,
      side === 0 ? [own, other] : [other, own],
      replayed,
      { is },
      replay,
    ),
    operation: step.bound.operation,
    ranges,
    functions: side === 0 ? [name, "the whole"] : ["the whole", name],
    alone: side,
  };
}

/** Where one side has such a step more: without it it gives what the other gives, and that holds by chance for no row. */
const without =
  (operations: ReadonlySet<OperationId>, holdsByChance: typeof isByChance) =>
  (left: Evaluated, right: Evaluated): Parting | undefined => {
    const sides = [left, right] as const;
    for (const side of [0, 1] as const) {
      const [own, other] = [sides[side], sides[1 - side]];
      for (const step of own.steps) {
        const { node, bound } = step;
        const [input] = bound.inputs;
        if (node !== bound || !operations.has(bound.operation) || !input || !("kind" in input)) continue;
        const changes = new Map([[node, input]]);
        if (!isEqual(own.runWith(changes, "without"), other.value)) continue;
        if (holdsByChance(own, other, changes, "without")) continue;
        const replay = () => own.runWith(changes, "without");
        return partingAlone(left, right, side, step, ["isDone", "done", "not done"], side, "without", replay);
      }
    }
    return undefined;
  };

export const withoutParting = without(changing, isByChance);

/** Whether both sides agree on all rows around without a step. */
const agreesAround: typeof isByChance = (own, other, changes, name) =>
  own.asked(other, changes, `agree with ${name}`, () =>
    own.around.every((cells) => isEqual(own.runWith(changes, name, cells), other.on(cells))),
  );

/** The same of a sum or of `not`, after which both have to agree on all rows around. */
export const withoutTurning = without(turning, (...tried) => !agreesAround(...tried));

/** Whether one of the parts that are changed is the whole, or what is chosen as the whole. */
function isWhole(part: Bound, changes: ReadonlyMap<Bound, Bound>): boolean {
  const bare = unconverted(part);
  return changes.has(bare) || (bare.kind === "control" && bare.children.some((child) => isWhole(child, changes)));
}

/** The same of one that is the whole: further in it may hold by chance where two dialects go about it in other ways. */
export const withoutTurningWhole = without(
  turning,
  (own, other, changes, name) => !isWhole(own.root, changes) || !agreesAround(own, other, changes, name),
);

/** Where one side converts a value that the other takes as it is: with what comes of that it gives what the one gives. */
export function convertedParting(left: Evaluated, right: Evaluated): Parting | undefined {
  const sides = [left, right] as const;
  for (const side of [0, 1] as const) {
    const [own, other] = [sides[side], sides[1 - side]];
    for (const step of own.steps) {
      const [given] = step.slots;
      if (!converting.has(step.bound.operation) || given === undefined) continue;
      // A date that is read is a text, too.
      if (kindOfOutcome(given) === kindOfOutcome(step.value) && (alike(given, step.value) || !reading.has(step.bound.operation)))
        continue;
      // What fails elsewhere may fail on any value, and with another may not.
      if (!isFailure(step.value) && (isFailure(own.value) || isFailure(other.value))) continue;
      // The other does it, too, in its way.
      if (other.steps.some(({ bound, slots }) => bound.operation === step.bound.operation && isGivenAlike(slots[0], given)))
        continue;
      for (const { node, value } of other.parts) {
        if (!alike(value, given) || !isEqual(other.put(node, step.value), own.value)) continue;
        const replay = () => other.put(node, step.value);
        return partingAlone(left, right, side, step, ["isDone", "done", "not done"], side === 0 ? 1 : 0, "converted", replay);
      }
    }
  }
  return undefined;
}

const isGivenAlike = (a: Value | undefined, b: Value): boolean => a !== undefined && alike(a, b);

/** Values on which another answer is held to the other side, by the kind of a column's value. */
const probes = {
  text: ["", "ab", "Cd e7", "12", " 12 ", "-1.5", "12abc", "a,b;c", "Aei Ou", "(a) b-c d", "e\u0301\u00e9\ud83d\ude00bcdefg"],
  number: [0, 1, 2, 3, 7, -1, -2, 1000],
};

/** An answer that a step of a side might give instead of its own. */
interface Instead extends OtherAnswer {
  readonly side: 0 | 1;
  readonly step: Step;
}

/** Other answers that were found on the rows before, and on how many rows none was. */
export interface KnownInstead {
  readonly instead: Instead[];
  missed: number;
}

/** Rows of two sides on which no other answer was found, after which none is looked for. */
const mostMisses = 12;

/** What a side gives with another answer in a step of it. */
const runOf = (sides: readonly [Evaluated, Evaluated], other: Instead, cells?: Cells): Value =>
  sides[other.side].runWith(instead(other.step.node as BoundStep, other), `${other.trait}=${other.answer}`, cells);

const isSameOutput = (a: Value, b: Value): boolean => Object.is(a, b) || (isFailure(a) && isFailure(b) && a.code === b.code);

/** Whether a step gives something else with another answer: where it does not, neither does the whole. */
function changesStep({ step: { bound, slots, value }, trait, answer }: Instead): boolean {
  // What comes of the first value alone is settled before the step is carried out.
  if (operationOf(bound.operation).settles) return true;
  return !isSameOutput(withAnswers(bound, slots, { ...bound.answers, [trait]: answer }), value);
}

/** Whether one side with another answer gives what the other gives. */
const isOther = (sides: readonly [Evaluated, Evaluated], other: Instead): boolean =>
  isEqual(runOf(sides, other), sides[1 - other.side].value);

function toldInstead(sides: readonly [Evaluated, Evaluated], found: Instead): Parting {
  const { side, step, trait, answer } = found;
  const replay = () => runOf(sides, found);
  return partingAlone(...sides, side, step, [trait, step.bound.answers[trait], answer], side, "as if", replay);
}

/** Another answer that was found on a row before, and makes one whole result the other on this one, too. */
export function asIfAgain(left: Evaluated, right: Evaluated, known: KnownInstead): Parting | undefined {
  const sides = [left, right] as const;
  for (const before of known.instead) {
    const step = sides[before.side].steps.find(({ node, bound }) => node === before.step.node && bound === before.step.bound);
    const again = step && { ...before, step };
    if (again && isOther(sides, again)) return toldInstead(sides, again);
  }
  return undefined;
}

/**
 * Where another answer in a step of one side makes its whole result the other's, which has no such step: the one that brings both
 * together on the most other values, too, and takes them apart on none.
 */
export function asIfParting(left: Evaluated, right: Evaluated, known: KnownInstead): Parting | undefined {
  if (known.missed >= mostMisses) return undefined;
  const sides = [left, right] as const;
  const others = insteadOf(sides).filter((other) => changesStep(other) && isOther(sides, other));
  const rows = others.length === 0 ? [] : [...left.around, ...probesOf(left, right)];
  const values = rows.map((cells) => sides.map((side) => side.on(cells)));
  let best: Instead | undefined;
  let most = 0;
  for (const other of others) {
    const brought = rows.map((cells, row) => {
      const own = values[row];
      const [before, now] = [isEqual(own[0], own[1]), isEqual(runOf(sides, other, cells), own[1 - other.side])];
      return now ? Number(!before) : before ? -Infinity : 0;
    });
    const sum = brought.reduce((total, each) => total + each, 0);
    // Of equal ones that in the step nearest to the result, and of its answers the first.
    const isNearer = best === undefined || best.step !== other.step;
    if (sum > most || (sum > 0 && sum === most && isNearer)) [best, most] = [other, sum];
  }
  if (!best) {
    known.missed++;
    return undefined;
  }
  known.instead.push(best);
  return toldInstead(sides, best);
}

/** Every behaviour of the steps of both sides with each other answer. */
const insteadOf = (sides: readonly [Evaluated, Evaluated]): Instead[] =>
  ([0, 1] as const).flatMap((side) =>
    sides[side].steps.flatMap((step) => {
      if (step.node !== step.bound) return [];
      const traits = operationOf(step.bound.operation).traits.filter((trait) => isBehaviour(trait, step, step));
      return othersTo(step.bound, traits).map((other): Instead => ({ side, step, ...other }));
    }),
  );

/** Rows with another value in one of the columns that either side reads: such, too, in which what is written stands several times. */
function probesOf(left: Evaluated, right: Evaluated): Cells[] {
  const { columns, literals } = askedOf(left, right);
  const marked = literals
    .filter((mark) => mark !== "")
    .flatMap((mark) => [`ab${mark}C d${mark}7`, `x${mark}yz${mark}${mark}w${mark}`]);
  return [...columns].flatMap(([column, value]) => {
    const isNumber = typeof value === "number" || typeof value === "bigint";
    const own = isNumber ? probes.number : [...probes.text, ...marked];
    return own.map((probe): Cells => new Map<number, Value>([[column, probe]]));
  });
}
