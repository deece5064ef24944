import { lookup } from "../../values/index.ts";
import { type Part, filled, isClosed, joinedAs, templateOf } from "./said.ts";
import { type TaskId, tasks } from "./table.ts";

/**
 * What functions of other languages are for, by lower-case name: a task and what it takes in the order of the arguments. A number is
 * an argument that must be that one, … what is said again with what came of it, = what stands for an argument that is left out.
 */
const calls: Readonly<Record<string, readonly string[]>> = lookup({
  left: ["first text count", "first text count=1"],
  right: ["last text count", "last text count=1"],
  mid: ["slice text start count"],
  substr: ["slice text start count", "from text start"],
  substring: ["slice text start count", "from text start"],
  find: ["position needle text", "positionFrom needle text start"],
  search: ["positionAnyCase needle text"],
  strpos: ["position text needle"],
  instr: ["position text needle", "positionFrom text start needle"],
  locate: ["position needle text", "positionFrom needle text start"],
  position: ["position needle text"],
  indexof: ["position text needle"],
  index_of: ["position text needle"],
  substitute: ["replace text old new", "replaceFirst text old new 1"],
  replace: ["replace text old new", "replaceSpan text start count new"],
  regexp_replace: ["replacePattern text pattern new"],
  regex_replace: ["replacePattern text pattern new"],
  regexp_extract: ["extractPattern text pattern"],
  regexp_substr: ["extractPattern text pattern"],
  regexp_like: ["matches text pattern"],
  regexp_matches: ["matches text pattern"],
  regexp_match: ["matches text pattern"],
  matches: ["matches text pattern"],
  regex: ["matches text pattern"],
  remove: ["remove text old"],
  overlay: ["replaceSpan text new start count"],
  insert: ["replaceSpan text start count new"],
  "substring-before": ["before text delimiter"],
  strbefore: ["before text delimiter"],
  "substring-after": ["after text delimiter"],
  strafter: ["after text delimiter"],
  substring_index: ["firstPiece text delimiter 1", "lastPiece text delimiter -1"],
  split_part: ["firstPiece text delimiter 1", "lastPiece text delimiter -1", "piece text delimiter n"],
  split: ["split text delimiter"],
  tokenize: ["split text delimiter"],
  string_to_array: ["split text delimiter"],
  string_split: ["split text delimiter"],
  str_split: ["split text delimiter"],
  upper: ["upper text"],
  ucase: ["upper text"],
  toupper: ["upper text"],
  to_upper: ["upper text"],
  "upper-case": ["upper text"],
  uppercase: ["upper text"],
  lower: ["lower text"],
  lcase: ["lower text"],
  tolower: ["lower text"],
  to_lower: ["lower text"],
  "lower-case": ["lower text"],
  lowercase: ["lower text"],
  proper: ["title text"],
  initcap: ["title text"],
  title: ["title text"],
  titlecase: ["title text"],
  capitalize: ["capital text"],
  len: ["length text"],
  length: ["length text"],
  strlen: ["length text"],
  char_length: ["length text"],
  character_length: ["length text"],
  "string-length": ["length text"],
  size: ["length text"],
  octet_length: ["bytes text"],
  trim: ["trim text"],
  btrim: ["trim text", "trimCharacters text characters"],
  strip: ["trim text"],
  ltrim: ["trimStart text"],
  rtrim: ["trimEnd text"],
  "normalize-space": ["singleSpaces text"],
  concat: ["join a b …"],
  concatenate: ["join a b …"],
  concat_ws: ["joinFilled separator a b …"],
  textjoin: ["joinFilled separator true a b …"],
  join: ["joinWith separator a b …"],
  lpad: ["padLeft text length fill", "padLeft text length fill= "],
  rpad: ["padRight text length fill", "padRight text length fill= "],
  rept: ["repeat text count"],
  repeat: ["repeat text count"],
  reverse: ["reverse text"],
  contains: ["contains text needle"],
  includes: ["contains text needle"],
  "starts-with": ["startsWith text needle"],
  starts_with: ["startsWith text needle"],
  startswith: ["startsWith text needle"],
  "ends-with": ["endsWith text needle"],
  ends_with: ["endsWith text needle"],
  endswith: ["endsWith text needle"],
  exact: ["sameText a b"],
  if: ["choose condition then else"],
  iif: ["choose condition then else"],
  coalesce: ["fallback value other …"],
  ifnull: ["fallback value other"],
  nvl: ["fallback value other"],
  isnull: ["isMissing value", "fallback value other"],
  isblank: ["isMissing value"],
  empty: ["isMissing value"],
  is_null: ["isMissing value"],
  nullif: ["nothingFor value given"],
  iferror: ["onError value other"],
  isnumber: ["isNumber text"],
  isnumeric: ["isNumber text"],
  value: ["toNumber text"],
  number: ["toNumber text"],
  to_number: ["toNumber text"],
  tonumber: ["toNumber text"],
  string: ["toText number"],
  tostring: ["toText number"],
  str: ["toText number"],
  round: ["round number digits"],
  ceil: ["roundUp number"],
  ceiling: ["roundUp number"],
  int: ["roundDown number"],
  floor: ["roundDown number"],
  abs: ["absolute number"],
  mod: ["remainder a b"],
  max: ["larger a b"],
  greatest: ["larger a b"],
  min: ["smaller a b"],
  least: ["smaller a b"],
  unicode: ["codeOf text"],
  code: ["codeOf text"],
  ascii: ["codeOf text"],
  ord: ["codeOf text"],
  unichar: ["characterOf code"],
  chr: ["characterOf code"],
  char: ["characterOf code"],
  and: ["both a b …"],
  or: ["either a b …"],
  not: ["opposite condition"],
  fixed: ["decimals number digits"],
  year: ["year date"],
  month: ["month date"],
  day: ["day date"],
  strip_accents: ["removeAccents text"],
  unaccent: ["removeAccents text"],
});

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
  for (const [task, ...slots] of signatures) {
    const parts = partsOf(slots, args, literal);
    if (!parts) continue;
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
