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
};
