import type { Value } from "../values/index.ts";
import { any, kept, operation } from "./operation.ts";

/** The value as it is: what a plus sign, COLLATE and hints to a planner do to it. */
export const itself = operation({
  id: "itself",
  family: "logic",
  result: "given",
  summary: "gives the value itself",
  slots: [kept(any("value"))],
  traits: [],
  prepare() {
    return (value: Value = null): Value => value;
  },
});
