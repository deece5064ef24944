import { type Dialect } from "indigo-quill/dialects";
import { sameOutcome } from "../probe.ts";
import type { Find, FuzzRow } from "./compare.ts";

type Try = (expression: string, row: FuzzRow) => Promise<Find | undefined>;

/** Ranges of an expression that stand for a value: each sub-expression that the parser sees. */
function parts(dialect: Dialect, expression: string): { start: number; end: number }[] {
  const ranges: { start: number; end: number }[] = [];
  const pending: unknown[] = [dialect.parse(expression).tree];
  for (let node = pending.pop(); node !== undefined; node = pending.pop()) {
    if (typeof node !== "object" || node === null) continue;
    const { kind, range } = node as { kind?: string; range?: { start: number; end: number } };
    if (kind && range && range.end > range.start) ranges.push(range);
    pending.push(...Object.values(node as Record<string, unknown>).filter((value) => typeof value === "object"));
  }
  return ranges;
}

/** The differing case made smaller: parts of it, constants in place of parts, and shorter cells. */
export async function shrink(found: Find, run: Try, dialect: Dialect): Promise<Find> {
  let best = found;
  const differs = async (expression: string, row: FuzzRow): Promise<boolean> => {
    if (expression.length > best.expression.length) return false;
    const tried = await run(expression, row);
    if (!tried || tried.ours === undefined || sameOutcome(tried.ours, tried.theirs)) return false;
    best = tried;
    return true;
  };
  for (let round = 0, smaller = true; smaller && round < 8; round++) {
    smaller = false;
    const { expression, row } = best;
    for (const { start, end } of parts(dialect, expression).sort((a, b) => a.end - a.start - (b.end - b.start))) {
      const part = expression.slice(start, end);
      if (part !== expression && (await differs(part, row))) {
        smaller = true;
        break;
      }
      const shorter = ["1", "''", "'a'"].filter((text) => text.length < part.length);
      for (const text of shorter) {
        if (await differs(expression.slice(0, start) + text + expression.slice(end), row)) {
          smaller = true;
          break;
        }
      }
      if (smaller) break;
    }
  }
  for (const [name, value] of Object.entries(best.row)) {
    const shorter = typeof value === "string" ? ["", ...value] : [];
    for (const cell of shorter) if (cell !== value && (await differs(best.expression, { ...best.row, [name]: cell }))) break;
  }
  return best;
}
