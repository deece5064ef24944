import { sqlCalls } from "../shared/sql-calls.ts";

/** Calls with words between the arguments (6.30 and 6.32): the parts by number, `w` a word, between braces what may be left out. */
export const calls = {
  ...sqlCalls,
  substring: "substring($1 from $2{ for $3})",
  "substring octets": "substring($1 from $2{ for $3} using octets)",
  overlay: "overlay($1 placing $2 from $3{ for $4})",
  trim: "trim({both $2 from }$1)",
  "trim leading": "trim(leading{ $2} from $1)",
  "trim trailing": "trim(trailing{ $2} from $1)",
  normalize: "normalize($1{, $2w})",
  occurrences_regex: "occurrences_regex($2>{ flag $3>} in $1>{ from $4>})",
  substring_regex: "substring_regex($2>{ flag $3>} in $1>{ from $4>}{ occurrence $5>}{ group $6>})",
  position_regex: "position_regex({$7w }$2>{ flag $3>} in $1>{ from $4>}{ occurrence $5>}{ group $6>})",
  translate_regex: "translate_regex($2>{ flag $4>} in $1>{ with $3>}{ from $5>}{ occurrence $6>})",
} as const;
