import { build, preview } from "vite";

/** Builds the pages as `npm run build` in their folders does, and serves them; Vite cannot run inside a test. */
export default async function setup() {
  // Jest names its own environment, for which Vite would build a page to debug, several times slower.
  const environment = process.env.NODE_ENV;
  process.env.NODE_ENV = "production";
  globalThis.servers = [];
  for (const name of ["desk", "concordance", "embed"]) {
    const root = new URL(`../examples/${name}`, import.meta.url).pathname;
    await build({ root, base: "./", logLevel: "error", build: { chunkSizeWarningLimit: 2000 } });
    const server = await preview({ root, logLevel: "error", preview: { port: 0, host: "127.0.0.1" } });
    globalThis.servers.push(server);
    process.env[`${name.toUpperCase()}_URL`] = server.resolvedUrls.local[0];
  }
  process.env.NODE_ENV = environment;
}
