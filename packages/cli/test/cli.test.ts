import { execFile } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { promisify } from "node:util";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { run } from "@indigo-quill/cli";

const root = new URL("../../../", import.meta.url).pathname;
const command = join(root, "packages/cli/bin/iquill.js");

interface Result {
  readonly code: number;
  readonly out: string;
  readonly err: string;
}

/** Runs the built command as a process. */
const iquill = (args: readonly string[], input = ""): Promise<Result> =>
  new Promise((resolve) => {
    const child = execFile(process.execPath, [command, ...args], { cwd: root, maxBuffer: 1 << 28 }, (error, out, err) =>
      resolve({ code: typeof error?.code === "number" ? error.code : 0, out, err }),
    );
    child.stdin?.end(input);
  });

const rows = 'label,code\nAlnus,A#1\n"Salix, alba",B\n';

describe("eval", () => {
  test("a new column beside those that are used, flush in columns", async () => {
    const { code, out } = await iquill(["eval", "-i", "openformula", "-r", "-", "-n", "start", "LEFT(label;3)"], rows);
    expect(out).toBe("row  label        start\n───  ───────────  ─────\n  1  Alnus        Aln\n  2  Salix, alba  Sal\n");
    expect(code).toBe(0);
  });

  test("where the stretches of a value on one row came from, as text and as data", async () => {
    const origin = (...args: string[]) => iquill(["eval", "-i", "postgresql", "-r", "-", "--origin", ...args], rows);
    const { out } = await origin("2", "upper(split_part(label, ', ', 2)) || '😀' || left(label, 2)");
    expect(out.split("\n").filter((line) => /^\S.*\d|Not/.test(line))).toEqual([
      "ALBA     1–4         label 8–11       upper(split_part(label, ', ', 2))",
      "😀       5           written as '😀'",
      "Sa       6–7         label 1–2",
      "Not in it: label 3–7 (lix,·).",
    ]);
    const [found] = JSON.parse((await origin("1", "-f", "json", "left(label, 2)")).out) as [Record<string, unknown>];
    const range = { start: 0, end: 2 };
    expect(found.stretches).toEqual([{ text: "Al", from: [{ column: "label", range }], range }]);
    expect((await origin("3", "label")).err).toBe("iquill: there is no row 3; the sample has rows 1 to 2\n");
    expect((await origin("1", "--trace", "1", "label")).err).toContain("give one of them");
  });

  // prettier-ignore
  test.each([
    [["-f", "csv", "upper(label)"], "label,code,value\nAlnus,A#1,ALNUS\n\"Salix, alba\",B,\"SALIX, ALBA\"\n"],
    [["-f", "ndjson", "length(label)"], '{"label":"Alnus","code":"A#1","value":5}\n{"label":"Salix, alba","code":"B","value":11}\n'],
    [["-f", "csv", "9007199254740993 + length(label) * 0.00000000000000000001"], "label,code,value\nAlnus,A#1,9007199254740993.00000000000000000005\n\"Salix, alba\",B,9007199254740993.00000000000000000011\n"],
    [["-f", "ndjson", "0 - 9007199254740992 - length(code)"], '{"label":"Alnus","code":"A#1","value":-9007199254740995}\n{"label":"Salix, alba","code":"B","value":-9007199254740993}\n'],
    [["-f", "ndjson", "array[9007199254740993, length(code)]"], '{"label":"Alnus","code":"A#1","value":[9007199254740993,3]}\n{"label":"Salix, alba","code":"B","value":[9007199254740993,1]}\n'],
    [["-f", "csv", "--replace", "label", "upper(label)"], "label,code\nALNUS,A#1\n\"SALIX, ALBA\",B\n"],
    [["-f", "csv", "-w", "code like '%#%'", "upper(label)"], "label,code,value\nAlnus,A#1,ALNUS\n\"Salix, alba\",B,\n"],
    [["-f", "csv", "--only", "code like '%#%'", "upper(label)"], "label,code,value\nAlnus,A#1,ALNUS\n"],
    [["-f", "csv", "-w", "label = 'Alnus'", "--replace", "label", "upper(label)"], "label,code\nALNUS,A#1\n\"Salix, alba\",B\n"],
    [["-f", "csv", "-c", "k=length(g)", "-c", "g=split_part(label, ',', 1)", "-c", "label=upper(label)"], "label,code,k,g\nALNUS,A#1,5,ALNUS\n\"SALIX, ALBA\",B,5,SALIX\n"],
    [["-f", "csv", "--each", "label, code", "lower(it) || '.'"], "label,code\nalnus.,a#1.\n\"salix, alba.\",b.\n"],
    [["-f", "csv", "--each", "*", "'it is ' || it"], "label,code\nit is Alnus,it is A#1\n\"it is Salix, alba\",it is B\n"],
    [["-f", "csv", "-c", 'a,"b=c"=string_to_array(label, \', \')'], "label,code,a,b=c\nAlnus,A#1,Alnus,\n\"Salix, alba\",B,Salix,alba\n"],
    [["-f", "csv", "-c", "word=string_to_array(label, ', ')", "--unfold", "word"], "label,code,word\nAlnus,A#1,Alnus\n\"Salix, alba\",B,Salix\n\"Salix, alba\",B,alba\n"],
    [["-f", "ndjson", "string_to_array(label, ', ')"], '{"label":"Alnus","code":"A#1","value":["Alnus"]}\n{"label":"Salix, alba","code":"B","value":["Salix","alba"]}\n'],
  ])("%j", async (args, expected) => {
    const { code, out } = await iquill(["eval", "-i", "postgresql", "-r", "-", ...args], rows);
    expect(out).toBe(expected);
    expect(code).toBe(0);
  });

  test("--format json can be read back", async () => {
    const { out } = await iquill(["eval", "-i", "xpath", "-r", "-", "-f", "json", "string-length($label)"], rows);
    expect(JSON.parse(out)).toEqual([
      { label: "Alnus", code: "A#1", value: 5 },
      { label: "Salix, alba", code: "B", value: 11 },
    ]);
  });

  test("rows that are errors are shown, said, and give exit code 1", async () => {
    const { code, out, err } = await iquill(["eval", "-i", "openformula", "-r", "-", 'FIND(",";label)'], rows);
    expect(out).toContain("✗ #VALUE!");
    expect(err).toMatch(/1 of 2 rows are errors: 1\..*--trace 1/);
    expect(code).toBe(1);
  });

  test("what became of each column is said, also where a step reads an error or a list of another", async () => {
    const columns = [
      "-c",
      "n=cast(code as int)",
      "-c",
      "m=n + 1",
      "-c",
      "label=nullif(label, 'Alnus')",
      "-c",
      "x,y=string_to_array(label || ',a,b', ',')",
    ];
    const { code, out, err } = await iquill(
      ["eval", "-i", "postgresql", "-r", "-", "-f", "ndjson", ...columns],
      "label,code\nAlnus,1\nSalix,x\nViola,3\n",
    );
    const bad = { error: "22P02" };
    expect(
      out
        .trim()
        .split("\n")
        .map((line) => JSON.parse(line) as unknown),
    ).toEqual([
      { label: null, code: "1", n: 1, m: 2, x: null, y: null },
      { label: "Salix", code: "x", n: bad, m: bad, x: "Salix", y: "a" },
      { label: "Viola", code: "3", n: 3, m: 4, x: "Viola", y: "a" },
    ]);
    expect(err).toMatch(
      /^n: 2 values, 1 error\nn: 1 of 3 rows are errors: 2\..*--trace 2 shows.*\nm: 2 values, 1 error\nm: 1 of 3/,
    );
    expect(err).toMatch(
      /label: 1 of 3 values changed, 1 nothing\nx: 2 values, 1 nothing\ny: 2 values, 1 nothing\ny: on 2 rows the list has more items than there are names: 2, 3\n$/,
    );
    expect(code).toBe(1);
  });

  test("CSV columns of numbers and truth values are read as such, said, and passed on as they were written", async () => {
    const input = "label,qty,code,sent,when\na,9.50,007,TRUE,2019-04-03\nb,,12,false,2019-04-04\nc,200,1E5,true,2019-05-01\n";
    const of = (...args: string[]) => iquill(["eval", "-i", "openformula", "-r", "-", "-f", "csv", "-n", "x", ...args], input);
    const whole = await of('IF(AND(sent;qty>100);code&"!";qty)');
    expect(whole.out).toBe(
      'label,qty,code,sent,when,x\na,9.50,007,TRUE,2019-04-03,9.5\nb,"",12,false,2019-04-04,\nc,200,1E5,true,2019-05-01,1E5!\n',
    );
    expect(whole.err).toBe(
      "read as numbers: qty (--text reads every column as text)\nread as truth values: sent (--text reads every column as text)\n",
    );
    const text = await of("--text", "qty>100");
    expect(text.out.match(/true$/gm)).toHaveLength(3);
    expect(text.err).toMatch(
      /warning: > compares a text with a number here.*\n {2}qty>100\n {2}\^+\n {2}Read the text as a number: VALUE\(qty\)>100/,
    );
    const asked = await of("--types", "code=number", "--types", "qty=text", "code+1");
    expect(
      asked.out
        .split("\n")
        .slice(1, 4)
        .map((line) => line.split(",")[5]),
    ).toEqual(["8", "13", "#ERROR #VALUE!"]);
    const wrong = await of("--types", "cod=number", "1");
    expect([wrong.code, wrong.err]).toEqual([
      2,
      'iquill: -: there is no column "cod" to give a kind; the columns are label, qty, code, sent, when\n',
    ]);
    const late = await iquill(
      ["eval", "-i", "postgresql", "-r", "-", "-f", "csv", "n * 2"],
      `n,remark\n${"1,some words here\n".repeat(150_000)}none,x\n`,
    );
    expect(late.out.slice(-20)).toBe("none,x,#ERROR 22P02\n");
    expect(late.err).toMatch(/n: 1 cell is not what the first rows are, numbers: "none" on row 150001; --types n=text/);
  });

  test("--steps shows every sub-expression down the rows, literals and what stood there before left out", async () => {
    const of = (...args: string[]) => iquill(["eval", "-i", "openformula", "-r", "-", "--steps", ...args], rows);
    const columns = ["-c", 'p=IFERROR(FIND(",";label);0)', "-c", 's=IF(p>0;LEFT(label;p-1);"")'];
    expect(
      (await of(...columns)).out.split("\n").map((line) =>
        line
          .split(/ {2,}/)
          .map((cell) => cell.trim())
          .filter(Boolean),
      ),
    ).toEqual([
      ["row", "p", 'FIND(",";label)', "label", "s", "p>0", "LEFT(label;p-1)", "p-1"],
      expect.anything(),
      ["1", "0", "✗ #VALUE!", "Alnus", '""', "false", "–", "–"],
      ["2", "6", "6", "Salix, alba", "Salix", "true", "Salix", "5"],
      [],
    ]);
    expect((await of("-f", "csv", "LEN(label)*2")).out).toBe('row,value,LEN(label),label\n1,10,5,Alnus\n2,22,11,"Salix, alba"\n');
    expect((await of("-f", "json", "1")).err).toMatch(/--steps come as a table, CSV or TSV/);
    expect((await of("-p", "rows", "1")).err).toMatch(/--steps and --preview show different things/);
  });

  test("a trace has every step, the place of the error, and a ruler", async () => {
    const { out } = await iquill(["eval", "-i", "openformula", "-r", "-", "-t", "2", 'MID(label;FIND(",";label)+2;4)'], rows);
    expect(out).toContain('  FIND(",";label)+2');
    expect(out).toContain("from 0  0    5    10");
    expect(out).toContain("from 1  1   5    10");
    expect(out).toContain("        Salix,·alba\n  taken          ━━━━");
  });

  test("white space can be seen, and the dialect's options set", async () => {
    const { out } = await iquill(["eval", "-i", "openformula", "-s", '" a"&UNICHAR(160)&UNICHAR(9)'], "");
    expect(out).toContain("·a⍽→");
    expect((await iquill(["eval", "-i", "openformula", "-o", "unit=utf-16 unit", 'LEN("😀")'])).out).toMatch(/\n {2}1 {2}2\n$/);
  });

  // prettier-ignore
  test.each([
    [["eval", "-i", "openformula", "LEFT(label,2)", "-r", "-"], /Arguments are separated by ";" here.*\n {2}LEFT\(label,2\)\n {12}\^\n {2}Write ";": LEFT\(label;2\)/],
    [["eval", "-i", "nosuch", "1"], /it is one of duckdb, mariadb, openformula, postgresql, sql, sqlite, xpath, or a .json file/],
    [["eval", "1"], /required option '-i, --in <dialect>'/],
    [["eval", "-i", "xpath", "-r", "nosuch.csv", "1"], /nosuch\.csv: there is no such file/],
    [["eval", "-i", "xpath", "-r", "-", "-t", "9", "1"], /there is no row 9; the sample has rows 1 to 2/],
    [["eval", "-i", "xpath", "-r", "-", "-t", "x", "1"], /a row is a whole number/],
    [["eval", "-i", "xpath", "-r", "-", "--replace", "nosuch", "1"], /no column "nosuch" to replace; the columns are label, code/],
    [["eval", "-i", "xpath", "-r", "-"], /an expression is wanted, or --column name=expression/],
    [["eval", "-i", "xpath", "-r", "-", "-c", "a=1", "-n", "b"], /--name is about an expression of its own/],
    [["eval", "-i", "xpath", "-r", "-", "-c", "upper-case($label)"], /a column is written name=expression/],
    [["eval", "-i", "xpath", "-r", "-", "-n", "label", "1"], /there is a column "label" already; --replace "label"/],
    [["eval", "-i", "xpath", "-r", "-", "--each", "label,nosuch", "$it"], /no column "nosuch" to replace/],
    [["eval", "-i", "postgresql", "-r", "-", "-c", "a=b || 'x'", "-c", "b=left(c, 1)", "-c", "c=a"], /^postgresql, c: error: These columns need one another: a → b → c → a\.\n {2}a\n {2}\^/],
    [["eval", "-i", "postgresql", "-r", "-", "-c", "a=a || 'x'"], /need one another: a → a/],
    [["eval", "-i", "postgresql", "-r", "-", "-c", "a=1", "-c", "a=2"], /The column a is given twice/],
    [["eval", "-i", "postgresql", "-r", "-", "-w", "x = 'A'", "-c", "x=label"], /^postgresql, where: error: A condition sees the rows as they were; x is calculated/],
    [["eval", "-i", "sqlite", "-r", "-", "-w", "label", "1"], /A condition must be true or false here/],
    [["eval", "-i", "postgresql", "-r", "-", "-c", "x=label", "--unfold", "y"], /There is no column y\. The columns are: label, code, x/],
    [["eval", "-i", "openformula", "-o", "unit=x", "1"], /"unit" cannot be "x"; use one of/],
    [["eval", "-i", "xpath", "-r", "-", "--encoding", "x", "1"], /encoding "x" is not known/],
    [["contrast", "-r", "-", "xpath=1"], /at least two expressions/],
    [["contrast", "xpath=1", "sql=1"], /give the rows with --rows FILE, or cases with --cases FILE/],
    [["contrast", "-r", "-", "nosuch=1", "xpath=1"], /no dialect "nosuch"/],
    [["traits", "nosuch"], /no trait "nosuch"/],
    [["functions", "-i", "xpath", "nosuch"], /no function "nosuch"/],
    [["functions"], /--in says of which dialect/],
    [["conversions", "-i", "sql", "nosuch"], /nothing becomes "nosuch" in .*; there is any, text,/],
    [["verify", "nosuch.ndjson"], /no such file/],
    [["nosuch"], /unknown command 'nosuch'/],
  ])("%j could not run: exit code 2, said on standard error only", async (args, message) => {
    const { code, out, err } = await iquill(args, rows);
    expect(err).toMatch(message);
    expect(out).toBe("");
    expect(code).toBe(2);
  });

  test("malformed rows are refused with line and column", async () => {
    const { code, err } = await iquill(["eval", "-i", "xpath", "-r", "-", "1"], 'a,b\n1,"x\n');
    expect(err).toBe("iquill: -: line 2, column 3: the quote that opens here is not closed\n");
    expect(code).toBe(2);
  });
});

describe("look", () => {
  const input = 'code,remark\n007,a b\n12,\n13,"a  b"\n14,A b \n';

  test("an overview, and what is worth a look with its rows", async () => {
    const { code, out } = await iquill(["look", "-"], input);
    expect(out).toContain("4 rows, 2 columns\n");
    expect(out).toMatch(/^code +text +0 +0 +4 +2–3 +██████ +0²$/m);
    expect(out).toMatch(/^remark +text +0 +1 +3 +3–4 +/m);
    expect(out).toMatch(/^code +a number +3 +"12" on row 2$/m);
    expect(out).toMatch(/^remark +white space at the ends +1 +"A·b·" on row 4$/m);
    expect(out).toMatch(/^ +nearly the same \(1 group\) +3 +"a·b" and "a··b" and "A·b·"$/m);
    expect(code).toBe(0);
  });

  test("one column in full, as JSON, and drawn into a new file", async () => {
    const folder = mkdtempSync(join(tmpdir(), "iquill-"));
    const file = join(folder, "look.svg");
    const { out } = await iquill(["look", "-", "-c", "remark", "--svg", file], input);
    expect(out).toMatch(/^remark: text; 4 rows, 3 distinct, 1 empty, 3–4 characters, 3.7 on average\n/);
    expect(out).toMatch(/^"a·b" +1 +█{16} +row 1$/m);
    expect(readFileSync(file, "utf8")).toMatch(/^<svg .*remark — text, 3 distinct.*<rect .*<\/svg>\n$/s);
    const again = await iquill(["look", "-", "--svg", file], input);
    expect([again.code, again.err]).toEqual([2, `iquill: ${file}: there is such a file already; give another name\n`]);
    rmSync(folder, { recursive: true });
    const [remark] = JSON.parse((await iquill(["look", "-", "-c", "remark", "--json"], input)).out) as [{ outerSpace: unknown }];
    expect(remark.outerSpace).toEqual({ what: "outer", count: 1, row: 3, example: "A b " });
    expect((await iquill(["look", "-", "-c", "nosuch"], input)).err).toBe(
      'iquill: there is no column "nosuch"; the columns are code, remark\n',
    );
  });
});

test("contrast: differing rows are marked, and each cause is said", async () => {
  const { code, out } = await iquill(
    ["contrast", "-r", "-", 'openformula=FIND(",";label)', "postgresql=strpos(label, ',')"],
    rows,
  );
  expect(out).toContain("≠    1  ✗ #VALUE!    0");
  expect(out).toContain("1 of 2 rows differ.");
  expect(out).toContain(
    "Why: What comes back when what is searched for is not there?\n    OpenFormula: An error.\n    PostgreSQL: The position before the first",
  );
  expect(code).toBe(1);
  const json = (await iquill(["contrast", "--json", "-r", "-", "openformula=LEN(label)", "postgresql=length(label)"], rows)).out;
  expect(
    json
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line) as unknown),
  ).toEqual([
    { row: 1, values: [5, 5], agree: true, groups: [[0, 1]] },
    { row: 2, values: [11, 11], agree: true, groups: [[0, 1]] },
  ]);
});

test("contrast: the summary first, which sides agree, and marks under what differs; a side that cannot run stands aside", async () => {
  const sides = ['openformula=LEFT(label;FIND(",";label)-1)', "postgresql=split_part(label, ',', 1)", "sqlite=nosuch(label)"];
  const { code, out, err } = await iquill(["contrast", "-r", "-", ...sides, "mariadb=substring_index(label, ',', 1)"], rows);
  expect(err).toContain("sqlite: error: There is no function nosuch");
  expect(code).toBe(2);
  expect(out).toMatch(/1 of 2 rows differ\.\n\nrows {2}which of them agree\n─+ {2}─+\n1 {5}OpenFormula \| PostgreSQL, MariaDB\n/);
  expect(out).toMatch(
    /OpenFormula and PostgreSQL: row 1\n {2}On text "Alnus", delimiter ",": LEFT \(OpenFormula\) gives an error/,
  );
  const both = ["openformula=PROPER(label)", "postgresql=initcap(label)"];
  const marked = await iquill(["contrast", "-r", "-", ...both], `label\n${"long label ".repeat(9)}2nd b\nab\n`);
  expect(marked.out).toMatch(/≠ +1 {2}…[^…]*·2Nd·B {2}…[^…]*·2nd·B\n +\^ +\^\n$/);
  expect((await iquill(["contrast", "-a", "-r", "-", ...both], rows)).out).toMatch(
    /0 of 2 rows differ\.\n\n[^]*\n {5}2 {2}Salix, Alba/,
  );
  const cut = await iquill(["contrast", "-r", "-", "duckdb=repeat(label, 300000000)", "postgresql=label"], rows);
  expect(cut).toMatchObject({
    code: 1,
    out: expect.stringMatching(
      /0 of 2 rows differ\.\nWhat DuckDB gives is not known on 2 rows \(1, 2\): The text would have/,
    ) as unknown,
  });
  const truth = ["sqlite=label = 'a'", "postgresql=label = 'a'"];
  expect((await iquill(["contrast", "-r", "-", ...truth], rows)).out).toContain(
    "2 of them would agree if true is 1 and false is 0 (--agree truth).",
  );
  const agreed = await iquill(["contrast", "-r", "-", "--agree", "truth,ends", ...truth], rows);
  expect([agreed.code, agreed.out]).toEqual([
    0,
    expect.stringContaining(
      "0 of 2 rows differ, taking that true is 1 and false is 0; spaces at the end of a text do not count.",
    ),
  ]);
  expect((await iquill(["contrast", "-r", "-", "--agree", "nosuch", ...truth], rows)).err).toBe(
    'iquill: there is no "nosuch" in --agree; it takes strict, values, texts, loose, or some of truth, nothing, ends, form, tolerance, numbers between commas\n',
  );
});

test("hunt: the smallest rows with their causes, as data and as cases; how far was searched", async () => {
  const sides = ["postgresql=split_part(label, '-', 1)", "xpath=substring-before($label, '-')"];
  const folder = mkdtempSync(join(tmpdir(), "iquill-"));
  const file = join(folder, "hunted.ndjson");
  const { code, out, err } = await iquill(["hunt", ...sides, "--keep", file]);
  expect(out).toMatch(/one for each cause:\n\nlabel = "a"\n {2}PostgreSQL: "a"\n {2}XPath: ""\n {2}On text "a", delimiter "-"/);
  expect(out).toContain("label = nothing\n");
  expect(out).toMatch(/\nTried: [\d,]+ rows, made from what is written in them/);
  expect([code, err]).toEqual([1, `${file}: the rows as cases of verify, with what Indigo Quill gives\n`]);
  expect((await iquill(["verify", file])).out).toContain("4 passed, 0 failed");
  rmSync(folder, { recursive: true });
  const json = (
    await iquill(["hunt", "--json", "-c", "n=integer", "-m", "1", "postgresql=left(label, n)", "mariadb=left(label, n)"])
  ).out;
  const [line, last] = json.trim().split("\n").map((each) => JSON.parse(each) as object); // prettier-ignore
  expect(line).toMatchObject({ row: { n: -1 }, causes: [{ operation: "slice", traits: [{ trait: "negativeLength" }] }] });
  expect(last).toMatchObject({ found: 1, isProved: false });
  const none = await iquill(["hunt", "postgresql=left(label, 3)", "postgresql=left(label, 3)"]);
  expect([none.code, none.out]).toEqual([0, expect.stringContaining("No row was found for a difference.\n\nThat is proved")]);
  const fails = (await iquill(["hunt", "-r", "-", 'openformula=LEFT(label;FIND("x";label))'], rows)).out;
  expect(fails).toMatch(/gives an error[^]*label = "[^"]?"\n {2}OpenFormula: #VALUE! What is searched for is not there\./);
  for (const [args, message] of [
    [["--for", "difference", "sql=1"], /give two expressions to hunt for a difference/],
    [
      ["sql=1", "sql=2", "-c", "n=number"],
      /"n=number" is not name=kind, the kind being one of text, integer, decimal, boolean, date/,
    ],
    [["sql=lbl(", "sql=2"], /sql: error/],
  ] as const)
    expect(await iquill(["hunt", ...args])).toMatchObject({ code: 2, err: expect.stringMatching(message) as unknown });
});

test("coverage: what the rows do not show, the smallest row that would, and what is taken for granted", async () => {
  const { code, out } = await iquill(["coverage", "-i", "sqlite", "-r", "demo", "substr(accession, 1, 4)"]);
  expect(out).toContain("  accession has 6 characters on 59 rows; row 6 has 3\n");
  expect(out).toMatch(
    /substr: What does the third argument say\?\n[^]*hidden by what is written: with start 2 in the place of 1 rows would show it/,
  );
  expect(out).toContain('accession = nothing gives nothing; with the other answer it would give ""');
  expect(code).toBe(1);
  const json = JSON.parse(
    (await iquill(["coverage", "-i", "postgresql", "-r", "-", "--json", "split_part(label, ',', 1)"], rows)).out,
  ) as object;
  expect(json).toMatchObject({
    told: expect.any(Number) as unknown,
    assumptions: [],
    untold: expect.arrayContaining([
      expect.objectContaining({ trait: "missing", row: { label: null }, range: [0, 25] }),
    ]) as unknown,
  });
  expect((await iquill(["coverage", "-i", "sql", "-r", "-", "nosuch(label)"], rows)).code).toBe(2);
});

test("pasted: which dialects take a text", async () => {
  const { err, out } = await iquill(["contrast", "-r", "-", "--pasted", "upper(label)"], rows);
  expect(err).toMatch(
    /OpenFormula accepts it\nPostgreSQL accepts it\nStandard SQL accepts it\nSQLite accepts it\nXPath does not: /,
  );
  expect(out).toContain("0 of 2 rows differ.");
});

test("rows on which a condition is an error are told", async () => {
  const { code, err } = await iquill(["eval", "-i", "openformula", "-r", "-", "-w", 'FIND("#";code)>1', "label"], rows);
  expect(err).toBe("on 1 row the condition is an error: 2.\n");
  expect(code).toBe(1);
});

test("a long text is shown in part, with its length, and the ruler around what was taken", async () => {
  const long = `label\n${"x".repeat(900_000)}#yz\n`;
  const { out } = await iquill(["eval", "-i", "postgresql", "-r", "-", "split_part(label, '#', 2)"], long);
  expect(out).toMatch(/x… \(900003 in all\) {2}yz\n$/);
  const traced = await iquill(["eval", "-i", "postgresql", "-r", "-", "-t", "1", "split_part(label, '#', 2)"], long);
  expect(traced.out).toMatch(/from 1 +899982 .*\n {10}… x{19}#yz\n {2}taken {25}━━$/m);
});

test("find answers in one dialect and in all, and functions names what is no function", async () => {
  expect((await iquill(["find", "-i", "postgresql", "text", "after", "the", "last", "slash"])).out).toMatch(
    /^the text after the last delimiter\n {2}split_part\(text, delimiter, -1\)\n.*→ "0012\.txt"\n/,
  );
  expect((await iquill(["find", "upper case"])).out).toMatch(/^all letters in upper case\n(?: {2}.*upper.*\n){7}/i);
  const { out } = await iquill(["find", "coalesce", "--json", "--most", "1"]);
  const lines = out
    .trim()
    .split("\n")
    .map((line) => JSON.parse(line) as Record<string, unknown>);
  expect(lines).toHaveLength(7);
  expect(lines).toContainEqual({
    dialect: "xpath",
    does: "another value where one is missing",
    written: "($value, $other)[1]",
    task: "fallback",
    example: { given: { value: null, other: "unknown" }, expression: "($value, $other)[1]", value: "unknown" },
  });
  const nothing = await iquill(["find", "qqqq"]);
  expect(nothing.code).toBe(1);
  expect(nothing.err).toContain('nothing answers "qqqq"');
  expect((await iquill(["functions", "-i", "sqlite", "lpad"])).out).toBe(
    "SQLite: a text filled up at its start to a length\n  substr(replace(hex(zeroblob(length)), '00', fill) || text, -length)\n",
  );
  expect((await iquill(["functions", "split_part"])).out).toMatch(/^DuckDB\nsplit_part[^]*\nPostgreSQL\nsplit_part/);
  expect((await iquill(["eval", "-i", "mariadb", "-r", "demo", "taxon + ' x'"])).err).toContain("Write: concat(taxon, ' x')");
});

test("pattern tells a pattern in words, carries it, makes one from words, and refuses what is none", async () => {
  const told = await iquill([
    "pattern",
    "-i",
    "postgresql",
    "^(\\w+)-\\d",
    "--on",
    "BR-0",
    "--on",
    "x",
    "--as",
    "xpath",
    "--as",
    "sqlite",
  ]);
  expect(told.code).toBe(1);
  expect(told.out).toContain('(\\w+)  group 1: one or more letters, digits or _  "BR"');
  expect(told.out).toContain('fits nothing in "x"');
  expect(told.out).toMatch(/^XPath: '\^\(\[.*\]\+\)-\[0-9\]'$/m);
  expect(told.out).toContain("SQLite: not to be had; LIKE knows only");
  const { code, out } = await iquill(["pattern", "-i", "mariadb", "-w", "2 capital letters, a dot", "--as", "duckdb", "--json"]);
  const made = JSON.parse(out) as { pattern: string; literal: string; carried: { dialect: string; pattern: string }[] };
  expect([code, made.pattern, made.literal]).toEqual([0, "\\p{Lu}{2}\\.", "'\\\\p{Lu}{2}\\\\.'"]);
  expect(made.carried).toMatchObject([{ dialect: "duckdb", pattern: "\\p{Lu}{2}\\." }]);
  for (const [args, message] of [
    [["-i", "duckdb", "a(b"], /cannot be read at 1: a group is not closed\n {2}a\(b\n {3}\^/],
    [["-i", "xpath", "--words", "3 splots"], /"3 splots" \(at 0\) is not known; say how many of what/],
    [["-i", "xpath"], /give a pattern, or words/],
    [["-i", "xpath", "a", "--words", "a dot"], /give a pattern, or words/],
    [["-i", "xpath", "a", "--flavour", "posix"], /XPath has no pattern language "posix"; it has xpath/],
    [["-i", "sqlite", "--words", "a dot"], /regular expressions are/],
  ] as const)
    expect(await iquill(["pattern", ...args])).toMatchObject({ code: 2, err: expect.stringMatching(message) as unknown });
});

test("wanted finds expressions, tells where they differ, and refuses what is no example", async () => {
  const { out } = await iquill(["wanted", "-i", "postgresql", "-r", "demo", "1=A. glutinosa", "5=Q. robur"]);
  expect(out).toMatch(
    /^left\(taxon, 1\) \|\| '\. ' \|\| [^]*\nThey differ on \d+ of 60 rows; what is wanted on row 2 tells most\.\n$/,
  );
  const json = await iquill(["wanted", "-i", "xpath", "-r", "demo", "1=ALNUS", "--most", "1", "--json"]);
  const [first, last] = json.out
    .trim()
    .split("\n")
    .map((line) => JSON.parse(line) as { expression?: string; values?: unknown[] });
  expect([first.values![0], first.values!.length, last]).toEqual(["ALNUS", 60, { telling: [] }]);
  expect(await iquill(["wanted", "-i", "sqlite", "-r", "demo", "1=%%%"])).toMatchObject({ code: 1, out: "" });
  for (const [given, said] of [
    ["Alnus", /is no example; one is ROW=VALUE/],
    ["61=x", /no row 61; the rows are 1 to 60/],
    ["0=x", /no row 0/],
  ] as const)
    expect((await iquill(["wanted", "-i", "sqlite", "-r", "demo", given])).err).toMatch(said);
  expect((await iquill(["wanted", "-i", "sqlite", "-r", "demo", "1=a", "1=b"])).err).toMatch(/row 1 is wanted as "a" and as "b"/);
});

test("traits and functions show what the tables hold", async () => {
  expect((await iquill(["traits"])).out).toMatch(
    /negativeLength\s+What does a negative length give\?\s+error \| empty \| all but/,
  );
  expect((await iquill(["traits", "absent"])).out).toMatch(
    /whole\s+The whole text\.\s+Example\s+segment\("ab", delimiter ",", n 1\) gives "ab"\s+DuckDB\s+split_part\s+MariaDB\s+substring_index\s+PostgreSQL\s+split_part/,
  );
  expect((await iquill(["functions", "-i", "postgresql", "--family", "pad"])).out).toMatch(
    /pad\s+lpad\(text, length, \[fill\]\)/,
  );
  expect((await iquill(["functions", "-i", "openformula", "find"])).out).toContain("FIND(needle; text; [start])");
  expect((await iquill(["conversions", "-i", "mariadb", "decimal"])).out).toMatch(
    /^integer\|unsigned +decimal +1 +reads a value as a number\n[^]*\nexponent +Is a power of ten read\?\n +read: 1e3/m,
  );
});

test("cases of contrast: a line each, and a summary", async () => {
  const side = (dialect: string, expression: string) => ({ dialect, expression });
  const given = [
    {
      id: "d1",
      sides: [side("postgresql", "label || n / 2"), side("mariadb", "concat(label, n / 2)")],
      row: { label: "x", n: 7 },
    },
    { id: "d2", sides: [side("postgresql", "upper(label)"), side("sqlite", "upper(label)")], row: { label: "x" }, kept: 1 },
    {
      id: "d3",
      sides: [side("sqlite", "n ||"), side("duckdb", "n / 2"), side("mariadb", "n / 2")],
      row: { n: null },
      types: { n: "integer" },
    },
  ];
  const { code, out } = await iquill(
    ["contrast", "--cases", "-", "--json"],
    given.map((each) => JSON.stringify(each)).join("\n"),
  );
  expect(
    out
      .split("\n")
      .filter(Boolean)
      .map((line) => JSON.parse(line) as object),
  ).toEqual([
    {
      id: "d1",
      values: ["x3", "x3.5000"],
      agree: false,
      differences: [
        {
          sides: [0, 1],
          causes: [
            {
              operation: "calculate",
              ranges: [
                [9, 14],
                [14, 19],
              ],
              traits: [{ trait: "quotient", answers: ["integer", "decimal"] }],
              reaches: "whole",
              ways: 1,
            },
          ],
          effect: {
            at: 1,
            left: "3",
            right: "3.5000",
            from: [
              [9, 14],
              [14, 19],
            ],
          },
        },
      ],
    },
    { id: "d2", values: ["X", "X"], agree: true, differences: [] },
    { id: "d3", values: [{ error: "expected" }, null, null], agree: true, differences: [], refused: [0] },
    { compared: 3, differ: 1, explained: 1 },
  ]);
  expect(code).toBe(1);
  const wrong = await iquill(["contrast", "--cases", "-"], JSON.stringify({ sides: [side("sql", "1")] }));
  expect(wrong).toMatchObject({ code: 2, err: 'iquill: -, line 1: "sides" must be a list of at least two\n' });
});

test("one expression in every version of its dialect", async () => {
  const { code, out } = await iquill(
    ["contrast", "--versions", "-r", "-", "postgresql=cast(label as integer)"],
    "label\n1_000\n",
  );
  expect(out).toMatch(/PostgreSQL +cast[^]*PostgreSQL 17 cast[^]*What may stand between digits\?/);
  expect(code).toBe(1);
  expect((await iquill(["contrast", "--versions", "-r", "-", "xpath=1"], rows)).err).toContain("XPath is known in one version");
  expect((await iquill(["contrast", "--versions", "-r", "-", "sql=1", "sql=2"], rows)).err).toContain(
    "give one expression with --versions",
  );
});

test("one dialect with two collations side by side", async () => {
  const { code, out } = await iquill(
    ["contrast", "-r", "-", "mariadb=label = 'A'", "mariadb[collation=utf8mb4_bin]=label = 'A'"],
    "label\na\nA\n",
  );
  expect(code).toBe(1);
  expect(out).toMatch(/row {2}MariaDB {2}MariaDB utf8mb4_bin\n[^]*≠ {4}1 {2}1 {8}0/);
  expect(out).toContain("Are upper and lower case letters told apart?");
});

describe("probe", () => {
  test("all rows agree", async () => {
    const { code, out } = await iquill(["probe", "-i", "sqlite", "-r", "-", "upper(label) || n"], "label,n\né,1\na,2\n");
    expect([code, out]).toEqual([
      0,
      "upper(label) || n\nSQLite here, SQLite 3.54.1 there: 2 of 2 rows agree, as parameters and stored in a table.\n",
    ]);
  });

  test("what differs is told, and the exit code is 1", async () => {
    const { code, out } = await iquill(["probe", "-i", "sqlite", "--json", "date('now')"], "");
    const [row, summary] = out
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(code).toBe(1);
    expect(row).toMatchObject({ row: 1, agree: false, ours: { error: { code: "not-covered" } } });
    expect(summary).toEqual({ engine: "SQLite 3.54.1", agree: 0, rows: 1 });
  });

  test.each([
    [["-i", "xpath", "1"], /there is no engine to ask about xpath/],
    [["-i", "mariadb", "1"], /no embedded engine; give the URL of a server/],
    [
      ["-i", "postgresql", "-u", "postgres://eva@localhost:1/", "1"],
      /could not connect as eva at localhost:1: .*; is the server running/,
    ],
    [["-i", "sqlite", "1; select 2"], /The expression ends before ";"/],
    [["-i", "sqlite", "-l", "x", "1"], /whole number of milliseconds/],
  ])("%j could not run", async (args, said) => {
    const { code, err } = await iquill(["probe", ...args], "");
    expect(err).toMatch(said);
    expect(code).toBe(2);
  });
});

test("statements, quoted for the engine, with a warning before it refuses", async () => {
  const statement = async (...args: string[]) => iquill(["statement", "-r", "-", ...args], "label\na\n");
  expect((await statement("-i", "mariadb", "-n", "a`b", "upper(label)")).out).toBe(
    "SELECT *, (upper(label)) AS `a``b` FROM `specimens`;\n",
  );
  const refused = await statement("-i", "postgresql", "-k", "generated", "concat(label, '!')");
  expect(refused.err).toContain(
    "PostgreSQL refuses this in a generated column, which must be immutable and of its row alone: concat",
  );
  expect(refused.code).toBe(1);
  expect((await statement("-i", "xpath", "$label")).err).toContain("XPath has no statements");
});

describe("a dialect that a file defines", () => {
  const press = "demo/labelpress.json";
  let folder: string;
  beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), "iquill-"))));
  afterAll(() => rmSync(folder, { recursive: true }));

  test("evaluates, lists its functions, and is a side of a contrast", async () => {
    const { out } = await iquill(["eval", "-i", press, "-r", "-", "-f", "csv", 'BEFORE(label;",")'], rows);
    expect(out).toBe('label,code,value\nAlnus,A#1,Alnus\n"Salix, alba",B,Salix\n');
    expect((await iquill(["functions", "-i", press, "FILLEND"])).out).toContain("FILLEND(text; length; [fill])");
    const sides = ['openformula=LEFT(label;FIND(",";label)-1)', `${press}=BEFORE(label;",")`];
    expect((await iquill(["contrast", "-r", "-", ...sides], rows)).out).toContain("Label press: The whole text.");
  });

  test("is named by cases from where they lie", async () => {
    const path = join(folder, "cases.ndjson");
    writeFileSync(join(folder, "press.json"), readFileSync(join(root, press)));
    writeFileSync(path, JSON.stringify({ dialect: "press.json", expression: 'SIZE("abc")', expect: { value: 3 } }));
    expect((await iquill(["verify", path])).out).toBe("1 passed, 0 failed\n");
  });

  test("with faults says where, and what was meant", async () => {
    const json = readFileSync(join(root, press), "utf8");
    const path = join(folder, "press.json");
    writeFileSync(path, json.replace('"whole"', '"wole"').replace('"number": {', '"numbr": {'));
    const { code, err } = await iquill(["eval", "-i", path, "1"]);
    expect(code).toBe(2);
    expect(err).toContain(`${path}: functions.0.answers.absent: "absent" must be`);
    expect(err).toContain('did you mean "whole"?');
    writeFileSync(path, "{");
    expect((await iquill(["eval", "-i", path, "1"])).err).toContain(path);
    expect((await iquill(["eval", "-i", "gone.json", "1"])).err).toContain("gone.json: there is no such file");
    expect((await iquill(["eval", "-i", "acme", "1"])).err).toContain("or a .json file that defines one");
  });

  test("has a schema", async () => {
    expect(JSON.parse((await iquill(["schema", "dialect"])).out)).toMatchObject({ title: "Indigo Quill dialect, version 1" });
  });
});

describe("verify", () => {
  let folder: string;
  beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), "iquill-"))));
  afterAll(() => rmSync(folder, { recursive: true }));

  const file = (lines: readonly unknown[]): string => {
    const path = join(folder, "cases.ndjson");
    writeFileSync(path, lines.map((line) => (typeof line === "string" ? line : JSON.stringify(line))).join("\n"));
    return path;
  };
  const good = {
    id: "c1",
    dialect: "postgresql",
    expression: "substring(label from 2 for 3)",
    row: { label: "Alnus" },
    expect: { value: "lnu" },
  };

  test("the demo's own cases hold", async () => {
    const { code, out } = await iquill(["verify", "demo/cases.ndjson"]);
    const count = readFileSync(join(root, "demo/cases.ndjson"), "utf8").trim().split("\n").length;
    expect(out).toBe(`${count} passed, 0 failed\n`);
    expect(code).toBe(0);
  });

  test("--json: a line for each case, then the summary", async () => {
    const path = file([
      good,
      { ...good, id: "c2", expect: { value: "xxx" } },
      { id: "c3", dialect: "openformula", expression: 'FIND("x";label)', row: { label: "Alnus" }, expect: { error: true } },
      {
        id: "c4",
        dialect: "xpath",
        expression: "tokenize($remark, ';\\s*')",
        row: { remark: "a; b" },
        expect: { value: ["a", "b"] },
      },
      { id: "c5", dialect: "nosuch", expression: "1", row: {}, expect: { value: 1 } },
      {
        id: "c6",
        dialect: "openformula",
        expression: 'LEN("😀")',
        row: {},
        options: { unit: "utf-16 unit" },
        expect: { value: 2 },
      },
      { id: "c7", dialect: "postgresql", expression: "0.1 + n", row: { n: 0.2 }, expect: { value: 0.30000000000000004 } },
      { id: "c8", dialect: "postgresql", expression: "1 / 0", row: {}, expect: { error: "22012" } },
    ]);
    const { code, out } = await iquill(["verify", path, "--json"]);
    const lines = out
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(lines.map(({ id, ok }) => [id, ok])).toEqual([
      ["c1", true],
      ["c2", false],
      ["c3", true],
      ["c4", true],
      ["c5", false],
      ["c6", true],
      ["c7", true],
      ["c8", true],
      [undefined, undefined],
    ]);
    expect(lines[1]).toEqual({ id: "c2", ok: false, got: { value: "lnu" } });
    expect(lines[2]).toMatchObject({
      got: { error: { code: "#VALUE!", message: "What is searched for is not there.", span: { start: 0, end: 15 } } },
    });
    expect(lines[8]).toEqual({ passed: 6, failed: 2 });
    expect(code).toBe(1);
  });

  // The values are the engines' for columns of these types; XPath's are those of F&O 3.1.
  test("what columns hold may be declared, so that a value does not decide it", async () => {
    const day = "2019-02-28";
    const lines: [dialect: string, expression: string, row: object, types: object, value: unknown][] = [
      ["postgresql", "n / 2", { n: 7 }, {}, 3],
      ["postgresql", "n / 2", { n: 7 }, { n: "decimal" }, 3.5],
      ["postgresql", "coalesce(n, 0) + 1", { n: null }, { n: "integer" }, 1],
      ["postgresql", "n || ''", { n: 12 }, { n: "text" }, "12"],
      ["postgresql", "day + 1", { day }, { day: "date" }, "2019-03-01"],
      ["mariadb", "date_add(day, interval 1 day)", { day }, { day: "date" }, "2019-03-01"],
      ["duckdb", '"day" + 1', { day }, { day: "date" }, "2019-03-01"],
      ["xpath", "year-from-date($day)", { day }, { day: "date" }, 2019],
      ["sqlite", "n || ''", { n: 2 }, { n: "decimal" }, "2.0"],
      ["sqlite", "length(day)", { day }, { day: "date" }, 10],
    ];
    const path = file(
      lines.map(([dialect, expression, row, types, value]) => ({ dialect, expression, row, types, expect: { value } })),
    );
    expect((await iquill(["verify", path])).out).toBe(`${lines.length} passed, 0 failed\n`);
  });

  test("a miss is shown with what was expected, what came, and the trace", async () => {
    const { out } = await iquill(["verify", file([{ ...good, expect: { value: "xxx" } }])]);
    expect(out).toMatch(/✗ c1 .*\n.*\n {2}expected "xxx"\n {2}got {6}"lnu"\nexpression/);
  });

  test.each([
    ["{", /line 1, column \d+: this is not JSON/],
    ['{"dialect":1}', /line 1: "dialect" must be a text/],
    ['{"dialect":"xpath","expression":"1"}', /"expect" must be/],
    ['{"dialect":"xpath","expression":"1","types":{"n":"int"},"expect":{"value":1}}', /type of "n" must be one of text, .*"int"/],
  ])("%s could not run", async (line, message) => {
    const { code, err } = await iquill(["verify", file([line])]);
    expect(err).toMatch(message);
    expect(code).toBe(2);
  });

  // Other tests run beside this one, and machines differ: the processor's time counts, and how long this one takes for copies.
  test("5,000 cases take less than 5 seconds, start-up included, where 400,000 copies of one take 1.4", async () => {
    const cases = Array.from({ length: 5000 }, (_, i) => ({
      ...good,
      id: `c${i}`,
      expression: `substring(label from ${1 + (i % 4)} for 3) || '${i}'`,
      expect: { value: `${"Alnus".slice(i % 4, (i % 4) + 3)}${i}` },
    }));
    const started = process.cpuUsage();
    for (let i = 0; i < 400_000; i++) JSON.stringify(JSON.parse(JSON.stringify({ ...good, id: i })));
    const { user, system } = process.cpuUsage(started);
    // The shell tells the time of what it ran.
    const asked = ["-c", '"$0" "$1" verify "$2"; times', process.execPath, command, file(cases)];
    const [said, , children] = (await promisify(execFile)("bash", asked)).stdout.split("\n");
    expect(said).toBe("5000 passed, 0 failed");
    const times = children.split(" ").map((time) => /^(\d+)m([\d.]+)s$/.exec(time)!.slice(1).map(Number));
    const seconds = times.reduce((sum, [minutes, rest]) => sum + minutes * 60 + rest, 0);
    expect(seconds / ((user + system) / 1e6)).toBeLessThan(5 / 1.4);
  });
});

test("demo shows the register, the three expressions, their values, the differing rows and why", async () => {
  const { code, out } = await iquill(["demo"]);
  for (const part of [
    "60 specimens",
    "OpenFormula  TRIM(LEFT(",
    "PostgreSQL   btrim(",
    "XPath        normalize-space(",
    "7 of 60 rows differ.",
    "Why: What comes back when what is searched for is not there?",
    "How row 4 comes about",
  ]) {
    expect(out).toContain(part);
  }
  expect(code).toBe(0);
  expect((await iquill(["demo", "--list"])).out.trim().split("\n")).toHaveLength(14);
});

test("every column of the demo can run in every dialect that it has", async () => {
  const columns = JSON.parse(readFileSync(join(root, "demo/columns.json"), "utf8")) as Record<string, string>[];
  expect(columns).toHaveLength(12);
  for (const { name } of columns) expect((await iquill(["demo", name])).err).toBe("");
});

// prettier-ignore
describe("colour only on a terminal, and not where NO_COLOR is set", () => {
  test.each([[true, {}, true], [true, { NO_COLOR: "1" }, false], [false, {}, false]])("terminal %p, %j: %p", async (isTTY, env, coloured) => {
    let out = "";
    const output = { write: (text: string) => (out += text), isTTY, columns: 60 };
    const input = (async function* () {})();
    expect(await run(["eval", "-i", "postgresql", "-r", "demo", "locality || taxon || remarks"], { stdin: input, stdout: output, stderr: output, env })).toBe(0);
    expect(out.includes("\u001b[")).toBe(coloured);
    if (isTTY) expect(out).toContain("…");
  });
});

test("--help has an example for every command, and each example runs", async () => {
  const help = (await iquill(["--help"])).out;
  expect(help).toContain("iquill demo");
  for (const name of ["eval", "contrast", "traits", "functions", "verify", "demo"]) {
    expect(help).toContain(name);
    const examples = [...(await iquill([name, "--help"])).out.matchAll(/^ {2}iquill (.*)$/gm)].map((match) => match[1]);
    expect(examples.length).toBeGreaterThan(0);
    for (const example of examples) {
      const args = [...example.matchAll(/'([^']*)'|"([^"]*)"|((?:[^\s'"]|'[^']*')+)/g)].map(
        ([, a, b, c]) => a ?? b ?? c.replaceAll("'", ""),
      );
      expect((await iquill(args)).code).toBeLessThan(2);
    }
  }
});
