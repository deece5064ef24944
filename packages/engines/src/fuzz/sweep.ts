import { type Dialect, arity } from "indigo-quill/dialects";
import type { Connection } from "../connection.ts";
import { sameOutcome } from "../probe.ts";
import { Comparison, type Find, isArgued, isLimit } from "./compare.ts";
import { styles } from "./styles/index.ts";

const row = { label: "ab", remark: "", n: 1, d: 1.5, gap: null };

/** Few values that functions trip over, nothing among them; `gap` is a column that is null. */
const textual = ["gap", "''", "'ab'", "','"];
const numeric = ["gap", "0", "1", "-1"];
const other = ["gap", "'ab'", "1"];

function valuesFor(type: string): readonly string[] {
  if (/text|string|pattern|escape|options|char|quot|output|nonlist/.test(type)) return textual;
  return /int|number|numeral|decimal|double|real|position|count|whole|exact|float|ordinal|place|upto|bits|group/.test(type)
    ? numeric
    : other;
}

/** Every call with two to four arguments of a function, each argument being one of a few values; those with nothing in them. */
function sweepCalls(dialect: Dialect): ReadonlySet<string> {
  const calls = new Set<string>();
  for (const row of dialect.rows) {
    if (row.notation === "operator" || row.aggregate || styles[dialect.id].skip?.includes(row.name)) continue;
    const parameters = row.parameters.slice(0, 4);
    for (let length = Math.max(2, arity(row).least); length <= parameters.length; length++) {
      const combinations = parameters
        .slice(0, length)
        .reduce<readonly (readonly string[])[]>(
          (begun, { type }) => begun.flatMap((args) => valuesFor(type).map((value) => [...args, value])),
          [[]],
        );
      for (const args of combinations.filter((each) => each.includes("gap"))) calls.add(`${row.name}(${args.join(", ")})`);
    }
  }
  return calls;
}

/**
 * Compares every such call with the engine: what a function looks at first, and what it does not look at any more, shows only
 * where something is missing beside something odd.
 */
export async function sweep(connection: Connection, dialect: Dialect): Promise<{ cases: number; finds: Find[] }> {
  const comparison = new Comparison(connection, dialect);
  const finds: Find[] = [];
  let cases = 0;
  for (const expression of sweepCalls(dialect)) {
    const found = await comparison.both(expression, [row], 0, "parameters");
    if (typeof found === "string") continue;
    cases++;
    if (found.ours === undefined || isLimit(found.ours) || sameOutcome(found.ours, found.theirs) || isArgued(found)) continue;
    finds.push(found);
  }
  return { cases, finds };
}
