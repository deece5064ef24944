import type { Code, Conversion, Variable } from "../dialects/dialect.ts";
import { type Named, type Part, type Work, isStep, partsOfWork, step, worked } from "../dialects/step.ts";
import type { Expression } from "../syntax/index.ts";
import { isFailure } from "../values/index.ts";
import { type Bound, controlled } from "./bound.ts";
import { boundStep } from "./slots.ts";
import type { Type } from "../dialects/types.ts";

/** A part converted without being asked; a constant at once. */
export function convertBound(bound: Bound, { convert }: Conversion, type: Type): Bound {
  if (!convert) return bound;
  const converted = workBound(bound, convert, type);
  if (bound.kind !== "constant") return converted;
  const value = worked(convert)(bound.value);
  return { ...bound, value, type, ...(!isFailure(value) && { by: converted }) };
}

/** What a cast does that changes nothing. */
const itself = step("itself", {});

/** A cast that is written: its value is what the last part of its work gives. */
export function castBound(operand: Bound, convert: Work, type: Type, source: Expression): Bound {
  const parts = partsOfWork(convert);
  const last = parts.at(-1) ?? itself;
  const inner = parts
    .slice(0, -1)
    .reduce<Bound>((bound, part) => partBound(bound, part, { type, source, implicit: true }), operand);
  return partBound(inner, last, { type, source });
}

type Rest = Pick<Bound, "type" | "source"> & { readonly implicit?: true };

function partBound(inner: Bound, part: Part, rest: Rest): Bound {
  if (isStep(part)) return { ...boundStep(part, inner), ...rest };
  if ("named" in part)
    return { kind: "code", code: codeOf(part), given: [inner], children: [inner], isCondition: false, ...rest };
  const variable: Variable = { name: "item", type: rest.type, value: null };
  const item: Bound = { kind: "variable", variable, type: rest.type, source: rest.source };
  const body = partsOfWork(part.each).reduce<Bound>((bound, each) => partBound(bound, each, { ...rest, implicit: true }), item);
  return { ...controlled({ form: "items", variables: [variable] }, rest.source, rest.type, [inner, body]), ...rest };
}

const codes = new WeakMap<Named, Code>();

/** Named code as that of a call; the same wherever it stands. */
function codeOf(named: Named): Code {
  const known = codes.get(named) ?? { one: named.run };
  codes.set(named, known);
  return known;
}

/** A part on which some work is done without being asked. */
export const workBound = (bound: Bound, work: Work, type: Type): Bound =>
  partsOfWork(work).reduce((inner, part) => partBound(inner, part, { type, source: bound.source, implicit: true }), bound);
