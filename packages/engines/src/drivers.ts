import { createRequire } from "node:module";

const require = createRequire(import.meta.url);

/** The package that reaches or holds each engine. None comes with ours: who only evaluates needs none of them. */
const drivers = {
  postgresql: "pg",
  mariadb: "mariadb",
  pglite: "@electric-sql/pglite",
  sqljs: "sql.js",
  duckdb: "@duckdb/node-api",
} as const;

export type Driver = keyof typeof drivers;

/** The package of an engine is not there; the message says how to install it. */
export class DriverMissing extends Error {}

/** @throws DriverMissing where the package of an engine is not installed beside ours */
export function needDriver(driver: Driver): void {
  const name = drivers[driver];
  try {
    require.resolve(name);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "MODULE_NOT_FOUND") throw error;
    const { peerDependencies } = require("../package.json") as { peerDependencies: Record<string, string> };
    throw new DriverMissing(
      `this engine comes in a package of its own, which is not installed: npm install "${name}@${peerDependencies[name]}"`,
    );
  }
}
