import type { AnswerOf } from "../../traits/index.ts";
import { calendarRows } from "../shared/calendar.ts";
import { dayRows } from "../shared/days.ts";
import { intervalRows } from "../shared/intervals.ts";
import { dateFields, startOfUnit, strftime, strptime, weekdays, weeks } from "./fields.ts";
import { type Coded, type Stepped, codedRows, steppedRows } from "../shared/rows.ts";
import { type Step, step } from "../step.ts";
import { decidingRows, presentRows } from "../shared/deciding.ts";
import { itselfRows } from "../shared/itself.ts";
import { logicRows } from "../shared/logic.ts";
import { mathRows, piRow } from "../shared/math.ts";
import { bitRows, roundRows, signedRows } from "../shared/numeric.ts";
import { aggregates } from "./aggregates.ts";
import { rangeOf, roundedTypes, unsignedTypes, wholeTypes } from "./numbers.ts";
import { refusing } from "../refusals.ts";
import { refused } from "./refused.ts";
import { type FunctionRow, type Refusal } from "../row.ts";
import { collations } from "./types.ts";
import { doc, strings, regexes, lists, numbers, operatorsDoc, dates } from "./evidence.ts";
import { operators } from "./operators.ts";
import { missing, sliced, text } from "./text-functions.ts";

const signs = { missing, numbers: "exact", signKind: "whole" } as const;
const shifting = { missing, placesBelow: "error, or 0", placesBeyond: "error" } as const;
const math = {
  type: "double",
  result: "double",
  answers: { missing, numbers: "exact", outside: "error", overflow: "infinity", tooSmall: "zero", closeness: "nearest" },
  evidence: numbers,
} as const;

// prettier-ignore
const coded = codedRows(
  [
    ["hex(value text): text", "convert", "The bytes of a text in base 16.", strings],
    ["hex(value T): text for bigint, hugeint, floating", "convert", "A number in base 16.", strings, "hex"],
    ["hex(value blob): text", "convert", "Bytes in base 16.", strings],
    ["to_hex(value text): text", "convert", "The bytes of a text in base 16.", strings, "hex"],
    ["to_hex(value T): text for bigint, hugeint, floating", "convert", "A number in base 16.", strings, "hex"],
    ["to_hex(value blob): text", "convert", "Bytes in base 16.", strings, "hex"],
    ["unhex(text text): blob", "convert", "Bytes from base 16.", strings],
    ["from_hex(text text): blob", "convert", "Bytes from base 16.", strings, "unhex"],
    ["bin(value text): text", "convert", "The bytes of a text in base 2.", strings],
    ["bin(value T): text for bigint, hugeint, floating", "convert", "A number in base 2.", strings, "bin"],
    ["to_binary(value text): text", "convert", "The bytes of a text in base 2.", strings, "bin"],
    ["to_binary(value T): text for bigint, hugeint, floating", "convert", "A number in base 2.", strings, "bin"],
    ["unbin(text text): blob", "convert", "Bytes from base 2.", strings],
    ["from_binary(text text): blob", "convert", "Bytes from base 2.", strings, "unbin"],
    ["to_base(number bigint, base integer, digits? integer): text", "convert", "A number in a base.", strings],
    ["to_base64(bytes blob): text", "convert", "Bytes in base 64.", strings],
    ["base64(bytes blob): text", "convert", "Bytes in base 64.", strings, "to_base64"],
    ["from_base64(text text): blob", "convert", "Bytes from base 64.", strings],
    ["encode(text text): blob", "convert", "The UTF-8 bytes of a text.", strings],
    ["decode(bytes blob): text", "convert", "The text of UTF-8 bytes.", strings],
    ["array_length(list anylist, dimension? bigint): bigint", "list", "The number of items.", lists],
    ["format(format text, values?* any): text", "split-join", "Fills the places {} of a format.", strings],
    ["printf(format text, values?* any): text", "split-join", "Fills the directives % of a format.", strings],
    ["regexp_escape(text text): text", "convert", "The text as a pattern for itself.", regexes],
    ["url_encode(text text): text", "convert", "Percent-encoded for a URL.", strings],
    ["url_decode(text text): text", "convert", "Percent-encoding read.", strings],
    ["parse_filename(path text, withoutExtension? boolean, separator? text): text", "convert", "The last part of a path.", strings],
    ["parse_filename(path text, separator text): text", "convert", "The last part of a path.", strings, "parse_filename by"],
    ["parse_dirname(path text, separator? text): text", "convert", "The first part of a path.", strings],
    ["parse_dirpath(path text, separator? text): text", "convert", "A path without its last part.", strings],
    ["parse_path(path text, separator? text): text[]", "convert", "The parts of a path.", strings],
    ["format_bytes(bytes bigint): text", "convert", "A number of bytes in KiB, MiB and so on.", strings],
    ["formatreadablesize(bytes bigint): text", "convert", "A number of bytes in KiB, MiB and so on.", strings, "format_bytes"],
    ["formatreadabledecimalsize(bytes bigint): text", "convert", "A number of bytes in kB, MB and so on.", strings, "format_decimal_bytes"],
    ["bar(x double, min double, max double, width? double): text", "convert", "A bar as long as a number is large.", strings],
    ["typeof(value any): own text", "convert", "The type of a value.", doc("Utility Functions")],
    ...unsignedTypes.map((type): Coded => [`-(number ${type}): ${type}`, "convert", "The negative of a number.", numbers, `- ${type}`]),
    ["bit_count(number hugeint): tinyint", "convert", "How many bits are set.", numbers],
    ...roundedTypes.map((type): Coded => [`round(number ${type}, digits?${type === "decimal" ? "!" : ""} integer): ${type}`, "convert",
      "Rounded, halves away from zero.", numbers, `round ${type}`]),
    ...[...wholeTypes, "decimal", "double"].map((type): Coded =>
      [`trunc(number ${type}, digits${type === "decimal" ? "!" : ""} integer): ${type}`, "convert",
      "Cut to a number of decimals.", numbers, "trunc at"]),
    ["regexp_extract(text text, pattern text, names text[]): any", "extract",
      "The groups of the first match as a struct.", regexes, "struct"],
    ...["round_even", "roundbankers"].flatMap((name) => roundedTypes.map((type): Coded =>
      [`${name}(number ${type}, digits${type === "decimal" ? "!" : ""} integer): double`, "convert",
      "Rounded, halves to the even neighbour.", numbers, `round_even ${type}`])),
    ["fdiv(left double, right double): double", "convert", "A quotient, down to the next whole number.", numbers],
    ["fmod(left double, right double): double", "convert", "The remainder of such a quotient.", numbers],
    ["repeat(list anylist, count bigint): list", "list", "The items of a list several times over.", lists],
    ["pg_typeof(value any): own text", "convert", "The type of a value, in small letters.", doc("Utility Functions")],
    ["atanh, gamma, lgamma(number double): double", "convert", "A mathematical function.", numbers],
    ["log(number double, argument? double): double", "convert", "The logarithm to base 10, or to a base.", numbers],
    ["factorial(number integer): hugeint", "convert", "The product of the numbers up to one.", numbers],
    ...["bigint", "hugeint"].flatMap((type): Coded[] => [
      [`gcd(left ${type}, right ${type}): ${type}`, "convert", "The greatest common divisor.", numbers],
      [`greatest_common_divisor(left ${type}, right ${type}): ${type}`, "convert", "The greatest common divisor.", numbers, "gcd"],
      [`lcm(left ${type}, right ${type}): ${type}`, "convert", "The least common multiple.", numbers],
      [`least_common_multiple(left ${type}, right ${type}): ${type}`, "convert", "The least common multiple.", numbers, "lcm"],
    ]),
    ["even(number double): double", "convert", "The next even number away from zero.", numbers],
    ["isinf(number double): boolean", "convert", "Whether it is an infinity.", numbers],
    ["isfinite(number double): boolean", "convert", "Whether it is a number that is no infinity.", numbers],
    ["signbit(number double): boolean", "convert", "Whether the sign is negative.", numbers],
    ...["text", "blob"].flatMap((type): Coded[] => [
      [`md5, sha1, sha256(value ${type}): text`, "convert", "A digest.", strings],
      [`md5_number(value ${type}): uhugeint`, "convert", "A digest.", strings],
    ]),
    ["parse_formatted_bytes(size text): ubigint", "convert", "The number of bytes that a size with its unit is.", strings],
    ["isnan(number double): boolean", "convert", "Whether it is not a number.", numbers],
    ["array_slice(text text, first open, last open): text", "list",
      "The characters from one position to another.", strings, "characters between"],
    ["list_slice(text text, first open, last open): text", "list",
      "The characters from one position to another.", strings, "characters between"],
    ["array_slice(list anylist, first open, last open, step? open): list", "list",
      "The items from one position to another.", lists, "items between"],
    ["list_slice(list anylist, first open, last open, step? open): list", "list",
      "The items from one position to another.", lists, "items between"],
    ["list_concat, list_cat, array_concat, array_cat(lists* anylist): unified", "list", "Joins lists.", lists, "list_concat"],
    ["concat(lists* anylist): unified", "list", "Joins lists.", lists, "list_concat"],
    ["list_resize, array_resize(list anylist, length bigint, fill? any): list", "list",
      "Cut or filled up to a length.", lists, "list_resize"],
    ["list_select, array_select(list anylist, positions bigint[]): list", "list", "The items at several positions.", lists, "list_select"],
    ["list_where, array_where(list anylist, mask boolean[]): list", "list", "The items at the places of true.", lists, "list_where"],
    ["list_aggregate, list_aggr, array_aggregate, array_aggr, aggregate(list anylist, name! text, more?*! any): aggregated", "list",
      "An aggregate of the items.", lists, "list_aggregate"],
    ["list_string_agg(list anylist): text", "list", "Joins the items with commas.", lists],
    ["list_any_value(list anylist): item", "list", "One of the items.", lists],
    ["list_mode(list anylist): item", "list", "The commonest item, the first of those that are as common.", lists],
    ["list_median, list_product, list_stddev_pop, list_stddev_samp, list_var_pop, list_var_samp, list_sem(list anylist): any", "list",
      "A value made from the items.", lists],
    ["list_bool_and, list_bool_or(list anylist): any", "list", "A value made from the items.", lists],
    ["list_sum, list_avg, list_count(list anylist): any", "list", "A number made from the items.", lists],
    ["flatten(list anylist): item", "list", "The items of the lists in a list.", lists],
    ["list_transform, list_apply, array_transform, array_apply, apply(list anylist, lambda lambda): any[]", "list",
      "A function of every item.", lists, "list_transform"],
    ["list_filter, array_filter, filter(list anylist, lambda lambda): list", "list",
      "The items for which a function is true.", lists, "list_filter"],
    ["list_reduce, array_reduce, reduce(list anylist, lambda reducer, initial? any): any", "list",
      "The items put together one after the other.", lists, "list_reduce"],
    ...["date", "timestamp"].flatMap((type): Coded[] => [
      [`extract, date_part, datepart(field text, date ${type}): part of a date`, "convert", "A field of a date.", dates, "extract"],
      [`epoch, julian(date ${type}): double`, "convert", "A date as a number of seconds or days.", dates],
      [`epoch_ms, epoch_us, epoch_ns(date ${type}): bigint`, "convert", "The parts of seconds since 1970.", dates],
      [`last_day(date ${type}): date`, "convert", "The last day of the month.", dates],
    ]),
    ["epoch_ms(milliseconds bigint): timestamp", "convert",
      "The moment so many thousandths of a second after the start of 1970.", dates, "timestamp of ms"],
    ["make_timestamp(microseconds bigint): timestamp", "convert",
      "The moment so many millionths of a second after the start of 1970.", dates, "timestamp of us"],
    ["make_date(year bigint, month bigint, day bigint): date", "convert", "A date from its parts.", dates],
  ],
);

const itemAt = (position?: number) =>
  step(
    "item",
    { missing, first: "1", negativePosition: "from the end", noItem: "null" },
    position === undefined ? undefined : { position },
  );
const sameness = { case: "minded", padding: "counted", notANumber: "above all" } as const;
const ordering = { ...sameness, mixed: "by kind" } as const;
export const find = (wanted: "whether" | "first place") =>
  step("find-item", { missing, missingWanted: wanted === "whether" ? "null" : "looked for", ...sameness }, { wanted });
const holds = (how: "any" | "all") => step("holds-items", { missing, missingShared: "left out", ...sameness }, { how });
const added = (end: "start" | "end") => step("add-item", { missingList: "skipped" }, { end });
export const distinct = (distinctOrder: "first met" | "last first", wanted: "items" | "number") =>
  step("distinct-items", { missing, distinctOrder, ...sameness }, { wanted });
const sort = (fixed: Step["fixed"]) => step("sort-items", { missing, ...ordering }, fixed);
const extreme = (wanted: "greatest" | "least") =>
  step("extreme", { missingValue: "skipped", amongEqual: "first", ...ordering }, { wanted });
const series = (lastNumber: "included" | "left out", fixed?: Step["fixed"]) => step("series", { missing, lastNumber }, fixed);
const withoutOne = (end: "start" | "end") => step("drop-items", { missing, tooMany: "all of them" }, { count: 1, end });
const sliceOf = (fixed: Step["fixed"]) => step("slice", { ...sliced, negativeLength: "all but" }, fixed);

/** strptime() and try_strptime(), which differ in what stands for no date. */
const datesRead = (
  [
    ["strptime", "error", "", ""],
    ["try_strptime", "null", ", null when it does not fit", ", null when none does"],
  ] as const
).flatMap(([name, notADate, unlessOne, unlessAny]) =>
  steppedRows([
    [
      `${name}(text text, format! dateshape): timestamp`,
      "convert",
      `A date read by a format${unlessOne}.`,
      dates,
      strptime(notADate),
    ],
    [
      `${name}(text text, formats! text[] > format): timestamp`,
      "convert",
      `A date read by the first of several formats that fits${unlessAny}.`,
      dates,
      strptime(notADate),
    ],
  ]),
);

const units = step("interval-of", { missing }, { form: "1 month" });
const unitsOf = (unit: string) => step("interval-of", { missing }, { form: "1 month", unit });
const counted = (unitsBetween: AnswerOf<"unitsBetween">) => step("units-between", { missing, unitsBetween });
const partOfSpan = step("interval-field", { missing }, { seconds: "whole, all of them as a double" });

/** The functions that give so many of a unit, by the type of the number that they take. */
const unitFunctions = {
  integer: "millennia centuries decades years quarters months weeks days",
  bigint: "hours minutes microseconds",
  double: "seconds milliseconds",
};

const spans = intervalRows({
  moments: { date: "timestamp", timestamp: "timestamp", time: "time" },
  factors: ["bigint", "double"],
  answers: { missing, byZero: "null" },
  form: "1 month",
  evidence: dates,
});

// prettier-ignore
const intervals = steppedRows([
  ["date_trunc, datetrunc(part text > unit, date timestamp): timestamp", "convert", "The start of a part.", dates, startOfUnit],
  ["interval(count double, unit text): interval", "convert", "So many of a unit of time.", dates, units],
  ...Object.entries(unitFunctions).flatMap(([type, names]) => names.split(" ").map((name): Stepped =>
    [`to_${name}(count ${type}): interval`, "convert", "So many of a unit of time.", dates, unitsOf(name)])),
  ...spans,
  ...spans.filter(([signature]) => /^\+\(date (?!time,)/.test(signature)).map(([signature, ...row]): Stepped =>
    [signature.replace("+", "date_add"), ...row]),
  ["datediff, date_diff(part text > unit, left timestamp > from, right timestamp > to): bigint", "convert",
    "How many borders of a part lie between two dates.", dates, counted("borders")],
  ["datesub, date_sub(part text > unit, left timestamp > from, right timestamp > to): bigint", "convert",
    "How many whole parts lie between two dates.", dates, counted("whole ones, or to the last day")],
  ["extract, date_part, datepart(field text, span interval > interval): part of a date", "convert",
    "A part of a stretch of time.", dates, partOfSpan],
]);

// prettier-ignore
const plainLists = steppedRows([
  ["array_extract, list_extract, list_element(list anylist, index bigint > position): item", "list",
    "The item at a position.", lists, itemAt()],
  ["array_pop_back(text text): text", "list", "Without the last character.", lists, sliceOf({ start: 1, length: -1 })],
  ["array_pop_front(text text): text", "list", "Without the first character.", lists, sliceOf({ start: 2 })],
  ["array_pop_back(list anylist): list", "list", "Without the last item.", lists, withoutOne("end")],
  ["array_pop_front(list anylist): list", "list", "Without the first item.", lists, withoutOne("start")],
  ["strftime(date T, format! dateformat): text for date, timestamp", "convert", "A date in a format.", dates, strftime],
  ["strftime(format! dateformat, date timestamp): text", "convert", "A date in a format.", dates, strftime],
  ["list_first(list anylist): item", "list", "The first item.", lists, itemAt(1)],
  ["list_last(list anylist): item", "list", "The last item.", lists, itemAt(-1)],
  ["list_value, list_pack(values?* any): unified list", "list", "A list of values.", lists, step("list-of", {})],
  ["list_contains, list_has, array_contains, array_has, contains(list anylist, item item.list): boolean", "list",
    "Whether a list holds a value.", lists, find("whether")],
  ["list_position, list_indexof, array_position, array_indexof(list anylist, item item.list): integer", "list",
    "The position of a value, null when it is not there.", lists, find("first place")],
  ["list_has_any, array_has_any, &&(left anylist > list, right anylist > others): boolean", "list",
    "Whether two lists share a value.", lists, holds("any")],
  ["list_has_all, array_has_all, @>(left anylist > list, right anylist > others): boolean", "list",
    "Whether the first list holds every value of the second.", lists, holds("all")],
  ["<@(left anylist > others, right anylist > list): boolean", "list",
    "Whether the second list holds every value of the first.", lists, holds("all")],
  ["list_append, array_append, array_push_back(list anylist, item item.list): list", "list",
    "Appends a value to a list.", lists, added("end")],
  ["list_prepend, array_prepend(item item.list, list anylist): list of second item", "list",
    "Puts a value before a list.", lists, added("start")],
  ["array_push_front(list anylist, item item.list): list", "list", "Puts a value before a list.", lists, added("start")],
  ["list_distinct, array_distinct(list anylist): list", "list", "Every value once, null left out.", lists, distinct("last first", "items")],
  ["list_unique, array_unique(list anylist): ubigint", "list",
    "How many different values there are.", lists, distinct("first met", "number")],
  ["list_intersect, array_intersect(left anylist > list, right anylist > within): list", "list",
    "The values that two lists share.", lists, distinct("first met", "items")],
  ["list_sort, array_sort(list anylist, direction?! direction, nulls?! nullplace > missingAt): list", "list",
    "The items in order.", lists, sort({ wanted: "items" })],
  ["list_reverse_sort, array_reverse_sort(list anylist, nulls?! nullplace > missingAt): list", "list",
    "The items in descending order.", lists, sort({ wanted: "items", direction: "descending" })],
  ["list_grade_up, array_grade_up, grade_up(list anylist, direction?! direction, nulls?! nullplace > missingAt): bigint[]", "list",
    "The positions of the items in order.", lists, sort({ wanted: "places" })],
  ["list_min(list anylist > values): item", "list", "The least of the items.", lists, extreme("least")],
  ["list_max(list anylist > values): item", "list", "The greatest of the items.", lists, extreme("greatest")],
  ["greatest(values* any): unified", "logic", "The largest value, null left out.", numbers, extreme("greatest")],
  ["least(values* any): unified", "logic", "The smallest value, null left out.", numbers, extreme("least")],
  ...(["range", "generate_series"] as const).flatMap((name): Stepped[] => {
    const last = name === "range" ? "left out" : "included";
    return [
      [`${name}(end bigint > last): bigint[]`, "list", "Numbers from 0 up to an end.", lists, series(last, { first: 0 })],
      [`${name}(start bigint > first, end bigint > last, step? bigint): bigint[]`, "list",
        "Numbers from a start up to an end.", lists, series(last)],
    ];
  }),
  ["list_reverse, array_reverse(list anylist): list", "list", "The items in reverse order.", lists, step("reverse-items", { missing })],
  ["||(left anylist > a, right anylist > b): unified", "list", "Joins two lists.", lists, step("join-lists", { missingList: "null" })],
  ["length, len(list anylist): bigint", "list", "The number of items.", lists, step("size", { missing })],
]);

/** A decimal keeps its number of decimals. */
const ownResult = (type: string): string => (type === "decimal" ? "same" : type);

/** A text literal may be a date or a timestamp where no other argument says which. */
const dated = (row: FunctionRow): FunctionRow => {
  const isSum = (row.name === "+" || row.name === "-") && row.parameters.length === 2;
  if (row.evidence !== dates || isSum) return row;
  const refuses = row.parameters.flatMap(({ type }, place): Refusal[] =>
    /^(?:date|timestamp)$/.test(type)
      ? [{ types: row.parameters.map((_, i) => (i === place ? "literal" : "!date|timestamp")).join(", "), as: "ambiguous-call" }]
      : [],
  );
  return refuses.length === 0 ? row : { ...row, refuses: [...(row.refuses ?? []), ...refuses] };
};

const rows: readonly FunctionRow[] = [
  ...text,
  ...operators,
  ...datesRead,
  ...intervals,
  ...plainLists,
  ...["date", "timestamp"].flatMap((type) =>
    calendarRows(dateFields, weekdays, weeks, { type, result: "bigint", text: "text", evidence: dates }),
  ),
  ...presentRows({ result: "unified", evidence: operatorsDoc }, ["ifnull"]),
  ...decidingRows({ result: "same", evidence: numbers }, [
    ["try", "The value, or null where it is an error.", "value any", { decides: "unless failing", caught: "all" }],
  ]),
  ...logicRows({
    truth: "true or false",
    result: "boolean",
    condition: "condition",
    evaluates: "both",
    inConditions: "rows left open",
    constants: "any",
    evidence: [operatorsDoc, operatorsDoc, operatorsDoc],
  }),
  ...mathRows({ names: "acosh", ...math, answers: { ...math.answers, outside: "not a number" } }),
  ...mathRows({
    names: "acos asin asinh atan atan2 cbrt cos cosh degrees exp ln log10 log2 radians sin sinh sqrt tan tanh",
    ...math,
  }),
  ...mathRows({ names: "cot", ...math, answers: { ...math.answers, overflow: "error" } }),
  piRow("pi", math),
  ...[...wholeTypes.filter((type) => !unsignedTypes.includes(type)), "decimal", "double"].flatMap((type) =>
    signedRows({ "-": "opposite" }, { type, result: ownResult(type), answers: signs, evidence: numbers }),
  ),
  ...[...wholeTypes, "decimal", "double"].flatMap((type) => [
    ...signedRows({ abs: "size" }, { type, result: ownResult(type), answers: signs, evidence: numbers }),
    ...signedRows({ sign: "sign" }, { type, result: "tinyint", answers: signs, evidence: numbers }),
  ]),
  ...[
    { type: "fraction", result: "decimal" },
    { type: "double", result: "double" },
  ].flatMap((kind) =>
    roundRows(
      { trunc: "toward zero", ceil: "up", ceiling: "up", floor: "down" },
      { ...kind, answers: { missing, numbers: "exact" }, evidence: numbers },
    ),
  ),
  ...wholeTypes.flatMap((type) => {
    const row = { type, answers: { ...shifting, range: rangeOf(type) }, evidence: numbers } as const;
    return [
      ...bitRows({ "~": "not", "&": "and", "|": "or", xor: "xor", "<<": "left", ">>": "right" }, row),
      ...(type === "hugeint" ? [] : bitRows({ bit_count: "count" }, { ...row, result: "tinyint" })),
    ];
  }),
  ...wholeTypes.flatMap((type) =>
    itselfRows(["trunc"], { type, summary: "The whole number itself.", result: type, evidence: numbers }),
  ),
  ...[...wholeTypes, "decimal", "double"].flatMap((type) =>
    itselfRows(["+"], { type, summary: "The number itself.", result: ownResult(type), notation: "operator", evidence: numbers }),
  ),
  ...Object.keys(collations).flatMap((name) =>
    itselfRows([`collate ${name}`], {
      type: "text",
      summary: "The text, compared in a collation.",
      result: `text ${name}`,
      notation: "operator",
      evidence: operatorsDoc,
    }),
  ),
  ...coded,
  ...dayRows("bigint", dates),
  ...aggregates,
];

/** The functions and operators of DuckDB 1.5. */
export const duckdbRows: readonly FunctionRow[] = refusing(rows.map(dated), refused);
