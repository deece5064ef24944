import { sqlCalls } from "../shared/sql-calls.ts";

/** A date and an interval, whose unit is a word. */
const shifted = (name: string) => `${name}($1, interval $2 $3w)`;

/** Calls with words between the arguments: the parts by number, `w` a word, between braces what may be left out. */
export const calls = {
  ...sqlCalls,
  trim: "trim({both $2 from }$1)",
  "trim leading": "trim(leading{ $2} from $1)",
  "trim trailing": "trim(trailing{ $2} from $1)",
  "group_concat separator": "group_concat($1 separator $2)",
  "group_concat separator distinct": "group_concat(distinct $1 separator $2)",
  get_format: "get_format($1w, $2)",
  date_add: shifted("date_add"),
  adddate: shifted("adddate"),
  date_sub: shifted("date_sub"),
  subdate: shifted("subdate"),
  timestampdiff: "timestampdiff($1w, $2, $3)",
  timestampadd: "timestampadd($1w, $2, $3)",
} as const;
