import { Decimal, Failure, compile, message, sampleOf } from "indigo-quill";
import { sameNumber } from "indigo-quill/contrast";
import { type CaseBase, type CaseSide, casesOf, dialectFor, isRecord, readBase, readSide } from "../cases.ts";
import { isDialect } from "../input.ts";
import { styleFor } from "../output/style.ts";
import { traceText } from "../output/trace.ts";
import { type Streams, UsageError, exit } from "../streams.ts";

/** One case of the verify contract (docs/verify.md). */
interface Case extends CaseBase, CaseSide {
  readonly expect: { readonly value: unknown } | { readonly error: true | string };
}

type Got =
  { readonly value: unknown } | { readonly error: { readonly code: string; readonly message: string; readonly span?: unknown } };

/** Checks files of cases. */
export async function verify(files: readonly string[], options: { json?: boolean }, streams: Streams): Promise<number> {
  let passed = 0;
  let failed = 0;
  for (const file of files) {
    for await (const { given, where, folder } of casesOf(file, streams)) {
      const item = readCase(given, where, folder);
      const got = await evaluateCase(item);
      const ok = meets(item, got);
      if (ok) passed++;
      else failed++;
      if (options.json) streams.stdout.write(`${JSON.stringify({ id: item.id, ok, got })}\n`);
      else if (!ok) streams.stdout.write(await missText(item, got, streams));
    }
  }
  streams.stdout.write(options.json ? `${JSON.stringify({ passed, failed })}\n` : `${passed} passed, ${failed} failed\n`);
  return failed === 0 ? exit.ok : exit.some;
}

function readCase(given: Record<string, unknown>, where: string, folder: string): Case {
  const { expect } = given;
  const item = { ...readBase(given, where), ...readSide(given, where, folder) };
  if (!isRecord(expect) || !("value" in expect || "error" in expect))
    throw new UsageError(`${where}: "expect" must be {"value": …} or {"error": true}`);
  return { ...item, expect: expect as Case["expect"] };
}

/** Evaluates a case. A fault of ours costs that case alone: it is told, and the others are still checked. */
async function evaluateCase(item: Case): Promise<Got> {
  try {
    return await gotOf(item);
  } catch (error) {
    if (error instanceof UsageError) throw error;
    return { error: { code: "internal", message: `a fault of Indigo Quill: ${String(error)}` } };
  }
}

async function gotOf(item: Case): Promise<Got> {
  if (!isDialect(item.dialect))
    return { error: { code: "unknown-dialect", message: `there is no dialect "${item.dialect}" yet` } };
  const dialect = await dialectFor(item);
  const sample = sampleOf([item.row], item.types);
  const program = compile(dialect, item.expression, { ...sample, rows: 1 });
  const [value] = program.run({ ...sample, rows: 1 });
  if (!(value instanceof Failure)) return { value: dialect.plain(value) };
  return { error: { code: value.standard ?? value.code, message: message(value), ...(value.range && { span: value.range }) } };
}

function meets({ expect }: Case, got: Got): boolean {
  if ("error" in expect) return "error" in got && (expect.error === true || expect.error === got.error.code);
  return "value" in got && same(expect.value, got.value);
}

/** Numbers by value (relative tolerance 1e-12), everything else exactly. */
function same(given: unknown, got: unknown): boolean {
  const [a, b] = [given, got].map((value) => (typeof value === "bigint" || value instanceof Decimal ? Number(value) : value));
  if (typeof a === "number" && typeof b === "number") return sameNumber(a, b);
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((item, i) => same(item, b[i]));
  if (isRecord(a) && isRecord(b))
    return Object.keys(a).length === Object.keys(b).length && Object.keys(a).every((key) => key in b && same(a[key], b[key]));
  return a === b;
}

/** A value of a case as JSON, numbers of any size with all their digits. */
const shownJson = (value: unknown): string =>
  JSON.stringify(value, (_, part: unknown) =>
    typeof part === "bigint" || part instanceof Decimal ? `#${String(part)}#` : part,
  ).replace(/"#(.*?)#"/g, "$1");

async function missText(item: Case, got: Got, streams: Streams): Promise<string> {
  const shown = "value" in got ? JSON.stringify(got.value) : `error ${got.error.code}: ${got.error.message}`;
  const expected =
    "value" in item.expect ? shownJson(item.expect.value) : `error${item.expect.error === true ? "" : ` ${item.expect.error}`}`;
  const head = `✗ ${item.id}  ${item.dialect}  ${item.expression}\n  row      ${shownJson(item.row)}\n  expected ${expected}\n  got      ${shown}\n`;
  if (!isDialect(item.dialect)) return head;
  const sample = { ...sampleOf([item.row]), rows: 1 };
  if ("error" in got && got.error.code === "internal") return head;
  const program = compile(await dialectFor(item), item.expression, sample);
  return program.ok ? `${head}${traceText(program, sample, 0, styleFor(streams))}` : head;
}
