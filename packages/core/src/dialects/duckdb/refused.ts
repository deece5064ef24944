import type { Refused } from "../refusals.ts";
import { numeric } from "./types.ts";

/** Lists into which no text is put. */
const notOfTexts = "!text[]|literal[]|null[]|any[]|null|any";
/** Lists that are none of numbers. */
const notOfNumbers = `!${[...numeric, "null", "any"].map((type) => `${type}[]`).join("|")}|null|any`;

/** Arguments that no overload takes, and why. */
// prettier-ignore
export const refused: readonly Refused[] = [
  // A text literal may be a number of any type,
  ["abs sign ceil ceiling floor trunc round round_even roundbankers bit_count ~", "literal, …", "ambiguous-call"],
  ["- +", "literal", "ambiguous-call"],
  ["& | xor * // % gcd greatest_common_divisor lcm least_common_multiple fmod fdiv", "literal, literal", "ambiguous-call"],
  ["<< >> / fdiv fmod", "literal, *", "ambiguous-call"],
  ["round_even roundbankers", "*, literal", "ambiguous-call"],
  // beside a whole number also a date, while from a number only a number is subtracted,
  ["+ -", "literal, literal|tinyint|smallint|integer", "ambiguous-call"],
  ["+", "tinyint|smallint|integer, literal", "ambiguous-call"],
  ["+ -", "date|time, literal", "ambiguous-call"],
  ["-", "timestamp, literal", "ambiguous-call"],
  ["+ *", "interval, literal", "ambiguous-call"],
  ["+ *", "literal, date|time|interval", "ambiguous-call"],
  // an interval, which is multiplied by larger numbers, or the names of groups.
  ["*", "literal, bigint|double|decimal", "ambiguous-call"],
  ["*", "bigint|double|decimal, literal", "ambiguous-call"],
  ["regexp_extract", "*, *, literal, …", "ambiguous-call"],
  // Only = and <> compare a text with what is none.
  ["< <= > >=", "text, !text|literal|null|any…", "argument-type"],
  ["< <= > >=", "!text|literal|null|any…, text", "argument-type"],
  ["< <= > >=", "boolean, decimal|double|float", "argument-type"],
  ["< <= > >=", "decimal|double|float, boolean", "argument-type"],
  ...["text …, …", "*, text …, …"].map((types): Refused => [
    "like ilike like_escape ilike_escape glob contains starts_with strpos", types, "not-covered",
  ]),
  ["list_append array_append array_push_back array_push_front", `${notOfTexts}, literal`, "argument-type"],
  ["list_prepend array_prepend", `literal, ${notOfTexts}`, "argument-type"],
  ["list_sum list_avg list_product list_stddev_pop list_stddev_samp list_var_pop list_var_samp list_sem", notOfNumbers, "argument-type"],
  ["flatten", "!…[][]|null[]|any[]|null|any", "argument-type"],
  ["list_bool_and list_bool_or", "!boolean[]|null[]|any[]|null|any", "argument-type"],
];
