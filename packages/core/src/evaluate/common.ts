import { Decimal, type Value } from "../values/index.ts";
import { type Bound, partsOf } from "./bound.ts";

const numbers = new WeakMap<object, number>();
let last = 0;

/** A number for an object, the same whenever it is asked. */
function numberOf(object: object): number {
  const known = numbers.get(object) ?? ++last;
  numbers.set(object, known);
  return known;
}

function written(value: Value): string {
  if (value instanceof Decimal) return `decimal ${value.coefficient} ${value.scale}`;
  if (typeof value === "object" && value !== null) return `#${numberOf(value)}`;
  return `${typeof value} ${Object.is(value, -0) ? "-0" : String(value)}`;
}

/** What a part is, given the numbers of what it is made of; undefined for what is like no other. */
function nameOf(bound: Bound, parts: readonly number[]): string | undefined {
  switch (bound.kind) {
    case "constant":
      return `= ${written(bound.value)}`;
    case "column":
      return `column ${bound.column}`;
    case "operation": {
      const fixed = Object.entries(bound.fixed).map(([slot, value]) => `${slot} ${written(value)}`);
      const shape = bound.inputs.map((input) => (input === undefined ? "-" : "kind" in input ? "1" : input.length));
      return [bound.operation, numberOf(bound.answers), fixed.join(), shape.join(), parts.join()].join(" | ");
    }
  }
  return undefined;
}

/**
 * Parts of a tree that are the same wherever they stand, and stand in several places: of each, the first. Nothing is found
 * in what depends on variables, whose values change while a row is evaluated.
 */
export function commonParts(root: Bound): ReadonlyMap<Bound, Bound> {
  const numberOfPart = new Map<Bound, number>();
  const numberOfName = new Map<string, number>();
  const firsts: Bound[] = [];
  const places: number[] = [];
  function visit(bound: Bound): number {
    const known = numberOfPart.get(bound);
    if (known !== undefined) return known;
    const parts = partsOf(bound).map(visit);
    const name = nameOf(bound, parts);
    let number = name === undefined ? undefined : numberOfName.get(name);
    if (number === undefined) {
      number = firsts.push(bound) - 1;
      places.push(0);
      if (name !== undefined) numberOfName.set(name, number);
      for (const part of parts) places[part]++;
    }
    numberOfPart.set(bound, number);
    return number;
  }
  visit(root);
  const found = [...numberOfPart].filter(([{ kind }, number]) => kind === "operation" && places[number] > 1);
  return new Map(found.map(([bound, number]) => [bound, firsts[number]]));
}
