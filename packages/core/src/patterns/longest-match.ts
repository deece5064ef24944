import type { PatternNode } from "./ast.ts";
import { looks } from "./first-match.ts";
import { type Budget, type Program, compileProgram, holds, spend } from "./program.ts";

/**
 * The rule of POSIX advanced patterns (PostgreSQL documentation, 9.7.3.5): of the matches that
 * start earliest, the longest (or the shortest, when the pattern as a whole prefers that); then
 * each part from left to right takes the longest (or shortest) stretch that lets the rest match.
 */
export class LongestMatcher {
  readonly #programs = new Map<PatternNode, Program>();
  readonly #long: boolean;
  readonly root: PatternNode;

  constructor(
    root: PatternNode,
    readonly groups: number,
    readonly ignoreCase: boolean,
  ) {
    this.root = lastTurnApart(root);
    this.#long = preference(this.root) !== "short";
    this.#program(this.root);
  }

  /** The offsets of the groups of the first match at or after `from`, or undefined. */
  exec(text: string, from: number, budget: Budget): number[] | undefined {
    const found = scan(this.#program(this.root), text, from, this.#long, budget);
    if (!found) return undefined;
    const slots = new Array<number>(2 * this.groups + 2).fill(-1);
    if (this.groups > 0) this.#dissect(this.root, text, found.start, found.end, slots, budget);
    [slots[0], slots[1]] = [found.start, found.end];
    return slots;
  }

  #program(node: PatternNode): Program {
    let program = this.#programs.get(node);
    if (!program) this.#programs.set(node, (program = compileProgram(node, this.ignoreCase)));
    return program;
  }

  /** Divides the stretch [start, end), which `node` may match, among its parts; false if it cannot be. */
  #dissect(node: PatternNode, text: string, start: number, end: number, slots: number[], budget: Budget): boolean {
    spend(budget);
    const inner = (item: PatternNode, from: number, to: number) => this.#dissect(item, text, from, to, slots, budget);
    switch (node.kind) {
      case "group":
        if (!inner(node.item, start, end)) return false;
        [slots[2 * node.index], slots[2 * node.index + 1]] = [start, end];
        return true;
      case "choice":
        return node.options.some((option) => inner(option, start, end));
      case "sequence":
        return this.#dissectItems(node.items, 0, text, start, end, slots, new Set(), budget);
      case "repeat":
        if (capturesNothing(node.item)) return ends(this.#program(node), text, start, end, budget).includes(end);
        // Only {1,1} is left of those that must come.
        return node.min === 1 ? inner(node.item, start, end) : this.#dissectRepeat(node, text, start, end, slots, budget);
      default:
        return ends(this.#program(node), text, start, end, budget).includes(end);
    }
  }

  #dissectItems(
    items: readonly PatternNode[],
    index: number,
    text: string,
    start: number,
    end: number,
    slots: number[],
    failed: Set<string>,
    budget: Budget,
  ): boolean {
    if (index === items.length) return start === end;
    const item = items[index];
    if (index === items.length - 1) return this.#dissect(item, text, start, end, slots, budget);
    const key = `${index},${start}`;
    if (failed.has(key)) return false;
    const middles = ends(this.#program(item), text, start, end, budget);
    if (preference(item) !== "short") middles.reverse();
    for (const middle of middles) {
      if (
        this.#dissectItems(items, index + 1, text, middle, end, slots, failed, budget) &&
        this.#dissect(item, text, start, middle, slots, budget)
      ) {
        return true;
      }
    }
    failed.add(key);
    return false;
  }

  /**
   * Takes one turn of a repeat that may be left out at a time, the longest (or shortest) that lets the rest
   * be turns too. No turn is tried on nothing but the first, where its item would rather be long.
   */
  #dissectRepeat(
    node: PatternNode & { kind: "repeat" },
    text: string,
    start: number,
    end: number,
    slots: number[],
    budget: Budget,
  ): boolean {
    const isLong = preference(node.item) !== "short";
    if (start === end) {
      if (isLong) this.#dissect(node.item, text, start, end, slots, budget);
      return true;
    }
    const most = Math.min(node.max, end - start);
    const dead = new Set<number>();
    const turn = (done: number, from: number): boolean => {
      if (from === end) return true;
      const key = from * (most + 1) + done;
      if (done === most || dead.has(key)) return false;
      const stops = ends(this.#program(node.item), text, from, end, budget);
      if (isLong) stops.reverse();
      for (const stop of stops) {
        if (stop === from || !turn(done + 1, stop)) continue;
        if (stop === end) this.#dissect(node.item, text, from, stop, slots, budget);
        return true;
      }
      dead.add(key);
      return false;
    };
    return turn(0, start);
  }
}

/** A repeat of a group that must come at least once, as PostgreSQL reads it: x{m,n} is x{m-1,n-1}x, and only the last x is a group. */
function lastTurnApart(node: PatternNode): PatternNode {
  switch (node.kind) {
    case "group":
      return { ...node, item: lastTurnApart(node.item) };
    case "choice":
      return { ...node, options: node.options.map(lastTurnApart) };
    case "sequence":
      return { ...node, items: node.items.map(lastTurnApart) };
    case "repeat": {
      const item = lastTurnApart(node.item);
      if (node.min === 0 || capturesNothing(item)) return { ...node, item };
      if (node.max === 1) return node.exact ? item : { ...node, item };
      const others: PatternNode = { ...node, item: withoutGroups(item), min: node.min - 1, max: node.max - 1 };
      return { kind: "sequence", items: [others, item] };
    }
    default:
      return node;
  }
}

function withoutGroups(node: PatternNode): PatternNode {
  switch (node.kind) {
    case "group":
      return withoutGroups(node.item);
    case "choice":
      return { ...node, options: node.options.map(withoutGroups) };
    case "sequence":
      return { ...node, items: node.items.map(withoutGroups) };
    case "repeat":
      return { ...node, item: withoutGroups(node.item) };
    default:
      return node;
  }
}

function capturesNothing(node: PatternNode): boolean {
  switch (node.kind) {
    case "group":
      return false;
    case "sequence":
      return node.items.every(capturesNothing);
    case "choice":
      return node.options.every(capturesNothing);
    case "repeat":
      return capturesNothing(node.item);
    default:
      return true;
  }
}

/** Whether a part prefers the longest or the shortest stretch; undefined when it has no choice. */
export function preference(node: PatternNode): "long" | "short" | undefined {
  switch (node.kind) {
    case "repeat":
      return node.exact ? preference(node.item) : node.greedy ? "long" : "short";
    case "group":
      return preference(node.item);
    case "choice":
      return "long";
    case "sequence":
      for (const item of node.items) {
        const found = preference(item);
        if (found) return found;
      }
      return undefined;
    default:
      return undefined;
  }
}

/** All offsets up to `limit` at which the program can end when it starts at `start`, in rising order. */
function ends(program: Program, text: string, start: number, limit: number, budget: Budget): number[] {
  const found: number[] = [];
  simulate(program, text, start, limit, budget, (_start, end) => void found.push(end));
  return found;
}

/** The earliest start of a match at or after `from`, with its longest or shortest end. */
function scan(
  program: Program,
  text: string,
  from: number,
  long: boolean,
  budget: Budget,
): { start: number; end: number } | undefined {
  let best: { start: number; end: number } | undefined;
  simulate(
    program,
    text,
    from,
    text.length,
    budget,
    (start, end) => {
      if (!best || start < best.start || (start === best.start && long)) best = { start, end };
    },
    () => best,
    long,
  );
  return best;
}

/**
 * Runs all ways through the program side by side, one character of the text at a time. Each step
 * keeps the earliest start that reaches it. With `best` given, new starts are added at every
 * offset until a match is known, and ways that cannot better it are dropped.
 */
function simulate(
  program: Program,
  text: string,
  from: number,
  limit: number,
  budget: Budget,
  report: (start: number, end: number) => void,
  best?: () => { start: number } | undefined,
  long = true,
): void {
  const { steps } = program;
  let current = new Map<number, number>();
  let at = from;
  const add = (pc: number, start: number, into: Map<number, number>) => {
    const pending = [pc];
    while (pending.length > 0) {
      const next = pending.pop()!;
      const known = into.get(next);
      if (known !== undefined && known <= start) continue;
      spend(budget);
      into.set(next, start);
      const step = steps[next];
      if (step.op === "split") pending.push(step.or, step.to);
      else if (step.op === "jump") pending.push(step.to);
      else if (step.op === "save") pending.push(next + 1);
      else if (step.op === "assert") {
        if (holds(step.at, text, at)) pending.push(next + 1);
      } else if (step.op === "look") {
        if (looks(step.program, text, at, step.ahead, budget) !== step.negated) pending.push(next + 1);
      }
    }
  };
  add(0, from, current);
  for (;;) {
    let reached = Infinity;
    for (const [pc, start] of current) if (steps[pc].op === "match") reached = Math.min(reached, start);
    if (reached !== Infinity) report(reached, at);
    if (at >= limit) return;
    const codePoint = text.codePointAt(at)!;
    at += codePoint > 0xffff ? 2 : 1;
    const known = best?.();
    const following = new Map<number, number>();
    for (const [pc, start] of current) {
      const step = steps[pc];
      if (step.op !== "char" || (known && (start > known.start || (start === known.start && !long)))) continue;
      spend(budget);
      if (step.test(codePoint)) add(pc + 1, start, following);
    }
    if (best && !known) add(0, at, following);
    if (following.size === 0 && (!best || known)) return;
    current = following;
  }
}
