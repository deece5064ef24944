import { type TokenRule, undoubled } from "../../syntax/index.ts";

const escapes: Readonly<Record<string, string>> = {
  "0": "\0",
  b: "\b",
  n: "\n",
  r: "\r",
  t: "\t",
  Z: "\x1a",
  "%": "\\%",
  _: "\\_",
};

/** A text between quotes, which may be doubled, with escapes (MariaDB documentation, "String Literals"). */
const readText = (source: string): string => {
  const quote = source[0];
  return source
    .slice(1, -1)
    .replace(/\\([\s\S])|(['"])\2/g, (part, char: string | undefined, doubled: string | undefined) =>
      char !== undefined ? (escapes[char] ?? char) : doubled === quote ? quote : part,
    );
};

/** Base-16 or base-2 digits as base-16 digits of whole bytes. */
const readHex = (source: string): string | { problem: string } => {
  const digits = source.startsWith("0x") ? source.slice(2) : source.slice(2, -1);
  if (!source.startsWith("0x") && digits.length % 2 === 1) return { problem: "base-16 digits come in pairs here" };
  return digits.length % 2 === 1 ? `0${digits}` : digits;
};
const readBits = (source: string): string => {
  const digits = source.startsWith("0b") ? source.slice(2) : source.slice(2, -1);
  const size = Math.ceil(digits.length / 8) * 8;
  return digits.padStart(size, "0").replace(/[01]{8}/g, (byte) => parseInt(byte, 2).toString(16).padStart(2, "0"));
};

/** The tokens of MariaDB with its default sql_mode. */
export const mariadbRules: readonly TokenRule[] = [
  { kind: "blank", shape: /[ \t\n\v\f\r]+/y },
  { kind: "comment", shape: /--(?=[\x01-\x20\x7f]|$)[^\n]*|#[^\n]*/y },
  { kind: "unknown", shape: /\/\*M?!/y, read: () => ({ problem: "a comment that is executed" }) },
  { kind: "comment", shape: /\/\*[\s\S]*?\*\//y },
  { kind: "unknown", shape: /\/\*[\s\S]*$/y, unclosed: "*/" },
  { kind: "variable", shape: /[xX]'[0-9a-fA-F]*'|0x[0-9a-fA-F]+(?![\w$])/y, read: readHex },
  { kind: "variable", shape: /[bB]'[01]*'|0b[01]+(?![\w$])/y, read: readBits },
  { kind: "text", shape: /'(?:[^'\\]|''|\\[\s\S])*'|"(?:[^"\\]|""|\\[\s\S])*"/y, read: readText },
  { kind: "text", shape: /'(?:[^'\\]|''|\\[\s\S])*\\?$/y, read: readText, unclosed: "'" },
  { kind: "text", shape: /"(?:[^"\\]|""|\\[\s\S])*\\?$/y, read: readText, unclosed: '"' },
  { kind: "quoted name", shape: /`(?:[^`]|``)+`/y, read: undoubled },
  { kind: "quoted name", shape: /`(?:[^`]|``)*$/y, read: undoubled, unclosed: "`" },
  { kind: "number", shape: /(?:\d+(?:\.\d*)?|\.\d+)[eE][+-]?\d+|\d+\.\d*|\.\d+|\d+(?![A-Za-z_$\u0080-\uffff])/y },
  { kind: "name", shape: /[\w$\u0080-\uffff]+/y },
  // A null of older files.
  { kind: "name", shape: /\\N(?![\w$])/y, read: () => "null" },
  { kind: "symbol", shape: /<=>|:=|\|\||&&|<<|>>|<=|>=|<>|!=|[-+*/%^<>=~(),;.|&!@?{}]/y },
];

/** Words that are no columns unless they are quoted, as version 10.11 takes them. */
export const reserved: ReadonlySet<string> = new Set(
  "accessible add all alter analyze and as asc asensitive before between bigint binary blob both by call cascade case change char character check collate column condition constraint continue convert create cross current_date current_role current_time current_timestamp current_user cursor databases day_hour day_microsecond day_minute day_second dec decimal declare default delayed delete delete_domain_id desc describe deterministic distinct distinctrow div double do_domain_ids drop dual each else elseif enclosed escaped except exists exit explain false fetch float float4 float8 for force foreign from fulltext grant group having high_priority hour_microsecond hour_minute hour_second if ignore ignore_domain_ids in index infile inner inout insensitive insert int int1 int2 int3 int4 int8 integer intersect interval into is iterate join key keys kill leading leave left like limit linear lines load localtime localtimestamp lock long longblob longtext loop low_priority master_demote_to_replica master_demote_to_slave master_ssl_verify_server_cert match maxvalue mediumblob mediumint mediumtext middleint minute_microsecond minute_second mod modifies natural not no_write_to_binlog null numeric offset on optimize optionally or order out outer outfile over page_checksum parse_vcol_expr partition portion precision primary procedure purge range read reads read_write real recursive references ref_system_id regexp release rename repeat replace require resignal restrict return returning revoke right rlike rows row_number schemas second_microsecond select sensitive separator set show signal smallint spatial specific sql sqlexception sqlstate sqlwarning sql_big_result sql_buffer_result sql_cache sql_calc_found_rows sql_no_cache sql_small_result ssl starting stats_auto_recalc stats_persistent stats_sample_pages straight_join table terminated then tinyblob tinyint tinytext to trailing trigger true undo union unique unlock unsigned update usage use using utc_date utc_time utc_timestamp values varbinary varchar varcharacter varying when where while with write xor year_month zerofill".split(
    " ",
  ),
);

/** How a column is written: as it is where it reads back so. */
export const columnText = (name: string): string =>
  /^[A-Za-z_][A-Za-z0-9_]*$/.test(name) && !reserved.has(name.toLowerCase()) ? name : `\`${name.replaceAll("`", "``")}\``;

/** How a text is written, under a mode in which a backslash escapes and single quotes make texts. */
export const textLiteral = (text: string): string =>
  `'${text.replaceAll("\\", "\\\\").replaceAll("'", "''").replaceAll("\0", "\\0")}'`;
