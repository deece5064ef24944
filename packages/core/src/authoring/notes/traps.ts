/** Notes on what is known to be taken for something else: ends counted from, bytes, groups, formats, whole quotients. */
import { filled, foreignFormat, templateOf } from "../../dialects/tasks/index.ts";
import { agree } from "../../contrast/index.ts";
import type { Diagnostic } from "../../diagnostics/index.ts";
import { type Bound, allPartsOf, jobsOf, writtenPattern } from "../../evaluate/index.ts";
import { type Expression, ungrouped, walk } from "../../syntax/index.ts";
import { PatternError, cachedPattern } from "../../patterns/index.ts";
import type { OperationId } from "../../text/index.ts";
import type { AnswerOf, Answers } from "../../traits/index.ts";
import { type Value, isFailure } from "../../values/index.ts";
import { separatorLast } from "./places.ts";
import {
  type Asked,
  type Operation,
  constantOf,
  inner,
  note,
  signOf,
  slotOf,
  textOf,
  valuesOf,
  valuesOn,
  writing,
} from "./asked.ts";

/** A negative number that is written; its size. */
function negativeOf(node: Expression | undefined): number | undefined {
  const sign = node && ungrouped(node);
  if (sign?.kind === "literal") return Number(sign.value) < 0 ? -Number(sign.value) : undefined;
  if (sign?.kind !== "call" || sign.name !== "-" || sign.args.length !== 1) return undefined;
  const size = ungrouped(sign.args[0]);
  return size.kind === "literal" && Number(size.value) > 0 ? Number(size.value) : undefined;
}

/** A negative start, where it does not count from the end. */
export function negativeStart(operation: Operation, { program }: Asked): Diagnostic[] {
  if (operation.operation !== "slice" || !["window", "empty"].includes(operation.answers.startBelow ?? "")) return [];
  const { source } = operation;
  const start = inner(slotOf(operation, "start"))?.source;
  const size = negativeOf(start);
  if (size === undefined || source.kind !== "call") return [];
  const template = source.args.length === 2 ? templateOf("last", program.dialect.id) : undefined;
  const parts = {
    text: { text: textOf(program, source.args[0]), isOpen: source.args[0].kind === "call" },
    count: { text: String(size), isOpen: false },
  };
  const fixes = template === undefined ? [] : [writing(source.range, filled(template, parts))];
  return [note("negative-start", start!.range, {}, fixes)];
}

/** A negative length from the first character on, where it does not leave out the last ones. */
export function negativeLength(operation: Operation, { program }: Asked): Diagnostic[] {
  const { source, answers } = operation;
  if (operation.operation !== "slice" || !["error", "empty"].includes(answers.negativeLength ?? "") || source.kind !== "call")
    return [];
  const length = inner(slotOf(operation, "length"))?.source;
  const size = negativeOf(length);
  const start = constantOf(slotOf(operation, "start"))?.value ?? 1;
  const template = size === undefined || Number(start) !== 1 ? undefined : templateOf("withoutLast", program.dialect.id);
  if (size === undefined || template === undefined) return [];
  const parts = {
    text: { text: textOf(program, source.args[0]), isOpen: source.args[0].kind === "call" },
    count: { text: String(size), isOpen: false },
  };
  return [note("negative-taken", length!.range, {}, [writing(source.range, filled(template, parts))])];
}

/** Whether of a length only its difference from another one is asked, or whether there is any: bytes do for that. */
function isOnlyCompared(length: Expression & { readonly kind: "call" }, tree: Expression): boolean {
  const beside = [...walk(tree)].flatMap((node) =>
    node.kind === "call" && node.notation === "operator" && node.args.map(ungrouped).includes(length)
      ? node.args.map(ungrouped).filter((arg) => arg !== length)
      : [],
  );
  return beside.some((other) =>
    other.kind === "literal" ? Number(other.value) === 0 : other.kind === "call" && other.name === length.name,
  );
}

/** Bytes counted by a function that is named for lengths, of a column whose texts have others than ASCII letters. */
export function bytesCounted(operation: Operation, { program, sample }: Asked): Diagnostic[] {
  const { source } = operation;
  if (operation.operation !== "measure" || operation.answers.counted !== "utf-8 byte") return [];
  const column = inner(slotOf(operation, "text"));
  if (source.kind !== "call" || /byte|octet/i.test(source.name) || column?.kind !== "column") return [];
  if (isOnlyCompared(source, program.tree)) return [];
  const isWide = sample.columns[column.column].values.some((value) => typeof value === "string" && /[^\0-\x7f]/.test(value));
  const template = templateOf("length", program.dialect.id);
  if (!isWide || template === undefined) return [];
  const text = filled(template, { text: { text: textOf(program, source.args[0]), isOpen: false } });
  return [note("counts-bytes", source.range, { name: source.name }, [writing(source.range, text)])];
}

/** How the groups of a pattern are written in what is put in its place. */
const groupSigns: Readonly<Partial<Record<AnswerOf<"replacement">, RegExp>>> = {
  dollar: /(?<!\\)\$([1-9])/g,
  backslash: /\\([1-9])/g,
  "backslash digits": /\\([1-9])/g,
};

/** A group that the pattern does not have. */
export function missingGroup(operation: Operation): Diagnostic[] {
  const { pattern: flavour = "literal", replacement } = operation.answers as Partial<Answers>;
  const source = ["old", "needle", "pattern"].map((slot) => constantOf(slotOf(operation, slot))?.value).find(isWritten);
  const read = flavour === "literal" || source === undefined ? undefined : cachedPattern(flavour, source);
  if (!read || read instanceof PatternError) return [];
  const told = [
    ...numbersIn(constantOf(slotOf(operation, "new")), replacement && groupSigns[replacement]),
    ...numbersIn(constantOf(slotOf(operation, "group"))),
  ];
  return told.flatMap(({ number, part }) =>
    number > read.groups
      ? [note("group-not-there", part.source.range, { group: number, count: read.groups, pattern: source })]
      : [],
  );
}

/** One group, which is neither repeated nor of several ways, and what is written outside it. */
const oneGroup = /^((?:\\.|[^()\\])*)\((?!\?)(?:\\.|[^()|\\])*\)(?![*+?{])((?:\\.|[^()\\])*)$/s;

/** A pattern with one group, of which the whole match is given. */
export function wholeOfGroup(operation: Operation, { program }: Asked): Diagnostic[] {
  const { group, report } = operation.answers as Partial<Answers>;
  const { source, row } = operation;
  const pattern = constantOf(slotOf(operation, "needle"))?.value;
  if (operation.operation !== "find" || group !== "match" || report !== "text" || slotOf(operation, "group")) return [];
  const [, before, after] = (isWritten(pattern) && oneGroup.exec(pattern)) || [];
  if (before === undefined || !row || source.kind !== "call") return [];
  if (/^\^?$/.test(before) && /^\$?$/.test(after)) return [];
  const at = row.parameters.findIndex(({ slot }) => slot === "group");
  const end = source.args.at(-1)!.range.end;
  const fixes = at === source.args.length ? [writing({ start: end, end }, `${program.dialect.separator} 1`)] : [];
  return [note("whole-not-group", source.range, { pattern }, fixes)];
}

const isWritten = (value: Value | undefined): value is string => typeof value === "string";

/** The number that stands somewhere, or those that a text names by signs. */
function numbersIn(found: ReturnType<typeof constantOf>, signs?: RegExp): { number: number; part: Bound }[] {
  if (typeof found?.value === "number") return [{ number: found.value, part: found.part }];
  const written = isWritten(found?.value) && signs ? [...found.value.matchAll(signs)] : [];
  return written.map(([, number]) => ({ number: Number(number), part: found!.part }));
}

/** Operations that put something in the place of what they find, or cut there. */
const cutting: ReadonlySet<OperationId> = new Set<OperationId>(["substitute", "split", "segment"]);

/** A sign that means something in patterns and is all that is written: `.` is any character. */
export function signAlone(operation: Operation, { program: { dialect } }: Asked): Diagnostic[] {
  const written = cutting.has(operation.operation) ? writtenPattern(operation) : undefined;
  if (!written || /^(?:like|glob|wildcards)/.test(written.flavour) || !/^[.|^$*+?()[{\\]$/.test(written.source)) return [];
  const wanted = `\\${written.source}`;
  return [
    note("sign-alone", written.range, { text: written.source, wanted }, [writing(written.range, dialect.textLiteral(wanted))]),
  ];
}

/** A wildcard where a pattern is wanted: `Alnus*`. */
export function wildcardInPattern(operation: Operation, { program }: Asked): Diagnostic[] {
  if (operation.operation !== "test" || !/^(?!literal|like|glob|similar)/.test(operation.answers.pattern ?? "literal")) return [];
  const found = constantOf(slotOf(operation, "needle"));
  if (typeof found?.value !== "string" || !/^\^?[\p{L}\p{N} ]*(?:[\p{L}\p{N} ]\*)[\p{L}\p{N} *]*\$?$/u.test(found.value))
    return [];
  const { range } = found.part.source;
  const text = program.dialect.textLiteral(found.value.replaceAll("*", ".*"));
  return [note("repeats-sign", range, { text: found.value }, [writing(range, text)])];
}

/** A date format in another language than that of here. */
export function foreignDateFormat(part: Bound, { program }: Asked): Diagnostic[] {
  const operations = part.kind === "operation" ? [part] : part.kind === "code" ? jobsOf(part) : [];
  return operations.flatMap((operation) => {
    const isDates = operation.operation === "text-from-date" || operation.operation === "date-from-text";
    const found = isDates ? constantOf(slotOf(operation, "format")) : undefined;
    if (typeof found?.value !== "string" || found.part.source.kind !== "literal") return [];
    const language = operation.answers.formatLanguage;
    const format =
      language === "components"
        ? undefined
        : foreignFormat(found.value, language?.startsWith("words") ? "words" : program.dialect.id);
    const { range } = found.part.source;
    return format === undefined
      ? []
      : [
          note("foreign-format", range, { of: "date", text: found.value, wanted: format }, [
            writing(range, program.dialect.textLiteral(format)),
          ]),
        ];
  });
}

/** A month beside an hour, where minutes are meant, by the language of a format. */
const monthsBesideHours = {
  words: [/(HH(?:12|24)?:)MM/gi, "$1MI"],
  mariadb: [/(%[HhIkl]:)%[Mm]/g, "$1%i"],
  percent: [/(%[HI]:)%m/g, "$1%M"],
  picture: [/(\[[Hh][^\]]*\]:)\[M/g, "$1[m"],
} as const;

/** Minutes beside a year, where the month is meant. */
const minutesBesideYears: Readonly<Record<keyof typeof monthsBesideHours, readonly [RegExp, string]>> = {
  words: [/(YYYY[-./ ]?)MI/gi, "$1MM"],
  mariadb: [/(%[Yy][-./ ]?)%i/g, "$1%m"],
  percent: [/(%[Yy][-./ ]?)%M/g, "$1%m"],
  picture: [/(\[Y[^\]]*\][-./ ]?)\[m/g, "$1[M"],
};

const ofDates = /^(to_char|to_timestamp|to_date|date_format|time_format|str_to_date|strftime|strptime|format-(?:date)?time)$/i;

/** A month beside an hour in a date format, or minutes beside a year. */
export function monthBesideHour({ source }: Bound, { program: { dialect } }: Asked): Diagnostic[] {
  if (source.kind !== "call" || !ofDates.test(source.name)) return [];
  const isOf = (start: string) => source.name.toLowerCase().startsWith(start);
  const language = isOf("to_") ? "words" : isOf("format-") ? "picture" : dialect.id === "mariadb" ? "mariadb" : "percent";
  const mixed = [
    ["month-beside-hour", monthsBesideHours[language]],
    ["minutes-beside-year", minutesBesideYears[language]],
  ] as const;
  return source.args.map(ungrouped).flatMap((arg) => {
    if (arg.kind !== "literal" || typeof arg.value !== "string") return [];
    const { value: text, range } = arg;
    return mixed.flatMap(([code, [wrong, right]]) => {
      const wanted = text.replace(wrong, right);
      return wanted === text ? [] : [note(code, range, { text, wanted }, [writing(range, dialect.textLiteral(wanted))])];
    });
  });
}

/** Only the first that fits is replaced, where there are more: another argument replaces all. */
export function firstReplaced(operation: Operation, asked: Asked): Diagnostic[] {
  const { source, row, answers } = operation;
  const isAsked = source.kind === "call" && source.args.length === 3 && row?.parameters.some(({ slot }) => slot === "flags");
  if (operation.operation !== "substitute" || answers.occurrences !== "first" || !isAsked) return [];
  const { dialect } = asked.program;
  const { end } = source.args[2].range;
  const text = `${dialect.separator} ${dialect.textLiteral("g")}`;
  const fix = { title: `Add ${text}`, edits: [{ range: { start: end, end }, text }] };
  const now = valuesOf(asked, operation);
  const rows = valuesOf(asked, operation, fix).filter(
    (value, i) => isWritten(value) && isWritten(now[i]) && value !== now[i],
  ).length;
  return rows > 0 ? [note("first-replaced", source.range, { rows }, [fix])] : [];
}

/** A whole quotient that is rounded: it has been cut before. */
export function roundedQuotients({ program }: Asked): Diagnostic[] {
  const quotients = new Map(
    allPartsOf(program.bound).flatMap((part) =>
      part.kind === "operation" && part.answers.quotient === "integer" && part.fixed.sign === "/" ? [[part.source, part]] : [],
    ),
  );
  return [...walk(program.tree)].flatMap((node) => {
    if (node.kind !== "call" || !/^(?:round|ceil|ceiling|floor)$/i.test(node.name) || node.args.length === 0) return [];
    const { source, type } = quotients.get(ungrouped(node.args[0])) ?? {};
    const divisor = source?.kind === "call" ? source.args[1] : undefined;
    if (!source || !divisor || !/int|number|none/.test(type?.name ?? "")) return [];
    const isWhole = divisor.kind === "literal" && /^\d+$/.test(textOf(program, divisor));
    return isWhole ? [note("whole-quotient", source.range, {}, [writing(divisor.range, `${textOf(program, divisor)}.0`)])] : [];
  });
}

/** A power by a sign that sets bits against each other. */
export function powerAsBits(asked: Asked): Diagnostic[] {
  const { program } = asked;
  return [...walk(program.tree)].flatMap((node) => {
    if (node.kind !== "call" || signOf(node, program.source) !== "^") return [];
    const [eight] = valuesOn(asked, "2 ^ 3");
    if (eight === undefined || isFailure(eight) || agree(eight, 8)) return [];
    const power = `power(${node.args.map((arg) => textOf(program, arg)).join(", ")})`;
    return [note("power-as-bits", node.range, {}, valuesOn(asked, power).length > 0 ? [writing(node.range, power)] : [])];
  });
}

/** `x =~ 'a'`, which is read as = and the bits of what follows turned. */
export const splitSign = ({ program }: Asked): Diagnostic[] =>
  [...walk(program.tree)].flatMap((node) => {
    if (node.kind !== "call" || signOf(node, program.source) !== "=") return [];
    const right = node.args[1];
    const at = right.range.start - 1;
    if (right.kind !== "call" || right.name !== "~" || program.source[at] !== "=") return [];
    const isThere = program.dialect.rows.some(({ name }) => name === "regexp");
    const fixes = isThere ? [{ title: "Write regexp", edits: [{ range: { start: at, end: at + 2 }, text: "regexp" }] }] : [];
    return [note("split-sign", { start: at, end: at + 2 }, {}, fixes)];
  });

/** A sum of what is joined: `a || b + 1`, where || binds more tightly. */
export function sumOfJoined(operation: Operation, { program }: Asked): Diagnostic[] {
  const { source } = operation;
  if (operation.operation !== "calculate" || source.kind !== "call" || source.notation !== "operator" || source.args.length !== 2)
    return [];
  const [left, right] = source.args;
  const sign = signOf(left, program.source);
  if (left.kind !== "call" || !["||", "&"].includes(sign ?? "")) return [];
  const last = left.args[1];
  const text = `(${program.source.slice(last.range.start, right.range.end)})`;
  return [note("sum-of-joined", source.range, { sign }, [writing({ start: last.range.start, end: right.range.end }, text)])];
}

const relations: ReadonlySet<string> = new Set(["<", "<=", ">", ">="]);

/** `a < b < c`, which compares the outcome of the first with c. */
export function chainedComparison(part: Bound, { program }: Asked): Diagnostic[] {
  const { source } = part;
  const [first, second] = source.kind === "call" ? source.args : [];
  if (
    !relations.has(signOf(source, program.source) ?? "") ||
    first.kind !== "call" ||
    !relations.has(signOf(first, program.source) ?? "")
  )
    return [];
  const [low, middle] = first.args;
  const template = templateOf("both", program.dialect.id);
  if (template === undefined) return [];
  // A sign that joins may stand there for AND.
  const [left, right] = signOf(middle, program.source) === "&" && middle.kind === "call" ? middle.args : [middle, middle];
  const write = (a: Expression, sign: string, b: Expression) => ({
    text: `${textOf(program, a)} ${sign} ${textOf(program, b)}`,
    isOpen: false,
  });
  const parts = { a: write(low, signOf(first, program.source)!, left), b: write(right, signOf(source, program.source)!, second) };
  return [note("chained-comparison", source.range, {}, [writing(source.range, filled(template, parts))])];
}

/** A column in the place of the separator. */
export function columnAsSeparator(operation: Operation, asked: Asked): Diagnostic[] {
  const { program } = asked;
  if (separatorLast(operation, asked).length > 0) return [];
  const separator = operation.operation === "join" ? inner(slotOf(operation, "separator")) : undefined;
  return separator?.kind === "column"
    ? [note("column-separates", separator.source.range, { column: textOf(program, separator.source) })]
    : [];
}

/** A number by a format that keeps a place for its sign. */
export function signPlace({ source }: Bound, asked: Asked): Diagnostic[] {
  const [, format] = source.kind === "call" && source.name.toLowerCase() === "to_char" ? source.args.map(ungrouped) : [];
  if (format?.kind !== "literal" || typeof format.value !== "string" || !/^[09]/.test(format.value)) return [];
  const values = valuesOn(asked, textOf(asked.program, source)).filter((value) => value !== null);
  const isSpaced = values.length > 0 && values.every((value) => typeof value === "string" && /^ \S/.test(value));
  return isSpaced
    ? [note("sign-place", format.range, {}, [writing(format.range, asked.program.dialect.textLiteral(`FM${format.value}`))])]
    : [];
}

/** A text with letters that is taken away at an end as a set of characters, and takes more than itself. */
export function trimsLetters(operation: Operation, asked: Asked): Diagnostic[] {
  const set = operation.operation === "trim" ? constantOf(slotOf(operation, "characters")) : undefined;
  const text = inner(slotOf(operation, "text"));
  if (!isWritten(set?.value) || !text || (set.value.match(/\p{L}/gu) ?? []).length < 2) return [];
  const [whole, left] = [text, operation].map((part) => valuesOf(asked, part));
  const word = set.value;
  // In their order, letters are meant as a set.
  if ([...word].every((sign, i, all) => i === 0 || all[i - 1] < sign)) return [];
  const isMore = (given: Value, row: number): boolean => {
    const kept = left[row];
    if (!isWritten(given) || !isWritten(kept) || given === kept) return false;
    return ![`${word}${kept}`, `${kept}${word}`, `${word}${kept}${word}`].includes(given);
  };
  const row = whole.findIndex(isMore);
  return row < 0 ? [] : [note("trims-letters", set.part.source.range, { text: word, row: row + 1 })];
}
