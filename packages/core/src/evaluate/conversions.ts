import type { Conversion } from "../dialects/dialect.ts";
import { type Own, type Step, type Work, partsOfWork, worked } from "../dialects/step.ts";
import type { Expression } from "../syntax/index.ts";
import { isFailure } from "../values/index.ts";
import type { Bound } from "./bound.ts";
import { boundStep } from "./slots.ts";

/** A part converted without being asked; a constant at once. */
export function convertBound(bound: Bound, { convert }: Conversion, type: string): Bound {
  if (!convert) return bound;
  const { source } = bound;
  const converted = partsOfWork(convert).reduce<Bound>(
    (inner, part) => partBound(inner, part, { type, source, implicit: true }),
    bound,
  );
  if (bound.kind !== "constant") return converted;
  const value = worked(convert)(bound.value);
  return { ...bound, value, type, ...(!isFailure(value) && { by: converted }) };
}

/** A cast that is written: its value is what the last part of its work gives. */
export function castBound(operand: Bound, convert: Work, type: string, source: Expression): Bound {
  const parts = partsOfWork(convert);
  const last = parts.at(-1) ?? ((value) => value);
  const inner = parts
    .slice(0, -1)
    .reduce<Bound>((bound, part) => partBound(bound, part, { type, source, implicit: true }), operand);
  return partBound(inner, last, { type, source });
}

function partBound(inner: Bound, part: Step | Own, rest: Pick<Bound, "type" | "source"> & { readonly implicit?: true }): Bound {
  return typeof part === "function" ? { kind: "convert", inner, convert: part, ...rest } : { ...boundStep(part, inner), ...rest };
}
