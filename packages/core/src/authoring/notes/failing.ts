import { type Diagnostic, message, placeWithin } from "../../diagnostics/index.ts";
import { type Program, otherReading } from "../../evaluate/index.ts";
import { type Expression, childrenOf, walk } from "../../syntax/index.ts";
import { type Failure, type TextRange, isFailure, sameRange } from "../../values/index.ts";
import { type Asked, note } from "./asked.ts";

/** Kinds of errors of which it is told what makes them. */
const most = 3;

/** Whether a part depends on no row. */
const isConstant = (node: Expression): boolean => {
  const parts = childrenOf(node);
  return node.kind === "literal" ? node.value !== null : parts.length > 0 && parts.every(isConstant);
};

/**
 * What is written that makes a failure, whatever row it is: a step of nothing but constants, or the text or the number of
 * which the failure speaks.
 */
function culprit({ tree, source }: Program, { range = tree.range, facts, code }: Failure): TextRange | undefined {
  const step = [...walk(tree)].find((node) => node.kind !== "group" && sameRange(node.range, range));
  if (!step) return undefined;
  const { offset, ...spoken } = facts;
  const isSpokenOf = (node: Expression): boolean => {
    const text = node.kind === "literal" ? String(node.value) : source.slice(node.range.start, node.range.end);
    return Object.entries(spoken).some(([name, fact]) =>
      name === "problem" ? String(fact).includes(`"${text}"`) : String(fact) === text,
    );
  };
  const meant = [...walk(step)].find((node) => isConstant(node) && isSpokenOf(node));
  if (meant?.kind === "literal" && typeof meant.value === "string" && typeof offset === "number")
    return placeWithin(source, meant.range, meant.value, offset);
  if (meant) return meant.range;
  if (isConstant(step)) return range;
  // Of these it is not said which part it is.
  const isMeant = (part: Expression): boolean =>
    code === "wrong-kind"
      ? part.kind === "literal" && typeof part.value === "string" && facts.given === "xs:string"
      : code === "division-by-zero" && isConstant(part) && part === childrenOf(step).at(-1);
  const meantBy = childrenOf(step).filter(isMeant);
  return meantBy.length === 1 ? meantBy[0].range : undefined;
}

/** Texts, patterns, numbers and whole steps that are an error wherever they are reached, each at its place, also within a pattern. */
export function alwaysFailing({ program, sample, values }: Asked): Diagnostic[] {
  const kinds = new Map<string, Failure>();
  for (const value of values)
    if (isFailure(value)) {
      const key = `${value.code} ${value.range?.start} ${JSON.stringify(Object.values(value.facts).map(String))}`;
      if (!kinds.has(key)) kinds.set(key, value);
      // Errors that differ from row to row are made by the rows.
      if (kinds.size > most) return [];
    }
  return [...kinds.values()].flatMap((failure): Diagnostic[] => {
    const range = culprit(program, failure);
    if (!range) return [];
    // Beside texts, numbers are meant as texts.
    const fix = failure.code === "not-a-number" ? otherReading(program, sample, { range }) : undefined;
    return [note("always-fails", range, { problem: message(failure) }, fix ? [fix] : [])];
  });
}
