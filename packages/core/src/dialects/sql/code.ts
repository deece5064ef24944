import { Double, Failure, type Value } from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import { bad, strict } from "../shared/code.ts";

function extract(field: string, date: string): Value {
  const part = ["YEAR", "MONTH", "DAY"].indexOf(field.toUpperCase());
  return part < 0 ? bad(`"${field}" is no field of a date that is covered`) : Number(date.split("-")[part]);
}

/** Functions that are not rows of data. */
export const sqlCode: Readonly<Record<string, Code>> = {
  log: strict((base: Double, value: Double) =>
    base.value > 0 && base.value !== 1 && value.value > 0
      ? new Double(Math.log(value.value) / Math.log(base.value))
      : new Failure("logarithm-argument"),
  ),
  power: strict((base: Double, exponent: Double) => {
    const result = base.value ** exponent.value;
    return Number.isFinite(result) ? new Double(result) : new Failure("power-argument");
  }),
  extract: strict(extract),
};
