import { type Coded, type Stepped, codedRows, steppedRows } from "../shared/rows.ts";
import { step } from "../step.ts";
import { itselfRows } from "../shared/itself.ts";
import { dayRows } from "../shared/days.ts";
import { intervalRows } from "../shared/intervals.ts";
import { logicRows } from "../shared/logic.ts";
import { mathRows, piRow } from "../shared/math.ts";
import { bitRows, roundRows, signedRows } from "../shared/numeric.ts";
import { aggregates } from "./aggregates.ts";
import { type Refused, refusing } from "../refusals.ts";
import type { FunctionRow } from "../row.ts";
import { formatRows } from "./format-functions.ts";
import { collations } from "./lexis.ts";
import { doc, numbers } from "./evidence.ts";
import { operators } from "./operators.ts";
import { steps } from "./steps.ts";
import { exact, ilikeInC, missing, padded, ranges, recasing, signs, text } from "./text-functions.ts";

// prettier-ignore
const coded = codedRows(
  [
    ["concat variadic(list anyarray): text", "split-join", "Joins the items of an array, skipping null.", "9.4"],
    ["concat_ws variadic(separator text, list anyarray): text", "split-join",
      "Joins the items of an array with a separator, skipping null.", "9.4"],
    ["format variadic(format text, list anyarray): text", "split-join",
      "Fills %s, %I and %L of a format with the items of an array.", "9.4.1"],
    ["quote_nullable(text quotable): text", "convert", "The text as an SQL literal, NULL for null.", "9.4"],
    ["format(format text, values?* output): text", "split-join", "Fills %s, %I and %L of a format.", "9.4.1"],
    ["unistr(text text): text", "convert", "Reads Unicode escapes.", "9.4"],
    ["length(bytes bytea): integer", "convert", "The number of bytes.", "9.5", "bytes length"],
    ["octet_length(bytes bytea): integer", "convert", "The number of bytes.", "9.5", "bytes length"],
    ["bit_length(bytes bytea): integer", "convert", "The number of bits.", "9.5", "bytes bits"],
    ["length(bytes bytea, encoding text): integer", "convert",
      "The number of characters that the bytes are in an encoding.", "9.5", "bytes length in"],
    ["||(left bytea, right bytea): bytea", "convert", "Joins bytes.", "9.5", "bytes joined"],
    ["substring(bytes bytea, start integer, count? integer): bytea", "convert",
      "A number of bytes from a position.", "9.5", "bytes substring"],
    ["substr(bytes bytea, start integer, count? integer): bytea", "convert",
      "A number of bytes from a position.", "9.5", "bytes substring"],
    ["overlay(bytes bytea, new bytea, start integer, count? integer): bytea", "convert",
      "Replaces a number of bytes from a position.", "9.5", "bytes overlay"],
    ["position(bytes bytea, needle bytea): integer", "convert", "The position of bytes, 0 when absent.", "9.5", "bytes position"],
    ["btrim(bytes bytea, given bytea): bytea", "convert", "Without given bytes at both ends.", "9.5", "bytes btrim"],
    ["ltrim(bytes bytea, given bytea): bytea", "convert", "Without given bytes at the start.", "9.5", "bytes ltrim"],
    ["rtrim(bytes bytea, given bytea): bytea", "convert", "Without given bytes at the end.", "9.5", "bytes rtrim"],
    ["get_byte(bytes bytea, place integer): integer", "convert", "The byte at a place counted from 0.", "9.5"],
    ["set_byte(bytes bytea, place integer, value integer): bytea", "convert", "With another byte at a place counted from 0.", "9.5"],
    ["get_bit(bytes bits, place integer): integer", "convert", "The bit at a place counted from 0.", "9.5"],
    ["get_bit(bytes bytea, place bigint): integer", "convert", "The bit at a place counted from 0.", "9.5"],
    ["set_bit(bytes bits, place integer, value integer): bytea", "convert", "With another bit at a place counted from 0.", "9.5"],
    ["set_bit(bytes bytea, place bigint, value integer): bytea", "convert", "With another bit at a place counted from 0.", "9.5"],
    ["encode(bytes bytea, format text): text", "convert", "Bytes as text: hex, base64 or escape.", "9.5"],
    ["decode(text text, format text): bytea", "convert", "The bytes that a text gives: hex, base64 or escape.", "9.5"],
    ["convert_from(bytes bytea, encoding text): text_c", "convert", "The text that bytes are in an encoding.", "9.5"],
    ["convert_to(text text, encoding text): bytea", "convert", "The bytes of a text in an encoding.", "9.5"],
    ["convert(bytes bytea, from text, to text): bytea", "convert", "Bytes from one encoding in another.", "9.5"],
    ["md5(text text): text", "convert", "The MD5 digest of a text in base 16.", "9.4"],
    ["md5(bytes bytea): text", "convert", "The MD5 digest of bytes in base 16.", "9.5", "bytes md5"],
    ["sha224, sha256, sha384, sha512(bytes bytea): bytea", "convert", "A SHA-2 digest.", "9.5"],
    ["bit_count(bytes bytea): bigint", "convert", "How many bits are set.", "9.5"],
    ["pg_size_pretty(size T): text for bigint, decimal", "convert", "A number of bytes in a unit that is easy to read.", "9.27.7"],
    ["pg_size_bytes(size text): bigint", "convert", "The number of bytes that a size with its unit is.", "9.27.7"],
    ["text(value any): text", "convert", "A value as text.", "4.2.9"],
    ["like_escape(pattern text, escape text): text", "convert", "A pattern of LIKE whose escape character becomes a backslash.", "9.7.1"],
    ["make_timestamp(year integer, month integer, day integer, hour integer, minute integer, second double): timestamp", "convert",
      "A date and time from their parts.", "9.9"],
    ["isfinite(date T): boolean for date, timestamp, timestamptz", "convert", "Whether it is no infinity.", "9.9"],
    ["parse_ident(name text): text[]", "split-join", "Splits a qualified name.", "9.4"],
    ...["text", "integer", "bigint", "decimal", "double", "boolean"].flatMap((type): Coded[] => [
      [`compare any(value ${type}, list ${type}[], relation text): boolean`, "logic", "Whether the comparison holds for an item.", "9.24"],
      [`compare all(value ${type}, list ${type}[], relation text): boolean`, "logic",
        "Whether the comparison holds for every item.", "9.24"],
      [`array_fill(item ${type}, lengths integer[], starts? integer[]): ${type}[]`, "list", "An array of one item, repeated.", "9.19"],
    ]),
    ["array_ndims(list anyarray): integer", "list", "The number of dimensions, null for no items.", "9.19"],
    ["array_dims(list anyarray): text", "list", "The bounds as text, null for no items.", "9.19"],
    ["array_length(list anyarray, dimension integer): integer", "list", "The number of items, null for none.", "9.19"],
    ["array_upper(list anyarray, dimension integer): integer", "list", "The last position.", "9.19", "array_length"],
    ["array_lower(list anyarray, dimension integer): integer", "list", "The first position.", "9.19"],
    ["num_nulls(values* any): integer", "logic", "How many values are null.", "9.2"],
    ["num_nonnulls(values* any): integer", "logic", "How many values are not null.", "9.2"],
    ...["integer", "bigint", "decimal"].flatMap((type): Coded[] => [
      [`gcd(left ${type}, right ${type}): ${type}`, "convert", "The greatest common divisor.", "9.3"],
      [`lcm(left ${type}, right ${type}): ${type}`, "convert", "The least common multiple.", "9.3"],
    ]),
    ["factorial(number bigint): decimal", "convert", "The product of the numbers up to one.", "9.3"],
    ["scale(number decimal): integer", "convert", "The number of decimals.", "9.3"],
    ["min_scale(number decimal): integer", "convert", "The number of decimals that are needed.", "9.3"],
    ["trim_scale(number decimal): decimal", "convert", "Without zeros at the end of the decimals.", "9.3"],
    ["div(left decimal, right decimal): decimal", "convert", "The quotient cut towards zero.", "9.3"],
    ["degrees(number double): double", "convert", "An angle in degrees.", "9.3"],
    ["width_bucket(number T, bounds T[]): integer for decimal, double", "convert",
      "How many of the bounds, which are in order, a number has reached.", "9.3", "width_bucket bounds"],
    ["width_bucket(number decimal, low decimal, high decimal, count integer): integer", "convert",
      "In which of some equal buckets a number lies.", "9.3"],
    ["width_bucket(number double, low double, high double, count integer): integer", "convert",
      "In which of some equal buckets a number lies.", "9.3", "width_bucket double"],
    ["to_timestamp(seconds double): timestamptz", "convert",
      "The moment so many seconds after the start of 1970.", "9.9", "to_timestamp seconds"],
    ["extract(field text, date date): decimal", "convert", "A field of a date.", "9.9", "extract date"],
    ["extract(field text, date timestamp): decimal", "convert", "A field of a date.", "9.9"],
    ["extract(field text, date timestamptz): decimal", "convert", "A field of a date.", "9.9"],
    ["date_part(field text, date timestamp): double", "convert", "A field of a date.", "9.9"],
    ["date_part(field text, date timestamptz): double", "convert", "A field of a date.", "9.9"],
    ["justify_hours, justify_days, justify_interval(span interval): interval", "convert",
      "A stretch of time with as many hours, days or both as make a larger unit moved there.", "9.9"],
    ["make_interval(years? integer, months? integer, weeks? integer, days? integer, hours? integer, mins? integer, secs? double): interval",
      "convert", "A stretch of time from its parts.", "9.9"],
    ["to_char(span interval, format text): text", "convert", "A stretch of time in a format.", "9.8", "to_char interval"],
    ["date_trunc(field text, span interval): interval", "convert", "A stretch of time without what is smaller than a field.", "9.9",
      "date_trunc interval"],
    ["make_date(year integer, month integer, day integer): date", "convert", "A date from its parts.", "9.9"],
  ], doc,
);

/** Functions that stand behind operators and others, by the name of what they do. */
const byOtherName: Readonly<Record<string, string>> = {
  like: "like",
  textlike: "like",
  texticlike: "ilike",
  textregexeq: "~",
  texticregexeq: "~*",
  textcat: "||",
  textlen: "length",
  texteq: "=",
  textne: "<>",
  text_lt: "<",
  text_le: "<=",
  text_gt: ">",
  text_ge: ">=",
};
const named: readonly FunctionRow[] = Object.entries(byOtherName).flatMap(([name, other]) =>
  [...text, ...operators, ...coded]
    .filter(
      (row) =>
        row.name === other && row.parameters[0].type === "text" && /^(?:text|nonarray)$/.test(row.parameters[1]?.type ?? "text"),
    )
    .slice(0, 1)
    .map(({ notation: _, aliases: __, ...row }): FunctionRow => {
      const parameters = row.parameters.slice(0, 2).map((parameter) => ({ ...parameter, type: "text" }));
      return { ...row, name, parameters };
    }),
);

/** The digits of a number in two's complement, of as many bits as its type has. */
const inBase = (name: string, base: number): Stepped[] =>
  (["integer", "bigint"] as const).map((type): Stepped => {
    const digits = step(
      "digits-of",
      { missing, letterDigits: "small", digitRoom: "as needed" },
      { base, bits: type === "integer" ? 32 : 64 },
    );
    return [`${name}(number ${type}): text`, "convert", `A number in base ${base}.`, "9.4", digits];
  });

/** What version 16 brought. */
// prettier-ignore
const since16: FunctionRow[] = steppedRows(
  [...inBase("to_bin", 2), ...inBase("to_oct", 8)],
  (section) => `PostgreSQL 17 documentation, ${section}`,
);

/** What the functions of doubles have, with a C library. */
const math = (library: string, overflow: "error" | "infinity" = "error") =>
  ({
    type: "double",
    result: "double",
    answers: {
      missing,
      numbers: "exact",
      outside: "error",
      overflow,
      tooSmall: "error",
      ofDecimals: "a double",
      closeness: library === "glibc" ? "nearest" : "the host's",
    },
  }) as const;

/** The functions of decimals: until version 15 a whole power has 16 decimals, since then 16 digits count. */
const decimalMath = (version: string): FunctionRow[] => {
  const { answers } = math("glibc");
  const row = {
    type: "decimal",
    result: "decimal",
    answers: { ...answers, tooSmall: "zero", ofDecimals: version === "15" ? "16 decimals" : "16 digits" },
    evidence: numbers,
  } as const;
  return [
    ...mathRows({ names: "sqrt exp ln log=log10 log10 log power pow=power", ...row }),
    ...mathRows({ names: "^=power", ...row, notation: "operator" }),
  ];
};

const itemAt = step("item", { missing, first: "1", negativePosition: "nowhere", noItem: "null" });
const together = step("join-lists", { missingList: "skipped" });
const appended = step("add-item", { missingList: "skipped" }, { end: "end" });
const prepended = step("add-item", { missingList: "skipped" }, { end: "start" });
const sameness = { case: "minded", padding: "counted", notANumber: "above all" } as const;
export const find = (wanted: "first place" | "all places") =>
  step("find-item", { missing, missingWanted: "looked for", ...sameness }, { wanted });
const holds = (how: "any" | "all") => step("holds-items", { missing, missingShared: "never there", ...sameness }, { how });
const replaced = (how: "replaced" | "left out") => step("replace-items", { missing, ...sameness }, { how });
const extreme = (wanted: "greatest" | "least", missingValue: "skipped" | "null") =>
  step("extreme", { missingValue, amongEqual: "first", ...sameness, mixed: "error" }, { wanted });

const partOfSpan = step("interval-field", { missing }, { seconds: "with their fraction" });

// prettier-ignore
const intervals = steppedRows(
  [
    ...intervalRows({
      moments: { date: "timestamp", timestamp: "timestamp", timestamptz: "timestamptz" },
      factors: ["double"],
      answers: { missing, byZero: "error" },
      form: "1 mon",
      evidence: "9.9",
    }),
    ["extract(field text, span interval > interval): decimal", "convert", "A part of a stretch of time.", "9.9",
      { ...partOfSpan, then: steps.decimal }],
    ["date_part(field text, span interval > interval): double", "convert", "A part of a stretch of time.", "9.9",
      { ...partOfSpan, then: steps.double }],
  ],
  doc,
);

// prettier-ignore
const arrays = steppedRows(
  [
    ["item of list(list anyarray, index subscript > position): item", "list", "The item at a position.", "8.15.3", itemAt],
    ["cardinality(list anyarray): integer", "list", "The number of items.", "9.19", step("size", { missing })],
    ["trim_array(list anyarray, count integer): same", "list",
      "Without the last n items.", "9.19", step("drop-items", { missing, tooMany: "error" }, { end: "end" })],
    ...["text", "integer", "bigint", "decimal", "double", "boolean"].flatMap((type): Stepped[] => [
      [`||(list ${type}[], item ${type}): ${type}[]`, "list", "Appends an item to an array.", "9.19", appended],
      [`||(item ${type}, list ${type}[]): ${type}[]`, "list", "Puts an item before an array.", "9.19", prepended],
      [`||(left ${type}[] > a, right ${type}[] > b): ${type}[]`, "list", "Joins two arrays.", "9.19", together],
      [`array_append(list ${type}[], item ${type}): ${type}[]`, "list", "Appends an item to an array.", "9.19", appended],
      [`array_prepend(item ${type}, list ${type}[]): ${type}[]`, "list", "Puts an item before an array.", "9.19", prepended],
      [`array_cat(left ${type}[] > a, right ${type}[] > b): ${type}[]`, "list", "Joins two arrays.", "9.19", together],
      [`array_remove(list ${type}[], item ${type}): ${type}[]`, "list",
        "Without the items that are equal to one.", "9.19", replaced("left out")],
      [`array_replace(list ${type}[], old ${type} > item, new ${type} > replacement): ${type}[]`, "list",
        "With one item in place of another.", "9.19", replaced("replaced")],
      [`array_position(list ${type}[], item ${type}, start? integer): integer`, "list",
        "The position of an item.", "9.19", find("first place")],
      [`array_positions(list ${type}[], item ${type}): integer[]`, "list", "The positions of an item.", "9.19", find("all places")],
      [`@>(left ${type}[]! > list, right ${type}[]! > others): boolean`, "list",
        "Whether the first array holds every item of the second.", "9.19", holds("all")],
      [`<@(left ${type}[]! > others, right ${type}[]! > list): boolean`, "list",
        "Whether the second array holds every item of the first.", "9.19", holds("all")],
      [`&&(left ${type}[]! > list, right ${type}[]! > others): boolean`, "list", "Whether two arrays share an item.", "9.19", holds("any")],
    ]),
    ["slice of list(list anyarray, first subscript > start, last subscript > until): same", "list",
      "The items from one position to another.", "8.15.3", step("slice-items", { missing, until: "position",
        outsideList: "passed", fraction: "refused" })],
    ...["text", "integer", "bigint", "decimal", "double", "boolean", "date", "interval", "char"].flatMap((type): Stepped[] => [
      [`greatest(values* ${type}): ${type === "char" ? "bpchar" : type}`, "logic",
        "The largest value.", "9.18.4", extreme("greatest", "skipped")],
      [`least(values* ${type}): ${type === "char" ? "bpchar" : type}`, "logic",
        "The smallest value.", "9.18.4", extreme("least", "skipped")],
    ]),
    ...inBase("to_hex", 16),
    ["text_larger(left text > values, right text > values): text", "logic",
      "The larger of two texts.", "9.18.4", extreme("greatest", "null")],
    ["text_smaller(left text > values, right text > values): text", "logic",
      "The smaller of two texts.", "9.18.4", extreme("least", "null")],
  ],
  (section) => `PostgreSQL 15 documentation, ${section}`,
);

/** What a literal of unknown type leaves open, as it may be any of the types that these take (10.3). */
export const refused: readonly Refused[] = [
  ["- + * / % & | # << >> gcd lcm", "unknown, unknown", "ambiguous-call"],
  ["- ~", "unknown", "ambiguous-call"],
  ["to_char trunc to_hex to_bin to_oct bit_count array_fill", "unknown, …", "ambiguous-call"],
  ["extract date_part date_trunc", "*, unknown", "ambiguous-call"],
  ["+", "date, unknown", "ambiguous-call"],
  ["+", "unknown, date", "ambiguous-call"],
  ["pg_size_pretty", "unknown|smallint|integer", "ambiguous-call"],
  ["to_hex to_bin to_oct", "smallint", "ambiguous-call"],
];

/** The functions and operators of a version, with the case mapping of a C library. */
export const postgresqlRows = (version: string, library: string): readonly FunctionRow[] =>
  refusing(rowsOf(version, library), refused);

const rowsOf = (version: string, library: string): readonly FunctionRow[] => [
  ...text,
  ...padded,
  ...recasing(library === "musl" ? "simple, capital ß" : "simple"),
  ...recasing("ascii", "text_c"),
  ...ilikeInC,
  ...operators,
  ...arrays,
  piRow("pi", { ...math(library), evidence: numbers }),
  ...decimalMath(version),
  ...mathRows({ names: "sqrt |/=sqrt cbrt ||/=cbrt exp ln log=log10 log10 radians", ...math(library), evidence: numbers }),
  ...mathRows({ names: "asin acos atan atan2 tanh asinh acosh", ...math(library), evidence: numbers }),
  ...mathRows({ names: "sin cos tan cot sinh cosh atanh", ...math(library, "infinity"), evidence: numbers }),
  ...["smallint", "integer", "bigint", "decimal", "double"].flatMap((type) => [
    ...itselfRows(["+"], { type, summary: "The number itself.", result: type, notation: "operator", evidence: numbers }),
    ...signedRows({ "-": "opposite", abs: "size", "@": "size" }, { type, answers: signs, evidence: numbers }),
  ]),
  ...["decimal", "double"].flatMap((type) => [
    ...signedRows({ sign: "sign" }, { type, answers: signs, evidence: numbers }),
    ...roundRows(
      {
        round: type === "decimal" ? "half away from zero" : "half to even",
        ceil: "up",
        ceiling: "up",
        floor: "down",
        trunc: "toward zero",
      },
      { type, answers: exact, evidence: numbers },
    ),
  ]),
  ...roundRows(
    { round: "half away from zero", trunc: "toward zero" },
    { type: "decimal", digits: "digits integer", answers: { ...exact, moreDigits: "zeros" }, evidence: numbers },
  ),
  ...(["smallint", "integer", "bigint"] as const).flatMap((type) =>
    bitRows(
      { "&": "and", "|": "or", "#": "xor", "~": "not", "<<": "left", ">>": "right" },
      {
        type,
        places: "integer",
        answers: { missing, range: ranges[type], placesBelow: "counted round", placesBeyond: "filled" },
        evidence: numbers,
      },
    ),
  ),
  // A literal may still become something else than a text; one of a fixed length loses what is said.
  ...collations.flatMap((name) => {
    const isC = /^(?:C|POSIX|ucs_basic)$/.test(name);
    const results = { text: isC ? "text_c" : "text", unknown: isC ? "unknown C" : "unknown", padded: "bpchar" };
    return Object.entries(results).flatMap(([type, result]) =>
      itselfRows([`collate ${name}`], {
        type,
        summary: "A text with a collation.",
        result,
        notation: "operator",
        evidence: doc("24.2.2"),
      }),
    );
  }),
  ...logicRows({
    truth: "true or false",
    result: "boolean",
    condition: "condition",
    evaluates: "left first, not promised",
    constants: "any",
    hasUnknown: true,
    evidence: [doc("9.1 and 4.2.14"), doc("9.2"), doc("9.2")],
  }),
  ...formatRows(version),
  ...coded,
  ...dayRows("integer", doc("9.9")),
  ...intervals,
  ...aggregates,
  ...named,
  ...(version === "15" ? [] : since16),
];
