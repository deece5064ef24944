import { type TokenRule, undoubled } from "../../syntax/index.ts";

/** `U&'…'` with `\XXXX` and `\+XXXXXX` (5.3 <Unicode character string literal>). */
function readUnicode(source: string): string | { problem: string } {
  let problem = "";
  const value = source
    .slice(3, -1)
    .replaceAll("''", "'")
    .replace(/\\(?:([0-9a-fA-F]{4})|\+([0-9a-fA-F]{6})|(\\)|)/g, (_part, short, long, backslash) => {
      if (backslash) return "\\";
      const code = parseInt((short ?? long ?? "") as string, 16);
      if (Number.isNaN(code) || code > 0x10ffff) problem = "a Unicode escape is \\XXXX or \\+XXXXXX";
      return problem ? "" : String.fromCodePoint(code);
    });
  return problem || !value.isWellFormed() ? { problem: problem || "half of a surrogate pair" } : value;
}

const afterMark = (source: string): string => undoubled(source.slice(1));

/** The tokens of SQL (ISO/IEC 9075-2:2023, 5.2 and 5.3). */
export const sqlRules: readonly TokenRule[] = [
  { kind: "blank", shape: /[\t-\r\u0085\p{Z}]+/uy },
  { kind: "comment", shape: /--[^\n\r]*/y },
  { kind: "comment", shape: /\/\*/y, closing: "*/" },
  { kind: "text", shape: /[uU]&'(?:[^']|'')*'/y, read: readUnicode },
  { kind: "text", shape: /[nN]'(?:[^']|'')*'/y, read: afterMark },
  { kind: "text", shape: /'(?:[^']|'')*'/y, read: undoubled },
  { kind: "text", shape: /'(?:[^']|'')*$/y, read: undoubled, unclosed: "'" },
  { kind: "quoted name", shape: /"(?:[^"]|"")+"/y, read: undoubled },
  { kind: "quoted name", shape: /"(?:[^"]|"")*$/y, read: undoubled, unclosed: '"' },
  {
    kind: "number",
    shape:
      /0[xX](?:_?[0-9a-fA-F])+|0[oO](?:_?[0-7])+|0[bB](?:_?[01])+|(?:\d+(?:_\d+)*(?:\.(?:\d+(?:_\d+)*)?)?|\.\d+(?:_\d+)*)(?:[eE][+-]?\d+)?/y,
  },
  // An identifier that is not quoted is equivalent to itself in upper case (5.2, syntax rule 27).
  { kind: "name", shape: /[\p{L}\p{Nl}_][\p{L}\p{Nl}\p{Nd}\p{Mn}\p{Pc}$]*/uy, read: (source) => source.toUpperCase() },
  { kind: "symbol", shape: /\|\||<=|>=|<>|[-+*/<>=(),;.[\]?:]/y },
];

/** Reserved words of the standard (5.2, <reserved word>), in lower case. */
export const reserved: ReadonlySet<string> = new Set(
  "abs acos all allocate alter and any any_value are array array_agg array_max_cardinality as asensitive asin asymmetric at atan atomic authorization avg begin begin_frame begin_partition between bigint binary blob boolean both btrim by call called cardinality cascaded case cast ceil ceiling char char_length character character_length check classifier clob close coalesce collate collect column commit condition connect constraint contains convert copy corr corresponding cos cosh count covar_pop covar_samp create cross cube cume_dist current current_catalog current_date current_default_transform_group current_path current_role current_row current_schema current_time current_timestamp current_transform_group_for_type current_user cursor cycle date day deallocate dec decfloat decimal declare default define delete dense_rank deref describe deterministic disconnect distinct double drop dynamic each element else empty end end_frame end_partition end-exec equals escape every except exec execute exists exp external extract false fetch filter first_value float floor for foreign frame_row free from full function fusion get global grant greatest group grouping groups having hold hour identity in indicator initial inner inout insensitive insert int integer intersect intersection interval into is join json json_array json_arrayagg json_exists json_object json_objectagg json_query json_scalar json_serialize json_table json_table_primitive json_value lag language large last_value lateral lead leading least left like like_regex listagg ln local localtime localtimestamp log log10 lower lpad ltrim match match_number match_recognize matches max member merge method min minute mod modifies module month multiset national natural nchar nclob new no none normalize not nth_value ntile null nullif numeric occurrences_regex octet_length of offset old omit on one only open or order out outer over overlaps overlay parameter partition pattern per percent percent_rank percentile_cont percentile_disc period portion position position_regex power precedes precision prepare primary procedure ptf range rank reads real recursive ref references referencing regr_avgx regr_avgy regr_count regr_intercept regr_r2 regr_slope regr_sxx regr_sxy regr_syy release result return returns revoke right rollback rollup row row_number rows rpad rtrim running savepoint scope scroll search second seek select sensitive session_user set show similar sin sinh skip smallint some specific specifictype sql sqlexception sqlstate sqlwarning sqrt start static stddev_pop stddev_samp submultiset subset substring substring_regex succeeds sum symmetric system system_time system_user table tablesample tan tanh then time timestamp timezone_hour timezone_minute to trailing translate translate_regex translation treat trigger trim trim_array true truncate uescape union unique unknown unnest update upper user using value values value_of var_pop var_samp varbinary varchar varying versioning when whenever where width_bucket window with within without year".split(
    " ",
  ),
);

/** How a column is written: as it is where it reads back so. */
export const columnText = (name: string): string =>
  /^[A-Z_][A-Z0-9_]*$/i.test(name) && !reserved.has(name.toLowerCase()) ? name : `"${name.replaceAll('"', '""')}"`;

export const textLiteral = (text: string): string => `'${text.replaceAll("'", "''")}'`;
