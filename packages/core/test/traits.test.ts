import { describe, expect, test } from "@jest/globals";
import { answersTried, examplesOfAnswers } from "indigo-quill/authoring";
import { type Dialect, dialects, isPure, stepsOf } from "indigo-quill/dialects";
import { type OperationId, operationOf, operations } from "indigo-quill/text";
import { type TraitId, describeTrait, traits } from "indigo-quill/traits";

/** What a dialect does by an operation with answers, with a function or without one. */
const allStepsOf = (dialect: Dialect) => [...dialect.rows.filter(isPure), ...stepsOf(dialect)];

/** The questions that some operation asks. */
const asked: ReadonlySet<TraitId> = new Set(Object.values(operations).flatMap(({ traits: own }): readonly TraitId[] => own));
const all = Object.values(dialects).map((make) => make());

describe.each((Object.keys(operations) as OperationId[]).filter((id) => operationOf(id).traits.length > 0))("%s", (id) => {
  test.each([...operationOf(id).traits])("%s changes a result", (trait) => {
    const values = [...answersTried(id, trait, all)].map((tried) => new Set(tried.shown).size);
    expect(Math.max(...values)).toBeGreaterThan(1);
  });
});

test.each((Object.keys(traits) as TraitId[]).filter((trait) => asked.has(trait)))(
  "%s: each answer has an example of what another one makes of it",
  (trait) => {
    expect(Object.keys(examplesOfAnswers(trait, all))).toEqual(Object.keys(describeTrait(trait).answers));
  },
);

test("every answer is one of its trait's", () => {
  for (const make of Object.values(dialects)) {
    for (const row of allStepsOf(make())) {
      expect(Object.keys(row.answers).sort()).toEqual([...operationOf(row.operation).traits].sort());
      for (const [trait, answer] of Object.entries(row.answers))
        expect(Object.keys(describeTrait(trait as TraitId).answers)).toContain(answer);
    }
  }
});

test("every parameter of a pure row fills a slot of its operation", () => {
  for (const make of Object.values(dialects)) {
    for (const row of make().rows.filter(isPure)) {
      const slots = operationOf(row.operation).slots.map(({ name }) => name);
      for (const { slot } of row.parameters) expect(slots).toContain(slot);
      for (const slot of Object.keys(row.fixed ?? {})) expect(slots).toContain(slot);
    }
  }
});

test.each(Object.keys(dialects))("%s: each function says in which document it stands", (id) => {
  expect(
    dialects[id]()
      .rows.filter(({ evidence }) => !/^[A-Za-z]/.test(evidence))
      .map(({ name }) => name),
  ).toEqual([]);
});
