import { build, preview } from "vite";

/** Builds the desk and serves it; Vite cannot run inside a test. */
export default async function setup() {
  const root = new URL("../examples/desk", import.meta.url).pathname;
  await build({ root, logLevel: "error" });
  const server = await preview({ root, logLevel: "error", preview: { port: 0, host: "127.0.0.1" } });
  globalThis.deskServer = server;
  process.env.DESK_URL = server.resolvedUrls.local[0];
}
