import { spawnSync } from "node:child_process";
import { expect, test } from "@jest/globals";
import { testServer } from "./server.ts";

const root = new URL("../../..", import.meta.url).pathname;

testServer("postgresql");

test("every function of the servers is covered, or has a reason by its name", () => {
  const args = ["scripts/catalogue.js", "--postgresql", process.env.IQUILL_POSTGRESQL!, "--mariadb", process.env.IQUILL_MARIADB!];
  const { stdout, status } = spawnSync(process.execPath, args, { cwd: root, encoding: "utf8" });
  expect({ stdout, status }).toMatchObject({ status: 0 });
});
