import { type AssertionPlace, type PatternNode, membership, reversedNode } from "./ast.ts";

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
  | { readonly op: "back"; readonly index: number; readonly ignoreCase: boolean }
  | { readonly op: "match" };

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
    case "repeat":
      return node.max === Infinity
        ? node.min * sizeOf(node.item) + sizeOf(node.item) + 2
        : node.min * sizeOf(node.item) + (node.max - node.min) * (sizeOf(node.item) + 1);
    default:
      return 1;
  }
}

/** Compiles a tree to steps; slot 2n and 2n+1 hold the start and end of group n. */
export function compileProgram(root: PatternNode, ignoreCase: boolean): Program {
  const steps: Step[] = [];
  let hasBackreference = false;
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
        push({ op: "assert", at: node.at });
        return;
      case "look":
        pushLook(node);
        return;
      case "atomic":
        hasBackreference = true;
        push({ op: "atomic", program: compileProgram(node.item, ignoreCase) });
        return;
      case "backreference":
        hasBackreference = true;
        push({ op: "back", index: node.index, ignoreCase: ignoreCase || node.ignoreCase === true });
        return;
      case "repeat":
        for (let i = 0; i < node.min; i++) emit(node.item);
        if (node.max === Infinity) emitLoop(node.item, node.greedy);
        else emitOptional(node.item, node.max - node.min, node.greedy);
    }
  }

  function pushLook({ item, ahead, negated }: PatternNode & { kind: "look" }): void {
    const program = compileProgram(item, ignoreCase);
    hasBackreference ||= program.hasBackreference;
    const reversed = ahead ? compileProgram(reversedNode(item), ignoreCase) : program;
    push({ op: "look", program, reversed, ahead, negated });
  }

  function emitChoice(options: readonly PatternNode[]): void {
    const jumps: { to: number }[] = [];
    options.forEach((option, i) => {
      if (i === options.length - 1) {
        emit(option);
        return;
      }
      const split = { op: "split" as const, to: 0, or: 0 };
      split.to = push(split) + 1;
      emit(option);
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
  return { steps, hasBackreference };
}

const wordChar = /^[\p{Alphabetic}\p{Nd}_]$/u;

function isWordAt(text: string, offset: number): boolean {
  return offset >= 0 && offset < text.length && wordChar.test(text[offset]);
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
