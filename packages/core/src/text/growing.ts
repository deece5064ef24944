import { type Failure, tick } from "../values/index.ts";
import { textLimit, tooLong } from "./operation.ts";

/** Parts after which what has grown is made one piece. */
const partsInAPiece = 4096;

/**
 * A text that grows part by part. The host keeps a chain of the parts of a joined text until one of
 * its characters is asked for; over millions of parts that chain takes many times the text's own size.
 */
export class GrowingText {
  #head = "";
  #tail = "";
  #parts = 0;

  add(part: string): void {
    tick(part.length + 8);
    this.#tail += part;
    if (++this.#parts % partsInAPiece !== 0) return;
    this.#tail.charCodeAt(0);
    this.#head += this.#tail;
    this.#tail = "";
  }

  get isTooLong(): boolean {
    return this.#head.length + this.#tail.length > textLimit;
  }

  /** The whole text, or the failure that it is too long. */
  finish(): string | Failure {
    return this.isTooLong ? tooLong(this.#head.length + this.#tail.length) : this.#head + this.#tail;
  }
}
