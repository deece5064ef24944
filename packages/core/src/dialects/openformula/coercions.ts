import { Decimal, type Value, isList } from "../../values/index.ts";
import type { Conversion, TypeRules } from "../dialect.ts";
import type { Step } from "../step.ts";
import { stepsBy } from "./steps.ts";

/** The one value that an array stands for where one is wanted: its first (3.3). */
const single = (value: Value): Value => (isList(value) ? (value[0] ?? null) : value);

const isNumber = (value: Value): boolean => typeof value === "number" || typeof value === "bigint" || value instanceof Decimal;

export function typeRules(textRule: string): TypeRules {
  const steps = stepsBy(textRule);
  const identity: Conversion = { cost: 0 };
  const targets: Readonly<Record<string, { readonly same: string; readonly step: Step }>> = {
    text: { same: "text", step: steps.text },
    number: { same: "number", step: steps.number },
    boolean: { same: "boolean", step: steps.truth },
    condition: { same: "boolean", step: steps.truth },
  };
  return {
    dynamic: true,
    liftsArrays: true,
    columnType(values) {
      // A number beyond double precision counts as the nearest double.
      const kinds = new Set(values.filter((value) => value !== null).map((value) => (isNumber(value) ? "number" : typeof value)));
      if (kinds.size !== 1) return "any";
      const [kind] = kinds;
      return kind === "string" ? "text" : kind === "number" || kind === "boolean" ? kind : "any";
    },
    readColumn: (_type, value) => (isNumber(value) ? Number(value) : value),
    conversion(from, to) {
      const isSingle = ["text", "number", "boolean"].includes(from);
      if (to === "texts") return from === "text" ? identity : { cost: 1, convert: steps.text };
      // 6.15.4: a branch that is left empty between separators is 0.
      if (to === "branch") return from === "empty" ? { cost: 0, convert: () => 0 } : identity;
      const base = /^base\.(2|8|16)$/.exec(to)?.[1] as "2" | "8" | "16" | undefined;
      if (base) return { cost: 1, convert: [single, (value) => value ?? "0", steps.text, steps[`base ${base}`]] };
      if (to === "single") return isSingle ? identity : { cost: 1, convert: single };
      const target = targets[to];
      if (!target || from === target.same) return identity;
      return { cost: 1, convert: isSingle ? target.step : [single, target.step] };
    },
    resultType: (row) => row.result,
    cast: () => undefined,
    unify: (types) => (types.every((type) => type === types[0]) ? (types[0] ?? "any") : "any"),
    list: (_form, values) => values.flat(),
  };
}
