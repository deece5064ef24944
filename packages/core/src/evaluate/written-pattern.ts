import { type Flavour, hasEscape, usualEscape } from "../patterns/index.ts";
import { operationOf } from "../text/index.ts";
import type { Answers } from "../traits/index.ts";
import type { TextRange } from "../values/index.ts";
import { type Bound, unconverted } from "./bound.ts";

/** A pattern that is written in an expression. */
export interface WrittenPattern {
  /** Where its literal stands. */
  readonly range: TextRange;
  readonly flavour: Flavour;
  readonly source: string;
  readonly flags: string;
  /** Where the part stands whose text it is tried on, where it is written. */
  readonly subject: TextRange | undefined;
}

/** The pattern that a step writes as a literal. */
export function writtenPattern(part: Bound): WrittenPattern | undefined {
  if (part.kind !== "operation") return undefined;
  const { slots } = operationOf(part.operation);
  const { pattern: flavour, case: letterCase } = part.answers as Partial<Answers>;
  if (flavour === undefined || flavour === "literal") return undefined;
  const inputFor = (name: string) => {
    const input = part.inputs[slots.findIndex((slot) => slot.name === name)];
    return input && "kind" in input ? unconverted(input) : undefined;
  };
  const place = slots.find(({ writtenBy }) => writtenBy === "pattern")?.name;
  const written = place === undefined ? undefined : inputFor(place);
  if (written?.kind !== "constant" || typeof written.value !== "string" || written.source.kind !== "literal") return undefined;
  const given = inputFor("flags");
  const letters = given?.kind === "constant" && typeof given.value === "string" ? given.value : undefined;
  const isFolded = letterCase !== undefined && letterCase !== "minded";
  const flags = hasEscape(flavour)
    ? (letters ?? usualEscape(flavour)) + (isFolded ? "~i" : "")
    : (letters ?? "").replaceAll("g", "") + (isFolded ? "i" : "");
  return { range: written.source.range, flavour, source: written.value, flags, subject: inputFor("text")?.source.range };
}
