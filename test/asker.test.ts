import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";
import { Asker } from "../examples/desk/src/asker.ts";
import type { Findings, Question, Said } from "../examples/desk/src/findings.ts";

/** A worker that is asked, and answers what the test says. */
class Asked {
  static all: Asked[] = [];
  onmessage: ((event: { data: Said }) => void) | undefined;
  readonly asked: { id: number; question: Question }[] = [];
  isStopped = false;
  constructor() {
    Asked.all.push(this);
  }
  postMessage(message: { id: number; question: Question }): void {
    this.asked.push(message);
  }
  terminate(): void {
    this.isStopped = true;
  }
  answer(part: Partial<Findings>, isLast = false): void {
    this.onmessage!({ data: { id: this.asked.at(-1)!.id, part, isLast } });
  }
}

const question = (selected: number, isSettled = false) => ({ selected, isSettled }) as Question;
const told: string[] = [];
const askerOf = (first: Question) => new Asker(first, ({ question: of }, end) => told.push(`${of!.selected} ${end}`));

beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(globalThis, { Worker: Asked });
  Asked.all = [];
  told.length = 0;
});
afterEach(() => void jest.useRealTimers());

test("reading the rows has no clock; a part is told as late after a second, and given up after ten", () => {
  askerOf(question(0));
  const [worker] = Asked.all;
  jest.advanceTimersByTime(60_000);
  expect([told, worker.isStopped]).toEqual([[], false]);
  worker.answer({ notices: [] });
  jest.advanceTimersByTime(1000);
  worker.answer({ sides: [] });
  jest.advanceTimersByTime(9999);
  expect([told, worker.isStopped]).toEqual([["0 soon", "0 late", "0 soon", "0 late"], false]);
  jest.advanceTimersByTime(1);
  expect([told.at(-1), worker.isStopped]).toEqual(["0 stopped", true]);
});

test("the newest question wins, in another worker where the last one does not end", () => {
  const asker = askerOf(question(0));
  const [worker] = Asked.all;
  worker.answer({ notices: [] });
  asker.ask(question(1));
  asker.ask(question(2, true));
  worker.answer({ sides: [] });
  worker.answer({}, true);
  expect(worker.asked.map(({ question: { selected } }) => selected)).toEqual([0, 2]);
  worker.answer({ notices: [] });
  asker.ask(question(3));
  jest.advanceTimersByTime(599);
  expect(worker.isStopped).toBe(false);
  jest.advanceTimersByTime(1);
  expect([worker.isStopped, told.at(-1)]).toEqual([true, "2 told"]);
  expect(Asked.all[1].asked.map(({ question: { selected } }) => selected)).toEqual([3]);
  worker.answer({ sides: [] });
  expect(told.at(-1)).toBe("2 told");
});

test("a question asked in a pause is asked until all causes were looked for", () => {
  askerOf(question(0, true));
  const [worker] = Asked.all;
  for (const isUnfinished of [true, true, false]) worker.answer({ contrast: { isUnfinished } as Findings["contrast"] }, true);
  expect(worker.asked).toHaveLength(3);
});
