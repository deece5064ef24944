import { type BoundOperation, type Program, type Sample, type Value } from "indigo-quill";
import { withAnswers } from "indigo-quill/contrast";
import { dialects, isPure } from "indigo-quill/dialects";
import { operationOf } from "indigo-quill/text";
import type { TraitId } from "indigo-quill/traits";
import { pick } from "./random.ts";

/** For each operation and trait every answer that some dialect gives. */
function answersGiven(): ReadonlyMap<string, readonly string[]> {
  const given = new Map<string, Set<string>>();
  for (const row of Object.values(dialects).flatMap((make) => make().rows.filter(isPure)))
    for (const [trait, answer] of Object.entries(row.answers)) {
      const key = `${row.operation} ${trait}`;
      given.set(key, (given.get(key) ?? new Set()).add(answer));
    }
  return new Map([...given].map(([key, answers]) => [key, [...answers]]));
}

/** UTF-16 units of a text, or a number, that is tried again; what other answers cost on more is no fault of the expression. */
const longest = 100_000;

let given: ReadonlyMap<string, readonly string[]> | undefined;

/**
 * Carries out every operation of a row again with answers of other dialects, as a contrast does to find a cause.
 * @throws what a kernel throws on values that its own dialect never gives it
 */
export function stepsAgain(program: Program, sample: Sample, next: () => number): void {
  given ??= answersGiven();
  const steps: { bound: BoundOperation; slots: (Value | undefined)[] }[] = [];
  program.runRow(sample, 0, (_, __, bound, slots) => {
    if (bound.kind === "operation" && slots)
      steps.push({ bound, slots: slots.map((slot, i) => (bound.inputs[i] === undefined ? undefined : slot)) });
  });
  for (const { bound, slots } of steps) {
    if (slots.some((slot) => (typeof slot === "string" ? slot.length : Number(slot)) > longest)) continue;
    const { traits } = operationOf(bound.operation);
    const answers: Record<string, string> = { ...bound.answers };
    for (let i = 0; i < 3 && traits.length > 0; i++) {
      const trait: TraitId = pick(next, traits);
      answers[trait] = pick(next, given.get(`${bound.operation} ${trait}`) ?? [answers[trait]]);
      const value: Value | undefined = withAnswers(bound, slots, answers);
      if (value === undefined || Number.isNaN(value))
        throw new Error(`${bound.operation} with ${JSON.stringify(answers)} gives ${String(value)}`);
    }
  }
}
