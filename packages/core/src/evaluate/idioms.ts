import type { Value } from "../values/index.ts";
import type { AnswerOf } from "../traits/index.ts";
import type { Answer, Idiom } from "./idiom.ts";

/** What a segment that is cut once answers besides. */
const segment = { zeroPiece: "empty", noPiece: "empty", emptyNeedle: "at the start" } as const;
const padded = { negativeCount: "empty", emptyFill: "whole" } as const;
const searched = { pattern: "literal", group: "match" } as const;

/** What a search that found nothing comes to, where a length less than one is taken from the start then. */
const cutBefore: Answer<AnswerOf<"absent">> = [
  "locate.absent",
  { zero: ["slice.negativeLength", { error: "error", empty: "empty", before: "empty" }], "*": "locate.absent" },
];
const fromStart: Answer<AnswerOf<"absent"> & AnswerOf<"noPiece">> = ["locate.absent", { zero: "whole", "*": "locate.absent" }];
const wholly = { missing: "substitute.missing", case: "substitute.case", absent: "whole" } as const;
const counted = { report: "count", absent: "zero" } as const;
const place = {
  ...searched,
  report: "position",
  missing: "locate.missing",
  case: "locate.case",
  absent: "locate.absent",
} as const;
const pieceOfList = {
  ...segment,
  part: "nth",
  absent: "whole",
  noPiece: "null",
  case: "split.case",
  missing: "split.missing",
} as const;
const byRepeating = {
  ...padded,
  missing: "repeat.missing",
  longer: ["repeat.negativeCount", { error: "error", "*": "kept" }],
  tooLong: "repeat.tooLong",
  unit: "measure.counted",
} as const;
const byCutting = {
  ...padded,
  side: "left",
  missing: "slice.missing",
  longer: "cut at the start",
  tooLong: "error",
  unit: "slice.unit",
} as const;

const connected = { evaluates: "left first, not promised", inConditions: "the same", constants: "any" } as const;
const contained = {
  pattern: "literal",
  where: "anywhere",
  missing: "test.missing",
  case: "test.case",
  truth: "test.truth",
} as const;

/** The parts of dates by their tokens, and how they are read and written by them. */
const dateParts = "Y year 4, m month 2, d day 2";
const writtenDate = { missing: "null", formatLanguage: "percent", unknownToken: "error", emptyFormat: "error" } as const;
const readDate = {
  missing: "null",
  notADate: "null",
  unknownToken: "error",
  emptyFormat: "error",
  formatSpaces: "as it stands",
  restOfText: "no date",
  partsLeftOut: "1900-01-01",
  yearDigits: "as written",
  nameBeginnings: "refused",
  halfOfDay: "counts",
  doubledSign: "one sign",
  formatGives: "a date and time",
} as const;

/** The formats of a date of day, month and year that is turned; of one that is cut at places the mark is a point, unless it is told. */
const turnedDate: NonNullable<Idiom["when"]> = ({ between, delimiter = ".", pattern, new: put }) => {
  const [, sign] = (typeof put === "string" && /^[\\$]3(.)[\\$]2\1[\\$]1$/.exec(put)) || [];
  const [mark] = pattern === undefined ? [delimiter] : (inPattern(patterns.date, pattern) ?? []);
  const to = pattern === undefined ? between : sign;
  if (typeof mark !== "string" || typeof to !== "string" || [mark, to].some((each) => each.includes("%"))) return undefined;
  return { from: ["%d", "%m", "%Y"].join(mark), to: ["%Y", "%m", "%d"].join(to) };
};

/** The only text of a character again and again. */
const isOfOne = (text: Value | undefined): text is string =>
  typeof text === "string" && text !== "" && text.replaceAll(text[0], "") === "";

/** The only character of a text, where it has but one. */
const oneOf = (text: Value | undefined): string | undefined =>
  typeof text === "string" && [...text].length === 1 ? text : undefined;

/** A character that a pattern names: by itself, or behind a backslash. */
const named = (written: string | undefined): string | undefined => written?.replace(/^\\(?=\W)/, "");

/** The parts of a pattern, where it is a text of that form. */
const inPattern = (form: RegExp, pattern: Value | undefined): (string | undefined)[] | undefined =>
  typeof pattern === "string" ? form.exec(pattern)?.slice(1).map(named) : undefined;

/** The delimiter that a pattern names first. */
const delimiterOf = (found: (string | undefined)[] | undefined): { delimiter: string } | undefined =>
  found?.[0] === undefined ? undefined : { delimiter: found[0] };

const mark = String.raw`(\\\W|[^\\^$.*+?()[\]{}|])`;
const digits = String.raw`(?:\.|\[0-9\]|\\d)(?:\{\d\}|\.*|\+|\*)`;
const patterns = {
  upTo: new RegExp(`^\\^\\.\\*${mark}$`),
  from: new RegExp(`^${mark}\\.\\*\\$?$`),
  characters: /^\[((?:[^\\^\]-]|\\[^\w])+)\]\+?$/,
  piece: new RegExp(`^(\\^?)\\[\\^${mark}\\]\\+(\\$?)$`),
  either: /^\(?([^\\^$.*+?()[\]{}|]+)\|([^\\^$.*+?()[\]{}|]+)\)?$/,
  date: new RegExp(`^\\^?\\(${digits}\\)${mark}\\(${digits}\\)\\1\\(${digits}\\)\\$?$`),
  swapped: new RegExp(`^\\^?\\((?:\\.\\*|\\[\\^[^\\]]\\][*+])\\)(${mark} ?) ?\\*?\\(\\.\\*\\)\\$?$`),
};

/** The languages of regular expressions. */
const regular = { pattern: ["posix", "xpath", "open", "pcre", "re2"] } as const;

/** Which piece a width of blanks leaves, counted from 1. */
function widened(start: Value | undefined, width: Value | undefined): { n: number } | undefined {
  const n = (Number(start) - 1) / Number(width) + 1;
  return typeof start === "number" && typeof width === "number" && Number.isInteger(n) && n >= 1 ? { n } : undefined;
}

/** What stands in a slot of LIKE but % at its ends. */
const like = { test: { pattern: ["like, escape strict", "like, escape open", "like, escape literal", "like"] } } as const;
const likeParts = (pattern: Value | undefined, escape: Value | undefined) => {
  // Another escape character than a backslash may stand in the text.
  if (typeof pattern !== "string" || (escape !== undefined && !["", "\\"].includes(String(escape)))) return undefined;
  return /^(%?)([^%_\\]+)(%?)$/.exec(pattern);
};

/** How one operation is written by others, in whatever dialect. */
export const idioms: readonly Idiom[] = [
  {
    does: "before a delimiter, by a search and a cut, where one that is not there is an error",
    shape: "slice(text, 1, locate(text, delimiter) - 1)",
    needs: {
      slice: { from: "start", first: "1" },
      locate: { absent: "error", pattern: "literal", case: "minded", unit: "slice.unit" },
    },
    is: "segment(text, delimiter)",
    answers: { segment: { ...segment, missing: "locate.missing", part: "before", absent: "error", case: "minded" } },
    exact: true,
  },
  {
    does: "before a delimiter, by a search and a cut",
    shape: "slice(text, 1, locate(text, delimiter) - 1)",
    needs: { slice: { from: "start" } },
    is: "segment(text, delimiter)",
    answers: { segment: { ...segment, missing: "slice.missing", part: "before", absent: cutBefore, case: "locate.case" } },
  },
  {
    does: "after a delimiter, by a search and a cut",
    shape: "slice(text, locate(text, delimiter) + size(delimiter), …)",
    is: "segment(text, delimiter)",
    answers: {
      segment: {
        ...segment,
        noPiece: fromStart,
        missing: "slice.missing",
        part: "after",
        absent: fromStart,
        case: "locate.case",
      },
    },
  },
  {
    does: "between two delimiters, by searches and a cut",
    shape: "slice(text, locate:first(text, open) + size(open), locate(text, close, …) - locate(text, open) - size(open))",
    is: "segment(segment:inner(text, open), close)",
    answers: {
      segment: { ...segment, missing: "slice.missing", part: "before", absent: "first.absent", case: "first.case" },
      inner: { ...segment, missing: "slice.missing", part: "after", absent: "first.absent", case: "first.case" },
    },
  },
  {
    does: "after the last delimiter, by marking it and a search",
    shape: "slice(text, locate(substitute(text, delimiter, mark, _, …), mark) + size(mark), …)",
    is: "segment(text, delimiter, -1)",
    answers: {
      segment: { ...segment, missing: "slice.missing", part: "through nth", absent: fromStart, case: "substitute.case" },
    },
  },
  {
    does: "after the last delimiter, by what is left of the text without what ends it",
    shape: "substitute(text, trim(text, substitute:inner(text, delimiter, '')), '', …)",
    needs: { trim: { ends: "end" } },
    is: "segment(text, delimiter, -1)",
    answers: { segment: { ...segment, ...wholly, part: "through nth" } },
  },
  {
    does: "after the last delimiter, by the text from its end",
    shape: "reverse(segment:cut(reverse:inner(text), delimiter, n?))",
    needs: { cut: { part: ["before", "nth", "through nth"] } },
    when: ({ delimiter, n = 1 }) => (oneOf(delimiter) === undefined || n !== 1 ? undefined : {}),
    is: "segment(text, delimiter, -1)",
    answers: { segment: { "…": "cut", part: "through nth" } },
  },
  {
    does: "after the last delimiter, by a pattern",
    shape: "substitute(text, pattern, '', …)",
    needs: { substitute: regular },
    when: ({ pattern }) => delimiterOf(inPattern(patterns.upTo, pattern)),
    is: "segment(text, delimiter, -1)",
    answers: { segment: { ...segment, ...wholly, part: "through nth" } },
  },
  {
    does: "before the first delimiter, by a pattern",
    shape: "substitute(text, pattern, '', …)",
    needs: { substitute: regular },
    when: ({ pattern }) => delimiterOf(inPattern(patterns.from, pattern)),
    is: "segment(text, delimiter)",
    answers: { segment: { ...segment, ...wholly, part: "before" } },
  },
  {
    does: "the second delimiter, by a search behind the first",
    shape: "locate(text, delimiter, locate:first(text, delimiter) + 1)",
    is: "find(text, delimiter, _, 2)",
    answers: { find: place },
  },
  {
    does: "the nth delimiter, by a search behind the one before",
    shape: "locate(text, delimiter, find(text, delimiter, _, n, …) + 1)",
    when: ({ n }) => (typeof n === "number" ? { next: n + 1 } : undefined),
    is: "find(text, delimiter, _, next)",
    answers: { find: place },
  },
  {
    does: "the nth piece, by widening what is between",
    shape: "trim(slice(substitute(text, delimiter, repeat(' ', width), …), place * width + 1, width), …)",
    needs: { slice: { from: "start" } },
    when: ({ place }) => (typeof place === "number" && place >= 0 ? { n: place + 1 } : undefined),
    is: "segment(text, delimiter, n)",
    answers: { segment: { ...segment, ...wholly, part: "nth" } },
  },
  {
    does: "the nth piece, by widening what is between to a number of blanks",
    shape: "trim(slice(substitute(text, delimiter, repeat(' ', width), …), start, width), …)",
    needs: { slice: { from: "start" } },
    when: ({ start, width }) => widened(start, width),
    is: "segment(text, delimiter, n)",
    answers: { segment: { ...segment, ...wholly, part: "nth" } },
  },
  {
    does: "the last piece, by widening what is between",
    shape: "trim(slice(substitute(text, delimiter, repeat(' ', width), …), 1, width), …)",
    needs: { slice: { from: "end" } },
    is: "segment(text, delimiter, -1)",
    answers: { segment: { ...segment, ...wholly, part: "nth" } },
  },
  {
    does: "the nth piece, by splitting",
    shape: "item(split(text, delimiter, …), n)",
    when: ({ delimiter }) => (typeof delimiter === "string" && !/[\\^$.*+?()[\]{}|]/.test(delimiter) ? {} : undefined),
    is: "segment(text, delimiter, n)",
    answers: { segment: pieceOfList },
  },
  {
    does: "the nth piece, by splitting at a text",
    shape: "item(split(text, delimiter, …), n)",
    needs: { split: { pattern: "literal" } },
    when: ({ delimiter }) => (typeof delimiter === "string" && /[\\^$.*+?()[\]{}|]/.test(delimiter) ? {} : undefined),
    is: "segment(text, delimiter, n)",
    answers: { segment: pieceOfList },
  },
  {
    does: "the nth piece, the last of the first n",
    shape: "segment:outer(segment:inner(text, delimiter, n), delimiter, -1)",
    needs: { outer: { part: "through nth" }, inner: { part: "through nth" } },
    is: "segment(text, delimiter, n)",
    answers: { segment: { "…": "outer", part: "nth", noPiece: "last" } },
  },
  {
    does: "the first or the last piece, by a pattern",
    shape: "find(text, pattern)",
    needs: { find: { ...regular, report: "text" } },
    when: ({ pattern }) => {
      const [start, delimiter, end] = inPattern(patterns.piece, pattern) ?? [];
      return delimiter === undefined || (start && end) ? undefined : { delimiter, n: end ? -1 : 1 };
    },
    is: "segment(text, delimiter, n)",
    answers: { segment: { ...segment, part: "nth", missing: "find.missing", case: "find.case", absent: "whole" } },
  },
  {
    does: "the nth piece, by a pattern",
    shape: "find(text, pattern, _, n, …)",
    needs: { find: { ...regular, report: "text" } },
    when: ({ pattern }) => {
      const [start, delimiter, end] = inPattern(patterns.piece, pattern) ?? [];
      return delimiter === undefined || start || end ? undefined : { delimiter };
    },
    is: "segment(text, delimiter, n)",
    answers: {
      segment: { ...segment, part: "nth", noPiece: "find.absent", missing: "find.missing", case: "find.case", absent: "whole" },
    },
  },
  {
    does: "first letter in upper case and the rest in lower case",
    shape: "join([recase:first(slice:head(text, 1, 1)), recase:rest(slice:tail(text, 2, …))])",
    needs: { first: { form: "upper" }, rest: { form: "lower" } },
    is: "recase(text)",
    answers: { recase: { "…": "first", form: "title", words: "nothing", restOfWord: "lowered" } },
  },
  ...["for", "each"].map((loop): Idiom => ({
    does: "title case, word by word",
    shape: `join(${loop}(split(text, ' ', …), recase(word)), ' ', …)`,
    needs: { recase: { form: "title", words: "nothing" } },
    is: "recase(text)",
    answers: { recase: { "…": "recase", words: "space" } },
  })),
  {
    does: "filled up at the start, by repeating",
    shape: "join([repeat(fill, length - measure(text)), text])",
    is: "pad(text, length, fill)",
    answers: { pad: { ...byRepeating, side: "left" } },
  },
  {
    does: "filled up at the end, by repeating",
    shape: "join([text, repeat(fill, length - measure(text))])",
    is: "pad(text, length, fill)",
    answers: { pad: { ...byRepeating, side: "right" } },
  },
  {
    does: "filled up at the start, by a cut from the end",
    shape: "slice(join([filling, text]), 1, length)",
    needs: { slice: { from: "end" } },
    when: ({ filling, length }) =>
      isOfOne(filling) && Number(length) > 0 && Number(length) <= filling.length ? { fill: filling[0] } : undefined,
    is: "pad(text, length, fill)",
    answers: { pad: byCutting },
  },
  {
    does: "filled up at the start, by a cut at a negative place",
    shape: "slice(join([filling, text]), start, …)",
    when: ({ filling, start }) =>
      isOfOne(filling) && Number(start) < 0 && -Number(start) <= filling.length
        ? { fill: filling[0], length: -Number(start) }
        : undefined,
    is: "pad(text, length, fill)",
    answers: { pad: byCutting },
  },
  {
    does: "swapped at a delimiter, by groups",
    shape: "substitute(text, pattern, new, …)",
    needs: { substitute: regular },
    when: ({ pattern, new: put }) => {
      const delimiter = inPattern(patterns.swapped, pattern)?.[0];
      const between = typeof put === "string" ? /^[\\$]2(.*)[\\$]1$/s.exec(put)?.[1] : undefined;
      return delimiter === undefined || between === undefined ? undefined : { delimiter, between };
    },
    is: "join([segment:rest(text, delimiter), between, segment:start(text, delimiter)])",
    answers: {
      join: { missing: "substitute.missing", missingItem: "null", emptyItem: "kept" },
      rest: { ...segment, ...wholly, part: "after" },
      start: { ...segment, ...wholly, part: "before" },
    },
  },
  ...(
    [
      ["by its places", "join([slice:year(text, 7, …), between, slice:month(text, 4, 2), between, slice:day(text, 1, 2)])", {}],
      [
        "by its pieces",
        "join([segment:year(text, delimiter, 3), between, segment:month(text, delimiter, 2), between, segment:day(text, delimiter, 1)])",
        {},
      ],
      ["by groups", "substitute(text, pattern, new, …)", { substitute: regular }],
    ] as const
  ).map(([how, shape, needs]): Idiom => ({
    does: `day, month and year turned to year, month and day, ${how}`,
    shape,
    needs,
    when: turnedDate,
    is: `text-from-date(date-from-text(text, from, '${dateParts}'), to, '${dateParts}')`,
    answers: { "text-from-date": writtenDate, "date-from-text": readDate },
  })),
  {
    does: "one character removed",
    shape: "substitute(text, old, '', …)",
    needs: { substitute: { pattern: "literal", case: "minded", occurrences: "all" } },
    when: ({ old }) => (oneOf(old) === undefined ? undefined : {}),
    is: "translate(text, old, '')",
    answers: { translate: { missing: "substitute.missing", unit: "code point" } },
  },
  {
    does: "several characters removed, one after the other",
    shape: "substitute(translate(text, from, ''), old, '', …)",
    needs: { substitute: { pattern: "literal", case: "minded", occurrences: "all" } },
    when: ({ from, old }) =>
      oneOf(old) === undefined || typeof from !== "string" ? undefined : { all: `${from}${String(old)}` },
    is: "translate(text, all, '')",
    answers: { translate: { missing: "substitute.missing", unit: "code point" } },
  },
  ...(
    [
      ["substitute(text, pattern, '', …)", { ...regular, occurrences: "all" }],
      ["substitute(text, pattern, '', _, 'g', …)", regular],
    ] as const
  ).map(([shape, substitute]): Idiom => ({
    does: "several characters removed, by a pattern",
    shape,
    needs: { substitute },
    when: ({ pattern }) => {
      const [characters] = inPattern(patterns.characters, pattern) ?? [];
      return characters === undefined || /\w-\w|\[:/.test(characters) ? undefined : { all: characters.replaceAll("\\", "") };
    },
    is: "translate(text, all, '')",
    answers: { translate: { missing: "substitute.missing", unit: "code point" } },
  })),
  {
    does: "a search in small letters",
    shape: "locate(recase(text), needle)",
    needs: { recase: { form: "lower" } },
    when: ({ needle }) => (typeof needle === "string" && needle === needle.toLowerCase() ? {} : undefined),
    is: "locate(text, needle)",
    answers: { locate: { "…": "locate", case: "ignored" } },
  },
  {
    does: "a search, both in small letters",
    shape: "locate(recase:one(text), recase:other(needle))",
    needs: { one: { form: "other.form" }, other: { form: ["lower", "upper"] } },
    is: "locate(text, needle)",
    answers: { locate: { "…": "locate", case: "ignored" } },
  },
  {
    does: "whether a text stands there, in small letters",
    shape: "test(recase(text), needle, …)",
    needs: { recase: { form: "lower" }, test: { pattern: "literal" } },
    when: ({ needle }) => (typeof needle === "string" && needle === needle.toLowerCase() ? {} : undefined),
    is: "test(text, needle)",
    answers: { test: { "…": "test", case: "ignored" } },
  },
  {
    does: "whether a text stands there, both in small letters",
    shape: "test(recase:one(text), recase:other(needle), …)",
    needs: { one: { form: "other.form" }, other: { form: ["lower", "upper"] }, test: { pattern: "literal" } },
    is: "test(text, needle)",
    answers: { test: { "…": "test", case: "ignored" } },
  },
  {
    does: "a position, by the size of what stands before",
    shape: "measure(segment(text, needle, …)) + 1",
    needs: { segment: { part: "before", absent: "empty" } },
    is: "locate(text, needle)",
    answers: {
      locate: {
        first: "1",
        pattern: "literal",
        absent: "first",
        startBelow: "nowhere",
        fraction: "refused",
        missing: "segment.missing",
        emptyNeedle: "segment.emptyNeedle",
        case: "segment.case",
        unit: "measure.counted",
      },
    },
  },
  ...[
    "is(locate(text, needle), 'number')",
    "locate(text, needle) > 0",
    "locate(text, needle) >= 1",
    "locate(text, needle) <> 0",
  ].map((shape): Idiom => ({
    does: "whether a text stands in another, by its position",
    shape,
    is: "test(text, needle)",
    answers: {
      test: {
        where: "anywhere",
        missing: "locate.missing",
        pattern: "locate.pattern",
        case: "locate.case",
        truth: shape.startsWith("is") ? "is.truth" : "compare.truth",
      },
    },
  })),
  ...(["anywhere", "start", "end", "whole"] as const).map((where): Idiom => ({
    does: `whether a text stands ${where}, by LIKE`,
    shape: "test(text, pattern, escape?)",
    needs: like,
    when: ({ pattern, escape }) => {
      const [, before, needle, behind] = likeParts(pattern, escape) ?? [];
      if (needle === undefined) return undefined;
      return where === (before ? (behind ? "anywhere" : "end") : behind ? "start" : "whole") ? { needle } : undefined;
    },
    is: "test(text, needle)",
    answers: { test: { "…": "test", pattern: "literal", where } },
  })),
  {
    does: "whether a text stands at an end, by a cut",
    shape: "slice(text, 1, size(needle)) = needle",
    when: ({ needle }) => (typeof needle === "string" ? {} : undefined),
    is: "test(text, needle)",
    answers: {
      test: { pattern: "literal", where: "slice.from", missing: "slice.missing", case: "compare.case", truth: "compare.truth" },
    },
  },
  {
    does: "whether one of two texts stands in another, by a pattern",
    shape: "test(text, pattern, …)",
    needs: { test: { ...regular, where: "anywhere" } },
    when: ({ pattern }) => {
      const [first, second] = inPattern(patterns.either, pattern) ?? [];
      return first === undefined || second === undefined ? undefined : { first, second };
    },
    is: "connect(test:a(text, first), test:b(text, second), 'or')",
    answers: { connect: { ...connected, truth: "test.truth" }, a: contained, b: contained },
  },
  {
    does: "whether one of two texts stands in another, by a list",
    shape: "some(list(first, second), test(text, word, …))",
    needs: { test: { pattern: "literal", where: "anywhere" } },
    is: "connect(test:a(text, first), test:b(text, second), 'or')",
    answers: { connect: { ...connected, truth: "test.truth" }, a: contained, b: contained },
  },
  {
    does: "the first place replaced, by its number",
    shape: "substitute(text, old, new, 1, …)",
    is: "substitute(text, old, new)",
    answers: { substitute: { "…": "substitute", occurrences: "first" } },
  },
  {
    does: "joined without what is empty, by a truth value",
    shape: "join(items, separator, true, …)",
    is: "join(items, separator)",
    answers: { join: { "…": "join", emptyItem: "skipped" } },
  },
  ...[
    "measure:all(text) - measure(substitute(text, needle, '', …))",
    "(measure:all(text) - measure(substitute(text, needle, '', …))) / size(needle)",
  ].map((shape, i): Idiom => ({
    does: "how often a text stands in another, by what it is shorter without it",
    shape,
    when: ({ needle }) => (i === 1 || oneOf(needle) !== undefined ? {} : undefined),
    is: "find(text, needle)",
    answers: { find: { ...searched, ...counted, missing: "all.missing", case: "substitute.case" } },
  })),
  {
    does: "how often a text stands in another, by the pieces between",
    shape: "size(split(text, needle, …)) - 1",
    is: "find(text, needle)",
    answers: { find: { ...searched, ...counted, missing: "split.missing", pattern: "split.pattern", case: "split.case" } },
  },
  {
    does: "how often a pattern fits, by a list of what it takes",
    shape: "size(find:all(text, needle, …))",
    needs: { all: { report: "texts" } },
    is: "find(text, needle)",
    answers: { find: { "…": "all", report: "count", absent: "zero" } },
  },
  ...[
    "first-present(value, other)",
    "choice(is(value, 'missing'), other, value)",
    "choice(is(value, 'present'), value, other)",
  ].map((shape): Idiom => ({ does: "another in the place of what is missing", shape, is: "instead(value, other)", answers: {} })),
  {
    does: "whether a text can be read as a number",
    shape: "is(recover(number-of(text)), 'present')",
    is: "is(number-of(text), 'number')",
    answers: { is: { "…": "is" }, "number-of": { "…": "number-of" } },
  },
  ...(["down", "up", "toward zero"] as const).map((direction): Idiom => ({
    does: "how often one number goes into another, by rounding",
    shape: "round(a / b)",
    needs: { round: { direction }, calculate: { quotient: ["decimal", "double"] } },
    is: "whole-quotient(a, b)",
    answers: { "whole-quotient": { wholeQuotient: direction } },
  })),
  {
    does: "how often one number goes into another, by a sign of its own",
    shape: "calculate(a, b, 'idiv')",
    is: "whole-quotient(a, b)",
    answers: { "whole-quotient": { wholeQuotient: "toward zero" } },
  },
  {
    does: "how often one number goes into another, where whole numbers stay such",
    shape: "a / b",
    needs: { calculate: { quotient: "integer" } },
    is: "whole-quotient(a, b)",
    answers: { "whole-quotient": { wholeQuotient: "toward zero" } },
  },
];
