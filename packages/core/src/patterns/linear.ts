import { tick } from "../values/index.ts";
import { type Program, type Step, holds } from "./program.ts";

/** Ways through a program that are alive at one place, best first, each with the offsets of its groups. */
interface Ways {
  size: number;
  readonly steps: Int32Array;
  readonly slots: (readonly number[])[];
  /** For each step, when it was last added. */
  readonly seen: Int32Array;
}

const waysFor = ({ steps }: Program): Ways => ({
  size: 0,
  steps: new Int32Array(steps.length),
  slots: new Array<readonly number[]>(steps.length),
  seen: new Int32Array(steps.length).fill(-1),
});

/**
 * Finds the first match in the order of preference (alternatives from left to right, greedy before short) of a pattern
 * without back references, in time linear in the text: all ways run side by side, one character at a time, each step kept
 * once for the best way that reaches it.
 */
export class FirstMatcher {
  #current: Ways;
  #next: Ways;
  #time = 0;
  readonly #slots: number;
  readonly #looks: LookTables;

  constructor(
    readonly program: Program,
    groups: number,
  ) {
    this.#current = waysFor(program);
    this.#next = waysFor(program);
    this.#slots = 2 * groups + 2;
    this.#looks = new LookTables();
  }

  /** The offsets of the first match at or after `from` and of its groups, −1 where unset; undefined when there is none. */
  exec(text: string, from: number): number[] | undefined {
    const { steps } = this.program;
    const blank = new Array<number>(this.#slots).fill(-1);
    let found: number[] | undefined;
    this.#current.size = 0;
    this.#time += 2;
    for (let at = from; ;) {
      if (!found) this.#add(this.#current, 0, blank.with(0, at), text, at);
      tick(4 + this.#current.size);
      const { size } = this.#current;
      if (size === 0 && (found || at >= text.length)) return found;
      const codePoint = text.codePointAt(at);
      const after = at + (codePoint !== undefined && codePoint > 0xffff ? 2 : 1);
      this.#next.size = 0;
      this.#time++;
      for (let i = 0; i < size; i++) {
        const pc = this.#current.steps[i];
        const step = steps[pc];
        if (step.op === "match") {
          found = (this.#current.slots[i] as number[]).with(1, at);
          // What comes after is less preferred.
          break;
        }
        if (codePoint !== undefined && (step as Step & { op: "char" }).test(codePoint))
          this.#add(this.#next, pc + 1, this.#current.slots[i], text, after);
      }
      if (codePoint === undefined) return found;
      [this.#current, this.#next] = [this.#next, this.#current];
      at = after;
    }
  }

  /** Adds a step and what is reached from it without a character, in the order of preference. */
  #add(ways: Ways, first: number, given: readonly number[], text: string, at: number): void {
    const { steps } = this.program;
    const pending: [number, readonly number[]][] = [[first, given]];
    for (let next = pending.pop(); next; next = pending.pop()) {
      const [pc, slots] = next;
      if (ways.seen[pc] === this.#time) continue;
      ways.seen[pc] = this.#time;
      const step = steps[pc];
      switch (step.op) {
        case "split":
          pending.push([step.or, slots], [step.to, slots]);
          break;
        case "jump":
          pending.push([step.to, slots]);
          break;
        case "save":
          pending.push([pc + 1, step.slot < slots.length ? (slots as number[]).with(step.slot, at) : slots]);
          break;
        case "assert":
          if (holds(step.at, text, at)) pending.push([pc + 1, slots]);
          break;
        case "look":
          if (this.#looks.holds(step, text, at) !== step.negated) pending.push([pc + 1, slots]);
          break;
        default:
          ways.steps[ways.size] = pc;
          ways.slots[ways.size++] = slots;
      }
    }
  }
}

/** Puts on the pile what a step that takes no character leads to at a place of the text. */
export function follow(step: Step, pc: number, text: string, at: number, looks: LookTables, pile: number[]): void {
  if (step.op === "split") pile.push(step.or, step.to);
  else if (step.op === "jump") pile.push(step.to);
  else if (step.op === "save") pile.push(pc + 1);
  else if (step.op === "assert") {
    if (holds(step.at, text, at)) pile.push(pc + 1);
  } else if (step.op === "look" && looks.holds(step, text, at) !== step.negated) pile.push(pc + 1);
}

/** Where looks ahead and behind hold in a text: found out for all its places at once. */
export class LookTables {
  #text: string | undefined;
  readonly #tables = new Map<Step, Uint8Array>();

  holds(step: Step & { op: "look" }, text: string, at: number): boolean {
    if (text !== this.#text) {
      this.#tables.clear();
      this.#text = text;
    }
    let table = this.#tables.get(step);
    if (!table) this.#tables.set(step, (table = this.#ends(step, text)));
    return table[at] === 1;
  }

  /** The places at which the item ends when it may start anywhere: run backwards for a look ahead. */
  #ends({ ahead, program, reversed }: Step & { op: "look" }, text: string): Uint8Array {
    const table = new Uint8Array(text.length + 1);
    const { steps } = ahead ? reversed : program;
    let current: number[] = [];
    const seen = new Int32Array(steps.length).fill(-1);
    let time = 0;
    const add = (first: number, into: number[], at: number) => {
      const pending = [first];
      for (let pc = pending.pop(); pc !== undefined; pc = pending.pop()) {
        if (seen[pc] === time) continue;
        seen[pc] = time;
        if (steps[pc].op === "match") table[at] = 1;
        else if (steps[pc].op === "char") into.push(pc);
        else follow(steps[pc], pc, text, at, this, pending);
      }
    };
    for (let at = ahead ? text.length : 0; ;) {
      add(0, current, at);
      if (at === (ahead ? 0 : text.length)) return table;
      const codePoint = ahead ? codePointBefore(text, at) : text.codePointAt(at)!;
      at += (codePoint > 0xffff ? 2 : 1) * (ahead ? -1 : 1);
      time++;
      const next: number[] = [];
      for (const pc of current) if ((steps[pc] as Step & { op: "char" }).test(codePoint)) add(pc + 1, next, at);
      current = next;
    }
  }
}

function codePointBefore(text: string, at: number): number {
  const isPair = at > 1 && (text.charCodeAt(at - 1) & 0xfc00) === 0xdc00 && (text.charCodeAt(at - 2) & 0xfc00) === 0xd800;
  return text.codePointAt(at - (isPair ? 2 : 1))!;
}
