import { calendarRows } from "../shared/calendar.ts";
import { type Coded, codedRows, steppedRows } from "../shared/rows.ts";
import { decidingRows, presentRows } from "../shared/deciding.ts";
import { itselfRows } from "../shared/itself.ts";
import { logicRows } from "../shared/logic.ts";
import { mathRows, piRow } from "../shared/math.ts";
import { bitRows, roundRows, signedRows } from "../shared/numeric.ts";
import { aggregates, meanRow } from "./aggregates.ts";
import { type FunctionRow, isPure, params } from "../row.ts";
import { formatTokens } from "./formats.ts";
import { step } from "../step.ts";
import { byBytes, collations } from "./types.ts";
import { strings, operatorsDoc, numeric, dates, control, misc, oracle } from "./evidence.ts";
import { operators } from "./operators.ts";
import { inBits, math, missing, padded, signs, sliced, text, trimmed } from "./text-functions.ts";

const ofDate = (name: string, summary: string, result = "integer"): Coded => [
  `${name}(date datetime): ${result}`,
  "convert",
  summary,
  dates,
];
// prettier-ignore
const coded = codedRows(
  [
    ["ord(text text): integer", "convert", "The bytes of the first character as a number.", strings],
    ["char(codes* integer): hextext", "convert", "The bytes of numbers.", strings],
    ["char using(codes* integer): text", "convert", "The characters of numbers.", strings],
    ["chr(code integer): text", "convert", "The character of a byte.", strings],
    ["hex(value any): own text", "convert", "A number, or the bytes of a text, in base 16.", strings],
    ["unhex(text text): hextext from char", "convert", "Bytes from base 16; null for anything else.", strings],
    ["bin(number text): own text", "convert", "A number in base 2.", strings],
    ["oct(number text): own text", "convert", "A number in base 8.", numeric],
    ["conv(number text, from int32, to int32): own text", "convert", "A number from one base to another.", numeric],
    ["field(value any, values* any): integer", "list", "The place of a value among others, 0 when it is none of them.", strings],
    ["find_in_set(text text, list text): integer", "list", "The place of a text in a list with commas, 0 when it is not there.", strings],
    ["make_set(bits integer, values* printed): text", "list", "The values whose bits are set, with commas.", strings],
    ["export_set(bits integer, on text, off text, separator? text, count? integer): text", "list",
      "One text for each bit that is set, another for each that is not.", strings],
    ["interval(value any, values* any): integer", "list", "How many of the sorted values are not above the first.", control],
    ["format(number any, decimals integer, locale? text): own text", "convert", "A number with thousands separated.", strings],
    ["quote(text printed): text", "convert", "The text as an SQL literal.", strings],
    ["soundex(text text): text", "convert", "A key of how a text sounds.", strings],
    ["to_base64(text binary): text", "convert", "The bytes in base 64.", strings],
    ["from_base64(text text): hextext", "convert", "Bytes from base 64; null for anything else.", strings],
    ["md5(text binary): text", "convert", "The MD5 digest in base 16.", strings],
    ["sha, sha1(text binary): text", "convert", "The SHA-1 digest in base 16.", strings],
    ["sha2(text binary, bits integer): digest", "convert", "A SHA-2 digest of so many bits in base 16, null where there is none.", strings],
    ["crc32(text binary): unsigned", "convert", "A check sum.", numeric],
    ["crc32(before integer, text binary): unsigned", "convert", "A check sum, going on from another.", numeric],
    ["crc32c(text binary): unsigned", "convert", "A check sum (Castagnoli).", numeric],
    ["crc32c(before integer, text binary): unsigned", "convert", "A check sum (Castagnoli), going on from another.", numeric],
    ["natural_sort_key(text text): text", "convert", "A key that sorts 2 before 12.", strings],
    ["inet_aton(address text): unsigned", "convert", "The number of an address of four parts.", misc],
    ["inet_ntoa(number integer): text from char", "convert", "The address of four parts of a number.", misc],
    ["is_ipv4(text text): integer", "convert", "Whether the text is an address of four parts.", misc],
    ["charset(value any): own text", "convert", "The character set of a value.", misc],
    ["collation(value any): own text", "convert", "The collation of a value.", misc],
    ["get_format(kind text, place text): own text", "convert", "A format of dates by its place.", dates],
    ["replace_oracle(text text, old text, new text): text", "convert", "replace(), null being empty text.", oracle],
    ["concat_operator_oracle(values* text): text", "convert", "Joins values, skipping null.", oracle],
    ["sformat(format text, values?* any): text", "split-join", "Fills the places {} of a format.", strings],
    ["nvl2(value any, present any, absent any): unified, but the first", "logic",
      "The second value where the first is not null, otherwise the third.", control],
    ["greatest(first any, values* any): extreme", "logic", "The largest value; null if one is null.", operatorsDoc],
    ["least(first any, values* any): extreme", "logic", "The smallest value; null if one is null.", operatorsDoc],
    ...[
      ["whole", "integer, of the first"], ["exact", "decimal, as asked"], ["floating", "double, as asked"],
    ].flatMap(([type, result]): Coded[] => [
      [`round(number ${type}, decimals? integer): ${result}`, "convert", "Rounded, halves away from zero.", numeric],
      [`truncate(number ${type}, decimals integer): ${result}`, "convert", "Cut to a number of decimals.", numeric],
    ]),
    ofDate("to_days", "Days since the year 0."),
    ofDate("to_seconds", "Seconds since the year 0."),
    ofDate("last_day", "The last day of the month.", "date"),
    ofDate("date", "The date of a date and time.", "date"),
    ["hour(time time): integer", "convert", "The hour of a time.", dates],
    ["minute(time time): integer", "convert", "The minute of a time.", dates],
    ["second(time time): integer", "convert", "The second of a time.", dates],
    ["microsecond(time time): integer", "convert", "The millionths of the second.", dates],
    ["time(time time): time", "convert", "The time of a date and time.", dates],
    ["time_to_sec(time time): decimal, of seconds", "convert", "A time in seconds.", dates],
    ["sec_to_time(seconds decimal): time", "convert", "Seconds as a time.", dates],
    ["week(date datetime, mode? integer): integer", "convert", "The week of the year.", dates],
    ["yearweek(date datetime, mode? integer): integer", "convert", "The year and week.", dates],
    ["extract(field text, date any): integer", "convert", "A field of a date.", dates],
    ["timestamp(date datetime, time? text): datetime", "convert", "A date and time.", dates],
    ["date_format(date datetime, format text, locale text): text from char", "convert",
      "A date in a format, with the names of a language.", dates],
    ["time_format(time time, format text): text from char", "convert", "A time in a format.", dates],
    ["date_add(date any, amount any, unit text): shifted", "convert", "A date some time later.", dates],
    ["date_sub(date any, amount any, unit text): shifted", "convert", "A date some time earlier.", dates],
    ["datediff(left datetime, right datetime): integer", "convert", "The days between two dates.", dates],
    ["timestampdiff(unit text, left datetime, right datetime): integer", "convert", "The time between two dates in a unit.", dates],
    ["timestampadd(unit text, amount any, date any): text from date", "convert", "A date some units later.", dates],
    ["addtime(date any, time any): clocked", "convert", "A date or time some time later.", dates],
    ["subtime(date any, time any): clocked", "convert", "A date or time some time earlier.", dates],
    ["timediff(left any, right any): time", "convert", "The time between two times, or two dates.", dates],
    ["from_unixtime(seconds decimal): datetime", "convert", "The date and time of seconds after 1970, in UTC.", dates],
    ["from_unixtime(seconds decimal, format text): text from char", "convert",
      "The date and time of seconds after 1970, in UTC, in a format.", dates],
    ["unix_timestamp(date? datetime): decimal, of seconds", "convert", "The seconds after 1970, in UTC.", dates],
    ["convert_tz(date datetime, from text, to text): datetime", "convert", "A date and time, moved from one offset to another.", dates],
    ['to_char(date any, format? text = "YYYY-MM-DD HH24:MI:SS"): own text', "convert", "A date in a format of patterns.", dates],
    ["from_days(days integer): date", "convert", "The date of a day number.", dates],
    ["makedate(year integer, day integer): date", "convert", "A date from a year and a day of the year.", dates],
    ["maketime(hour integer, minute integer, second decimal): time", "convert", "A time from its parts.", dates],
    ["period_add(period integer, months integer): integer", "convert", "A period YYYYMM some months later.", dates],
    ["period_diff(left integer, right integer): integer", "convert", "The months between two periods.", dates],
  ],
);

/** Empty text is null in the mode whose functions end in _oracle. */
const nullWhenEmpty = { then: step("unless-same", { ...byBytes, mixed: "error", notANumber: "there is none" }, { b: "" }) };
const oracleTrim = (ends: "both" | "start" | "end") => ({ ...step("trim", { ...trimmed, ends }), ...nullWhenEmpty });
const oraclePad = (side: "left" | "right") => ({ ...step("pad", { ...padded, side }), ...nullWhenEmpty });

/** How str_to_date() reads: loosely, and as much as the format has of a date and a time. */
const readByFormat = step(
  "date-from-text",
  {
    missing,
    notADate: "null",
    unknownToken: "null",
    emptyFormat: "empty text",
    formatSpaces: "any",
    restOfText: "passed over",
    partsLeftOut: "zero",
    yearDigits: "completed",
    nameBeginnings: "read",
    halfOfDay: "refused",
    doubledSign: "nothing",
    formatGives: "what it asks for",
  },
  { tokens: formatTokens },
);

// prettier-ignore
const formatted = steppedRows([
  ["date_format(date datetime, format text): text from char", "convert",
    "A date in a format.", dates, step("text-from-date", { missing, formatLanguage: "percent", unknownToken: "itself",
      emptyFormat: "null" }, { tokens: formatTokens })],
  ["str_to_date(text text, format text): datetime", "convert", "A date read by a format.", dates, readByFormat],
]);

// prettier-ignore
const ofOracle = steppedRows([
  ["lpad_oracle(text text, length position, fill? text): text", "pad", "lpad(), null for empty text.", oracle, oraclePad("left")],
  ["rpad_oracle(text text, length position, fill? text): text", "pad", "rpad(), null for empty text.", oracle, oraclePad("right")],
  ["ltrim_oracle(text text): text", "trim", "ltrim(), null for empty text.", oracle, oracleTrim("start")],
  ["rtrim_oracle(text text): text", "trim", "rtrim(), null for empty text.", oracle, oracleTrim("end")],
  ["trim_oracle(text text): text", "trim", "trim(), null for empty text.", oracle, oracleTrim("both")],
  ["substr_oracle(text text, start position > start, count? position > length): text", "extract",
    "substr(), with 0 for the first character and null for empty text.", oracle,
    { ...step("slice", { ...sliced, startBelow: "from the end, 0 the first" }), ...nullWhenEmpty }],
]);

/** Functions of texts that count bytes where they are given bytes, and then give bytes. */
const ofBytes = new Set(
  [
    "substring substr left right substring_index reverse locate instr replace insert trim ltrim rtrim",
    "char_length length ascii repeat lpad rpad concat concat_ws",
  ]
    .flatMap((names) => names.split(" "))
    .concat("trim leading", "trim trailing"),
);

/** The rows of those functions, over texts that have one character for each byte. */
export const bytes: readonly FunctionRow[] = [...text, ...ofOracle]
  .filter(isPure)
  .filter((row) => ofBytes.has(row.name.replace("_oracle", "")) && (row.collations?.includes("binary") ?? true))
  .map((row) => ({
    ...row,
    parameters: row.parameters.map((each) => (each.type === "text" ? { ...each, type: "bytetext" } : each)),
    result: row.result === "text" ? "bytes beside" : row.result,
    answers: { ...row.answers, ...("counted" in row.answers && { counted: "code point" }) },
  })) as readonly FunctionRow[];

const elt = decidingRows({ result: "text", evidence: strings }, [
  ["elt", "The nth of several values.", "n uint32, values* text", { decides: "nth", none: "null" }],
]).map((row): FunctionRow => ({ ...row, family: "list" }));

/** The functions and operators of MariaDB 10.11. */
export const mariadbRows: readonly FunctionRow[] = [
  ...text,
  ...bytes,
  ...operators,
  ...calendarRows(
    {
      year: "year",
      quarter: "quarter",
      month: "month",
      day: "day",
      dayofmonth: "day",
      dayofyear: "day of year",
      dayname: "day name",
      monthname: "month name",
    },
    { dayofweek: "Sunday 1", weekday: "Monday 0" },
    { weekofyear: "ISO 8601" },
    { type: "datetime", result: "integer", text: "text", evidence: dates },
  ),
  ...formatted,
  ...ofOracle,
  ...elt,
  ...presentRows({ result: "unified", evidence: control }, ["ifnull", "nvl"]),
  ...logicRows({
    truth: "1 or 0",
    result: "integer",
    condition: "condition",
    evaluates: "left first",
    xor: "wholecondition",
    evidence: [operatorsDoc, operatorsDoc, operatorsDoc],
  }),
  {
    name: "isnull",
    family: "logic",
    summary: "Whether it is null.",
    parameters: params("value any"),
    result: "integer",
    operation: "is",
    answers: { truth: "1 or 0" },
    fixed: { what: "missing" },
    evidence: operatorsDoc,
  },
  ...mathRows({ names: "acos asin cos cot degrees exp ln log=ln log log10 log2 radians sin sqrt tan", type: "double", ...math }),
  ...mathRows({ names: "atan atan=atan2 atan2=atan atan2", type: "double", ...math }),
  ...mathRows({ names: "power pow=power", type: "double", ...math, answers: { ...math.answers, outside: "error" } }),
  piRow("pi", { ...math, result: "double, six" }),
  ...[
    { type: "whole", opposite: "integer, opposite", size: "integer, of the first", rounded: "integer, of the first" },
    { type: "exact", opposite: "same", size: "same", rounded: "decimal, none" },
    { type: "floating", opposite: "double, most", size: "double, most", rounded: "double, none" },
  ].flatMap(({ type, opposite, size, rounded }) => [
    ...signedRows({ "-": "opposite" }, { type, result: opposite, answers: signs, evidence: operatorsDoc }),
    ...signedRows({ abs: "size" }, { type, result: size, answers: signs, evidence: numeric }),
    ...signedRows({ sign: "sign" }, { type, result: "integer", answers: signs, evidence: numeric }),
    ...roundRows(
      { ceiling: "up", ceil: "up", floor: "down" },
      { type, result: rounded, answers: { missing, numbers: "exact" }, evidence: numeric },
    ),
  ]),
  ...bitRows(
    { "~": "not", "&": "and", "|": "or", "^": "xor", "<<": "left", ">>": "right" },
    { type: "bits", places: "integer", result: "unsigned", answers: inBits, evidence: operatorsDoc },
  ),
  ...bitRows({ bit_count: "count" }, { type: "bits", result: "integer", answers: inBits, evidence: numeric }),
  ...itselfRows(["upper", "ucase", "lower", "lcase"], {
    type: "binary",
    summary: "Bytes as they are.",
    result: "binary",
    evidence: strings,
  }),
  ...itselfRows(["+"], { summary: "The value itself.", result: "same", notation: "operator", evidence: operatorsDoc }),
  ...Object.keys(collations).flatMap((name) =>
    itselfRows([`collate ${name}`], {
      type: "text",
      summary: "The text, compared in a collation.",
      result: `text ${name}`,
      notation: "operator",
      // Bytes have no collation of texts.
      refuses: [{ types: "binary|hybrid|hextext", as: "argument-type" }],
      evidence: operatorsDoc,
    }),
  ),
  ...coded,
  ...aggregates,
  meanRow(operators, "exact"),
];
