import { execFile, spawn } from "node:child_process";
import { appendFileSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";

const command = new URL("../bin/iquill.js", import.meta.url).pathname;
let folder = "";
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "iquill-"));
});
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
    [
      `${trimmed} -p values -f csv --over rows.csv`,
      /--over replaces the rows of a file; what --preview and --steps show goes into a new one/,
    ],
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

  test("and the counts say the same: what is written otherwise is changed, by value and by what it becomes", async () => {
    write("rows.csv", "n,k,label\n9.50,1,x\n7,2,x\n,3,x\n");
    const line = "iquill eval -i openformula -r rows.csv -c 'n=n*1' -c 'label=label&k'";
    const { out, err } = await run(`${line} -p values -f csv`);
    expect(out).toBe('column,before,after,rows\nn,9.50,9.5,1\nlabel,x,x1,1\nlabel,x,x2,1\nn,"",0,1\nlabel,x,x3,1\n');
    expect(err).toMatch(/^n: 2 of 3 values changed\nlabel: 3 of 3 values changed\n/m);
  });

  test("is told what a spreadsheet may not keep", async () => {
    write("rows.csv", "label,code\n=a,007\nb,12\nc,3-4\n");
    const { err } = await run("iquill eval -i xpath -r rows.csv --to out.tsv -c 'k=concat($code, \"\")'");
    expect(err).toContain(
      'label: 1 text that a spreadsheet may not keep, begins like a formula, and may be run as one: "=a" on row 1\n',
    );
    expect(err).toContain('k: 1 text that a spreadsheet may not keep, read as a date where it is none: "3-4" on row 3\n');
    expect(read("out.tsv").split("\n")[0]).toBe("label\tcode\tk");
    expect((await run("iquill eval -i xpath -r rows.csv --to out.json 1")).err).not.toContain("spreadsheet");
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
    expect(readdirSync(folder)).toEqual(["new.ndjson", "rows.csv", "rows.csv.1", "rows.csv.2", "rows.csv.ledger"]);
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

describe("lists and formats", () => {
  beforeEach(() => {
    write("rows.csv", 'label,code\n"alnus; salix ",1\nBETULA,2\n"Łódź, 3",3\n');
    write("names.csv", "old,new,where,case\nalnus,Alnus,word,\nbetula,Betula,whole,ignored\nfagus,Fagus,,\n");
    write("valid.csv", "value\nsalix\nbetula\n");
  });

  // prettier-ignore
  test.each([
    ["--replace label --then replace=names.csv", ['"Alnus; salix "', "Betula", '"Łódź, 3"'], /label: 2 places replaced by 2 rules, 1 rule found nothing/],
    ["--replace label --then 'split=; ,' --then tidy --then item=-1", ["salix", "BETULA", "3"], /label: 2 of 3 values changed/],
    ["--replace label --then 'split=;' --then keep=valid.csv --then join=+", ['" salix "', '""', '""'], /label: 3 of 3 values changed, 2 empty/],
    ["--replace label --then 'split=,' --then places=1..9 --then join=+", ['""', '""', "2"], /label: 3 of 3 values changed, 2 empty/],
    ["--replace label --then which=valid.csv", ["salix", "", ""], /2 nothing/],
    ["--replace label --then plain --then only=letters", ["alnussalix", "BETULA", "Lodz"], /label: 2 of 3 values changed/],
    ["--replace label --then find=number --then item=1", ["", "", "3"], /label: 3 of 3 values changed, 2 nothing/],
    ["--each label,code --then has=valid.csv", ["true", "false", "false"], /code: 3 of 3 values changed/],
  ])("eval %s", async (args, expected, said) => {
    const { code, out, err } = await run(`iquill eval -i sql -r rows.csv -f csv ${args} ${args.startsWith("--each") ? "it" : "label"}`);
    expect(code).toBe(0);
    const cells = out.trimEnd().split("\n").slice(1).map((line) => line.replace(/,[^,]*$/, ""));
    expect(cells).toEqual(expected);
    expect(err).toMatch(said);
  });

  // prettier-ignore
  test.each([
    ["eval -i sql -r rows.csv label --then replce=names.csv", /--then takes replace, has, which,.*, not "replce=names.csv"/],
    ["eval -i sql -r rows.csv label --then replace", /--then replace wants something: --then replace=…/],
    ["eval -i sql -r rows.csv label --then plain=1", /--then plain takes nothing behind it/],
    ["eval -i sql -r rows.csv label --then has=names.csv", /--then has=names\.csv: "names.csv" is a list of replacements; a list of values is wanted/],
    ["eval -i sql -r rows.csv label --then item=x", /a piece is numbered from 1/],
    ["eval -i sql -r rows.csv -c x=label --then plain", /--then is about an expression of its own/],
    ["list names.csv -i sqlite", /--in prints the expression for a column/],
    ["list gone.csv", /gone\.csv: there is no such file/],
    ["eval -i sql -r rows.csv -r valid.csv label", /valid\.csv: its columns are not those of rows\.csv: value here, label, code there/],
  ])("%s is refused", async (args, problem) => {
    const { code, err } = await run(`iquill ${args}`);
    expect([code, err]).toEqual([2, expect.stringMatching(problem)]);
  });

  test("a list is told with its conflicts, and as an expression where a dialect can say it", async () => {
    write("bad.csv", "old,new\na,b\nb,c\nab,x\n");
    expect(await run("iquill list bad.csv")).toMatchObject({
      code: 1,
      out:
        "3 rules, 2 conflicts\n" +
        'rule 1, "a" → "b": what it writes is replaced again by rule 2, "b" → "c"\n' +
        'rule 3, "ab" → "x": rule 1, "a" → "b" has replaced a part of it before, so that it is never found\n',
    });
    expect((await run("iquill list valid.csv")).out).toBe("2 values\n");
    expect((await run("iquill list valid.csv -i sqlite -r rows.csv -c label")).out).toBe(
      "case when instr(label, 'salix') > 0 then 'salix' when instr(label, 'betula') > 0 then 'betula' else null end\n",
    );
    const refused = await run("iquill list names.csv -i openformula -r rows.csv -c label");
    expect([refused.code, refused.err]).toEqual([
      1,
      expect.stringContaining("has no way to replace whole words or without case"),
    ]);
  });

  test("the ledger knows what was done then, and does it again", async () => {
    await run("iquill eval -i sql -r rows.csv --replace label label --then replace=names.csv --over rows.csv");
    const { out } = await run("iquill ledger rows.csv");
    expect(out).toContain("label, then replace, 3 rules");
    write("other.csv", "label,code\nBetulA,7\n");
    await run("rm names.csv; iquill replay rows.csv other.csv --to again.csv");
    expect(read("again.csv")).toBe("label,code\nBetula,7\n");
  });

  test.each(["parquet", "arrow", "json", "ndjson", "tsv", "csv"])(
    "%s is written and read again, several files and standard input, too",
    async (format) => {
      const all = "-i sql -r rows.csv -c 'n=char_length(label)' -c 'is=code > 1'";
      expect((await run(`iquill eval ${all} --to new.${format}`)).code).toBe(0);
      const expected = (await run(`iquill eval ${all} -f ndjson`)).out;
      const again = (await run(`iquill eval -i sql -r new.${format} -f ndjson -c 'x=label'`)).out;
      const cells = (text: string) =>
        text
          .trimEnd()
          .split("\n")
          .map((line) => JSON.parse(line.replace(/"(\d+|true|false)"/g, "$1")) as object);
      expect(cells(again)).toEqual(cells(expected).map((row) => ({ ...row, x: (row as { label: string }).label })));
      expect((await run(`iquill eval -i sql -r new.${format} -r new.${format} -f ndjson -c 'x=label'`)).out).toBe(again + again);
      expect((await run(`cat new.${format} | iquill eval -i sql -r - -f ndjson -c 'x=label'`)).out).toBe(again);
      expect((await run(`iquill look new.${format}`)).out).toContain("3 rows, 4 columns");
    },
  );

  test("an expression is taken apart", async () => {
    const { out } = await run(`iquill lift -i sql -r rows.csv -n x "upper(trim(both ' ' from label))"`);
    expect(out).toBe("label_trimmed = trim(both ' ' from label)\nx = upper(label_trimmed)\n");
    const refused = await run("iquill lift -i sql -r rows.csv 'upper(label)'");
    expect([refused.code, refused.err]).toEqual([1, "there is nothing in it that a column of its own would make clearer\n"]);
  });
});

describe("a folio", () => {
  const folio = `
# kept
folio: 1
dialect: postgresql
sample: rows.csv
types: { code: text }
columns:
  - { name: k, expression: "length(trimmed)", note: how long }
  - name: trimmed
    helper: true
    expression: btrim(label)
  - { name: code, expression: "code || '#'" }
claims:
  - { column: trimmed, row: { label: " a ", code: "1" }, expect: { value: a } }
  - { id: wrong, column: k, row: { label: " a ", code: "1" }, expect: { value: 2 } }
`;
  beforeEach(() => {
    write("labels.yaml", folio);
    write("rows.csv", "label,code\n alnus,1\n");
    write("more.csv", "label,code\nsalix ,2\n");
    write("other.csv", "label,shelf\nx,2\n");
  });

  test("is applied to its sample, or to files of that shape, from any folder", async () => {
    expect((await run("iquill run labels.yaml -f csv")).out).toBe("label,code,k\n alnus,1#,5\n".replace(" alnus", '" alnus"'));
    expect((await run(`cd /; iquill run ${folder}/labels.yaml -f csv`)).out).toContain("1#,5");
    const { out, err } = await run("iquill run labels.yaml rows.csv more.csv -f ndjson");
    expect(out).toBe('{"label":" alnus","code":"1#","k":5}\n{"label":"salix ","code":"2#","k":5}\n');
    expect(err).toContain("code: 2 of 2 values changed\n");
    write(
      "same.json",
      JSON.stringify({ folio: 1, dialect: "xpath", columns: [{ name: "k", expression: "string-length($label)" }] }),
    );
    expect((await run("iquill run same.json more.csv -f csv")).out).toBe('label,code,k\n"salix ",2,6\n');
  });

  test("gives its columns as one expression each", async () => {
    expect((await run("iquill inline labels.yaml")).out).toBe("k = length(btrim(label))\ncode = code || '#'\n");
    expect((await run("iquill inline labels.yaml trimmed")).out).toBe("btrim(label)\n");
    const unknown = await run("iquill inline labels.yaml x");
    expect([unknown.code, unknown.err]).toEqual([
      2,
      'iquill: labels.yaml: there is no calculated column "x"; there are k, trimmed, code\n',
    ]);
    write("bad.yaml", `${folio}where: label = 'x'\n`);
    const refused = await run("iquill inline bad.yaml k");
    expect([refused.code, refused.err]).toEqual([1, "k: a condition says where it holds, which one expression does not\n"]);
  });

  test("has a column by another name, comments kept, printed or written", async () => {
    const { out, err } = await run("iquill rename labels.yaml label='the label'");
    expect(out).toBe(
      folio.trimStart().replace("btrim(label)", 'btrim("the label")').replaceAll("row: { label:", "row: { the label:"),
    );
    expect(err).toBe("label is the label in 3 places\n");
    expect((await run("iquill rename labels.yaml k=n --over labels.yaml")).code).toBe(0);
    expect([read("labels.yaml").includes("name: n,"), read("labels.yaml.1")]).toEqual([true, folio]);
    expect((await run("iquill rename labels.yaml n=trimmed")).err).toMatch(/there is a column "trimmed" already/);
    expect((await run("iquill rename labels.yaml x=y")).err).toMatch(/it names no column "x"/);
  });

  test("says what needs what, and which cleaned column nothing uses", async () => {
    write(
      "more.yaml",
      `${folio}\n`.replace(
        "columns:",
        "columns:\n  - { name: start, expression: 'left(label, 2)' }\n  - { name: tidy, expression: btrim(label) }",
      ),
    );
    const { out, err } = await run("iquill needs more.yaml");
    expect(out).toMatch(/^trimmed +helper +label +k$/m);
    expect(out).toMatch(/^label +given +start, tidy, trimmed$/m);
    expect(err).toBe("tidy is label cleaned up, and nothing uses it; start, trimmed use label as it was\n");
  });

  test("has lists in files beside it, with hits and conflicts", async () => {
    write(
      "labels.yaml",
      folio.replace(/ {2}- \{ name: code.*/, "  - { name: label, expression: label, then: [{ replace: r }] }") +
        "lists: { r: { file: r.csv } }\n",
    );
    write("r.csv", "old,new,as\nalnus,salix,\nsal.x,Salix,pattern\n");
    const { out, err } = await run("iquill run labels.yaml -f csv");
    expect(out).toBe('label,code,k\n" Salix",1,5\n');
    expect(err).toContain(
      'label: rule 1, "alnus" → "salix": what it writes is replaced again by rule 2, "sal.x" → "Salix" (pattern)\n',
    );
    expect(err).toContain('label: 2 places replaced by 2 rules, 0 rules found nothing\n       1  "alnus" → "salix"\n');
    write("r.csv", "old,new,as\n(,salix,pattern\n");
    expect((await run("iquill run labels.yaml")).err).toMatch(
      /labels\.yaml, line 16: "r": rule 1: the pattern "\(" cannot be read/,
    );
    rmSync(join(folder, "r.csv"));
    expect((await run("iquill run labels.yaml")).err).toMatch(/r\.csv: there is no such file/);
  });

  test("checks its claims, and prints its query", async () => {
    const checked = await run("iquill run labels.yaml --check");
    expect(checked.out).toBe(
      '✗ wrong  k\n  row      {"label":" a ","code":"1"}\n  expected 2\n  got      1\n1 passed, 1 failed\n',
    );
    expect(checked.code).toBe(1);
    const { out } = await run("iquill run labels.yaml --print postgresql --table t");
    expect(out).toMatch(/^SELECT "label", "code", "k"\nFROM \(SELECT .* AS "k"\nFROM .*"t"\) AS "rows"\) AS "rows";\n$/s);
  });

  test.each([
    ["labels.yaml more.csv other.csv", "", /other\.csv: there is no column "code" to give a kind; the columns are label, shelf/],
    [
      "bad.yaml more.csv other.csv",
      folio.replace(/types.*/, ""),
      /other\.csv: its columns are not those of more\.csv: label, shelf here, label, code there/,
    ],
    ["nosuch.yaml", "", /nosuch\.yaml: there is no such file/],
    [
      "labels.yaml --print sqlite",
      "",
      /labels\.yaml: its expressions are postgresql, and are not carried to sqlite; --print postgresql prints them/,
    ],
    ["bad.yaml", folio.replace("sample: rows.csv", "sample: gone.csv"), /gone\.csv: there is no such file/],
    ["bad.yaml", folio.replace("sample: rows.csv", ""), /bad\.yaml: it names no sample; give a file of rows/],
    ["bad.yaml", folio.replace("dialect: postgresql", "dialect: nosuch"), /there is no dialect "nosuch"/],
    ["bad.yaml", folio.replace("note:", "nota:"), /bad\.yaml, line 8: "0" has no "nota"; did you mean "note"\?/],
    ["bad.yaml", folio.replace("folio: 1", "folio: 9"), /bad\.yaml, line 3: "folio" must be 1, not 9/],
    ["bad.yaml", `${folio} : [`, /bad\.yaml, line \d+: this is neither YAML nor JSON/],
    ["bad.yaml", folio.replace("btrim(label)", "btrim(k::text)"), /These columns need one another: k → trimmed → k/],
    ["bad.yaml", folio.replace("code: text", "cod: text"), /there is no column "cod" to give a kind/],
  ])("run %s is refused with the place", async (args, text, message) => {
    if (text) write("bad.yaml", text);
    const { code, out, err } = await run(`iquill run ${args}`);
    expect(err).toMatch(message);
    expect([code, out]).toEqual([2, ""]);
  });
});
