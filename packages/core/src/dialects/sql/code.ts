import { type Value, bad } from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import { strict } from "../shared/code.ts";

function extract(field: string, date: string): Value {
  const part = ["YEAR", "MONTH", "DAY"].indexOf(field.toUpperCase());
  return part < 0 ? bad(`"${field}" is no field of a date that is covered`) : Number(date.split("-")[part]);
}

/** Functions that are not rows of data. */
export const sqlCode: Readonly<Record<string, Code>> = {
  extract: strict(extract),
};
