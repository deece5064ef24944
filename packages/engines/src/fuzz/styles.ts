import type { Style } from "./generate.ts";

const kinds =
  (table: Readonly<Record<string, ReturnType<Style["kindOf"]>>>): Style["kindOf"] =>
  (type) =>
    Object.hasOwn(table, type) ? table[type] : undefined;

const columns = { text: ["label", "remark", "label", "gap"], integer: ["n"], decimal: ["d"], boolean: ["(n > 1)", "(label = remark)", "(gap is null)"] };

const formats = ["%d", "%5d|", "%-5d|", "%05d", "%+d", "% d", "%,d", "%x", "%X", "%o", "%u", "%i", "%s", "%5s|", "%-7s|", "%.2s|", "%!.2s|", "%c", "%3c|", "%.3c", "%f", "%.2f", "%10.3f|", "%-10.1f|", "%010.2f", "%+.1f", "%,.2f", "%e", "%.3e", "%E", "%g", "%.10g", "%G", "%#g", "%#x", "%!f", "%!.15g", "%q", "%Q", "%w", "%%", "%z", "%y", "a%", "%d-%s", "%*d|", "%.*f", "%5.1f%%", "%d %d %d", "%lld", "%ld", "%n%d", "%5%|", "%.0f", "%#.0f", "%,x", "%07,d", "%p"].map(
  (text) => `'${text}'`,
);
const times = ["label", "remark", "'2019-04-03'", "'2020-02-29 23:59:59.999'", "'2019-01-31'", "'1970-01-01T00:00:00Z'", "'12:30'", "'2019-12-31 12:00+02:00'", "2458576.5", "1554249600", "'0001-01-01'", "'9999-12-31'", "'2019-02-31'", "'2019-13-01'", "'2019-4-3'", "0", "'24:00'", "'2023-10-05 01:02:03.456'", "gap"];
const modifiers = ["'+1 day'", "'-1 month'", "'+1 year'", "'+1.5 hours'", "'start of month'", "'start of year'", "'start of day'", "'weekday 0'", "'weekday 3'", "'unixepoch'", "'auto'", "'julianday'", "'subsec'", "'utc'", "'localtime'", "'ceiling'", "'floor'", "'+01:30'", "'-0001-02-03'", "'+0000-01-00 12:00'", "'bogus'", "'10 days'", "'+1 MONTHS'", "'+2.5 months'", "'-30 seconds'"];

const mariadbTimes = ["'2019-04-03'", "'2020-02-29 23:59:59'", "'2019-01-31'", "'20190403'", "20190403", "'19-4-3'", "'2019-12-30'", "'2018-01-01'", "label", "'2019-02-30'", "'1999-12-31 12:13:14.5'", "date '2016-01-03'", "timestamp '2019-04-03 01:02:03'", "'2019-04-03T10:00'", "gap"];

/** How the expressions of each dialect are written when they are generated. */
export const styles: Readonly<Record<string, Style>> = {
  sqlite: {
    columns,
    kindOf: kinds({ text: "text", clipped: "text", number: "decimal", divided: "decimal", integer: "integer", real: "decimal", any: "any", none: "any" }),
    atoms: {
      blob: ["x'616263'", "cast(label as blob)", "x''", "zeroblob(2)"],
      numeric_side: ["n", "d", "cast(label as integer)", "cast(remark as numeric)"],
      as_numeric: ["label", "'12'", "'1e1'", "' 2 '", "12", "(label || '')"],
      text_side: ["label", "remark", "cast(n as text)", "label collate nocase", "remark collate rtrim"],
      "printf format": formats,
      "format format": formats,
      "strftime format": ["'%Y-%m-%d'", "'%d.%m.%Y'", "'%H:%M:%S'", "'%j %w %u %W %U %V %G %g'", "'%s %J'", "'%f'", "'%e %k %l %I %p %P'", "'%F %T %R'", "'%%'", "'%Q'", "'%'"],
      ...Object.fromEntries(
        ["date", "time", "datetime", "julianday", "unixepoch", "strftime"].map((name) => [`${name} value`, [...times, ...times, ...modifiers]]),
      ),
      "timediff left": times,
      "timediff right": times,
      as_text: ["'Alnus'", "12", "1.5", "(n + 1)", "'abc'"],
    },
    forms: {
      "is true": ([a]) => `(${a} is true)`,
      "is false": ([a]) => `(${a} is false)`,
    },
  },
  mariadb: {
    columns: { ...columns, boolean: ["(n > 1)", "(label = remark)", "(gap is null)", "true"] },
    kindOf: kinds({
      text: "text",
      string: "text",
      binary: "text",
      integer: "integer",
      unsigned: "integer",
      decimal: "decimal",
      double: "decimal",
      whole: "integer",
      exact: "decimal",
      floating: "any",
      any: "any",
      escape: "text",
      unified: "any",
    }),
    atoms: {
      bytes: ["binary label", "x'4142'", "binary 'alnus'", "label"],
      moment: ["date '2019-04-03'", "cast(label as date)", "'2019-04-03'", "timestamp '2020-02-29 12:00:00'"],
      clock: ["time '12:30:00'", "cast('01:02:03' as time)", "'12:30'"],
      datetime: [...mariadbTimes, ...mariadbTimes, "label"],
      time: ["'12:30:45'", "'01:02'", "time '23:59:59'", "'2019-04-03 07:08:09'", "'-10:00:00'", "label", "10203"],
      escape: ["'!'", "'\\\\'", "'a'", "'ab'", "''"],
      "date_format format": ["'%d.%m.%Y'", "'%W %M %e %Y'", "'%a %b %D'", "'%H:%i:%s.%f'", "'%j %U %u %V %v %X %x'", "'%r %T %p %h %l %k'", "'%y %c %w %%'", "'%q'", "label", "''"],
      "time_format format": ["'%H:%i'", "'%h %p'", "'%T'", "'%k %l %s %f'"],
      "str_to_date format": ["'%d.%m.%Y'", "'%Y-%m-%d'", "'%Y-%m-%d %H:%i:%s'", "'%d %M %Y'", "'%b %e, %Y'", "'%H:%i'", "'%d,%m,%y'", "'%h:%i %p'"],
      "str_to_date text": ["label", "'03.04.2019'", "'2019-04-03'", "'3 April 2019'", "'Apr 3, 2019'", "'12:30'", "'2019-04-03 10:11:12'", "'31.02.2019'", "'01,5,13'", "'10:15 PM'", "'2019-04-03 extra'"],
      "date_add unit": ["day"], "date_sub unit": ["day"],
      "date_add date": mariadbTimes, "date_sub date": mariadbTimes, "timestampadd date": mariadbTimes,
      "extract date": mariadbTimes,
      "format locale": ["'de_DE'", "'en_US'"],
      "conv number": ["'ff'", "255", "'zz'", "'-10'", "label", "'12abc'"],
      "conv from": ["10", "16", "36", "2", "-10"], "conv to": ["10", "16", "2", "36", "-16", "-10", "1"],
      "sformat format": ["'{}-{}'", "'{0}'", "'a{1}b{0}'", "'{{}}'", "'{:>6}|'", "'{:<6}|'", "'{:^7}|'", "'x'", "'{'"],
      "export_set bits": ["5", "n", "-1"], "make_set bits": ["5", "n", "-1"],
      "find_in_set list": ["'a,b,c'", "'Alnus,x,é'", "label", "''"],
      "unhex text": ["'4142'", "'616'", "hex(label)", "'zz'"],
      "from_base64 text": ["to_base64(label)", "'YWJj'", "'YQ=='", "'Y'"],
      "char codes": ["65", "n", "256", "null", "0xC3A9"], "char using codes": ["65", "97", "0xC3A9", "n + 65"],
      "elt n": ["1", "2", "n"],
      "period_add period": ["201904", "9912", "200001"], "period_add months": ["1", "-13", "n"],
      "period_diff left": ["201904"], "period_diff right": ["201812", "9912"],
      "substring_index delimiter": ["','", "'.'", "'a'", "' '", "'X'", "''"],
      "pow exponent": ["2", "3", "0.5", "-1"],
      "exp number": ["1", "2.5", "-3", "label"],
    },
    forms: {
      "is true": ([a]) => `(${a} is true)`,
      "is false": ([a]) => `(${a} is false)`,
      "is null": ([a]) => `(${a} is null)`,
      "is not null": ([a]) => `(${a} is not null)`,
      "trim leading": ([a, b]) => (b ? `trim(leading ${b} from ${a})` : `trim(leading from ${a})`),
      "trim trailing": ([a, b]) => (b ? `trim(trailing ${b} from ${a})` : `trim(trailing from ${a})`),
      "char using": (args) => `char(${args.join(", ")} using utf8mb4)`,
      ...Object.fromEntries(["utf8mb4_general_ci", "utf8mb4_unicode_ci", "utf8mb4_bin"].map((name) => [`collate ${name}`, ([a]: readonly string[]) => `(concat(${a}) collate ${name})`])),
    },
    calls: {
      trim: ([a, b]) => (b ? `trim(both ${b} from ${a})` : `trim(${a})`),
      extract: ([, b]) => `extract(year_month from ${b})`,
      date_add: ([a, b]) => `date_add(${a}, interval ${b} day)`,
      date_sub: ([a, b]) => `(${a} - interval ${b} month)`,
      timestampdiff: ([, b, c]) => `timestampdiff(month, ${b}, ${c})`,
      timestampadd: ([, b, c]) => `timestampadd(hour, ${b}, ${c})`,
    },
  },
};
