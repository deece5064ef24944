import type { Findings, Question, Said } from "./findings.ts";

/**
 * Milliseconds after which a part of an answer is late, and after which it is given up, rows once read. A machine that does ten other
 * things may take seconds for what takes none: what is late is told, and goes on. When there is a newer question the last one may take
 * less; one asked in a pause takes longer, and is not broken off.
 */
const patience = { late: 1000, part: 10_000, newer: 150, settled: 600 };

/** Whether more of an answer comes: at once, late, or not, as nothing is left to tell, or as it took too long. */
export type End = "soon" | "late" | "told" | "stopped";

/** Asks the worker; the newest question wins. One asked in a pause is asked until all its causes were looked for. */
export class Asker {
  #worker: Worker | undefined;
  #id = 0;
  /** What is being answered. */
  #current: Partial<Findings> & { readonly question: Question };
  #isBusy = false;
  #next: Question | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #late: ReturnType<typeof setTimeout> | undefined;

  /** @param tell hears what is known of a question, again with each part */
  constructor(
    question: Question,
    readonly tell: (known: Partial<Findings>, end: End) => void,
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
    this.#stopClocks();
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
      this.tell(this.#current, "soon");
      return;
    }
    this.#end(false);
  }

  #stopIn(milliseconds: number): void {
    this.#stopClocks();
    if (milliseconds > patience.late) this.#late = setTimeout(() => this.tell(this.#current, "late"), patience.late);
    this.#timer = setTimeout(() => {
      this.#worker!.terminate();
      this.#worker = undefined;
      this.#end(true);
    }, milliseconds);
  }

  #stopClocks(): void {
    clearTimeout(this.#late);
    clearTimeout(this.#timer);
  }

  #end(isStopped: boolean): void {
    this.#stopClocks();
    this.#isBusy = false;
    const { question, contrast } = this.#current;
    const isToGoOn = !isStopped && question.isSettled && contrast?.isUnfinished;
    const next = this.#next ?? (isToGoOn ? question : undefined);
    this.tell(this.#current, isStopped && !this.#next ? "stopped" : "told");
    this.#next = undefined;
    if (next) this.#send(next);
  }
}
