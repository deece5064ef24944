import { type ChildProcess, fork } from "node:child_process";
import { fileURLToPath } from "node:url";
import type { Connection, Outcome, Query, Settings } from "./connection.ts";

interface Answer {
  readonly version?: string;
  readonly options?: Readonly<Record<string, string>>;
  readonly outcomes?: Outcome[];
}

/** The built worker, from the sources as from what is built. */
const worker = fileURLToPath(new URL("../dist/worker.js", import.meta.url));

/**
 * Opens an embedded engine in a process of its own. An expression that takes longer than the limit
 * costs that process: its rows are errors, and the next query starts another.
 */
export async function connect(name: string, settings: Settings): Promise<Connection> {
  let child: ChildProcess | undefined;

  /** What the process says next; a text where it ends or the time is up. */
  const answer = (from: ChildProcess, timeLimit: number): Promise<Answer | string> =>
    new Promise((resolve) => {
      const timer = setTimeout(() => finish(`it took longer than ${timeLimit} ms`), timeLimit);
      const finish = (result: Answer | string) => {
        clearTimeout(timer);
        from.removeAllListeners();
        from.unref();
        from.channel?.unref();
        resolve(result);
      };
      from.ref();
      from.channel?.ref();
      from.once("message", (message) => finish(message as Answer));
      from.once("exit", (code) => finish(`the engine's process ended (${code ?? "killed"})`));
      from.once("error", (error) => finish(error.message));
    });

  async function start(): Promise<Answer> {
    child = fork(worker, [name, JSON.stringify(settings)], { serialization: "advanced", execArgv: [] });
    // An engine that is left open keeps no program from ending.
    child.unref();
    child.channel?.unref();
    const said = await answer(child, 30_000);
    if (typeof said === "string") throw new Error(`the embedded engine ${name} did not start: ${said}`);
    return said;
  }

  const { version, options } = await start();
  return {
    version: version!,
    options: options!,
    async run(query: Query) {
      if (!child) await start();
      child!.send(query);
      const said = await answer(child!, settings.timeLimit);
      if (typeof said !== "string") return said.outcomes!;
      child!.kill("SIGKILL");
      child = undefined;
      return query.rows.map(() => ({ error: { code: "time-limit", message: said } }));
    },
    close() {
      child?.kill();
      child = undefined;
      return Promise.resolve();
    },
  };
}
