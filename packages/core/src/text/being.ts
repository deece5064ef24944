import { type Value, isFailure, isNumeric } from "../values/index.ts";
import { any, failing, kept, operation, settled, truthBy } from "./operation.ts";

const tests: Readonly<Record<string, (value: Value) => boolean>> = {
  missing: (value) => value === null,
  present: (value) => value !== null,
  true: (value) => value === true,
  false: (value) => value === false,
  "without items": (value) => Array.isArray(value) && value.length === 0,
  "with items": (value) => Array.isArray(value) && value.length > 0,
};

const isNotAvailable = (value: Value): boolean => isFailure(value) && value.standard === "#N/A";

/** The same of values that may have failed: what fails is of no kind. */
const testsOfAll: Readonly<Record<string, (value: Value) => boolean>> = {
  failing: isFailure,
  "not available": isNotAvailable,
  "failing otherwise": (value) => isFailure(value) && !isNotAvailable(value),
  blank: (value) => value === null,
  text: (value) => typeof value === "string",
  "no text": (value) => typeof value !== "string",
  number: isNumeric,
  boolean: (value) => typeof value === "boolean",
};

/** Tells whether a value is missing, present, of a kind, or failing; the answer itself is never missing. */
export const is = operation({
  id: "is",
  family: "logic",
  summary: "tells whether a value is missing, present, of a kind, or failing",
  slots: [failing(kept(any("value"))), settled("what", [...Object.keys(tests), ...Object.keys(testsOfAll)])],
  traits: ["truth"],
  prepare({ truth }, { what }) {
    const given = truthBy(truth);
    const ofAll = testsOfAll[what as string];
    if (ofAll) return (value: Value = null): Value => given(ofAll(value));
    const holds = tests[what as string];
    return (value: Value = null): Value => (isFailure(value) ? value : given(holds(value)));
  },
});
