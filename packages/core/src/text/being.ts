import type { Value } from "../values/index.ts";
import { any, kept, operation, settled, truthBy } from "./operation.ts";

const tests: Readonly<Record<string, (value: Value) => boolean>> = {
  missing: (value) => value === null,
  present: (value) => value !== null,
  true: (value) => value === true,
  false: (value) => value === false,
};

/** Tells whether a value is missing, present, true or false; the answer itself is never missing. */
export const is = operation({
  id: "is",
  family: "logic",
  summary: "tells whether a value is missing, present, true or false",
  slots: [kept(any("value")), settled("what", Object.keys(tests))],
  traits: ["truth"],
  prepare({ truth }, { what }) {
    const given = truthBy(truth);
    const holds = tests[what as string];
    return (value: Value = null): Value => given(holds(value));
  },
});
