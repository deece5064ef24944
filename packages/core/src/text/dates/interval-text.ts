import { type Stretch, asciiTrimmed, lookup, microsOf } from "../../values/index.ts";
import type { AnswerOf } from "../../traits/index.ts";

export const noTime: Stretch = { months: 0, days: 0, micros: 0n };

/** How much one of a unit is. */
export const units: Readonly<Record<string, Partial<Stretch>>> = lookup({
  millennium: { months: 12_000 },
  century: { months: 1200 },
  decade: { months: 120 },
  year: { months: 12 },
  quarter: { months: 3 },
  month: { months: 1 },
  week: { days: 7 },
  day: { days: 1 },
  hour: { micros: microsOf.hour },
  minute: { micros: microsOf.minute },
  second: { micros: microsOf.second },
  millisecond: { micros: 1000n },
  microsecond: { micros: 1n },
});

/** Other names of the units. */
const otherNames: Readonly<Record<string, string>> = {
  millennium: "millennia mil mils",
  century: "centuries cent c",
  decade: "decades dec decs",
  year: "years yr yrs y",
  quarter: "quarters",
  month: "months mon mons",
  week: "weeks w",
  day: "days d dayofmonth",
  hour: "hours hr hrs h",
  minute: "minutes min mins m",
  second: "seconds sec secs s",
  millisecond: "milliseconds ms msec msecs",
  microsecond: "microseconds us usec usecs",
};

const byName: Readonly<Record<string, string>> = lookup(
  Object.fromEntries(
    Object.entries(otherNames).flatMap(([unit, names]) => [unit, ...names.split(" ")].map((name) => [name, unit])),
  ),
);

/** The unit that a name or its plural or a short form of it stands for, in any case; undefined where there is none. */
export const unitNamed = (name: string): string | undefined => byName[name.toLowerCase()];

export const plus = (a: Stretch, b: Stretch, sign: 1 | -1 = 1): Stretch => ({
  months: a.months + sign * b.months,
  days: a.days + sign * b.days,
  micros: a.micros + BigInt(sign) * b.micros,
});

/** Whether a stretch has room in the 32, 32 and 64 bits that systems keep it in. */
export const hasRoom = ({ months, days, micros }: Stretch): boolean =>
  Math.abs(months) < 2 ** 31 && Math.abs(days) < 2 ** 31 && BigInt.asIntN(64, micros) === micros;

/**
 * So many of a unit: a part of a month is days of a thirtieth, one of a day time. Where all of it counts, a part of those days is
 * time, too, and longer units are rounded to months.
 */
export function counted(count: number, unit: string, countsAll: boolean): Stretch {
  // What has so many digits has no room anywhere.
  if (!Number.isFinite(count)) return { ...noTime, months: count };
  const { months = 0, days = 0, micros = 0n } = units[unit];
  if (Number.isInteger(count) && micros > 0n) return { ...noTime, micros: BigInt(count) * micros };
  if (months > 1) {
    const all = count * months;
    if (countsAll) return { ...noTime, months: Math.round(all) };
    const rest = months < 12 ? counted(all - Math.trunc(all), "month", countsAll) : noTime;
    return plus({ ...noTime, months: Math.trunc(all) }, rest);
  }
  const whole = Math.trunc(count * months);
  const ofMonth = (count * months - whole) * 30;
  const allDays = count * days;
  const ofDay = allDays - Math.trunc(allDays) + (countsAll ? ofMonth - Math.trunc(ofMonth) : 0);
  return {
    months: whole,
    days: Math.trunc(allDays) + Math.trunc(ofMonth),
    micros: BigInt(Math.round(count * Number(micros) + ofDay * Number(microsOf.day))),
  };
}

const space = "[ \\t\\n\\v\\f\\r]*";
const end = "(?=[ \\t\\n\\v\\f\\r]|$)";
/** What the text of a stretch is made of, by how a sign stands: a clock, years and months, a number with its unit. */
const shapes = (sign: string) => ({
  clock: new RegExp(`^${space}${sign}(\\d+):(\\d{1,2})(?::(\\d{1,2}))?(?:\\.(\\d*))?${end}`),
  pair: new RegExp(`^${space}${sign}(\\d+)-(\\d+)${end}`),
  number: new RegExp(`^${space}${sign}(\\d+\\.?\\d*|\\.\\d+)${space}([a-z]*)`, "i"),
});
const wide = shapes(`([+-]?)${space}`);
const narrow = shapes("(-?)");

const microsOfDigits = (fraction: string): number => Math.round(Number(`0.${fraction}0`) * 1e6);

/** A clock; two numbers before a fraction are minutes and seconds. */
function clockOf([, sign, first, second, third, fraction = ""]: RegExpExecArray): Stretch | undefined {
  const isShort = third === undefined && fraction !== "";
  const [hours, minutes, seconds] = isShort ? ["0", first, second] : [first, second, third ?? "0"];
  // A second more than there are is one of the next minute.
  if (Number(minutes) > 59 || Number(seconds) > 60) return undefined;
  const micros =
    BigInt(hours) * microsOf.hour + BigInt(Number(minutes) * 60e6 + Number(seconds) * 1e6 + microsOfDigits(fraction));
  return { ...noTime, micros: sign === "-" ? -micros : micros };
}

/** P1Y2M3DT4H5M6S, each number with its own sign (ISO 8601). */
function readDuration(text: string): Stretch | undefined {
  const found = /^P(?=.)((?:-?\d*\.?\d+[YMWD])*)(?:T((?:-?\d*\.?\d+[HMS])+))?$/.exec(text);
  if (!found) return undefined;
  const names: Readonly<Record<string, string>> = {
    Y: "year",
    M: "month",
    W: "week",
    D: "day",
    H: "hour",
    TM: "minute",
    S: "second",
  };
  const partsOf = (part: string | undefined, mark: string) =>
    [...(part ?? "").matchAll(/(-?[\d.]+)([A-Z])/g)].map(([, count, letter]) =>
      counted(Number(count), names[mark + letter] ?? names[letter], true),
    );
  return [...partsOf(found[1], ""), ...partsOf(found[2], "T")].reduce((sum, part) => plus(sum, part), noTime);
}

/**
 * Reads a stretch of time, like `1 year 2 days 03:04:05 ago`; undefined where it is none.
 *
 * @param last the unit of a number alone at the end
 */
export function readStretch(text: string, last: string, form: AnswerOf<"intervalForms">): Stretch | undefined {
  const isWide = form === "units, a clock, 1-2 or P1Y2M";
  const { clock, pair, number } = isWide ? wide : narrow;
  const body = text.replace(/^[ \t\n\v\f\r]*@/, "").replace(/[ \t\n\v\f\r]+$/, "");
  if (isWide && body.startsWith("P")) return readDuration(body);
  const isAgo = /[ \t\n\v\f\r]ago$/i.test(body);
  let rest = isAgo ? body.slice(0, -4) : body;
  let sum: Stretch | undefined;
  const seen = new Set<string>();

  /** Takes a part off the rest; wide forms have each unit once. */
  function took([whole]: readonly string[], part: Stretch | undefined, ...names: readonly string[]): boolean {
    if (!part || (isWide && names.some((name) => seen.has(name)))) return false;
    for (const name of names) seen.add(name);
    sum = plus(sum ?? noTime, part);
    rest = rest.slice(whole.length);
    return true;
  }

  function tookPair(found: RegExpExecArray): boolean {
    const [, sign, years, months] = found;
    const size = Number(years) * 12 + Number(months);
    return Number(months) < 12 && took(found, { ...noTime, months: sign === "-" ? -size : size }, "year", "month");
  }

  function tookNumber(found: RegExpExecArray): boolean {
    const [whole, sign, count, name] = found;
    const behind = rest.slice(whole.length);
    const isBeforeTime = clock.test(behind) || (last === "hour" && /^ *\d+$/.test(behind));
    const alone = asciiTrimmed(behind) === "" ? last : isWide && isBeforeTime ? "day" : undefined;
    const unit = name ? unitNamed(name) : alone;
    if (unit === undefined || (isWide && unit === "quarter")) return false;
    return took(found, counted(Number(sign + count), unit, isWide), unit);
  }

  while (asciiTrimmed(rest) !== "") {
    const time = clock.exec(rest);
    const years = isWide && !time ? pair.exec(rest) : null;
    const counts = time || years ? null : number.exec(rest);
    const isTaken = time
      ? took(time, clockOf(time), "hour", "minute", "second")
      : years
        ? tookPair(years)
        : counts !== null && tookNumber(counts);
    if (!isTaken) return undefined;
  }
  return sum && isAgo ? plus(noTime, sum, -1) : sum;
}
