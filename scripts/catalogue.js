/**
 * npm run catalogue [-- --mariadb URL --postgresql URL] — reads the catalogue of each engine that can be
 * asked, and prints which functions with text in or out are not covered, and why. Exit 1 where one
 * has no reason.
 */
import { parseArgs } from "node:util";
import { open } from "@indigo-quill/engines";
import { dialects } from "indigo-quill/dialects";

const { values: urls } = parseArgs({ options: { mariadb: { type: "string" }, postgresql: { type: "string" } } });

/** For each engine the expression that gives its catalogue, the forms that its grammar reads, and the reasons. */
const engines = {
  postgresql: {
    catalogue: `(select string_agg(distinct p.proname, ' ') from pg_proc p where p.pronamespace = 'pg_catalog'::regnamespace
      and p.prokind = 'f' and (p.prorettype in ('text'::regtype, 'text[]'::regtype) or 'text'::regtype = any(p.proargtypes::oid[])))`,
    forms: ["coalesce", "nullif"],
    reasons: [
      [/^(?:json|to_json|row_to_json|array_to_json)/, "JSON"],
      [/xml|^xpath|^(?:table|schema|database|query|cursor)_to_/, "XML"],
      [
        /^ts|^to_ts|tsvector|tsquery|tsmatch|^get_current_ts|^strip$|^setweight|^querytree|^plainto|^phraseto|^websearch/,
        "full text",
      ],
      [
        /^pg_|^lo_|privilege|^current_|^set_config|^obj_desc|^col_desc|^shobj|^binary_upgrade|^txid|^inet_|^brin|^row_security|^nextval|^currval|^setval|^version$|^format_type|^to_reg|^dblink|^fmgr|^getdatabaseencoding|^system(?:_user)?$|^bernoulli$|_handler$|^ginarray|^gin_|^gist|^hash|^amvalidate|^any_value|^getpgusername|^set_byte|^bt|^currtid|^makeacl/,
        "administration",
      ],
      [/(?:in|out|recv|send|typmodin|typmodout)$/, "input, output and sending of types"],
      [
        /^(?:text|texticlike|bpchar|byteacat|name|char|varchar|regex|like|notlike|icregex|nameic|textic|bpcharic|nameregex|array_|date_|time|interval|oid|regclass|tid|cidr|host|abbrev|network|broadcast|netmask|family|masklen|hostmask|inet|macaddr|enum_|range|multirange|uuid|xid|numeric|int|float|bool|money|cash|point|box|circle|path|poly|line|lseg|slope|daterange|numrange)/,
        "what operators, casts and other types are made of",
      ],
      [/^(?:md5|sha\d|encode|decode|convert|gen_random|crypt|to_ascii|normalize$)/, "cryptography and bytes"],
      [/^(?:unicode|icu)_/, "the version of Unicode"],
      [
        /^(?:now|clock_|statement_|transaction_|localtime|age|isfinite|make_|extract|date_bin|date_trunc|to_timestamp|overlaps|justify|timezone)/,
        "times, intervals and zones",
      ],
      [
        /^(?:similar_escape|similar_to_escape|like_escape|regexp_matches|regexp_split_to_table|string_to_table|unnest|generate_|suppress|width_bucket|scale|trim_scale|min_scale|starts_with|to_ascii|replace|ltrim|has_|substring|concat|error_on_null|anytextcat|textanycat|quote_|string_agg|listagg)/,
        "sets of rows, or the inside of an operator",
      ],
    ],
  },
  sqlite: {
    catalogue: "(select group_concat(distinct name) from pragma_function_list where type = 's')",
    forms: ["regexp", "match"],
    reasons: [
      [/^json|^->/, "JSON"],
      [/^fts|match|^snippet|^offsets|^optimize/, "full text"],
      [
        /^(?:char\w+|leftstr|rightstr|replicate|reverse|proper|padl|padr|padc|strfilter|difference|square|atn2|coth|acoth|asech|acsch|sech|csch|cot)$/,
        "an extension of the pinned build",
      ],
    ],
  },
  mariadb: {
    catalogue: "(select group_concat(lower(function) separator ' ') from information_schema.SQL_FUNCTIONS)",
    forms: [
      "cast",
      "if",
      "nullif",
      "adddate",
      "subdate",
      "date_add",
      "date_sub",
      "position",
      "substr",
      "mid",
      "trim",
      "extract",
      "year",
      "character_length",
      "add_months",
    ],
    reasons: [[/^schemas$|^wsrep/, "administration"]],
  },
  duckdb: {
    catalogue: `(select string_agg(distinct lower(function_name), ' ') from duckdb_functions() where function_type in ('scalar', 'macro')
      and database_name = 'system' and (return_type like '%VARCHAR%' or list_contains(parameter_types, 'VARCHAR') or varargs = 'VARCHAR'))`,
    forms: ["nullif", "not_like_escape", "not_ilike_escape"],
    reasons: [
      [/json/, "JSON"],
      [
        /^icu_|_internal_|^pragma_|^pg_|^duckdb_|privilege|^current_|^(?:alias|cast_to_type|can_cast|get_type|make_type|vector_type|stats|write_log|parse_duckdb|in_search_path|nextval|currval|getvariable|error|hash|constant_or|create_sort|unpivot|test_|format_type|col_description|obj_description|shobj|session_user|user|getdatabaseencoding|is_histogram|equi_width|aggregate|array_to_string_comma_default|geomean|wavg|weighted|split_part_regexp|age|timezone|date_sub|datesub|ago|md5|sha|set_config|inet|has_|st_|generate_subscripts)/,
        "administration, cryptography and other fields",
      ],
      [/^(?:struct|union|map|row|remap|variant|enum)/, "structs, maps and unions"],
      [/^(?:!?~~|!~~|~~|<@|@>|\|\||&&|->>|\^@)/, "operators"],
      [
        /^(?:list|array)_(?:zip|grade_up|value)|^bitstring|^date_|^datetrunc|^time_bucket|^make_timestamp/,
        "other types, and the inside of operators",
      ],
    ],
  },
};

let unreasoned = 0;
for (const [id, { catalogue, forms, reasons }] of Object.entries(engines)) {
  if (id === "mariadb" && !urls.mariadb) {
    console.log("mariadb: give --mariadb URL to read its catalogue");
    continue;
  }
  const connection = await open(id, urls[id]);
  const [outcome] = await connection.run({ expression: catalogue, columns: [], rows: [[]] });
  await connection.close();
  if (outcome.error) throw new Error(`${id}: ${outcome.error.message}`);
  const dialect = dialects[id](connection.options);
  const known = new Set([...forms, ...dialect.rows.flatMap((row) => [row.name, ...(row.aliases ?? [])])]);
  const names = [...new Set(outcome.value.split(/[ ,]+/))].sort();
  const missing = names.filter((name) => !known.has(name));
  const grouped = new Map();
  for (const name of missing) {
    const reason = dialect.uncovered.has(name)
      ? "listed as not covered"
      : (reasons.find(([shape]) => shape.test(name))?.[1] ?? "NO REASON GIVEN");
    grouped.set(reason, [...(grouped.get(reason) ?? []), name]);
  }
  unreasoned += grouped.get("NO REASON GIVEN")?.length ?? 0;
  console.log(`${id}, ${connection.version}: ${names.length} names in the catalogue, ${names.length - missing.length} covered`);
  for (const [reason, some] of grouped) console.log(`  ${reason}: ${some.join(" ")}`);
}
process.exitCode = unreasoned > 0 ? 1 : 0;
