import type { TaskId } from "../dialects/tasks/index.ts";
import { type CalendarParts, dayNames, daysFromDate, isoDate, isoWeekOf, monthNames } from "../values/index.ts";

/** A task with what it takes beside the text, and what it gives; what a dialect makes of it is tried afterwards. */
interface Way<T> {
  readonly task: TaskId;
  readonly rest: readonly (string | number)[];
  readonly run: (value: T) => string;
}

const cased = (word: string): string => word.slice(0, 1).toUpperCase() + word.slice(1).toLowerCase();

type Style = readonly [TaskId, (text: string) => string];

/** Tasks that change the case of letters, and nothing else. */
export const letterStyles: readonly Style[] = [
  ["upper", (text) => text.toUpperCase()],
  ["lower", (text) => text.toLowerCase()],
  ["capital", cased],
  ["title", (text) => text.replace(/[\p{L}\p{N}]+/gu, cased)],
];

/** Other tasks that take nothing but a text. */
export const otherStyles: readonly Style[] = [
  ["trim", (text) => text.replace(/^ +| +$/g, "")],
  ["singleSpaces", (text) => text.trim().replace(/ +/g, " ")],
  ["keepDigits", (text) => text.replace(/[^0-9]/g, "")],
  ["removeDigits", (text) => text.replace(/[0-9]/g, "")],
  ["keepLetters", (text) => text.replace(/[^\p{L}]/gu, "")],
  ["removeAccents", (text) => text.normalize("NFD").replace(/\p{M}/gu, "")],
  ["firstNumber", (text) => /[0-9]+/.exec(text)?.[0] ?? ""],
  ["leadingZeros", (text) => text.replace(/^0+/, "")],
  ["reverse", (text) => [...text].reverse().join("")],
];

/** Marks at which texts are cut. */
export const marks = [
  ", ",
  ",",
  "; ",
  ";",
  " ",
  "-",
  " - ",
  "/",
  "#",
  ":",
  ": ",
  "_",
  ".",
  "|",
  "@",
  "(",
  ")",
  "[",
  "]",
  "=",
  "&",
  "+",
  "'",
  '"',
];
const brackets = [
  ["(", ")"],
  ["[", "]"],
  ['"', '"'],
  ["<", ">"],
  ["{", "}"],
];

/** Counts of characters, and places, that are tried. */
const counts = Array.from({ length: 12 }, (_, i) => i + 1);

/** A letter that stands between digits in each of the texts, as in 12x30. */
function letterMarks(texts: readonly string[]): string[] {
  const found = texts.map((text) => new Set([...text.matchAll(/(?<=\d)\p{L}(?=\d)/gu)].map(([letter]) => letter)));
  return [...(found.at(0) ?? [])].filter((letter) => found.every((each) => each.has(letter)));
}

/** What may be taken out of texts, each of which has the mark or the length that it needs. */
export function extractions(texts: readonly string[]): Way<string>[] {
  const own = [...marks.filter((mark) => texts.every((text) => text.includes(mark))), ...letterMarks(texts)];
  const shortest = Math.min(...texts.map((text) => text.length));
  const byMark = own.flatMap((mark): Way<string>[] => {
    const pieces = Math.min(4, ...texts.map((text) => text.split(mark).length));
    return [
      { task: "before", rest: [mark], run: (text) => text.slice(0, text.indexOf(mark)) },
      { task: "firstPiece", rest: [mark], run: (text) => text.split(mark)[0] },
      { task: "after", rest: [mark], run: (text) => text.slice(text.indexOf(mark) + mark.length) },
      { task: "lastPiece", rest: [mark], run: (text) => text.slice(text.lastIndexOf(mark) + mark.length) },
      ...counts
        .slice(1, pieces)
        .map((n): Way<string> => ({ task: "piece", rest: [mark, n], run: (text) => text.split(mark)[n - 1] ?? "" })),
      ...([", ", ",", "; "].includes(mark)
        ? [{ task: "swapNames", rest: [mark], run: (text: string) => text.split(mark).slice(0, 2).reverse().join(" ") } as const]
        : []),
      { task: "remove", rest: [mark], run: (text) => text.replaceAll(mark, "") },
      ...["", " ", "-", "_", ".", "/", ",", ", ", "; ", " - ", " / ", " | ", ": "].flatMap((put): Way<string>[] =>
        put === "" || put === mark ? [] : [{ task: "replace", rest: [mark, put], run: (text) => text.replaceAll(mark, put) }],
      ),
    ];
  });
  const between = [
    ...brackets,
    ...own.flatMap((open) => own.filter((close) => close !== open).map((close) => [open, close])),
  ].flatMap(([open, close]): Way<string>[] => {
    const inside = (text: string) => {
      const start = text.indexOf(open) + open.length;
      const end = text.indexOf(close, start);
      return text.includes(open) && end >= 0 ? text.slice(start, end) : "";
    };
    return texts.every((text) => inside(text) !== "") ? [{ task: "between", rest: [open, close], run: inside }] : [];
  });
  const byCount = counts
    .filter((count) => count <= shortest)
    .flatMap((count): Way<string>[] => [
      { task: "first", rest: [count], run: (text) => text.slice(0, count) },
      { task: "last", rest: [count], run: (text) => text.slice(-count) },
      { task: "withoutFirst", rest: [count], run: (text) => text.slice(count) },
      { task: "withoutLast", rest: [count], run: (text) => text.slice(0, -count) },
      ...counts
        .filter((size) => count > 1 && count + size - 1 <= shortest && size <= 6)
        .map((size): Way<string> => ({
          task: "slice",
          rest: [count, size],
          run: (text) => text.slice(count - 1, count - 1 + size),
        })),
    ]);
  return [...byMark, ...between, ...byCount];
}

/** How a number may be written, by the lengths and decimals of what is wanted. */
export function numberForms(wanted: readonly string[]): Way<string | number | boolean | bigint>[] {
  const lengths = [...new Set(wanted.flatMap((text) => (text.match(/[0-9]+/g) ?? []).map((digits) => digits.length)))];
  const own = [...new Set(wanted.flatMap((text) => (text.match(/\.([0-9]+)/g) ?? []).map((digits) => digits.length - 1)))];
  const places = own.length > 0 ? own : [0];
  return [
    ...lengths.map((length) => ({
      task: "zeroFilled" as const,
      rest: [length],
      run: (value: string | number | boolean | bigint) => String(value).padStart(length, "0"),
    })),
    ...places.map((digits) => ({
      task: "decimals" as const,
      rest: [digits],
      run: (value: string | number | boolean | bigint) => Number(value).toFixed(digits),
    })),
    ...(wanted.some((text) => /[0-9],[0-9]{3}/.test(text))
      ? [
          {
            task: "thousands" as const,
            rest: [],
            run: (value: string | number | boolean | bigint) => String(value).replace(/\B(?=(?:[0-9]{3})+$)/g, ","),
          },
        ]
      : []),
    ...[0, 1, 2].map((digits) => ({
      task: "round" as const,
      rest: [digits],
      run: (value: string | number | boolean | bigint) => String(Number(Number(value).toFixed(digits))),
    })),
  ];
}

/** What of a date is written otherwise than it stands in the text: names, and numbers without zeros. */
export const dateParts: readonly (readonly [TaskId, (date: CalendarParts) => string])[] = [
  ["monthName", ({ month }) => monthNames[month - 1]],
  ["weekday", ({ weekday }) => dayNames[weekday]],
  ["month", ({ month }) => String(month)],
  ["day", ({ day }) => String(day)],
  ["quarter", ({ month }) => String(Math.ceil(month / 3))],
  ["week", ({ days }) => String(isoWeekOf(days).week)],
  ["monthStart", ({ year, month }) => isoDate(year, month, 1)],
  ["monthEnd", ({ year, month }) => isoDate(year, month, lastDay(year, month))],
];

const lastDay = (year: number, month: number): number => daysFromDate(year, month + 1, 1) - daysFromDate(year, month, 1);

/** By how many days or months dates are moved to give others; nothing where they stay, or each is moved otherwise. */
export function dateMoves(from: readonly CalendarParts[], to: readonly CalendarParts[]): (readonly [TaskId, number])[] {
  const monthOf = ({ year, month }: CalendarParts) => year * 12 + month;
  const days = to.map((date, i) => date.days - from[i].days);
  const months = to.map((date, i) => monthOf(date) - monthOf(from[i]));
  const isKept = to.every(({ year, month, day }, i) => day === Math.min(from[i].day, lastDay(year, month)));
  const found: (readonly [TaskId, number, boolean])[] = [
    ["monthsLater", months[0], isKept && months.every((count) => count === months[0])],
    ["addDays", days[0], days.every((count) => count === days[0])],
  ];
  return found.flatMap(([task, count, holds]) => (holds && count !== 0 ? [[task, count] as const] : []));
}

/** What may be counted in texts. */
export function countings(texts: readonly string[]): Way<string>[] {
  const own = marks.filter((mark) => texts.some((text) => text.includes(mark)));
  return [
    { task: "length", rest: [], run: (text) => String([...text].length) },
    { task: "words", rest: [], run: (text) => String(text.trim().split(/ +/).length) },
    ...own.flatMap((mark): Way<string>[] => [
      { task: "pieceCount", rest: [mark], run: (text) => String(text.split(mark).length) },
      { task: "occurrences", rest: [mark], run: (text) => String(text.split(mark).length - 1) },
    ]),
  ];
}

/** A column of numbers, with what it holds on the rows of the examples. */
export interface NumericColumn {
  readonly name: string;
  readonly cells: readonly number[];
}

export type Sign = "+" | "-" | "*" | "/";

/** What is calculated of two columns, by their names, or of one and a number. */
interface Calculation {
  readonly sign: Sign;
  readonly sides: readonly [column: string, other: string | number];
}

const signs: Readonly<Record<Sign, (a: number, b: number) => number>> = {
  "+": (a, b) => a + b,
  "-": (a, b) => a - b,
  "*": (a, b) => a * b,
  "/": (a, b) => a / b,
};

/** Whether numbers are the same but for what doubles leave out. */
const isNear = (a: number, b: number): boolean => Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a), Math.abs(b));

/** Calculations that give the numbers: of one column and a number that is the same for all examples, of two columns. */
export function calculations(columns: readonly NumericColumn[], wanted: readonly number[]): Calculation[] {
  const shared = (numbers: readonly number[]): number | undefined => {
    const isShared = numbers.length > 1 && numbers.every((number) => Number.isFinite(number) && isNear(number, numbers[0]));
    return isShared && numbers[0] !== 0 ? Number(numbers[0].toPrecision(12)) : undefined;
  };
  const withNumbers = columns.flatMap(({ name, cells }): Calculation[] => {
    const more = shared(wanted.map((number, i) => number - cells[i]));
    const times = shared(wanted.map((number, i) => number / cells[i]));
    return [
      ...(more === undefined ? [] : [{ sign: more < 0 ? "-" : "+", sides: [name, Math.abs(more)] } as const]),
      ...(times === undefined || times < 0 ? [] : [{ sign: "*", sides: [name, times] } as const]),
    ];
  });
  const ofTwo = columns.flatMap((left, i) =>
    columns.flatMap((right, k) =>
      (["+", "*", "-", "/"] as const).flatMap((sign): Calculation[] => {
        // The order of two that are added or multiplied does not matter.
        const isTried = i !== k && (i < k || sign === "-" || sign === "/");
        const isGiven = isTried && wanted.every((number, row) => isNear(number, signs[sign](left.cells[row], right.cells[row])));
        return isGiven ? [{ sign, sides: [left.name, right.name] }] : [];
      }),
    ),
  );
  return [...withNumbers, ...ofTwo];
}
