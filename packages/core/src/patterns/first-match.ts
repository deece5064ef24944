import { type Budget, type Program, holds, spend } from "./program.ts";

/**
 * Finds the match that starts at `start` and comes first in the order of preference (alternatives
 * from left to right, greedy before short): the rule of XPath and ECMAScript patterns.
 * Gives the offsets of the groups (−1 where unset), or undefined. Every pair of step and offset is
 * tried once (with a back reference, once for each state of the groups), so the time is linear in the
 * text unless there is one. `given` are the groups that are known already, within an atomic group.
 */
export function firstMatch(
  program: Program,
  groups: number,
  text: string,
  start: number,
  budget: Budget,
  given?: readonly number[],
): number[] | undefined {
  const { steps } = program;
  const slots = given ? [...given] : new Array<number>(2 * groups + 2).fill(-1);
  const seen = new Set<number | string>();
  // Pairs of (step, offset) still to try; a negative step restores slot ~step to that offset.
  const stack: number[] = [0, start];
  while (stack.length > 0) {
    let at = stack.pop()!;
    let pc = stack.pop()!;
    if (pc < 0) {
      slots[~pc] = at;
      continue;
    }
    for (;;) {
      spend(budget);
      const step = steps[pc];
      if (step.op === "match") {
        slots[0] = start;
        slots[1] = at;
        return slots;
      }
      if (step.op === "split") {
        // With a back reference, what follows depends on the groups too.
        const key = program.hasBackreference ? `${pc},${at},${slots.join()}` : pc * (text.length + 1) + at;
        if (seen.has(key)) break;
        seen.add(key);
        stack.push(step.or, at);
        pc = step.to;
        continue;
      }
      if (step.op === "jump") {
        pc = step.to;
        continue;
      }
      if (step.op === "save") {
        stack.push(~step.slot, slots[step.slot]);
        slots[step.slot] = at;
      } else if (step.op === "char") {
        const codePoint = text.codePointAt(at);
        if (codePoint === undefined || !step.test(codePoint)) break;
        at += codePoint > 0xffff ? 2 : 1;
      } else if (step.op === "assert") {
        if (!holds(step.at, text, at)) break;
      } else if (step.op === "back") {
        const [from, to] = [slots[2 * step.index], slots[2 * step.index + 1]];
        const again = from < 0 || to < 0 ? "" : text.slice(from, to);
        spend(budget, again.length);
        if (!(step.ignoreCase ? isAlike(again, text.slice(at, at + again.length)) : text.startsWith(again, at))) break;
        at += again.length;
      } else if (step.op === "atomic") {
        const found = firstMatch(step.program, groups, text, at, budget, slots);
        if (!found) break;
        for (let i = 2; i < slots.length; i++) {
          if (slots[i] === found[i]) continue;
          stack.push(~i, slots[i]);
          slots[i] = found[i];
        }
        at = found[1];
      } else if (looks(step.program, text, at, step.ahead, budget) === step.negated) break;
      pc++;
    }
  }
  return undefined;
}

/** Whether two texts are the same character by character, but for case. */
function isAlike(a: string, b: string): boolean {
  if (a === b) return true;
  const [left, right] = [[...a], [...b]];
  return (
    left.length === right.length && left.every((char, i) => char === right[i] || char.toLowerCase() === right[i].toLowerCase())
  );
}

/** Whether the program matches from `at` on (ahead), or some stretch that ends at `at` (behind). */
export function looks(program: Program, text: string, at: number, ahead: boolean, budget: Budget): boolean {
  if (ahead) return firstMatch(program, 0, text, at, budget) !== undefined;
  const before = text.slice(0, at);
  const bounded: Program = {
    ...program,
    steps: program.steps.map((step) => (step.op === "match" ? { op: "assert", at: "text end" } : step)),
  };
  const ending: Program = { ...bounded, steps: [...bounded.steps, { op: "match" }] };
  for (let from = at; from >= 0; from--) if (firstMatch(ending, 0, before, from, budget)) return true;
  return false;
}
