import { type ShapeProblem, isRecord, mend, problemsOf } from "../../diagnostics/shape.ts";
import type { Dialect } from "../dialect.ts";
import { dialects } from "../index.ts";
import { DefinitionReader } from "./reader.ts";
import { type Definition, functionShapes, likeShape, operationIds, outerShape } from "./shapes.ts";

export type { ShapeProblem } from "../../diagnostics/shape.ts";
export { dialectSchema } from "./shapes.ts";

/**
 * A dialect from plain data: functions that are operations with answers, or like a function of one of our dialects but for
 * some answers, on top of that dialect's grammar, operators and rules for values.
 * @param json what was read from a JSON file; its form is `dialectSchema`
 * @param options of the dialect below, in place of those that the data names
 * @returns the dialect, or what is wrong, each with its place and the nearest right word
 */
export function defineDialect(
  json: unknown,
  options: Readonly<Record<string, string>> = {},
): { readonly dialect?: Dialect; readonly problems: readonly ShapeProblem[] } {
  const problems = problemsOf(json, outerShape, "a dialect");
  const functions: readonly unknown[] = isRecord(json) && Array.isArray(json.functions) ? json.functions : [];
  functions.forEach((each, i) => {
    const path = ["functions", i];
    if (!isRecord(each)) problems.push({ path, message: "a function must be a record" });
    else if ("like" in each) problems.push(...problemsOf(each, likeShape, "a function", path));
    else if (typeof each.operation !== "string" || !Object.hasOwn(functionShapes, each.operation)) {
      const name = String(each.operation ?? "");
      const near = mend(name, operationIds, `; "iquill traits" and the schema tell what there is`);
      problems.push({ path: [...path, "operation"], message: `there is no operation "${name}"${near}` });
    } else problems.push(...problemsOf(each, functionShapes[each.operation], "a function", path));
  });
  if (problems.length > 0) return { problems };
  const definition = json as Definition;
  const base = baseOf(definition, options);
  if (typeof base === "string") return { problems: [{ path: ["options"], message: base }] };
  const reader = new DefinitionReader(definition, base);
  const dialect = reader.read();
  return { ...(dialect && { dialect }), problems: reader.problems };
}

/** The dialect below, or what it says of an option that it does not have. */
function baseOf({ on, options }: Definition, chosen: Readonly<Record<string, string>>): Dialect | string {
  try {
    return dialects[on]({ ...options, ...chosen });
  } catch (error) {
    if (error instanceof RangeError) return error.message;
    throw error;
  }
}
