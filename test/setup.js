import { build, preview } from "vite";

/** Builds the desk as `npm run build` in its folder does, and serves it; Vite cannot run inside a test. */
export default async function setup() {
  const root = new URL("../examples/desk", import.meta.url).pathname;
  // Jest names its own environment, for which Vite would build a page to debug, several times slower.
  const environment = process.env.NODE_ENV;
  process.env.NODE_ENV = "production";
  await build({ root, logLevel: "error" });
  process.env.NODE_ENV = environment;
  const server = await preview({ root, logLevel: "error", preview: { port: 0, host: "127.0.0.1" } });
  globalThis.deskServer = server;
  process.env.DESK_URL = server.resolvedUrls.local[0];
}
