import type { AnswerOf } from "../traits/index.ts";
import {
  Bytes,
  Decimal,
  Double,
  Failure,
  type Value,
  asciiTrimmed,
  isFailure,
  itemType,
  lookup,
  textOfBytes,
} from "../values/index.ts";
import { any, failing, kept, operation, settled, truthBy } from "./operation.ts";

type ReadTruth = (text: string) => boolean | null | undefined;

/** Whether a word is another or what it begins with; what two words begin with is none of them. */
const begins = (word: string, name: string): boolean => name.startsWith(word) && (word.length > 1 || word !== "o");

const truthWords: Readonly<Record<string, boolean | undefined>> = lookup({ true: true, false: false });

const textsBy: Readonly<Record<AnswerOf<"textTruth">, ReadTruth>> = {
  "true or false": (given) => truthWords[given.toLowerCase()],
  "true, false or unknown": (given) => {
    const word = given.trim().toLowerCase();
    return word === "unknown" ? null : truthWords[word];
  },
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
  "true, false, 1 or 0": (given) => exactTruth[given.trim()],
  "not empty": (given) => given !== "",
};

const exactTruth: Readonly<Record<string, boolean | undefined>> = lookup({ true: true, "1": true, false: false, "0": false });

/** A value as true or false: what a condition makes of it. */
export const truthOf = operation({
  id: "truth-of",
  family: "logic",
  summary: "takes a value for true or false",
  slots: [any("value")],
  traits: ["missing", "textTruth", "truthOfNaN"],
  prepare({ textTruth, truthOfNaN }) {
    const read = textsBy[textTruth];
    const ofText = (given: string): Value => {
      const found = read(given);
      return found === undefined ? new Failure("not-a-boolean", { text: given }) : found;
    };
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
      if (value instanceof Double) return Number.isNaN(value.value) ? truthOfNaN !== "false" : value.value !== 0;
      if (value instanceof Decimal) return !value.isZero;
      return value instanceof Bytes
        ? ofText(textOfBytes(value.bytes))
        : new Failure("no-truth-value", { given: itemType(value) });
    };
  },
});

/** The truth value that settles an AND or OR whatever the other side is; there is none for XOR. */
export const decisiveOf = (joiner: Value): boolean | undefined => (joiner === "and" ? false : joiner === "or" ? true : undefined);

/** What the first of two conditions comes to by itself; undefined where the second counts. */
function settledBy(
  evaluates: AnswerOf<"evaluates">,
  decisive: boolean | undefined,
  settled: Value,
): (a: Value) => Value | undefined {
  const decides = evaluates === "both" ? undefined : decisive;
  const keepsMissing = evaluates === "rows left open" && decisive === false;
  return (a) => {
    if (typeof a === "boolean") return a === decides ? settled : undefined;
    return isFailure(a) || (keepsMissing && a === null) ? a : undefined;
  };
}

/** Two conditions as one; `joiner` is `and`, `or` or `xor`. What is missing may be true or false. */
export const connect = operation({
  id: "connect",
  family: "logic",
  summary: "joins two conditions",
  slots: [failing(kept(any("a"))), failing(kept(any("b"))), settled("joiner", ["and", "or", "xor"])],
  traits: ["truth", "evaluates", "inConditions", "constants"],
  prepare({ truth, evaluates }, { joiner }) {
    const decisive = decisiveOf(joiner);
    const [no, yes] = [false, true].map(truthBy(truth));
    const [settled, open] = decisive ? [yes, no] : [no, yes];
    const early = settledBy(evaluates, decisive, settled);
    return (a: Value = null, b: Value = null): Value => {
      if (typeof a === "boolean" && typeof b === "boolean")
        return decisive === undefined ? (a === b ? no : yes) : a === decisive || b === decisive ? settled : open;
      const known = early(a);
      if (known !== undefined) return known;
      if (typeof b === "object" && b !== null) return isFailure(b) ? b : null;
      if (decisive === undefined) return null;
      if (a === decisive || b === decisive) return settled;
      return b === null || (a === null && evaluates !== "rows left open") ? null : open;
    };
  },
  settles({ truth, evaluates }, { joiner }) {
    const decisive = decisiveOf(joiner);
    return settledBy(evaluates, decisive, truthBy(truth)(decisive === true));
  },
});

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
