import type { Answer, Reply, Request, Requests } from "./protocol.ts";

/** A newer request of the same kind has come in the place of this one. */
export class StaleError extends Error {}

/** Asks the thread that holds the rows. */
export class Bench {
  readonly #worker = new Worker(new URL("./worker.ts", import.meta.url), { type: "module" });
  readonly #waiting = new Map<number, { resolve: (answer: unknown) => void; reject: (error: Error) => void }>();
  #id = 0;

  constructor() {
    this.#worker.onmessage = ({ data }: MessageEvent<Reply>) => {
      const { resolve, reject } = this.#waiting.get(data.id)!;
      this.#waiting.delete(data.id);
      if ("answer" in data) resolve(data.answer);
      else reject("error" in data ? new Error(data.error) : new StaleError());
    };
  }

  ask<K extends keyof Requests>(kind: K, request: Omit<Requests[K], "asks">): Promise<Answer<K>> {
    const id = ++this.#id;
    const whole = { kind, ...request } as unknown as Request;
    return new Promise<Answer<K>>((resolve, reject) => {
      this.#waiting.set(id, { resolve: resolve as (answer: unknown) => void, reject });
      this.#worker.postMessage({ id, request: whole });
    });
  }

  close(): void {
    this.#worker.terminate();
  }
}
