import { tick } from "../values/index.ts";
import type { PatternNode } from "./ast.ts";
import { LookTables, follow } from "./linear.ts";
import { type Budget, type Program, compileProgram, spend } from "./program.ts";

/** Steps that each character of a match adds to the budget for its groups. */
const stepsPerCharacter = 50;

/**
 * The rule of POSIX advanced patterns (PostgreSQL documentation, 9.7.3.5): of the matches that
 * start earliest, the longest (or the shortest, when the pattern as a whole prefers that); then
 * each part from left to right takes the longest (or shortest) stretch that lets the rest match.
 */
export class LongestMatcher {
  readonly #programs = new Map<PatternNode, Program>();
  readonly #looks = new LookTables();
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
    const found = scan(this.#program(this.root), text, from, this.#long, this.#looks);
    if (!found) return undefined;
    // What a group is takes more looks at the same stretch, but a number that grows with it.
    budget.left += stepsPerCharacter * (found.end - found.start);
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
        if (capturesNothing(node.item)) return ends(this.#program(node), text, start, end, this.#looks, budget).includes(end);
        // Only {1,1} is left of those that must come.
        return node.min === 1 ? inner(node.item, start, end) : this.#dissectRepeat(node, text, start, end, slots, budget);
      default:
        return ends(this.#program(node), text, start, end, this.#looks, budget).includes(end);
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
    const middles = ends(this.#program(item), text, start, end, this.#looks, budget);
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
      const stops = ends(this.#program(node.item), text, from, end, this.#looks, budget);
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
function ends(program: Program, text: string, start: number, limit: number, looks: LookTables, budget: Budget): number[] {
  const found: number[] = [];
  simulate(program, text, start, limit, looks, (_start, end) => void found.push(end), budget);
  return found;
}

/** The earliest start of a match at or after `from`, with its longest or shortest end; in time linear in the text. */
function scan(
  program: Program,
  text: string,
  from: number,
  long: boolean,
  looks: LookTables,
): { start: number; end: number } | undefined {
  let best: { start: number; end: number } | undefined;
  const report = (start: number, end: number) => {
    if (!best || start < best.start || (start === best.start && long)) best = { start, end };
  };
  simulate(program, text, from, text.length, looks, report, undefined, { known: () => best, long });
  return best;
}

/**
 * Runs all ways through the program side by side, one character of the text at a time. Each step
 * keeps the earliest start that reaches it. With `search` given, new starts are added at every
 * offset until a match is known, and ways that cannot better it are dropped.
 */
function simulate(
  program: Program,
  text: string,
  from: number,
  limit: number,
  looks: LookTables,
  report: (start: number, end: number) => void,
  budget?: Budget,
  search?: { readonly known: () => { start: number } | undefined; readonly long: boolean },
): void {
  const { steps } = program;
  /** The steps that are alive, and the earliest start of each by its number; a start counts while its time does. */
  let [alive, following] = [new Int32Array(steps.length), new Int32Array(steps.length)];
  let [starts, nextStarts] = [new Float64Array(steps.length), new Float64Array(steps.length)];
  const seen = new Int32Array(steps.length).fill(-1);
  const pending: number[] = [];
  let [time, at] = [0, from];

  /** Adds what is reached from a step without a character; gives how many steps are alive then. */
  const add = (first: number, start: number, into: Int32Array, known: Float64Array, size: number): number => {
    let alive = size;
    pending.push(first);
    while (pending.length > 0) {
      const pc = pending.pop()!;
      const isNew = seen[pc] !== time;
      if (!isNew && known[pc] <= start) continue;
      if (budget) spend(budget);
      if (isNew) into[alive++] = pc;
      seen[pc] = time;
      known[pc] = start;
      follow(steps[pc], pc, text, at, looks, pending);
    }
    return alive;
  };

  let count = add(0, from, alive, starts, 0);
  for (;;) {
    let reached = Infinity;
    for (let i = 0; i < count; i++) if (steps[alive[i]].op === "match") reached = Math.min(reached, starts[alive[i]]);
    if (reached !== Infinity) report(reached, at);
    if (at >= limit) return;
    const codePoint = text.codePointAt(at)!;
    at += codePoint > 0xffff ? 2 : 1;
    time++;
    tick(4 + count);
    const known = search?.known();
    let size = 0;
    for (let i = 0; i < count; i++) {
      const pc = alive[i];
      const step = steps[pc];
      if (step.op !== "char") continue;
      const start = starts[pc];
      if (known && (start > known.start || (start === known.start && !search!.long))) continue;
      if (budget) spend(budget);
      if (step.test(codePoint)) size = add(pc + 1, start, following, nextStarts, size);
    }
    if (search && !known) size = add(0, at, following, nextStarts, size);
    if (size === 0 && (!search || known)) return;
    [alive, following, starts, nextStarts, count] = [following, alive, nextStarts, starts, size];
  }
}
