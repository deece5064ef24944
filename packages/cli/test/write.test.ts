import { execFile, spawn } from "node:child_process";
import { appendFileSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";

const command = new URL("../bin/iquill.js", import.meta.url).pathname;
let folder = "";
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), "iquill-"))));
afterEach(() => rmSync(folder, { recursive: true }));

const start = (shell: string) => `cd ${folder}; ${shell.replace("iquill", `exec ${process.execPath} ${command}`)}`;
/** Runs a line of the shell in the folder. */
const run = (shell: string): Promise<{ code: number; out: string; err: string }> =>
  new Promise((resolve) =>
    execFile("bash", ["-c", start(shell)], { maxBuffer: 1 << 28 }, (error, out, err) =>
      resolve({ code: typeof error?.code === "number" ? error.code : 0, out, err }),
    ),
  );
const read = (name: string) => readFileSync(join(folder, name), "utf8");
const write = (name: string, text: string) => writeFileSync(join(folder, name), text);
const trimmed = "iquill eval -i postgresql -r rows.csv --replace label 'initcap(btrim(label))'";

describe("a preview", () => {
  beforeEach(() => write("rows.csv", "label,n\n alnus,1\nSalix,2\n alnus,3\nVIOLA,\n"));

  test("of rows marks what is changed, and writes nothing", async () => {
    const { out, err } = await run(`${trimmed} -p rows`);
    expect(out.split("\n").slice(2)).toEqual([
      "  1  label   ⟦·a⟧lnus  ⟦A⟧lnus",
      "  3  label   ⟦·a⟧lnus  ⟦A⟧lnus",
      "  4  label   V⟦IOLA⟧   V⟦iola⟧",
      "",
    ]);
    expect(err).toBe("label: 3 of 4 values changed\n");
    expect(readdirSync(folder)).toEqual(["rows.csv"]);
  });

  test("of values counts them, and comes back with other decisions", async () => {
    const values = await run(`${trimmed} -p values -f csv`);
    expect(values.out).toBe('column,before,after,rows\nlabel," alnus",Alnus,2\nlabel,VIOLA,Viola,1\n');
    write("decided.csv", values.out.replace("Viola", "Viola L."));
    const { out } = await run(`${trimmed} --decided decided.csv -f csv -c 'l=length(label)'`);
    expect(out).toBe('label,n,l\nAlnus,1,5\nSalix,2,5\nAlnus,3,5\nViola L.,"",8\n');
  });

  test.each([
    ["iquill eval -i postgresql -r rows.csv -p rows 1", /a preview shows what becomes of columns that are there/],
    [`${trimmed} -p rows -f csv`, /a preview of rows is a table/],
    [`${trimmed} --decided rows.csv`, /rows\.csv: the columns "column", "before" and "after" are wanted/],
    [`${trimmed} --decided <(printf 'column,before,after\\nn,1,2\\n')`, /row 1 decides about "n", which is not replaced here/],
    [`${trimmed} --decided <(printf 'column,before,after\\nlabel,a,b\\nlabel,a,c\\n')`, /row 2 decides otherwise about "a"/],
    [`${trimmed} --to x.txt`, /x\.txt: the name does not say in which format/],
    [`${trimmed} --to a.csv --over rows.csv`, /--to makes a file, --over replaces one/],
    [`${trimmed} --to rows.csv`, /rows\.csv: there is such a file already; --over rows\.csv replaces it and keeps the old one/],
    [`${trimmed} --over a.csv`, /a\.csv: there is no such file to replace/],
    [`${trimmed} --to no/a.csv`, /no\/a\.csv: there is no such folder; nothing was changed/],
    [`${trimmed} --to /dev/null -f csv`, /\/dev\/null: this is no file/],
  ])("%s is refused", async (line, message) => {
    const { code, out, err } = await run(line);
    expect(err).toMatch(message);
    expect([code, out, readdirSync(folder)]).toEqual([2, "", ["rows.csv"]]);
  });

  test("is followed by writing: a new file, or in the place of one, which is kept", async () => {
    const old = read("rows.csv");
    expect((await run(`${trimmed} --to new.ndjson`)).err).toMatch(/^new\.ndjson: 4 rows written\n/);
    expect(read("new.ndjson").split("\n")[0]).toBe('{"label":"Alnus","n":"1"}');
    for (const kept of ["rows.csv.1", "rows.csv.2"]) {
      expect((await run(`${trimmed} --over rows.csv`)).err).toContain(
        `rows.csv: 4 rows written; the old file is kept as ${kept}\n`,
      );
    }
    expect(read("rows.csv.1")).toBe(old);
    expect(read("rows.csv.2")).toBe(read("rows.csv"));
    expect(readdirSync(folder)).toEqual(["new.ndjson", "rows.csv", "rows.csv.1", "rows.csv.2"]);
  });
});

describe("a file that is replaced is whole at every moment", () => {
  const old = `label\n${" alnus\n".repeat(200_000)}`;
  beforeEach(() => write("rows.csv", old));

  test("where the disk is full", async () => {
    const { code, err } = await run(`ulimit -f 100; ${trimmed} --over rows.csv`);
    expect([code, err]).toEqual([2, expect.stringMatching(/^iquill: rows\.csv: .*; nothing was changed\n$/)]);
    expect(readdirSync(folder)).toEqual(["rows.csv"]);
    expect(read("rows.csv") === old).toBe(true);
  });

  test("where it is interrupted or killed", async () => {
    const whole = `label\n${"Alnus\n".repeat(200_000)}`;
    for (const signal of ["SIGINT", "SIGKILL", "SIGKILL", "SIGKILL", "SIGKILL", "SIGKILL"] as const) {
      write("rows.csv", old);
      const child = spawn("bash", ["-c", start(`${trimmed} --over rows.csv`)], { stdio: "ignore" });
      const ended = new Promise((resolve) => child.on("exit", resolve));
      await wait(150 + Math.random() * 900);
      child.kill(signal);
      await ended;
      expect([old, whole]).toContain(read("rows.csv"));
      if (signal === "SIGINT") expect(readdirSync(folder).filter((name) => name.endsWith(".part"))).toEqual([]);
    }
  }, 60_000);

  test("where the rows change while they are read", async () => {
    let isDone = false;
    const done = run(`${trimmed} --to new.csv`).finally(() => (isDone = true));
    while (!isDone) {
      appendFileSync(join(folder, "rows.csv"), " x\n");
      await wait(5);
    }
    const { code, err } = await done;
    expect([code, err]).toEqual([2, expect.stringMatching(/rows\.csv: it was changed while it was read/)]);
    expect(readdirSync(folder)).toEqual(["rows.csv"]);
  });
});
