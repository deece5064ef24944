import { sqlCalls } from "../shared/sql-calls.ts";

/** Calls with words between the arguments: the parts by number, `w` a word, between braces what may be left out. */
export const calls = {
  ...sqlCalls,
  overlay: "overlay($1 placing $2 from $3{ for $4})",
  "item of list": "$1[$2]",
  "slice of list": "$1[$2:$3]",
  normalize: "normalize($1{, $2w})",
} as const;
