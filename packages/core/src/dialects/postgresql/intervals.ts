import { type Double, Failure, Interval, type Stretch, type Value, microsOf } from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import { roomFor } from "../../text/index.ts";
import { strict } from "../shared/code.ts";

/** Moves whole units of a smaller part to the next larger one, each by as many as make one. */
const carried = (large: bigint, small: bigint, size: bigint): [bigint, bigint] => [large + small / size, small % size];

/** Brings a smaller part to the sign of the larger one. */
const ofOneSign = (large: bigint, small: bigint, size: bigint): [bigint, bigint] =>
  large > 0n && small < 0n ? [large - 1n, small + size] : large < 0n && small > 0n ? [large + 1n, small - size] : [large, small];

const justified = (change: (stretch: Stretch) => Stretch): Code => strict((span: Interval) => span.with(change(span.stretch)));

const hours = ({ months, days, micros }: Stretch): Stretch => {
  const [d, m] = ofOneSign(...carried(BigInt(days), micros, microsOf.day), microsOf.day);
  return { months, days: Number(d), micros: m };
};

const days = ({ months, days: given, micros }: Stretch): Stretch => {
  const [m, d] = ofOneSign(...carried(BigInt(months), BigInt(given), 30n), 30n);
  return { months: Number(m), days: Number(d), micros };
};

/** Days of 30 to a month and 24 hours to a day, all parts with one sign. */
const both = ({ months, days: given, micros }: Stretch): Stretch => {
  const [allDays, time] = carried(BigInt(given), micros, microsOf.day);
  const [allMonths, rest] = carried(BigInt(months), allDays, 30n);
  const [m, d] = ofOneSign(allMonths, rest === 0n ? time : rest, 30n);
  const lent = m === allMonths ? rest : rest === 0n ? d - time : d;
  const [whole, left] = ofOneSign(lent, time, microsOf.day);
  return { months: Number(m), days: Number(whole), micros: left };
};

/** make_interval(years, months, weeks, days, hours, mins, secs); version 15 adds in 32 bits and does not look whether there is room. */
function made(given: readonly Value[], version: string): Value {
  const [years = 0, months = 0, weeks = 0, dayCount = 0, hourCount = 0, minutes = 0] = given as readonly number[];
  const seconds = (given[6] as Double | undefined)?.value ?? 0;
  if (!Number.isFinite(seconds)) return new Failure("number-out-of-range");
  const whole = (count: number) => (version === "15" ? Number(BigInt.asIntN(32, BigInt(count))) : count);
  const stretch = {
    months: whole(years * 12 + months),
    days: whole(weeks * 7 + dayCount),
    micros: BigInt(hourCount) * microsOf.hour + BigInt(minutes) * microsOf.minute + BigInt(Math.round(seconds * 1e6)),
  };
  return roomFor(stretch, (each) => new Interval("1 mon", each));
}

export const intervalCode = (version: string): Readonly<Record<string, Code>> => ({
  justify_hours: justified(hours),
  justify_days: justified(days),
  justify_interval: justified(both),
  make_interval: { run: (args) => (args.includes(null) ? null : made(args, version)) },
  "to_char interval": strict(() => new Failure("not-covered", { what: "formats of intervals" })),
  "date_trunc interval": strict(() => new Failure("not-covered", { what: "truncated intervals" })),
});
