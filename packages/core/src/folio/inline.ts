import type { Sample } from "../evaluate/index.ts";
import type { Plan } from "./columns.ts";
import { substituted } from "./names.ts";
import { saidJobs, tried } from "./proof.ts";

/** A column as one expression over the columns of the sample, or why it cannot be one. */
export type Inlined =
  | { readonly name: string; readonly expression: string; readonly emptyForNothing: boolean }
  | { readonly name: string; readonly refused: string };

/** Characters that one expression may have. */
const most = 50_000;

/**
 * Puts the other calculated columns that a column needs into its expression, with only the brackets that are needed. What is
 * given has been evaluated on the sample and on rows of traps, and gives the same as the columns one by one.
 */
export function inlined(plan: Plan, name: string, sample: Sample): Inlined {
  const { dialect } = plan;
  const refuse = (refused: string): Inlined => ({ name, refused });
  if (plan.where || plan.only) return refuse("a condition says where it holds, which one expression does not");
  const whole = new Map<string, string>();
  /** Whether what lists do gives empty text for nothing, as it has to in some dialects. */
  let mayEmpty = false;
  for (const { column } of plan.steps) {
    if (column.names.length > 1) {
      if (column.names.includes(name)) return refuse("it is an item of a list that becomes several columns");
      continue;
    }
    const [own] = column.names;
    const put = substituted(dialect, column.expression, (written) => {
      const made = [...whole].find(([each]) => dialect.namesColumn(written, each));
      return made && made[0] !== own ? `(${made[1]})` : undefined;
    });
    if (typeof put !== "string") {
      if (own === name) return refuse(put.refused);
      continue;
    }
    if (put.length > most) return refuse(`it would have more than ${most} characters`);
    const printed = dialect.print(dialect.parse(put).tree);
    const said = column.then ? saidJobs(dialect, printed, column.then, sample) : { expression: printed, emptyForNothing: false };
    if ("refused" in said) return refuse(`${own}: ${said.refused}`);
    mayEmpty ||= said.emptyForNothing;
    whole.set(own, said.expression);
    if (own === name) break;
  }
  const expression = whole.get(name);
  if (expression === undefined) return refuse("there is no such calculated column");
  const stepwise = (rows: Sample) => [...plan.stages(rows)].find(({ step }) => step.column.names[0] === name)!.values;
  const { apart, emptyForNothing } = tried(dialect, expression, sample, stepwise);
  if (apart !== undefined || (emptyForNothing && !mayEmpty))
    return refuse(apart ?? `as one expression it gives an empty text where the columns give nothing: ${expression}`);
  return { name, expression, emptyForNothing };
}
