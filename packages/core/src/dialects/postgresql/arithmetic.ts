import { Decimal, Double, Failure, type Value, bad } from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import { strict } from "../shared/code.ts";

/** The same for doubles; before version 17 what is rounded up to the end of the last bucket lies behind it. */
function bucketOf(value: number, low: number, high: number, count: number, version: string): Value {
  if (count < 1) return bad("there must be one bucket at least");
  if (low === high) return bad("the bounds of the buckets must differ");
  const [start, end, at] = low < high ? [low, high, value] : [-low, -high, -value];
  if (at < start) return 0;
  if (at >= end) return count + 1;
  const before = Math.trunc(count * ((at - start) / (end - start)));
  return version === "15" ? before + 1 : Math.min(before + 1, count);
}

/** The number of the one of so many equal buckets between two bounds in which a value lies. */
function bucket(value: Decimal, low: Decimal, high: Decimal, count: number): Value {
  if (count < 1) return bad("there must be one bucket at least");
  const order = low.compare(high);
  if (order === 0) return bad("the bounds of the buckets must differ");
  // From high to low it is the same with the other sign.
  const [start, end, at] = order < 0 ? [low, high, value] : [low.negated(), high.negated(), value.negated()];
  if (at.compare(start) < 0) return 0;
  if (at.compare(end) >= 0) return count + 1;
  return Number(at.minus(start).times(Decimal.of(count)).quotient(end.minus(start))) + 1;
}

/** The code of what is calculated with decimals and doubles, in a version. */
export const arithmeticCode = (version: string): Readonly<Record<string, Code>> => ({
  degrees: strict(({ value }: Double) => {
    const result = value / (Math.PI / 180);
    return Number.isFinite(value) && !Number.isFinite(result) ? new Failure("number-out-of-range") : new Double(result);
  }),
  width_bucket: strict(bucket),
  "width_bucket bounds": strict((value: Decimal | Double, bounds: readonly (Decimal | Double | null)[]) => {
    if (bounds.includes(null)) return bad("a bound of the buckets must not be null");
    const isReached = (bound: Decimal | Double | null) =>
      value instanceof Decimal ? value.compare(bound as Decimal) >= 0 : value.value >= (bound as Double).value;
    // The bounds are halved, so that their order counts.
    let [low, high] = [0, bounds.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (isReached(bounds[middle])) low = middle + 1;
      else high = middle;
    }
    return low;
  }),
  "width_bucket double": strict((value: Double, low: Double, high: Double, count: number) =>
    !Number.isNaN(value.value) && Number.isFinite(low.value) && Number.isFinite(high.value)
      ? bucketOf(value.value, low.value, high.value, count, version)
      : bad("buckets lie between finite numbers"),
  ),
});
