import { lookup } from "../../values/index.ts";
import { type Part, filled, isClosed, joinedAs, templateOf } from "./said.ts";
import { type TaskId, tasks } from "./table.ts";

/**
 * What functions of other languages are for, by lower-case names: a task and what it takes in the order of the arguments. A number is
 * an argument that must be that one, … what is said again with what came of it, = what stands for an argument that is left out.
 */
const table: Readonly<Record<string, readonly string[]>> = {
  left: ["first text count", "first text count=1"],
  right: ["last text count", "last text count=1"],
  "mid substr substring": ["slice text start count", "from text start"],
  "find locate": ["position needle text", "positionFrom needle text start"],
  search: ["positionAnyCase needle text"],
  "strpos indexof index_of": ["position text needle"],
  instr: ["position text needle", "positionFrom text needle start", "positionFrom start text needle"],
  position: ["position needle text"],
  substitute: ["remove text old", "replace text old new", "replaceFirst text old new 1"],
  replace: ["replace text old new", "replaceSpan text start count new", "remove text old"],
  "regexp_replace regex_replace": ["replacePattern text pattern new", "replacePattern text pattern new="],
  "regexp_extract regexp_substr": ["extractPattern text pattern"],
  "regexp_like regexp_matches regexp_match matches regex regexp rlike": ["matches text pattern"],
  remove: ["remove text old"],
  overlay: ["replaceSpan text new start count"],
  insert: ["replaceSpan text start count new"],
  "substring-before strbefore": ["before text delimiter"],
  "substring-after strafter": ["after text delimiter"],
  "substring-after-last": ["lastPiece text delimiter"],
  "substring-before-last": [],
  eomonth: ["monthEnd date 0"],
  explode: ["split delimiter text"],
  implode: ["joinWith separator a b …"],
  str_replace: ["replace old new text"],
  ucwords: ["title text"],
  strrev: ["reverse text"],
  ljust: ["padRight text length fill= ", "padRight text length fill"],
  rjust: ["padLeft text length fill= ", "padLeft text length fill"],
  // What no row of these is for is no typing mistake of another's name either.
  "roundup swapcase ilike_escape translate mismatches strptime to_months to_microseconds datesub array_pop_front": [],
  "list_distinct array_reverse_sort decade millisecond acosh asinh atanh cosh sinh tanh atan2 log2 sin sqrt cot base64": [],
  "encode decode typeof pg_typeof fdiv fmod sha sha2 sha224 sha256 sha512 isnan array_slice array_cat array_resize": [],
  "array_aggr list_string_agg array_filter last bool_and sem count_if countif mode map_contains map_keys row now ago": [],
  "make_time maketime to_timestamp last_value lead oct power convert_tz makedate leftb rightb midb replaceb lenb isna": [],
  "istext isnontext islogical ifs n odd days counta workday rate bitand bitor bitxor stdev var quote_ident array_positions": [],
  "texteq textne sformat is_normalized boolean extract unistr convert_to center overlaps likely datetime julianday data sort datalength":
    [],
  substring_index: ["firstPiece text delimiter 1", "lastPiece text delimiter -1", "firstPieces text delimiter n"],
  split_part: ["firstPiece text delimiter 1", "lastPiece text delimiter -1", "piece text delimiter n"],
  "split tokenize string_to_array string_split str_split": ["split text delimiter", "piece text delimiter n"],
  "upper ucase toupper to_upper upper-case uppercase touppercase": ["upper text"],
  "lower lcase tolower to_lower lower-case lowercase tolowercase": ["lower text"],
  "proper initcap title titlecase": ["title text"],
  capitalize: ["capital text"],
  "len length strlen char_length character_length string-length size": ["length text"],
  octet_length: ["bytes text"],
  "trim strip": ["trim text"],
  btrim: ["trim text", "trimCharacters text characters"],
  "ltrim lstrip trim_start trimstart": ["trimStart text"],
  "rtrim rstrip trim_end trimend": ["trimEnd text"],
  "normalize-space": ["singleSpaces text"],
  "concat concatenate": ["join a b …"],
  concat_ws: ["joinFilled separator a b …"],
  textjoin: ["joinFilled separator true a b …"],
  join: ["joinWith separator a b …"],
  "lpad pad_left padleft padstart": ["padLeft text length fill", "padLeft text length fill= "],
  "rpad pad_right padright padend": ["padRight text length fill", "padRight text length fill= "],
  "rept repeat": ["repeat text count"],
  reverse: ["reverse text"],
  "contains includes": ["contains text needle"],
  "starts-with starts_with startswith": ["startsWith text needle"],
  "ends-with ends_with endswith": ["endsWith text needle"],
  exact: ["sameText a b"],
  "if iif ifelse if_else": ["choose condition then else"],
  coalesce: ["fallback value other …"],
  "ifnull nvl": ["fallback value other"],
  isnull: ["isMissing value", "fallback value other"],
  "isblank empty is_null isempty": ["isMissing value"],
  nullif: ["nothingFor value given"],
  "iferror iserror": ["onError value other", "onError value other="],
  "isnumber isnumeric": ["isNumber text"],
  "value number to_number tonumber": ["toNumber text"],
  "string tostring str to_string to_char tochar text": ["toText number"],
  round: ["round number digits"],
  "ceil ceiling": ["roundUp number"],
  "int floor": ["roundDown number"],
  abs: ["absolute number"],
  mod: ["remainder a b"],
  "quotient div intdiv": ["wholeQuotient a b"],
  "max greatest": ["larger a b"],
  "min least": ["smaller a b"],
  "unicode code ascii ord": ["codeOf text"],
  "unichar chr char": ["characterOf code"],
  and: ["both a b …"],
  or: ["either a b …"],
  not: ["opposite condition"],
  fixed: ["decimals number digits"],
  year: ["year date"],
  month: ["month date"],
  day: ["day date"],
  "strip_accents unaccent": ["removeAccents text"],
  zfill: ["zeroFilled number digits"],
  datediff: ["daysBetween to from"],
  date_diff: ["daysBetween from to"],
  "add_months addmonths edate": ["monthsLater date months"],
  "last_day lastday": ["monthEnd date"],
  "weekofyear isoweeknum isoweek": ["week date"],
  quarter: ["quarter date"],
  monthname: ["monthName date"],
  dayname: ["weekday date"],
  numbervalue: ["decimalComma text"],
  date: ["toDate text", "makeDate year month day"],
  "datevalue todate to_date": ["toDate text"],
  "toint tointeger": ["toWhole text"],
  hour: ["hour moment"],
  minute: ["minute moment"],
  second: ["second moment"],
  dayofyear: ["dayOfYear date"],
  isodow: ["isoWeekday date"],
  weekday: ["isoWeekday date 2"],
  make_date: ["makeDate year month day"],
  "trunc truncate": ["cutOff number digits", "whole number"],
  "fix rounddown": ["whole number"],
  "sign sgn": ["signOf number"],
  isodd: ["isOdd number"],
  isdate: ["isDate text"],
  mround: ["roundTo number multiple"],
  iseven: ["isEven number"],
  zeroifnull: ["fallback value other=0"],
  space: ["repeat count text= "],
  "hex to_hex dec2hex": ["hexadecimal number"],
  "bin to_binary dec2bin": ["binary number"],
  conv: ["hexadecimal number 10 16", "binary number 10 2"],
  "base to_base": ["hexadecimal number 16", "binary number 2"],
  "regexp_count regex_count": ["countPattern text pattern"],
  "regexp_full_match fullmatch": ["fullMatch text pattern"],
  clean: ["removeControls text"],
  "list_contains list_has array_contains array_has": ["listHas list item"],
  "cardinality list_length array_length array_size array:size": ["listLength list"],
  "list_position list_indexof array_position array_indexof": ["listPosition list item"],
  "array_to_string array_join list_to_string": ["listJoined list separator"],
  "list_append array_append array_push_back array:append": ["listWith list item"],
  list_prepend: ["listBehind item list"],
  array_push_front: ["listBehind list item"],
  array_prepend: ["listBehind item list"],
  "list_reverse array_reverse array:reverse": ["listReversed list"],
  "list_sort array_sort": ["listSorted list"],
  "replace_all replaceall": ["replace text old new"],
};

const calls = lookup(
  Object.fromEntries(Object.entries(table).flatMap(([names, signatures]) => names.split(" ").map((name) => [name, signatures]))),
);

/** What a call of another language is for, and how that is said; no `text` where it is not said here. */
export interface Meant {
  readonly task: TaskId;
  readonly text: string | undefined;
  readonly isClosed: boolean;
}

/** Whether a name is that of a function of another language. */
export const isForeign = (name: string): boolean => calls[name.toLowerCase()] !== undefined;

/** What a function of another language may be for. */
export const foreignTasks = (name: string): TaskId[] =>
  (calls[name.toLowerCase()] ?? []).map((signature) => signature.split(" ")[0] as TaskId);

/** What `name` with these arguments is for in other languages, said in a dialect; `literal` writes a text there. */
export function meantBy(
  name: string,
  args: readonly Part[],
  dialect: string,
  literal: (text: string) => string,
): Meant | undefined {
  const signatures = (calls[name.toLowerCase()] ?? []).map((signature) => signature.split(/ (?!$)/));
  const [quote] = literal("");
  for (const [task, ...slots] of signatures) {
    const read = partsOf(slots, args, literal);
    const parts = read?.map((each) => turned(each, quote));
    if (!parts?.every((each) => isOfKinds(each, task as TaskId, quote))) continue;
    const template = templateOf(task as TaskId, dialect);
    if (template === undefined) return { task: task as TaskId, text: undefined, isClosed: true };
    if (task === "join") return { task, text: joinedAs(template, args), isClosed: isClosed(template) };
    const text = parts.reduce<string | undefined>((said, more) => {
      const [first] = Object.keys(tasks[task as TaskId].takes).filter((slot) => !(slot in more));
      return filled(template, said === undefined ? more : { ...more, [first]: { text: said, isOpen: !isClosed(template) } });
    }, undefined);
    return { task: task as TaskId, text, isClosed: isClosed(template) };
  }
  return undefined;
}

/** What is searched for. */
const sought: ReadonlySet<string> = new Set(["needle", "delimiter"]);

/** What is no number. */
const never: ReadonlySet<string> = new Set([...sought, "old"]);

/** Whether what is written for a slot may be what a task takes there: no text for a number, no number is searched for, and pieces are counted from the first. */
function isOfKinds(parts: Readonly<Record<string, Part>>, task: TaskId, quote: string): boolean {
  const takes: Readonly<Record<string, unknown>> = tasks[task].takes;
  return Object.entries(parts).every(([slot, { text }]) =>
    typeof takes[slot] === "number"
      ? !text.startsWith(quote) && !(slot === "n" && text.startsWith("-"))
      : !(never.has(slot) && /^-?\d+$/.test(text)),
  );
}

/** What is searched for, and the text that is searched, the other way round where only the latter is a literal. */
function turned(parts: Readonly<Record<string, Part>>, quote: string): Readonly<Record<string, Part>> {
  const slot = Object.keys(parts).find((name) => sought.has(name));
  const isLiteral = (name: string) => parts[name]?.text.startsWith(quote);
  if (slot === undefined || !isLiteral("text") || isLiteral(slot)) return parts;
  return { ...parts, text: parts[slot], [slot]: parts.text };
}

/** The arguments by what a task takes, once for each time that it is said; undefined where they are not such. */
function partsOf(
  slots: readonly string[],
  args: readonly Part[],
  literal: (text: string) => string,
): Readonly<Record<string, Part>>[] | undefined {
  const isOfMany = slots.at(-1) === "…";
  const own = isOfMany ? slots.slice(0, -1) : slots;
  const wanted = own.filter((slot) => !slot.includes("="));
  if (isOfMany ? args.length < wanted.length : args.length !== wanted.length) return undefined;
  const parts: Record<string, Part> = {};
  for (const [i, slot] of wanted.entries()) {
    if (/^(?:-?\d+|true)$/.test(slot)) {
      if (args[i].text.replace(/\(\)$/, "").toLowerCase() !== slot) return undefined;
    } else parts[slot] = args[i];
  }
  for (const slot of own.filter((each) => each.includes("="))) {
    const [name, value] = slot.split("=");
    parts[name] = { text: /^\d+$/.test(value) ? value : literal(value), isOpen: false };
  }
  const last = wanted.at(-1)!;
  const fixed = Object.fromEntries(Object.entries(parts).filter(([slot]) => slot === "separator"));
  return [parts, ...args.slice(wanted.length).map((arg) => ({ ...fixed, [last]: arg }))];
}
