import type { AnswerOf } from "../traits/index.ts";
import { Bytes, Decimal, Double, Failure, type Value, asciiTrimmed, isFailure, textOfBytes } from "../values/index.ts";
import { any, failing, kept, operation, settled, text, truthBy } from "./operation.ts";

type ReadTruth = (text: string) => boolean | null | undefined;

/** Whether a word is another or what it begins with; what two words begin with is none of them. */
const begins = (word: string, name: string): boolean => name.startsWith(word) && (word.length > 1 || word !== "o");

const textsBy: Readonly<Record<AnswerOf<"textTruth">, ReadTruth>> = {
  "true or false": (given) => ({ true: true, false: false })[given.toLowerCase()],
  "true, false or unknown": (given) => ({ true: true, false: false, unknown: null })[given.trim().toLowerCase()],
  "words and what they begin with": (given) => {
    const word = asciiTrimmed(given).toLowerCase();
    if (word === "") return undefined;
    if (["true", "yes", "on", "1"].some((name) => begins(word, name))) return true;
    return ["false", "no", "off", "0"].some((name) => begins(word, name)) ? false : undefined;
  },
  "words and letters": (given) => {
    const word = given.toLowerCase();
    if (["true", "t", "yes", "y", "1"].includes(word)) return true;
    return ["false", "f", "no", "n", "0"].includes(word) ? false : undefined;
  },
  "the number it begins with": (given) => {
    const [, digits] = /^[ \t\n\v\f\r]*[+-]?((?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d+)?)/i.exec(given) ?? [];
    return digits !== undefined && Number(digits) !== 0;
  },
};

/** A value as true or false: what a condition makes of it. */
export const truthOf = operation({
  id: "truth-of",
  family: "logic",
  summary: "takes a value for true or false",
  slots: [any("value")],
  traits: ["missing", "textTruth"],
  prepare({ textTruth }) {
    const read = textsBy[textTruth];
    const ofText = (given: string): Value =>
      read(given) ?? (read(given) === null ? null : new Failure("not-a-boolean", { text: given }));
    return (value: Value): Value => {
      switch (typeof value) {
        case "boolean":
          return value;
        case "number":
          return value !== 0;
        case "bigint":
          return value !== 0n;
        case "string":
          return ofText(value);
      }
      if (value === null) return false;
      if (value instanceof Double) return value.value !== 0;
      if (value instanceof Decimal) return !value.isZero;
      return value instanceof Bytes
        ? ofText(textOfBytes(value.bytes))
        : new Failure("not-a-boolean", { text: "another kind of value" });
    };
  },
});

/** The truth value that settles an AND or OR whatever the other side is. */
export const decisiveOf = (joiner: Value): boolean => joiner === "or";

/** Two conditions as one; `joiner` is `and`, `or` or `xor`. What is missing may be true or false. */
export const connect = operation({
  id: "connect",
  family: "logic",
  summary: "joins two conditions",
  slots: [failing(kept(any("a"))), failing(kept(any("b"))), settled(text("joiner"))],
  traits: ["truth", "evaluates", "inConditions", "constants"],
  prepare({ truth, evaluates }, { joiner }) {
    const given = truthBy(truth);
    if (joiner === "xor")
      return (a: Value = null, b: Value = null): Value =>
        isFailure(a) ? a : isFailure(b) ? b : a === null || b === null ? null : given((a === true) !== (b === true));
    const decisive = decisiveOf(joiner);
    const first = settledBy(evaluates, decisive);
    return (a: Value = null, b: Value = null): Value => {
      const early = first(a);
      if (early !== undefined) return typeof early === "boolean" ? given(early) : early;
      if (isFailure(b)) return b;
      if (evaluates === "rows left open") return typeof b === "boolean" ? given(b) : null;
      return a === decisive || b === decisive ? given(decisive) : a === null || b === null ? null : given(!decisive);
    };
  },
  settles({ truth, evaluates }, { joiner }) {
    if (joiner === "xor") return () => undefined;
    const given = truthBy(truth);
    const first = settledBy(evaluates, decisiveOf(joiner));
    return (a) => {
      const early = first(a);
      return typeof early === "boolean" ? given(early) : early;
    };
  },
});

/** What the first of two conditions comes to by itself; undefined where the second counts. */
function settledBy(evaluates: AnswerOf<"evaluates">, decisive: boolean): (a: Value) => Value | undefined {
  if (evaluates === "both") return (a) => (isFailure(a) ? a : undefined);
  if (evaluates === "left first") return (a) => (a === decisive || isFailure(a) ? a : undefined);
  return (a) => (isFailure(a) || (a === true) === decisive ? a : undefined);
}

/** The opposite of a truth value. */
export const not = operation({
  id: "not",
  family: "logic",
  summary: "gives the opposite of a truth value",
  slots: [any("value")],
  traits: ["missing", "truth"],
  prepare({ truth }) {
    const given = truthBy(truth);
    return (value: Value): Value => given(value !== true);
  },
});
