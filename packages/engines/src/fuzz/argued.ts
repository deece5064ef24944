import type { OwnOutcome } from "../probe.ts";
import type { Find } from "./compare.ts";

/** A difference from an engine that is known and argued. */
export interface Argued {
  readonly why: string;
  readonly holds: (found: Find) => boolean;
}

const isNull = (outcome: OwnOutcome): boolean => outcome !== undefined && "value" in outcome && outcome.value === null;

/** The value of an outcome as JSON; undefined where it is an error. */
const jsonOf = (outcome: OwnOutcome): string | undefined =>
  outcome !== undefined && "value" in outcome ? JSON.stringify(outcome.value) : undefined;

const isNumber = (outcome: OwnOutcome): boolean => /^-?\d/.test(jsonOf(outcome) ?? "");

/** What a result is with the signs of its zeros left out. */
const withoutSignOfZero = (outcome: OwnOutcome): string | undefined =>
  jsonOf(outcome)?.replaceAll(/-(0(?:\.0+)?)(?![\d.])/g, "$1");

/** Whether two values are of the same characters in another order. */
const isReordered = (ours: OwnOutcome, theirs: OwnOutcome): boolean => {
  const [a, b] = [ours, theirs].map((outcome) => [...(jsonOf(outcome) ?? "")].sort().join(""));
  return a !== "" && a === b;
};

/** Every known difference, with its reason; reviewed, and kept under ten. Whatever else differs is a find. */
export const argued: readonly Argued[] = [
  {
    why: "MariaDB's greatest and least of texts, used as a number, is that of their numbers; here the number of the text",
    holds: ({ dialect, expression, ours, theirs }) =>
      dialect === "mariadb" && isNumber(ours) && isNumber(theirs) && /(?:greatest|least)\(/.test(expression),
  },
  {
    why: "MariaDB's CHR and CHAR … USING give texts of the server's collation, which do not mix with those of another connection's",
    holds: ({ dialect, theirs }) =>
      dialect === "mariadb" && "error" in theirs && /Illegal mix of collations/.test(theirs.error.message),
  },
  {
    why: "MariaDB keeps the sign of a remainder of zero, as in -0.0, and of what is calculated from it; here zero has none",
    holds: ({ dialect, expression, ours, theirs }) =>
      dialect === "mariadb" && / % |\bmod\(/.test(expression) && jsonOf(ours) === withoutSignOfZero(theirs),
  },
  {
    why: "MariaDB takes a number that stands for a text for Latin-1, and what is put beside it for its bytes; an empty one that it converts is no null of replace_oracle",
    holds: ({ dialect, expression, ours, theirs }) =>
      dialect === "mariadb" &&
      "value" in theirs &&
      (/[\u00c3-\u00f0][\u0080-\u00bf]/.test(String(theirs.value)) ||
        (isNull(ours) && theirs.value === "" && /replace_oracle\(/.test(expression))),
  },
  {
    why: "MariaDB compares a number with a date that cannot be read as though they were equal; here the comparison is null",
    holds: ({ dialect, expression, ours, theirs }) =>
      dialect === "mariadb" && isNull(ours) && "value" in theirs && /cast\([^]* as date\)/.test(expression),
  },
  {
    why: "MariaDB takes an empty text that a function gives for no pattern, or for one, by where it stands; here it is an empty pattern",
    holds: ({ dialect, expression, ours, theirs }) =>
      dialect === "mariadb" &&
      /regexp_\w+\(|\bregexp\b/.test(expression) &&
      ("error" in theirs
        ? /pattern passed as NULL/.test(theirs.error.message)
        : isNull(theirs) && ['""', "1"].includes(jsonOf(ours) ?? "")),
  },
  {
    why: "DuckDB gives something else for columns than for constants: substring from beyond the end with a negative length, the parts of a path by a separator that is null on some rows, and whether a list contains an empty text, as though it were a text",
    holds: ({ dialect, expression, over, ours, theirs }) =>
      dialect === "duckdb" &&
      (([ours, theirs].some((each) => jsonOf(each) === '""') && /substr\w*\([^]*,[^]*,/.test(expression)) ||
        (over === "stored" && isNull(theirs) && /parse_(?:filename|dirname|dirpath|path)\(/.test(expression)) ||
        (over === "stored" && /\bcontains\([^]*, ''\)/.test(expression))),
  },
  {
    why: "DuckDB gives the values of list_distinct and list_intersect in the order of a hash table, which it does not promise",
    holds: ({ dialect, expression, ours, theirs }) =>
      dialect === "duckdb" && isReordered(ours, theirs) && /(?:list|array)_(?:distinct|intersect)/.test(expression),
  },
  {
    why: "Engines decide beforehand what they evaluate: a function of a null that they know is null, and its other arguments, which fail, are not looked at; DuckDB works out for every row of a table what its macro round_even uses twice, needed or not",
    // PostgreSQL knows its parameters beforehand; what constants make is known here, too.
    holds: ({ dialect, expression, over, ours, theirs }) =>
      (dialect !== "sqlite" &&
        (dialect !== "postgresql" || over === "parameters") &&
        ours !== undefined &&
        "error" in ours &&
        isNull(theirs)) ||
      (dialect === "duckdb" &&
        over === "stored" &&
        "error" in theirs &&
        ours !== undefined &&
        "value" in ours &&
        /round(?:_even|bankers)\(/.test(expression)),
  },
];
