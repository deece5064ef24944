import type { Findings, Question, Said } from "./findings.ts";

/** Milliseconds that each part of an answer may take, rows once read, and that the last one may still take when there is a newer question; what is asked in a pause takes longer, and is not broken off. */
const patience = { part: 1000, newer: 150, settled: 600 };

/** Asks the worker; the newest question wins. One asked in a pause is asked until all its causes were looked for. */
export class Asker {
  #worker: Worker | undefined;
  #id = 0;
  /** What is being answered. */
  #current: Partial<Findings> & { readonly question: Question };
  #isBusy = false;
  #next: Question | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;

  /** @param tell hears what is known of a question, again with each part; `isLast` when nothing more comes */
  constructor(
    question: Question,
    readonly tell: (known: Partial<Findings>, isLast: boolean, isStopped: boolean) => void,
  ) {
    this.#current = { question };
    this.#send(question);
  }

  ask(question: Question): void {
    if (!this.#isBusy) {
      this.#send(question);
      return;
    }
    this.#next = question;
    if (this.#current.notices) this.#stopIn(this.#forNewer);
  }

  close(): void {
    clearTimeout(this.#timer);
    this.#worker?.terminate();
  }

  get #forNewer(): number {
    return this.#current.question.isSettled ? patience.settled : patience.newer;
  }

  #send(question: Question): void {
    if (!this.#worker) {
      this.#worker = new Worker(new URL("./worker.ts", import.meta.url), { type: "module" });
      this.#worker.onmessage = ({ data }: MessageEvent<Said>) => this.#hear(data);
    }
    this.#isBusy = true;
    this.#current = { question };
    this.#worker.postMessage({ id: ++this.#id, question });
  }

  #hear({ id, part, isLast }: Said): void {
    if (id !== this.#id) return;
    this.#current = { ...this.#current, ...part };
    if (!isLast) {
      // Reading the rows takes what it takes; the clock runs from then on, anew for each part.
      if (!this.#next) this.#stopIn(patience.part);
      else if (part.notices) this.#stopIn(this.#forNewer);
      this.tell(this.#current, false, false);
      return;
    }
    this.#end(false);
  }

  #stopIn(milliseconds: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => {
      this.#worker!.terminate();
      this.#worker = undefined;
      this.#end(true);
    }, milliseconds);
  }

  #end(isStopped: boolean): void {
    clearTimeout(this.#timer);
    this.#isBusy = false;
    const { question, contrast } = this.#current;
    const isToGoOn = !isStopped && question.isSettled && contrast?.isUnfinished;
    const next = this.#next ?? (isToGoOn ? question : undefined);
    this.tell(this.#current, true, isStopped && !this.#next);
    this.#next = undefined;
    if (next) this.#send(next);
  }
}
