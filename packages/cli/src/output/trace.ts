import { type Program, type Sample, isFailure } from "indigo-quill";
import type { PlanStep } from "indigo-quill/folio";
import { jobText } from "./rules.ts";
import { partsText } from "./parts.ts";
import { ruler } from "./ruler.ts";
import { type Style, cellText, failureText } from "./style.ts";
import { table } from "./table.ts";
import { patternsOn, visibleText } from "indigo-quill/authoring";

/** Every sub-expression with its value on a row (0-based), what is done with the value then, a ruler for each extraction, and each pattern in words. */
export function traceText(
  program: Program,
  sample: Sample,
  row: number,
  style: Style,
  then?: Pick<PlanStep, "column" | "treatment">,
): string {
  const steps = program.trace(sample, row);
  const rows = steps.map((step) => {
    const values = step.values.map((value) => cellText(value, program.dialect, { ...style, spaces: true }));
    const shown =
      values.length === 0 ? style.colour.dim("(not needed)") : values.slice(0, 6).join(" · ") + (values.length > 6 ? " · …" : "");
    const became = step.became
      ? style.colour.dim(`  ${step.became.how} as `) + cellText(step.became.value, program.dialect, { ...style, spaces: true })
      : "";
    const failure = step.born ? step.values.find(isFailure) : undefined;
    return [
      `${"  ".repeat(step.depth)}${visibleText(step.text, false)}`,
      shown + became + (failure ? style.colour.red(`  ← ${failureText(failure)}`) : ""),
    ];
  });
  const jobs = then?.treatment?.trace(program.run(sample)[row]) ?? [];
  const after = jobs.map((value, i) => [
    `then ${jobText(then!.column.then![i])}`,
    cellText(value, program.dialect, { ...style, spaces: true }),
  ]);
  const rulers = steps.flatMap(({ taken, text }) =>
    taken ? [`\n  ${visibleText(text, false)}\n${ruler(taken.text, taken.range, style, "  ")}`] : [],
  );
  const patterns = [...patternsOn(program, steps)].flatMap(([{ text }, { parts }]) =>
    parts.length > 1 ? [`\n  ${visibleText(text, false)}\n${partsText(parts, style).join("\n")}\n`] : [],
  );
  return table(["expression", `value on row ${row + 1}`], [...rows, ...after], style) + rulers.join("") + patterns.join("");
}
