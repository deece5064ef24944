import { type Program, type Sample, isFailure } from "indigo-quill";
import { ruler } from "./ruler.ts";
import { type Style, cellText, failureText } from "./style.ts";
import { table } from "./table.ts";
import { visibleText } from "indigo-quill/authoring";

/** Every sub-expression with its value on a row (0-based), then a ruler for each extraction. */
export function traceText(program: Program, sample: Sample, row: number, style: Style): string {
  const steps = program.trace(sample, row);
  const rows = steps.map((step) => {
    const values = step.values.map((value) => cellText(value, program.dialect, { ...style, spaces: true }));
    const shown =
      values.length === 0 ? style.colour.dim("(not needed)") : values.slice(0, 6).join(" · ") + (values.length > 6 ? " · …" : "");
    const failure = step.born ? step.values.find(isFailure) : undefined;
    return [
      `${"  ".repeat(step.depth)}${visibleText(step.text, false)}`,
      shown + (failure ? style.colour.red(`  ← ${failureText(failure)}`) : ""),
    ];
  });
  const rulers = steps.flatMap(({ taken, text }) =>
    taken ? [`\n  ${visibleText(text, false)}\n${ruler(taken.text, taken.range, style, "  ")}`] : [],
  );
  return table(["expression", `value on row ${row + 1}`], rows, style) + rulers.join("");
}
