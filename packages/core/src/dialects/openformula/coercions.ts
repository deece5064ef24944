import { Decimal, type Value } from "../../values/index.ts";
import { conversionTable } from "../conversions.ts";
import type { ConversionLine, TypeRules } from "../dialect.ts";
import { type Step, step } from "../step.ts";
import { amount, dated, stepsBy } from "./steps.ts";
import { anyType, typeOf } from "../types.ts";

/** The one value that an array stands for where one is wanted: its first (3.3). */
const single = step("one-item", { several: "the first" });
const inPlaceOf = (other: string | number) => step("instead", {}, { other });

const isNumber = (value: Value): boolean => typeof value === "number" || typeof value === "bigint" || value instanceof Decimal;

export function typeRules(textRule: string): TypeRules {
  const steps = stepsBy(textRule);
  const ofOne = (to: string, same: string, step: Step): ConversionLine[] => [
    [same, to, 0],
    ["text|number|boolean", to, 1, step],
    ["*", to, 1, [single, step]],
  ];
  const conversions: readonly ConversionLine[] = [
    ["text", "texts", 0],
    ["*", "texts", 1, steps.text],
    // 6.15.4: a branch that is left empty between separators is 0.
    ["empty", "branch", 0, inPlaceOf(0)],
    ...(["2", "8", "16"] as const).map((base): ConversionLine => [
      "*",
      `base.${base}`,
      1,
      [single, inPlaceOf("0"), steps.text, steps[`base ${base}`]],
    ]),
    ["text|number|boolean", "single", 0],
    ["*", "single", 1, single],
    ...ofOne("text", "text", steps.text),
    ...ofOne("number", "number", steps.number),
    ...ofOne("amount", "number", amount),
    ["text|number|boolean", "dated", 1, [steps.number, dated]],
    ["*", "dated", 1, [single, steps.number, dated]],
    ...ofOne("boolean", "boolean", steps.truth),
    ...ofOne("condition", "boolean", steps.truth),
    ["*", "branch|any", 0],
  ];
  return {
    dynamic: true,
    liftsArrays: true,
    columnType(values) {
      // A number beyond double precision counts as the nearest double.
      const kinds = new Set(values.filter((value) => value !== null).map((value) => (isNumber(value) ? "number" : typeof value)));
      if (kinds.size !== 1) return anyType;
      const [kind] = kinds;
      return typeOf(kind === "string" ? "text" : kind === "number" || kind === "boolean" ? kind : "any");
    },
    readColumn: (_type, value) => (isNumber(value) ? Number(value) : value),
    conversions,
    conversion: conversionTable(conversions),
    resultType: (row) => typeOf(row.result),
    cast: () => undefined,
    unify: (types) => (types.every((type) => type === types[0]) ? (types[0] ?? anyType) : anyType),
    list: (_form, values) => values.flat(),
  };
}
