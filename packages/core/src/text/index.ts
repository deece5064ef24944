import { calculate } from "./calculate.ts";
import { escape, normalize } from "./escape.ts";
import { reverse, segment, slice } from "./extract.ts";
import { likeness } from "./likeness.ts";
import { find, locate, test } from "./locate.ts";
import { charOf, codeOf, compare, measure } from "./measure-test.ts";
import type { Operation } from "./operation.ts";
import { pad, repeat } from "./pad.ts";
import { recase } from "./recase.ts";
import { join, split } from "./split-join.ts";
import { replaceSpan, substitute, translate } from "./substitute.ts";
import { trim } from "./trim.ts";

export * from "./operation.ts";
export { placeTaken } from "./taken.ts";

/** Every operation, by its identifier. */
export const operations = {
  slice,
  segment,
  reverse,
  locate,
  test,
  find,
  "replace-span": replaceSpan,
  substitute,
  translate,
  escape,
  recase,
  normalize,
  trim,
  measure,
  "code-of": codeOf,
  "char-of": charOf,
  compare,
  likeness,
  join,
  split,
  repeat,
  pad,
  calculate,
} as const;

export type OperationId = keyof typeof operations;

/** The traits that an operation asks. */
export type TraitsOf<O extends OperationId> = (typeof operations)[O]["traits"][number];

/** An operation by its identifier, seen without its particular traits. */
export const operationOf = (id: OperationId): Operation => operations[id];
