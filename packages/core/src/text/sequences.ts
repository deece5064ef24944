import type { AnswerOf } from "../traits/index.ts";
import { ArrayItem, type Value, atomOf, atoms, isFailure, isList, itemsOf, sequenceOf } from "../values/index.ts";
import { any, kept, operation, settled } from "./operation.ts";

const ones: Readonly<Record<AnswerOf<"several">, (value: Value) => Value>> = {
  "the first": (value) => (isList(value) ? (value[0] ?? null) : value),
  error: atomOf,
};

/** The one value that a list stands for where one is wanted. */
export const oneItem = operation({
  id: "one-item",
  family: "list",
  result: "given",
  summary: "takes the one value that a list stands for",
  slots: [kept(any("value"))],
  traits: ["several"],
  prepare({ several }) {
    const take = ones[several];
    return (value: Value = null): Value => take(value);
  },
});

/** What a value is taken apart into. */
const parts: Readonly<Record<string, (value: Value) => Value>> = {
  items: itemsOf,
  atoms,
  "atomic sequence": (value) => {
    if (typeof value !== "object") return value;
    const items = atoms(value);
    return isFailure(items) ? items : sequenceOf(items);
  },
  sequence: (value) => (isList(value) ? sequenceOf(value) : value),
  array: (value) => (isList(value) ? new ArrayItem(value) : value),
  members: (value) => (value instanceof ArrayItem ? value.members : value),
};

/** The items of a sequence, its atomic items (F&O 3.1, 2.4), or the members of an array. */
export const itemsIn = operation({
  id: "items-in",
  family: "list",
  result: "given",
  summary: "takes a value apart into its items",
  slots: [kept(any("value")), settled("wanted", Object.keys(parts))],
  traits: [],
  prepare(_answers, { wanted }) {
    const take = parts[wanted as string];
    return (value: Value = null): Value => take(value);
  },
});
