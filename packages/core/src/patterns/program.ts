import { type AssertionPlace, type PatternNode, membership, partsOfPattern, reversedNode } from "./ast.ts";

/** One step of a compiled pattern; `to` and `or` are indexes of steps. */
export type Step =
  | { readonly op: "char"; readonly test: (codePoint: number) => boolean }
  | { readonly op: "split"; to: number; or: number }
  | { readonly op: "jump"; to: number }
  | { readonly op: "save"; readonly slot: number }
  | { readonly op: "assert"; readonly at: AssertionPlace }
  | {
      readonly op: "look";
      readonly program: Program;
      /** The item read from its end, for a look ahead. */
      readonly reversed: Program;
      readonly ahead: boolean;
      readonly negated: boolean;
    }
  | { readonly op: "atomic"; readonly program: Program }
  | { readonly op: "back"; readonly groups: readonly number[]; readonly ignoreCase: boolean; readonly isStrict: boolean }
  /** Goes on at a group's own steps, and after their `return` behind the call. */
  | { readonly op: "call"; readonly index: number; to: number }
  | { readonly op: "return" }
  /** Goes on at `or` where the test fails. */
  | { readonly op: "if"; readonly test: StepTest; or: number }
  | { readonly op: "verb"; readonly verb: "commit" | "prune" | "skip" }
  /** Gives up the option of a choice; where there is no other, what lies above the mark of that choice. */
  | { readonly op: "then"; readonly split?: { readonly or: number }; readonly mark?: number }
  | { readonly op: "mark"; readonly mark: number }
  | { readonly op: "accept" }
  | { readonly op: "match" };

export type StepTest =
  | { readonly groups: readonly number[] }
  | { readonly called: true | number }
  | { readonly program: Program; readonly ahead: boolean; readonly negated: boolean };

export interface Program {
  readonly steps: readonly Step[];
  /** Whether what follows a step depends on how it was reached: after a back reference or an atomic group. */
  readonly hasBackreference: boolean;
}

/** Steps beyond which a pattern is refused; `{m,n}` multiplies them. */
export const programSize = 50_000;

/** How many steps a tree needs at least, counted without making them. */
export function sizeOf(node: PatternNode): number {
  switch (node.kind) {
    case "sequence":
      return node.items.reduce((sum, item) => sum + sizeOf(item), 0);
    case "choice":
      return node.options.reduce((sum, option) => sum + sizeOf(option) + 2, 0);
    case "group":
      return sizeOf(node.item) + 2;
    case "look":
    case "atomic":
      return sizeOf(node.item) + 1;
    case "condition":
      return sizeOf(node.yes) + sizeOf(node.no) + 2;
    case "repeat":
      return node.max === Infinity
        ? node.min * sizeOf(node.item) + sizeOf(node.item) + 2
        : node.min * sizeOf(node.item) + (node.max - node.min) * (sizeOf(node.item) + 1);
    default:
      return 1;
  }
}

/** The first group of a number in a tree; 0 is the tree. */
function groupOf(root: PatternNode, index: number): PatternNode | undefined {
  if (index === 0 || (root.kind === "group" && root.index === index)) return root;
  for (const part of partsOfPattern(root)) {
    const found = groupOf(part, index);
    if (found) return found;
  }
  return undefined;
}

/** Compiles a tree to steps; slot 2n and 2n+1 hold the start and end of group n. Calls go to the groups of `whole`. */
export function compileProgram(root: PatternNode, ignoreCase: boolean, whole = root): Program {
  const steps: Step[] = [];
  let hasBackreference = false;
  /** The calls that wait for the steps of their group. */
  const calls: { readonly index: number; to: number }[] = [];
  /** The choices around what is emitted: the option's split, or the mark of a choice whose last option it is. */
  const options: Omit<Extract<Step, { op: "then" }>, "op">[] = [];
  const push = (step: Step): number => steps.push(step) - 1;

  function emit(node: PatternNode): void {
    switch (node.kind) {
      case "set":
        push({ op: "char", test: membership(node.set, ignoreCase) });
        return;
      case "sequence":
        node.items.forEach(emit);
        return;
      case "choice":
        emitChoice(node.options);
        return;
      case "group":
        push({ op: "save", slot: 2 * node.index });
        emit(node.item);
        push({ op: "save", slot: 2 * node.index + 1 });
        return;
      case "assertion":
        hasBackreference ||= node.at === "search start";
        push({ op: "assert", at: node.at });
        return;
      case "look":
        pushLook(node);
        return;
      case "atomic":
        hasBackreference = true;
        push({ op: "atomic", program: compileProgram(node.item, ignoreCase, whole) });
        return;
      case "backreference":
        hasBackreference = true;
        push({
          op: "back",
          groups: [node.index, ...(node.others ?? [])],
          ignoreCase: ignoreCase || node.ignoreCase === true,
          isStrict: node.isStrict === true,
        });
        return;
      case "call": {
        hasBackreference = true;
        const call = { op: "call" as const, index: node.index, to: 0 };
        calls.push(call);
        push(call);
        return;
      }
      case "condition":
        hasBackreference = true;
        emitCondition(node);
        return;
      case "keep":
        hasBackreference = true;
        push({ op: "save", slot: 0 });
        return;
      case "verb":
        hasBackreference = true;
        push(node.verb === "then" ? { op: "then", ...options.at(-1) } : { op: "verb", verb: node.verb });
        return;
      case "accept":
        hasBackreference = true;
        for (const index of node.open) push({ op: "save", slot: 2 * index + 1 });
        push({ op: "accept" });
        return;
      case "repeat":
        for (let i = 0; i < node.min; i++) emit(node.item);
        if (node.max === Infinity) emitLoop(node.item, node.greedy);
        else emitOptional(node.item, node.max - node.min, node.greedy);
    }
  }

  function pushLook({ item, ahead, negated }: PatternNode & { kind: "look" }): void {
    const program = compileProgram(item, ignoreCase, whole);
    // What a group within it takes is known outside, too.
    hasBackreference ||= program.hasBackreference || program.steps.some(({ op }) => op === "save");
    const reversed = ahead && !hasBackreference ? compileProgram(reversedNode(item), ignoreCase) : program;
    push({ op: "look", program, reversed, ahead, negated });
  }

  function emitCondition({ test, yes, no }: PatternNode & { kind: "condition" }): void {
    const looked = "look" in test ? test.look : undefined;
    const step = {
      op: "if" as const,
      test: looked ? { ...looked, program: compileProgram(looked.item, ignoreCase, whole) } : (test as StepTest),
      or: 0,
    };
    push(step);
    emit(yes);
    const jump = { op: "jump" as const, to: 0 };
    push(jump);
    step.or = steps.length;
    emit(no);
    jump.to = steps.length;
  }

  function emitChoice(alternatives: readonly PatternNode[]): void {
    const jumps: { to: number }[] = [];
    const mark = steps.length;
    if (alternatives.some(givesUp)) push({ op: "mark", mark });
    alternatives.forEach((option, i) => {
      if (i === alternatives.length - 1) {
        options.push({ mark });
        emit(option);
        options.pop();
        return;
      }
      const split = { op: "split" as const, to: 0, or: 0 };
      split.to = push(split) + 1;
      options.push({ split });
      emit(option);
      options.pop();
      const jump = { op: "jump" as const, to: 0 };
      push(jump);
      jumps.push(jump);
      split.or = steps.length;
    });
    for (const jump of jumps) jump.to = steps.length;
  }

  function emitLoop(item: PatternNode, greedy: boolean): void {
    const split = { op: "split" as const, to: 0, or: 0 };
    const at = push(split);
    emit(item);
    push({ op: "jump", to: at });
    [split.to, split.or] = greedy ? [at + 1, steps.length] : [steps.length, at + 1];
  }

  function emitOptional(item: PatternNode, times: number, greedy: boolean): void {
    const splits: { at: number; step: { to: number; or: number } }[] = [];
    for (let i = 0; i < times; i++) {
      const step = { op: "split" as const, to: 0, or: 0 };
      splits.push({ at: push(step), step });
      emit(item);
    }
    for (const { at, step } of splits) [step.to, step.or] = greedy ? [at + 1, steps.length] : [steps.length, at + 1];
  }

  emit(root);
  push({ op: "match" });
  const bodies = new Map<number, number>();
  for (let call = calls.shift(); call; call = calls.shift()) {
    if (!bodies.has(call.index)) {
      bodies.set(call.index, steps.length);
      emit(groupOf(whole, call.index)!);
      push({ op: "return" });
    }
    call.to = bodies.get(call.index)!;
  }
  return { steps, hasBackreference };
}

/** Whether a verb within gives up an option of the choice. */
const givesUp = (node: PatternNode): boolean =>
  (node.kind === "verb" && node.verb === "then") || partsOfPattern(node).some(givesUp);

const wordStarts = /[\p{Alphabetic}\p{Nd}_]/uy;

/** Whether the character that `offset` stands in is one of words. */
function isWordAt(text: string, offset: number): boolean {
  if (offset < 0 || offset >= text.length) return false;
  const isSecondHalf = offset > 0 && text.codePointAt(offset - 1)! > 0xffff;
  wordStarts.lastIndex = isSecondHalf ? offset - 1 : offset;
  return wordStarts.test(text);
}

const isAsciiWordAt = (text: string, offset: number): boolean =>
  offset >= 0 && offset < text.length && /[0-9A-Za-z_]/.test(text[offset]);

/** Whether `place` holds between the characters before and after `offset`. */
export function holds(place: AssertionPlace, text: string, offset: number): boolean {
  switch (place) {
    case "text start":
      return offset === 0;
    case "text end":
      return offset === text.length;
    case "line start":
      return offset === 0 || text[offset - 1] === "\n";
    case "inner line start":
      return offset === 0 || (text[offset - 1] === "\n" && offset < text.length);
    case "line end":
      return offset === text.length || text[offset] === "\n";
    case "last line end":
      return offset === text.length || (offset === text.length - 1 && text[offset] === "\n");
    case "ascii word edge":
    case "not ascii word edge":
      return (isAsciiWordAt(text, offset - 1) !== isAsciiWordAt(text, offset)) === (place === "ascii word edge");
  }
  const [before, after] = [isWordAt(text, offset - 1), isWordAt(text, offset)];
  if (place === "word start") return !before && after;
  if (place === "word end") return before && !after;
  return (before !== after) === (place === "word edge");
}

/** Counts down the work that one match may cost; see `patternSteps`. */
export interface Budget {
  left: number;
}

/** Thrown when a match has used up its budget; caught where the match began. */
export class OverBudget extends Error {}

export function spend(budget: Budget, cost = 1): void {
  budget.left -= cost;
  if (budget.left < 0) throw new OverBudget();
}
