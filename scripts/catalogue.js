/**
 * npm run catalogue [-- --postgresql URL] [--mariadb URL] — asks each engine for the names of all its functions, of whatever
 * kind, and holds them against what the dialect covers and what packages/core/src/dialects/NAME/uncovered.ts says why it does not.
 * Prints what has no reason, and reasons for what is covered or does not exist; exit 1 where there is one.
 */
import { parseArgs } from "node:util";
import { open } from "@indigo-quill/engines";
import { dialects } from "indigo-quill/dialects";

const { values: urls } = parseArgs({ options: { mariadb: { type: "string" }, postgresql: { type: "string" } } });

/** For each engine the expression that gives its catalogue, and words of its grammar that look like functions. */
const engines = {
  postgresql: {
    catalogue: "(select string_agg(distinct proname, ' ') from pg_proc where pronamespace = 'pg_catalog'::regnamespace)",
    words:
      "bool bpchar char coalesce current_catalog current_date current_role current_time current_timestamp date float4 float8 grouping int2 int4 int8 localtime localtimestamp name nullif timestamptz user xmlelement xmlforest xmlserialize",
  },
  sqlite: {
    catalogue: "(select group_concat(distinct name) from pragma_function_list)",
    words: "current_date current_time current_timestamp highlight load_extension match median percentile regexp sqlite_offset",
  },
  mariadb: {
    catalogue: "(select group_concat(distinct lower(function) separator ' ') from information_schema.SQL_FUNCTIONS)",
    words:
      "add_months adddate cast column_create column_get current_date current_time current_timestamp current_user default last_value localtime localtimestamp match nullif row_number schemas subdate sysdate user utc_date utc_time utc_timestamp values weight_string",
  },
  duckdb: {
    catalogue: "(select string_agg(distinct lower(function_name), ' ') from duckdb_functions() where database_name = 'system')",
    words: "current_time current_timestamp date_bin localtime localtimestamp not_ilike_escape not_like_escape nullif",
  },
};

/** The names in the catalogues of an engine: of the embedded one, where there is one, and of the server at the URL. */
async function namesOf(id, catalogue) {
  const names = new Set();
  for (const url of id === "mariadb" ? [urls.mariadb] : [undefined, urls[id]].filter((each, i) => i === 0 || each)) {
    const connection = await open(id, url);
    const [outcome] = await connection.run({ expression: catalogue, columns: [], rows: [[]] });
    await connection.close();
    if (outcome.error) throw new Error(`${id}: ${outcome.error.message}`);
    for (const name of outcome.value.split(/[ ,]+/)) names.add(name.toLowerCase());
  }
  return names;
}

for (const [id, { catalogue, words }] of Object.entries(engines)) {
  if (id === "mariadb" && !urls.mariadb) {
    console.log("mariadb: give --mariadb URL to read its catalogue");
    continue;
  }
  const dialect = dialects[id](id === "postgresql" ? { version: "17" } : {});
  const covered = new Set(dialect.rows.flatMap((row) => [row.name, ...(row.aliases ?? [])]));
  const names = await namesOf(id, catalogue);
  const forms = new Set(words.split(" "));
  const missing = [...names].filter((name) => !covered.has(name) && !forms.has(name)).sort();
  const problems = {
    "no reason given": missing.filter((name) => !dialect.uncovered.has(name)),
    "a reason, but covered": [...dialect.uncovered.keys()].filter((name) => covered.has(name)),
    // A server of another version may have had it.
    "a reason, but not there": [...dialect.uncovered.keys()].filter((name) => !names.has(name) && !forms.has(name)),
  };
  const reasons = new Map();
  for (const name of missing) reasons.set(dialect.uncovered.get(name), (reasons.get(dialect.uncovered.get(name)) ?? 0) + 1);
  console.log(`${id}: ${names.size} names, ${missing.length} not covered`);
  for (const [reason, count] of [...reasons].sort((a, b) => b[1] - a[1])) if (reason) console.log(`  ${count} ${reason}`);
  for (const [problem, some] of Object.entries(problems)) {
    if (some.length === 0) continue;
    console.log(`  ${problem}: ${some.join(" ")}`);
    if (problem !== "a reason, but not there" || id !== "postgresql" || urls.postgresql) process.exitCode = 1;
  }
}
