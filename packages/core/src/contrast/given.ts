import { type Bound, unconverted } from "../evaluate/index.ts";
import { operationOf } from "../text/index.ts";
import { type Value, isList } from "../values/index.ts";
import type { BoundStep } from "./answers.ts";
import { kindOfOutcome } from "./equal.ts";
import { type Given, type Parting, alike, isBehaviour, isByChance, isSameFailure, partingAt } from "./parting.ts";
import { type Evaluated, type Step, differing, inKindOf } from "./swap.ts";
import { wholeParting } from "./whole.ts";
import type { Type } from "../dialects/types.ts";

type Sides = readonly [Evaluated, Evaluated];

/** An experiment on both sides: what is changed in each, and what tells it from others where it is the same on every row. */
interface Exchange {
  readonly changes: readonly [ReadonlyMap<Bound, Bound>, ReadonlyMap<Bound, Bound>];
  readonly name: string | undefined;
}

/** The sides of which the result is the other's with an exchange, not by chance; what is another on every row has to hold both ways. */
function waysOf(sides: Sides, { changes, name }: Exchange): readonly (0 | 1)[] {
  const ways = ([0, 1] as const).filter((side) => {
    const [own, other] = [sides[side], sides[1 - side]];
    const came = own.runWith(changes[side], name);
    if (!alike(came, other.value) || !isSameFailure(came, other.value)) return false;
    return name === undefined || !isByChance(own, other, changes[side], name);
  });
  return name === undefined && ways.length < 2 ? [] : ways;
}

const causes: Parting["causes"] = [[{ trait: "isGiven", answers: ["one", "another"] }]];

const toldBy = (sides: Sides, { changes, name }: Exchange, [side, other]: readonly (0 | 1)[]) => ({
  causes,
  ...(other === undefined && { oneWay: side }),
  side,
  replay: () => sides[side].runWith(changes[side], name),
});

/** Whether a part is a literal, which is the same on every row. */
const isLiteral = (part: Bound): boolean => unconverted(part).kind === "constant";

/** Whether a part is a literal, a column, or a sum of these. */
function isPlain(part: Bound): boolean {
  const bare = unconverted(part);
  if (bare.kind === "operation" && bare.operation === "calculate")
    return bare.inputs.flat().every((input) => input === undefined || unconverted(input).kind !== "operation");
  return isLiteral(bare) || bare.kind === "column";
}

/** Whether all that stands in a slot is so. */
const isWritten = ({ bound: { inputs } }: Step, slot: number, isSo: (part: Bound) => boolean): boolean =>
  [inputs[slot] ?? []].flat().every(isSo);

/** Whether two lists have an item in common. */
const shareItem = (own: Value | undefined, other: Value | undefined): boolean =>
  own !== undefined &&
  other !== undefined &&
  isList(own) &&
  isList(other) &&
  own.some((item) => other.some((each) => alike(item, each)));

/** The slots in which two steps of one operation are given other values, where they are given the same in some. */
function givenOtherwise(a: Step, b: Step, isSo: (part: Bound) => boolean): Given[] {
  if (a.bound.implicit || b.bound.implicit) return [];
  if (a.node !== a.bound || b.node !== b.bound || a.bound.operation !== b.bound.operation) return [];
  const differ = differing(a, b);
  // What is for something else is given other values for that.
  if (!differ.every((trait) => isBehaviour(trait, a, b))) return [];
  const filled = operationOf(a.bound.operation).slots.flatMap((slot, place) => {
    const [own, other] = [a, b].map(({ bound, slots }) => bound.fixed[slot.name] ?? slots[place]);
    const values = [own, other] as const;
    // What was not needed on this row may be anything.
    const isUnread = [a, b].some(({ bound }, side) => values[side] === undefined && bound.inputs[place] !== undefined);
    return isUnread || (values[0] === undefined && values[1] === undefined) ? [] : [{ ...slot, place, values }];
  });
  const isSame = ([own, other]: Given["values"]) => own !== undefined && other !== undefined && alike(own, other);
  const others = filled.filter(({ values }) => !isSame(values));
  if (others.length === filled.length && !others.some(({ values: [own, other] }) => shareItem(own, other))) return [];
  // What each side writes in its own language may read differently, and mean the same.
  const isTold = others.every(
    ({ place, writtenBy }) =>
      (writtenBy === undefined || !differ.includes(writtenBy)) && isWritten(a, place, isSo) && isWritten(b, place, isSo),
  );
  return isTold ? others.map(({ name, place, values }) => ({ name, place, values })) : [];
}

/** A step with what the step of the other side is given in some slots. */
function givenAs({ node, bound, slots }: Step, given: readonly Given[], other: 0 | 1): ReadonlyMap<Bound, Bound> {
  const inputs = [...bound.inputs];
  const fixed = { ...bound.fixed };
  for (const { name, place, values } of given) {
    const [own, value] = [bound.inputs[place], values[other]];
    const written = (put: Value, type: Type): Bound => ({ ...constantOf(put), type, source: node.source });
    const type = own && "kind" in own ? own.type : node.type;
    if (value !== undefined && Object.hasOwn(fixed, name)) fixed[name] = value;
    if (value === undefined) inputs[place] = undefined;
    else if (own && !("kind" in own) && isList(value)) inputs[place] = value.map((item) => written(item, own[0]?.type ?? type));
    else inputs[place] = written(inKindOf(value, slots[place] ?? null), type);
  }
  return new Map<Bound, Bound>([[node, { ...(node as BoundStep), inputs, fixed }]]);
}

/** Where two steps do the same and are given other values, in as few slots as can be: each with the other's gives the other's result. */
function givenParting(left: Evaluated, right: Evaluated, isFixed: boolean): Parting | undefined {
  const sides = [left, right] as const;
  const pairs = left.plainSteps.flatMap((a) =>
    right.plainSteps.flatMap((b) => {
      const given = givenOtherwise(a, b, isFixed ? isLiteral : isPlain);
      return given.length > 0 ? [{ a, b, given }] : [];
    }),
  );
  for (const { a, b, given } of pairs.sort((x, y) => x.given.length - y.given.length)) {
    const exchange: Exchange = {
      changes: [givenAs(a, given, 1), givenAs(b, given, 0)],
      name: isFixed ? JSON.stringify(given.map(({ place, values }) => [place, values.map(String)])) : undefined,
    };
    const ways = waysOf(sides, exchange);
    if (ways.length > 0)
      return { ...partingAt(a, b), ...toldBy(sides, exchange, ways), reaches: "whole", experiment: { is: "given", given } };
  }
  return undefined;
}

const constantOf = (value: Value) => ({ kind: "constant", value }) as const;

/** Literals and columns of each side that are tried. */
const mostLeaves = 20;

/** Where one side writes a literal or a column and the other another: each with the other's gives the other's result. */
export function leafParting(left: Evaluated, right: Evaluated): Parting | undefined {
  const sides = [left, right] as const;
  const isLeaf = ({ kind, source }: Bound) => kind === "column" || (kind === "constant" && source.kind === "literal");
  const [own, others] = sides.map(({ parts }) => parts.filter(({ node }) => isLeaf(node)).slice(0, mostLeaves));
  for (const a of own) {
    for (const b of others) {
      if (a.node.kind !== b.node.kind || kindOfOutcome(a.value) !== kindOfOutcome(b.value) || alike(a.value, b.value)) continue;
      const put = (part: typeof a, other: typeof a): ReadonlyMap<Bound, Bound> =>
        new Map<Bound, Bound>([[part.node, { ...constantOf(other.value), type: part.node.type, source: part.node.source }]]);
      const exchange: Exchange = {
        changes: [put(a, b), put(b, a)],
        name: a.node.kind === "column" ? undefined : JSON.stringify(["literals", String(a.value), String(b.value)]),
      };
      const ways = waysOf(sides, exchange);
      // One alone may come to the other's result whatever is done to it.
      if (ways.length < 2) continue;
      const given = [{ name: "", place: 0, values: [a.value, b.value] }] as const;
      const told = toldBy(sides, exchange, ways);
      const whole = wholeParting(left, right, {}, "isGiven", ["one", "another"], told.side, { is: "given", given }, told.replay);
      const { oneWay: _, ...parting } = whole;
      return { ...parting, ranges: [a.node.source.range, b.node.source.range] };
    }
  }
  return undefined;
}

/** Where literals differ in a step: a length of 5 on one side, of 4 on the other. */
export const writtenParting = (left: Evaluated, right: Evaluated): Parting | undefined => givenParting(left, right, true);
/** Where columns, and sums with them, do. */
export const columnsParting = (left: Evaluated, right: Evaluated): Parting | undefined => givenParting(left, right, false);
