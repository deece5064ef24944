import { type ChildProcess, fork } from "node:child_process";
import { fileURLToPath } from "node:url";
import { type Connection, EngineLost, type Outcome, type Query, type Settings, inTurn, spent } from "./connection.ts";

interface Answer {
  readonly version?: string;
  readonly options?: Readonly<Record<string, string>>;
  readonly place?: number;
  readonly outcome?: Outcome;
  readonly failed?: string;
}

/** The built worker, from the sources as from what is built. */
const worker = fileURLToPath(new URL("../dist/worker.js", import.meta.url));

/** Milliseconds that an engine may take to start, and to put the rows of a sample into a table. */
const startLimit = 30_000;

/** A process with what it has said and nobody has heard yet. */
class Engine {
  readonly #process: ChildProcess;
  readonly #said: (Answer | string)[] = [];
  #hear: (() => void) | undefined;

  constructor(name: string, settings: Settings) {
    // The limits are held here, where an engine at work can be ended.
    const within = { ...settings, timeLimit: 2 ** 30, totalLimit: 2 ** 30 };
    this.#process = fork(worker, [name, JSON.stringify(within)], { serialization: "advanced", execArgv: [] });
    this.#process.on("message", (message) => this.#take(message as Answer));
    this.#process.on("exit", (code) => this.#take(`the engine's process ended (${code ?? "killed"})`));
    this.#process.on("error", (error) => this.#take(error.message));
    this.#keep(false);
  }

  #take(said: Answer | string): void {
    this.#said.push(said);
    this.#hear?.();
  }

  /** An engine that is left open keeps no program from ending; one that is waited for does. */
  #keep(isAwaited: boolean): void {
    const change = isAwaited ? "ref" : "unref";
    this.#process[change]();
    this.#process.channel?.[change]();
  }

  ask(query: Query): void {
    this.#process.send(query);
  }

  /** What the process says next; a text where it ends or the time is up. */
  async next(timeLimit: number): Promise<Answer | string> {
    if (this.#said.length === 0) {
      this.#keep(true);
      let timer: NodeJS.Timeout | undefined;
      await new Promise<void>((resolve) => {
        this.#hear = resolve;
        timer = setTimeout(resolve, timeLimit);
      });
      clearTimeout(timer);
      this.#keep(false);
    }
    return this.#said.shift() ?? `it took longer than ${timeLimit} ms`;
  }

  kill(): void {
    this.#process.kill("SIGKILL");
  }
}

/**
 * Opens an embedded engine in a process of its own. A row that takes longer than the limit costs that
 * process: its outcome is an error, and the next row starts another.
 */
export async function connect(name: string, settings: Settings): Promise<Connection> {
  let engine: Engine | undefined;

  async function start(): Promise<Answer> {
    engine = new Engine(name, settings);
    const said = await engine.next(startLimit);
    if (typeof said === "string") throw new EngineLost(`the embedded engine ${name} did not start: ${said}`);
    return said;
  }

  function stop(): void {
    engine?.kill();
    engine = undefined;
  }

  /** Asks for rows until one costs the process; gives how many outcomes there are. */
  async function ask(query: Query, at: readonly number[], give: (outcome: Outcome) => void, until: number): Promise<void> {
    engine!.ask({ ...query, at });
    for (let place = 0; ; place++) {
      const beforeFirst = place === 0 && query.over === "stored" ? startLimit : 0;
      const room = Math.max(1, until - Date.now());
      const said = await engine!.next(Math.min(beforeFirst + settings.timeLimit, room));
      if (typeof said === "string") {
        stop();
        give({ error: { code: "time-limit", message: said } });
        return;
      }
      if (said.failed !== undefined) throw new Error(said.failed);
      if (!said.outcome) return;
      give(said.outcome);
    }
  }

  const { version, options } = await start();
  return {
    version: version!,
    options: options!,
    run: inTurn(async (query, told) => {
      const at = query.at ?? query.rows.map((_, i) => i);
      const until = Date.now() + settings.totalLimit;
      const outcomes: Outcome[] = [];
      const give = (outcome: Outcome) => {
        told?.(outcomes.length, outcome);
        outcomes.push(outcome);
      };
      while (outcomes.length < at.length) {
        if (Date.now() > until) give(spent(settings.totalLimit));
        else {
          if (!engine) await start();
          await ask(query, at.slice(outcomes.length), give, until);
        }
      }
      return outcomes;
    }),
    close() {
      stop();
      return Promise.resolve();
    },
  };
}
