import { type Budget, type Program, type StepTest, holds, spend } from "./program.ts";

/** Why there is no match at a start, and where the next one may be tried: Infinity where none may. */
export interface Verdict {
  readonly next: number;
}

/** What is known from outside: where the search began and, within a part of a pattern, the groups. */
export interface Given {
  readonly from: number;
  /** Where the match has to end, if that is known. */
  readonly end?: number;
  readonly slots?: readonly number[];
}

/** A call of a group that is under way. */
interface Frame {
  readonly index: number;
  readonly at: number;
  /** The step behind the call. */
  readonly after: number;
  /** The groups before it, which hold again after it. */
  readonly slots: readonly number[];
  readonly outer: Frame | undefined;
  readonly id: number;
}

/** Steps to go back over that are no place to go on at. */
const verbs = { prune: -1_000_001, skip: -1_000_002, commit: -1_000_003, then: -1_000_004, mark: -1_000_005 } as const;

/**
 * Finds the match that starts at `start` and comes first in the order of preference (alternatives from left to right,
 * greedy before short): the rule of XPath, Perl and ECMAScript patterns. Gives the offsets of the groups (−1 where unset), or
 * why there is none. Every pair of step and offset is tried once (with a back reference, once for each state of the groups),
 * so the time is linear in the text unless there is one.
 */
export function firstMatch(
  program: Program,
  groups: number,
  text: string,
  start: number,
  budget: Budget,
  { from, end, slots: known }: Given,
): number[] | Verdict {
  const { steps } = program;
  const slots = known ? [...known] : new Array<number>(2 * groups + 2).fill(-1);
  const seen = new Set<number | string>();
  // Pairs of (step, offset) still to try, and the call that each stands in; a negative step restores slot ~step to that offset.
  const stack: number[] = [0, start];
  const frames: (Frame | undefined)[] = [undefined];
  let frame: Frame | undefined;
  let calls = 0;
  const later = (pc: number, at: number) => {
    stack.push(pc, at);
    frames.push(frame);
  };
  const set = (slot: number, value: number) => {
    if (slots[slot] === value) return;
    later(~slot, slots[slot]);
    slots[slot] = value;
  };
  /** Goes back over what was to be tried, up to a place that `isEnd` knows. */
  const giveUp = (isEnd: (pc: number, at: number) => boolean) => {
    while (stack.length > 0) {
      const [pc, at] = stack.slice(-2);
      if (isEnd(pc, at)) return;
      stack.length -= 2;
      frames.pop();
      if (pc < 0 && pc > verbs.prune) slots[~pc] = at;
    }
  };

  while (stack.length > 0) {
    let at = stack.pop()!;
    let pc = stack.pop()!;
    frame = frames.pop();
    if (pc === verbs.mark) continue;
    if (pc === verbs.then) {
      const step = steps[at] as Extract<Program["steps"][number], { op: "then" }>;
      if (step.split) giveUp((each) => each === step.split!.or);
      else giveUp((each, place) => each === verbs.mark && place === step.mark);
      continue;
    }
    if (pc <= verbs.prune) return { next: pc === verbs.commit ? Infinity : pc === verbs.skip ? at : 0 };
    if (pc < 0) {
      slots[~pc] = at;
      continue;
    }
    for (;;) {
      spend(budget);
      const step = steps[pc];
      if (step.op === "match" || (step.op === "accept" && !frame)) {
        if (end !== undefined && at !== end) break;
        if (!known && slots[0] < 0) slots[0] = start;
        slots[1] = at;
        return slots;
      }
      if (step.op === "return" || step.op === "accept") {
        const { slots: before, after, outer } = frame!;
        for (let i = 2; i < slots.length; i++) set(i, before[i]);
        frame = outer;
        pc = after;
        continue;
      }
      if (step.op === "split") {
        // With a back reference, what follows depends on the groups too.
        const key = program.hasBackreference ? `${pc},${at},${frame?.id ?? 0},${slots.join()}` : pc * (text.length + 1) + at;
        if (seen.has(key)) break;
        seen.add(key);
        later(step.or, at);
        pc = step.to;
        continue;
      }
      if (step.op === "jump") {
        pc = step.to;
        continue;
      }
      if (step.op === "call") {
        // A group that calls itself where it began would do so for ever.
        if (isUnderWay(frame, step.index, at)) break;
        frame = { index: step.index, at, after: pc + 1, slots: [...slots], outer: frame, id: ++calls };
        spend(budget, slots.length);
        pc = step.to;
        continue;
      }
      if (step.op === "if") {
        pc = passes(step.test, at) ? pc + 1 : step.or;
        continue;
      }
      if (step.op === "save") set(step.slot, at);
      else if (step.op === "char") {
        const codePoint = text.codePointAt(at);
        if (codePoint === undefined || at === end || !step.test(codePoint)) break;
        at += codePoint > 0xffff ? 2 : 1;
      } else if (step.op === "assert") {
        if (step.at === "search start" ? at !== from : !holds(step.at, text, at)) break;
      } else if (step.op === "back") {
        const index = step.groups.find((each) => slots[2 * each] >= 0 && slots[2 * each + 1] >= 0);
        if (index === undefined && step.isStrict) break;
        const again = index === undefined ? "" : text.slice(slots[2 * index], slots[2 * index + 1]);
        spend(budget, again.length);
        if (!(step.ignoreCase ? isAlike(again, text.slice(at, at + again.length)) : text.startsWith(again, at))) break;
        at += again.length;
      } else if (step.op === "atomic") {
        const found = firstMatch(step.program, groups, text, at, budget, { from, slots });
        if (isVerdict(found)) break;
        at = found[1];
        found.forEach((value, slot) => slot !== 1 && set(slot, value));
      } else if (step.op === "verb") later(verbs[step.verb], at);
      else if (step.op === "then") later(step.split || step.mark !== undefined ? verbs.then : verbs.prune, pc);
      else if (step.op === "mark") later(verbs.mark, step.mark);
      else {
        const found = looks(step.program, text, at, step.ahead, budget, { from, slots });
        if ((found === undefined) !== step.negated) break;
        if (found && !step.negated) found.forEach((value, slot) => slot > 1 && set(slot, value));
      }
      pc++;
    }
  }
  return { next: 0 };

  function passes(test: StepTest, at: number): boolean {
    if ("groups" in test) return test.groups.some((index) => slots[2 * index + 1] >= 0);
    if ("called" in test) return frame !== undefined && (test.called === true || frame.index === test.called);
    return (looks(test.program, text, at, test.ahead, budget, { from, slots }) !== undefined) !== test.negated;
  }
}

export const isVerdict = (found: number[] | Verdict): found is Verdict => !Array.isArray(found);

const isUnderWay = (frame: Frame | undefined, index: number, at: number): boolean =>
  frame !== undefined && frame.at === at && (frame.index === index || isUnderWay(frame.outer, index, at));

/** Whether two texts are the same character by character, but for case. */
function isAlike(a: string, b: string): boolean {
  if (a === b) return true;
  const [left, right] = [[...a], [...b]];
  return (
    left.length === right.length && left.every((char, i) => char === right[i] || char.toLowerCase() === right[i].toLowerCase())
  );
}

/** The groups of a match from `at` on (ahead), or of some stretch that ends at `at` (behind); undefined where there is none. */
function looks(program: Program, text: string, at: number, ahead: boolean, budget: Budget, given: Given): number[] | undefined {
  const slots = given.slots ?? [];
  const groups = slots.length / 2 - 1;
  for (let start = at; start >= (ahead ? at : 0); start--) {
    const found = firstMatch(program, groups, text, start, budget, ahead ? given : { ...given, end: at });
    if (!isVerdict(found)) return found;
  }
  return undefined;
}
