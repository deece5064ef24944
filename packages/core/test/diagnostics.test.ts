import { describe, expect, test } from "@jest/globals";
import { type Program, type Value, applyFix, compile, defaultLimits, drawCaret, message, sampleOf } from "indigo-quill";
import { dialects } from "indigo-quill/dialects";
import { sameTree } from "indigo-quill/syntax";
import { type Expression, childrenOf } from "../src/syntax/index.ts";
import { Failure, tick } from "../src/values/index.ts";
import { random } from "./random.ts";

const sample = sampleOf([{ label: "Alnus", "Collector Notes": "x", n: 3 }]);
const program = (dialect: string, source: string): Program => compile(dialects[dialect](), source, sample);

/** Dialect, source, code of the first problem, the text it is about, and the source after its first mend (where it has one). */
// prettier-ignore
const problems: readonly (readonly [string, string, string, string, string?])[] = [
  ["openformula", "", "empty-expression", ""],
  ["openformula", "LEFT(label,2)", "wrong-separator", ",", "LEFT(label;2)"],
  ["openformula", "LEFT(label;2", "unclosed-bracket", "(", "LEFT(label;2)"],
  ["openformula", 'label&"abc', "unclosed-quote", '"abc', 'label&"abc"'],
  ["openformula", "label&'abc", "unclosed-quote", "'abc", 'label&"abc"'],
  ["openformula", "LEFT(label;2)+(;", "expected", ";"],
  ["openformula", "VLOOKUP(label;2)", "not-covered", "VLOOKUP"],
  ["openformula", "A1:B2", "not-covered", ":B2"],
  ["postgresql", "to_ascii(label)", "not-covered", "to_ascii"],
  ["postgresql", "label::jsonb", "not-covered", "jsonb"],
  ["mariadb", "label like 'x' escape label", "constant-wanted", "label"],
  ["mariadb", "date_add(label, interval 1 fortnight)", "expected", "fortnight"],
  ["mariadb", "label collate utf8mb4_swedish_ci", "not-covered", "collate utf8mb4_swedish_ci"],
  ["mariadb", "n regexp '('", "pattern-syntax", "("],
  ["duckdb", "regexp_replace(label, 'a', 'b', label)", "constant-wanted", "label"],
  ["duckdb", "'abc'.upper()", "habit", "'abc'.upper(", "upper('abc')"],
  ["duckdb", "x'41'", "not-covered", "x'41'"],
  ["sqlite", "min(label)", "aggregate-of-row", "min"],
  ["postgresql", "max(label) filter (where n > 1)", "not-covered", "max(label) filter (where n > 1)"],
  ["mariadb", "max(min(label))", "nested-aggregate", "min(label)"],
  ["postgresql", "upper(user)", "reserved-word", "user"],
  ["postgresql", "length((select label from t))", "not-covered", "(select label from t))"],
  ["postgresql", "upper((values (label), ('x')))", "too-many-rows", "(values (label), ('x'))"],
  ["postgresql", "(label, n)", "not-covered", "(label, n)"],
  ["sqlite", "(label, n)", "row-alone", "(label, n)"],
  ["mariadb", "(label, n) between (1, 2) and (3, 4)", "row-alone", "(label, n)"],
  ["postgresql", "n + 'x'", "habit", "+", "n || 'x'"],
  ["postgresql", "case when n = 1 then 2 else 'x' end", "not-a-number", "'x'"],
  ["postgresql", "case when false then 'x'::int end", "not-a-number", "'x'"],
  ["postgresql", "$q$abc", "unclosed-quote", "$q$abc", "$q$abc$q$"],
  ["postgresql", "label /* a /* b */", "unclosed-comment", "/* a /* b */", "label /* a /* b */*/"],
  ["openformula", "1+", "expected", ""],
  ["openformula", "1 2", "extra-text", "2"],
  ["openformula", "lable", "unknown-column", "lable", "label"],
  ["openformula", "LENGTH(label)", "unknown-function", "LENGTH", "LEN(label)"],
  ["openformula", "LEFFT(label)", "unknown-function", "LEFFT", "LEFT(label)"],
  ["openformula", "INITCAP(label)", "unknown-function", "INITCAP", "PROPER(label)"],
  ["openformula", "LEN()", "argument-count", "LEN"],
  ["openformula", "LEN(label;2)", "argument-count", "2"],
  ["openformula", 'FIND(label;"n")', "swapped-arguments", 'label;"n"', 'FIND("n";label)'],
  ["openformula", "label § 2", "unexpected-character", "§"],
  ["openformula", "[.B2]", "not-covered", "[.B2]"],
  ["postgresql", "left(label; 2)", "wrong-separator", ";", "left(label, 2)"],
  ["postgresql", "upper('abc)", "unclosed-quote", "'abc)", "upper('abc')"],
  ["postgresql", "upper(\"label)", "unclosed-quote", "\"label)", "upper(\"label\")"],
  ["postgresql", "label = \"Alnus\"", "unknown-column", "\"Alnus\"", "label = 'Alnus'"],
  ["postgresql", "len(label)", "unknown-function", "len", "length(label)"],
  ["postgresql", "mid(label, 1, 2)", "unknown-function", "mid", "substr(label, 1, 2)"],
  ["postgresql", "left(label, 'x', 3)", "argument-count", "3"],
  ["postgresql", "left(label, 2.5)", "argument-type", "left(label, 2.5)"],
  ["postgresql", "label + 1", "argument-type", "label + 1"],
  ["postgresql", "strpos('abc', label)", "swapped-arguments", "'abc', label", "strpos(label, 'abc')"],
  ["postgresql", "case when n then 1 end", "condition-type", "n"],
  ["postgresql", "case when true then 1 else label end", "branch-types", "case when true then 1 else label end"],
  ["postgresql", "case n when 1 then 'a'", "habit", "", "case n when 1 then 'a' end"],
  ["postgresql", "case n when", "expected", ""],
  ["postgresql", "case n > 1 then 'a' else 'b' end", "habit", "", "case when n > 1 then 'a' else 'b' end"],
  ["openformula", 'IF(LEN(label)>3 and (n=1 or label="c and d"),LEFT(label,2),"x")', "habit", 'LEN(label)>3 and (n=1 or label="c and d"),LEFT(label,2),', 'IF(AND(LEN(label)>3;(OR(n=1;label="c and d")));LEFT(label;2);"x")'],
  ["openformula", 'n > 1 && label == "x"', "habit", 'n > 1 && label == "x"', 'AND(n > 1;label = "x")'],
  ["mariadb", "label ~ '^A'", "habit", "~", "label regexp '^A'"],
  ["xpath", "contains($label, 'A') && true", "habit", "&& true", "contains($label, 'A') and true()"],
  ["postgresql", "string_to_array(label, ',')[1]", "habit", "string_to_array(label, ','", "(string_to_array(label, ','))[1]"], ["openformula", 'SPLIT(label;",")[2]&"x"', "habit", "SPLIT(label;\",\")[2]", 'TRIM(MID(SUBSTITUTE(label;",";REPT(" ";LEN(label)));(2-1)*LEN(label)+1;LEN(label)))&"x"'],
  ["mariadb", "split(label, ',')[2]", "habit", "plit(label, ',')[2]", "substring_index(substring_index(label, ',', 2), ',', -1)"], ["postgresql", "concat(label, , label)", "habit", ", ", "concat(label, label)"], ["openformula", "LEFT(label);3", "habit", ");3", "LEFT(label;3)"],
  ["openformula", "LEFT(UPPER(label;3)", "habit", "", "LEFT(UPPER(label);3)"], ["openformula", 'IF(LEN(label>3;"a";"b")', "habit", "", 'IF(LEN(label)>3;"a";"b")'], ["postgresql", "concat(upper(left(label, 1), lower(label)", "habit", ", lower(label", "concat(upper(left(label, 1)), lower(label))"],
  ["openformula", 'IF(label in ("a","b");1;0)', "habit", 'label in ("a",', 'IF(OR(label="a";label="b");1;0)'], ["sqlite", "label in 'a', 'b'", "habit", "'a', 'b'", "label in ('a', 'b')"], ["openformula", "n % 2 = 0", "habit", "n % 2", "MOD(n;2) = 0"],
  ["openformula", '"no. "n', "habit", "", '"no. "&n'], ["postgresql", "n between 1 or 3", "habit", "or", "n between 1 and 3"], ["duckdb", "n between (1, 3)", "habit", "(1, 3)", "n between 1 and 3"], ["postgresql", "case label when like 'A%' then 1 end", "habit", "label when", "case when label like 'A%' then 1 end"],
  ["duckdb", "list_filter(string_split(label, ' '), x => x <> '')", "habit", "=", "list_filter(string_split(label, ' '), x -> x <> '')"], ["mariadb", "ltrim(label, '0')", "habit", "ltrim(label, '0'", "trim(leading '0' from label)"], ["mariadb", "if(n > 1, 'a')", "habit", "if(n > 1, 'a')", "case when n > 1 then 'a' end"],
  ["duckdb", "switch(n, 35, 'a', 'b')", "habit", "switch(n, 35, 'a', 'b')", "case when n = 35 then 'a' else 'b' end"],
  ["postgresql", "elt(2, label, 'x')", "habit", "elt(2, label, 'x')", "case when 2 = 1 then label when 2 = 2 then 'x' end"],
  ["xpath", "ifs($n > 100, 'a', $n > 1, 'b')", "habit", "s($n > 100, 'a', $n > 1, 'b'", "if ($n > 100) then 'a' else if ($n > 1) then 'b' else ()"],
  ["duckdb", "label rlike 'a$'", "habit", "label rlike 'a$'", "regexp_matches(label, 'a$')"],
  ["xpath", "$label ~ '^A'", "habit", "$label ~ '^A'", "matches($label, '^A')"],
  ["duckdb", "label =~ 'a'", "habit", "label =~ 'a'", "regexp_matches(label, 'a')"],
  ["duckdb", "explode(', ', label)", "unknown-function", "explode", "string_split(label, ', ')"],
  ["postgresql", "str_replace(' ', '', label)", "unknown-function", "str_replace", "replace(label, ' ', '')"],
  ["duckdb", "strrev(label)", "unknown-function", "strrev", "reverse(label)"],
  ["duckdb", "ljust(label, 20)", "unknown-function", "ljust", "rpad(label, 20, ' ')"],
  ["sqlite", "eomonth(label, 0)", "unknown-function", "eomonth", "date(label, 'start of month', '+1 month', '-1 day')"],
  ["postgresql", "replace(label, ' ', '', 'g')", "argument-count", "'g'", "replace(label, ' ', '')"],
  ["postgresql", "n === 35", "habit", "==", "n = 35"],
  ["postgresql", "left(label, n / 2.0)", "argument-type", "left(label, n / 2.0)", "left(label, cast((n / 2.0) as integer))"], ["duckdb", "lpad(label, length(label), '*')", "argument-type", "lpad(label, length(label), '*')", "lpad(label, cast(length(label) as integer), '*')"], ["sql", "substring(label from n / 2.5)", "argument-type", "substring(label from n / 2.5)", "substring(label from cast((n / 2.5) as integer))"],
  ["postgresql", "current_date", "not-covered", "current_date"], ["mariadb", "concat(label, current_timestamp)", "not-covered", "current_timestamp"], ["sqlite", "label || current_time", "not-covered", "current_time"],
  ["sql", "localtimestamp", "not-covered", "localtimestamp"], ["duckdb", "current_date", "not-covered", "current_date"],
  ["postgresql", "array_length(string_to_array(label, ','))", "argument-count", "array_length", "cardinality(string_to_array(label, ','))"], ["mariadb", "date_add(label, 1)", "habit", "1", "date_add(label, interval 1 day)"], ["postgresql", "upper({label})", "habit", "{label}", "upper(label)"],
  ["postgresql", "nullif(label)", "argument-count", "nullif"], ["postgresql", "cast(label)", "expected", ")"], ["duckdb", "coalesce(label, 0)", "branch-types", "coalesce(label, 0)", "coalesce(label, '0')"], ["postgresql", "case when n > 1 then 'high' else n end", "not-a-number", "'high'", "case when n > 1 then 'high' else cast(n as text) end"],
  ["xpath", "tokenize($label, ' ')[last]", "habit", "", "tokenize($label, ' ')[last()]"], ["xpath", "string-join($label, $label, '-')", "habit", "$label, $label", "string-join(($label, $label), '-')"], ["xpath", "let $x = $label return $x", "habit", "", "let $x := $label return $x"],
  ["sqlite", "n mod 2", "habit", "mod", "n % 2"], ["sqlite", "label regexp '^A'", "habit", "label regexp '^", "substr(label, 1, length('A')) = 'A'"], ["sqlite", "label regexp '^[A-Z]'", "unknown-function", "regexp"],
  ["sql", "label ilike 'A%'", "habit", "abel ilike 'A", "lower(label) like 'a%'"],
  ["postgresql", "label::nosuch", "unknown-type", "nosuch"],
  ["postgresql", "1 = 1 = 1", "expected", "="],
  ["postgresql", "label /* no end", "unclosed-comment", "/* no end"],
  ["postgresql", "'a'; drop table x", "extra-text", "; drop table x"],
  ["postgresql", "E'\\uZZZZ'", "bad-literal", "E'\\uZZZZ'"],
  ["xpath", "label", "expected", "label", "$label"],
  ["xpath", "$lable", "unknown-column", "$lable", "$label"],
  ["xpath", "substring($label; 2)", "wrong-separator", ";", "substring($label, 2)"],
  ["xpath", "length($label)", "unknown-function", "length", "string-length($label)"],
  ["xpath", "starts-with($label)", "argument-count", "starts-with"],
  ["xpath", "if ($n > 1) then 'a'", "habit", "", "if ($n > 1) then 'a' else ()"],
  ["xpath", "if ($n > 1)", "expected", ""],
  ["xpath", "for $x in (1, 2)", "expected", ""],
  ["xpath", "$label/x", "not-covered", "/"],
  ["openformula", 'SUBSTITUTE("a";"b";label)', "swapped-arguments", '"a";"b";label', 'SUBSTITUTE(label;"a";"b")'],
  ["openformula", "LEFT(3;label)", "swapped-arguments", "3;label", "LEFT(label;3)"],
  ["xpath", "tokenize(',', $label)", "swapped-arguments", "',', $label", "tokenize($label, ',')"],
  ["xpath", "contains('abc', $label)", "swapped-arguments", "'abc', $label", "contains($label, 'abc')"],
  ["xpath", "(: open", "unclosed-comment", "(: open"],
  ["openformula", "left(label, 5) == 'Alnus'", "habit", ", 5) == 'Alnus'", 'left(label; 5) = "Alnus"'],
  ["openformula", 'label=="x"', "habit", "=", 'label="x"'],
  ["openformula", 'FIND(“,”;label)', "habit", "“,”", 'FIND(",";label)'],
  ["openformula", "ROUND(2,5;1)", "habit", ",", "ROUND(2.5;1)"],
  ["openformula", "MID(label,2,LEN(label))", "habit", ",2,", "MID(label;2;LEN(label))"],
  ["openformula", "LEN(Collector Notes)", "habit", "Collector Notes", "LEN('Collector Notes')"],
  ["postgresql", "=upper($label);", "habit", "=upper($label);", "upper(label)"],
  ["postgresql", "select upper(label) as l from t", "habit", "select upper(label) as l from t", "upper(label)"],
  ["postgresql", "upper(label))", "habit", ")", "upper(label)"],
  ["postgresql", "n => 3 && label == 'O''Neil'", "habit", "=> 3 && label =", "n >= 3 and label = 'O''Neil'"],
  ["postgresql", "label = 'O'Neil'", "habit", "", "label = 'O''Neil'"],
  ["postgresql", "label + ', ' + label", "habit", "+ ', ' +", "label || ', ' || label"],
  ["xpath", "if $n > 1 then 'a' else 'b'", "habit", "$n > 1", "if ($n > 1) then 'a' else 'b'"],
  ["xpath", "$n-1", "habit", "-", "$n - 1"],
  ["xpath", "upper-case(label)", "expected", "label", "upper-case($label)"],
  ["sqlite", "left(label, 3)", "unknown-function", "left", "substr(label, 1, 3)"],
  ["postgresql", "if(n > 1, 'a', label)", "unknown-function", "if", "case when n > 1 then 'a' else label end"],
  ["postgresql", "iferror(label, 'x')", "unknown-function", "iferror"],
  ["xpath", "concat(find('u', $label), '')", "unknown-function", "find", "concat(if (contains($label, 'u')) then string-length(substring-before($label, 'u')) + 1 else 0, '')"],
  ["postgresql", "label.upper().left(3)", "habit", "abel.upper().left(", "left(upper(label), 3)"],
  ["xpath", "$label.toUpperCase()", "habit", "$label.toUpperCase(", "upper-case($label)"],
  ["postgresql", "label.substr(1, 3)", "not-covered", "label.substr(1, 3)"],
  ["postgresql", "label[2]", "argument-type", "label[2]"],
  ["postgresql", "label.Substring(2, 3)", "habit", "label.Substring(2", "substr(label, 3, 3)"],
  ["postgresql", "split(label, ',')[0]", "habit", "split(label, ',')[0", "(string_to_array(label, ','))[1]"],
  ["postgresql", "left(label, locate(',', label) - 1)", "unknown-function", "locate", "left(label, strpos(label, ',') - 1)"],
  ["xpath", "$label.upper-case()", "habit", "$label.upper-case(", "upper-case($label)"],
  ["sqlite", "n > 1 ? 'a' : n > 0 ? 'b' : 'c'", "habit", "n > 1 ? 'a' : n > 0 ? 'b' : 'c'", "case when n > 1 then 'a' else case when n > 0 then 'b' else 'c' end end"],
  ["openformula", 'LEN(n > 1 ? "a" : "b")', "habit", 'n > 1 ? "a" : "b"', 'LEN(IF(n > 1;"a";"b"))'],
  ["postgresql", "if n > 1 then 'a' elseif n > 0 then 'b' end if", "habit", "if n > 1 then 'a' elseif n > 0 then 'b' end if", "case when n > 1 then 'a' else case when n > 0 then 'b' end end"],
  ["xpath", "if ($n > 1) 'a' else 'b'", "habit", "", "if ($n > 1) then 'a' else 'b'"],
  ["openformula", "case n when 1 then 'some' else label end", "habit", "case n when 1 then 'some' else label end", 'IF(n = 1;"some";label)'],
  ["xpath", "case when $n > 1 then 'a' when $n > 0 then 'b' else '' end", "habit", "case when $n > 1 then 'a' when $n > 0 then 'b' else '' end", "if ($n > 1) then 'a' else if ($n > 0) then 'b' else ''"],
  ["mariadb", "label::int + 1", "habit", "label::int", "cast(label as signed) + 1"],
  ["postgresql", "cast(n as nvarchar(20))", "habit", "cast(n as nvarchar(20)", "left(cast(n as text), 20)"],
  ["mariadb", "cast(n as number(5,2))", "unknown-type", "number(5,2)"],
  ["xpath", "cast($n as string)", "habit", "cast($n as string", "string($n)"],
  ["sqlite", "trim(leading '0' from label)", "habit", "trim(leading '0' from label", "ltrim(label, '0')"],
  ["openformula", "substring(label from 2 for 3)", "habit", "substring(label from 2 for ", "MID(label;2;3)"],
  ["mariadb", "position('#', label)", "habit", ",", "position('#' in label)"],
  ["sql", "overlay(label, 'x', 1)", "habit", ", 'x',", "overlay(label placing 'x' from 1)"],
  ["sql", "substring(label, 2, 3)", "habit", ", 2,", "substring(label from 2 for 3)"],
  ["postgresql", "case n when 1 'a' end", "habit", "", "case n when 1 then 'a' end"],
  ["duckdb", "isnull(label, '')", "habit", "isnull", "coalesce(label, '')"],
  ["postgresql", "label == null", "habit", "==", "label is null"],
  ["postgresql", "f'{label} m'", "habit", "f'{label}", "label || ' m'"],
  ["xpath", "`${label} m`", "habit", "`${label} m`", "concat($label, ' m')"],
  ["postgresql", "extract(label, year)", "habit", "label, year", "extract(year from cast(label as date))"],
  ["mariadb", "trim('x', label)", "habit", "'x',", "trim(both 'x' from label)"],
  ["openformula", 'SPLIT(label;"#";2)', "unknown-function", "SPLIT", 'TRIM(MID(SUBSTITUTE(label;"#";REPT(" ";LEN(label)));(2-1)*LEN(label)+1;LEN(label)))'],
  ["postgresql", "lpad(n, 4, '0')", "argument-type", "lpad(n, 4, '0')", "lpad(cast(n as text), 4, '0')"],
  ["postgresql", "left(3, label)", "argument-type", "left(3, label)", "left(label, 3)"],
  ["postgresql", "substr(len(label), locate('a', label))", "unknown-function", "len", "substr(cast(length(label) as text), strpos(label, 'a'))"],
  ["mariadb", "to_date(label, 'YYYY')", "unknown-function", "to_date"],
  ["duckdb", "to_char(label, 'DD.MM.YYYY')", "unknown-function", "to_char", "strftime(cast(label as date), '%d.%m.%Y')"],
  ["mariadb", "strftime('%H:%M', label)", "unknown-function", "strftime", "date_format(label, '%H:%i')"],
  ["postgresql", "date_format(label, '%M %e')", "unknown-function", "date_format"],
  ["postgresql", "str_to_date(label, '%d/%m/%Y')", "unknown-function", "str_to_date", "to_date(label, 'DD/MM/YYYY')"],
  ["postgresql", "replace(label, ' ')", "argument-count", "replace", "replace(label, ' ', '')"],
  ["openformula", 'ISERROR(FIND("a";label);0)', "argument-count", "ISERROR", 'IFERROR(FIND("a";label);0)'],
  ["sqlite", "instr(label, ' ', 3)", "argument-count", "instr", "instr(substr(label, 3), ' ') + 3 - 1"],
  ["sqlite", "ifnull(label)", "argument-count", "ifnull"],
  ["xpath", "position($label, ' ')", "unknown-function", "position", "if (contains($label, ' ')) then string-length(substring-before($label, ' ')) + 1 else 0"],
  ["postgresql", "label[1:3]", "argument-type", "label[1:3]"],
  ["sqlite", "upper label", "habit", " label", "upper(label)"],
  ["duckdb", "label like %a%", "habit", "%a%", "label like '%a%'"],
  ["mariadb", "label contains 'a'", "habit", "abel contains 'a'", "locate('a', label) > 0"],
  ["openformula", 'label starts with "a"', "habit", 'label starts with "a"', 'EXACT(LEFT(label;LEN("a"));"a")'],
  ["postgresql", "label in ('a' 'b')", "habit", "", "label in ('a', 'b')"],
  ["postgresql", "label is not empty", "habit", "is not empty", "label <> ''"],
  ["duckdb", "n is not 3", "habit", "is not", "n <> 3"],
  ["postgresql", "label = 'a' or 'b'", "habit", "= 'a' or 'b'", "label in ('a', 'b')"],
  ["postgresql", "1 < n <= 3", "habit", "", "1 < n and n <= 3"],
  ["xpath", "not $n > 5 and $n < 9", "habit", " $n > 5", "not($n > 5) and $n < 9"],
  ["openformula", 'NOT label = "x"', "habit", ' label = "x"', 'NOT(label = "x")'],
  ["xpath", "$label like '%a'", "habit", "$label like '%a'", "ends-with($label, 'a')"],
  ["openformula", 'label like "A_"', "extra-text", 'like "A_"'],
  ["xpath", "$n between 5 and 10", "habit", "between 5 and", "$n >= 5 and $n <= 10"],
  ["xpath", "$n in (1, 2)", "habit", "in", "$n = (1, 2)"],
  ["xpath", "if ($n > 5, 'a', 'b')", "habit", ", 'a', 'b')", "if ($n > 5) then 'a' else 'b'"],
  ["postgresql", "position(label, ' ')", "habit", "label, ' '", "position(' ' in label)"],
  ["postgresql", "upper[label]", "habit", "[label]", "upper(label)"],
  ["mariadb", "concat label, 'x'", "habit", " label, 'x'", "concat(label, 'x')"],
  ["duckdb", "strpos(label ' ')", "habit", "", "strpos(label, ' ')"],
  ["mariadb", "trim(leading '0' label)", "habit", "", "trim(leading '0' from label)"],
  ["sqlite", "label ?? 'none'", "habit", "label ?? 'none'", "coalesce(label, 'none')"],
  ["postgresql", "`label` =~ 'a'", "habit", "`label` =", "label ~ 'a'"],
  ["mariadb", "case n when > 100 then 'a', else 'b' end", "habit", "n when > 100 then 'a',", "case when n > 100 then 'a' else 'b' end"],
  ["sqlite", "label like 'A%' or like 'B%'", "habit", "", "label like 'A%' or label like 'B%'"],
  ["duckdb", "regexp_split(label, ' ')", "unknown-function", "regexp_split"],
  ["postgresql", "try_cast(n as text)", "expected", "as"],
  ["xpath", "$label != null", "habit", "$label != null", "not(empty($label))"],
  ["openformula", "label is null", "habit", "label is null", "ISBLANK(label)"],
  ["postgresql", "n between 2, 3", "habit", ",", "n between 2 and 3"],
  ["postgresql", "substring(label 1, 3)", "habit", "", "substring(label, 1, 3)"],
  ["postgresql", "label not null", "habit", "", "label is not null"],
  ["postgresql", "label ~ /^A/", "habit", "/^A/", "label ~ '^A'"],
  ["xpath", "replace($label, /[0-9]/, '')", "habit", "/[0-9]/", "replace($label, '[0-9]', '')"],
  ["postgresql", "regexp_replace(label, '\\d+')", "argument-count", "regexp_replace", "regexp_replace(label, '\\d+', '', 'g')"],
  ["postgresql", "replace(label, 'a' with 'b')", "habit", " with", "replace(label, 'a', 'b')"],
  ["postgresql", "cast(n to text)", "habit", "to", "cast(n as text)"],
  ["postgresql", "convert(n, text)", "habit", "onvert(n,", "cast(n as text)"],
  ["postgresql", "n::int::varchar(10", "habit", "", "n::int::varchar(10)"],
  ["postgresql", "datepart(year, label)", "habit", "datepart(year, label", "extract(year from cast(label as date))"],
  ["postgresql", "nvl2(label, 1, 2)", "habit", "nvl2(label, 1, 2)", "case when label is null then 2 else 1 end"],
  ["postgresql", "decode(label, 'a', 1, 2)", "habit", "decode(label, 'a', 1, 2)", "case when label = 'a' then 1 else 2 end"],
  ["postgresql", "group_concat(label, ',')", "habit", "group_concat", "string_agg(label, ',')"],
  ["mariadb", "string_agg(label, ',')", "habit", "string_agg(label,", "group_concat(label separator ',')"],
  ["postgresql", "n div 7", "habit", "n div 7", "div(n, 7)"],
  ["openformula", "n // 7", "habit", "n // 7", "QUOTIENT(n;7)"],
  ["openformula", "n % 7", "habit", "n % 7", "MOD(n;7)"],
  ["postgresql", "n > 1 & n < 5", "habit", "&", "n > 1 and n < 5"],
  ["xpath", "$n > 1 & $n < 5", "habit", "&", "$n > 1 and $n < 5"],
  ["openformula", "UPPER(LEFT(label);1)", "habit", ");1", "UPPER(LEFT(label;1))"],
  ["openformula", "LEFT(UPPER(label;1))", "habit", ";1)", "LEFT(UPPER(label);1)"],
  ["xpath", "upper-case(substring($label, 1), 1)", "habit", "), 1", "upper-case(substring($label, 1, 1))"],
  ["xpath", "$label . 'x'", "habit", ".", "$label || 'x'"],
  ["xpath", "$label || ' ' $n", "habit", "", "$label || ' ' || $n"],
  ["xpath", "string-join($label, ', ', $n)", "habit", "$label, ', ', $n", "string-join(($label, $n), ', ')"],
  ["xpath", "!$label", "habit", "!$label", "not($label)"],
  ["xpath", "substring-after-last($label, '/')", "unknown-function", "substring-after-last", "tokenize($label, '/', 'q')[last()]"],
  ["openformula", "IFERROR(FIND(\"x\";label))", "argument-count", "IFERROR", "IFERROR(FIND(\"x\";label);\"\")"],
  ["mariadb", "label ilike 'a%'", "habit", "i", "label like 'a%'"],
  ["mariadb", "trim(label, 'x')", "habit", "label, 'x'", "trim(both 'x' from label)"],
  ["sql", "trim(label, 'x')", "habit", "label, 'x'", "trim(both 'x' from label)"],
  ["mariadb", "datediff(day, label, '2020-01-01')", "habit", "day, label, '2020-01-01'", "datediff('2020-01-01', label)"],
  ["mariadb", "case when label = 'a' then 1 when 2 end", "habit", "when", "case when label = 'a' then 1 else 2 end"],
  ["duckdb", "to_char(n, '00000')", "unknown-function", "to_char", "printf('%05d', n)"],
  ["sqlite", "to_char(n, '0.00')", "unknown-function", "to_char", "printf('%.2f', n)"],
  ["openformula", "PRINTF(\"%.2f\";n)", "unknown-function", "PRINTF", "TEXT(n;\"0.00\")"],
  ["duckdb", "list_transform(string_split(label, ' '), upper)", "habit", "upper", "list_transform(string_split(label, ' '), x -> upper(x))"],
  ["duckdb", "try_cast(label as intger)", "unknown-type", "intger", "try_cast(label as integer)"],
  ["duckdb", "replace(label, ['a', 'b'], '')", "argument-type", "replace(label, ['a', 'b'], '')"],
  ["xpath", "substring($label, 1, 3, 4)", "argument-count", "4"],
  ["sqlite", "n ^ 2", "habit", "n ^ 2", "power(n, 2)"],
  ["postgresql", "dateadd(month, n, label)", "habit", "dateadd(month, n, label", "cast(cast(label as date) + n * interval '1 month' as date)"],
  ["postgresql", "label::date + interval 1 month", "habit", "1 month", "label::date + interval '1 month'"],
  ["postgresql", "datediff(year, label, '2020-01-01')", "habit", "datediff(year, label, '2020-01-01'", "extract(year from age(cast('2020-01-01' as date), cast(label as date)))"],
  ["postgresql", "last_day(label)", "unknown-function", "last_day", "cast(date_trunc('month', cast(label as date)) + interval '1 month' - interval '1 day' as date)"],
  ["duckdb", "months_between('2020-01-01', label)", "habit", "months_between('2020-01-01', label", "date_sub('month', cast(label as date), cast('2020-01-01' as date))"],
  ["mariadb", "label + interval '2 weeks'", "habit", "'2 weeks'", "label + interval 2 week"],
  ["mariadb", "date_trunc('month', label)", "habit", "trunc('month', label", "date_format(label, '%Y-%m-01')"],
  ["sqlite", "label - interval 3 hour", "habit", "label - interval 3 hour", "datetime(label, -3 || ' hours')"],
  ["sqlite", "date_sub(label, interval 1 year)", "habit", "_sub(label, interval 1 year", "date(label, -12 || ' months', 'floor')"],
  ["openformula", "DATEADD(\"m\";2;label)", "habit", "DATEADD(\"m\";2;label", "TEXT(EDATE(DATEVALUE(label);2);\"yyyy-mm-dd\")"],
  ["xpath", "xs:date($label) + 30", "habit", "30", "xs:date($label) + xs:dayTimeDuration('P30D')"],
  ["xpath", "xs:date($label) - 'P1M'", "habit", "'P1M'", "xs:date($label) - xs:yearMonthDuration('P1M')"],
  ["xpath", "xs:date($label) + 'PT36H'", "habit", "'PT36H'", "xs:date($label) + xs:dayTimeDuration('PT36H')"],
  ["postgresql", "label::date + '1 day'", "habit", "", "label::date + interval '1 day'"],
  ["duckdb", "label - '3 months'", "habit", "label - '3 months'", "cast(cast(label as date) + to_months(-3) as date)"],
  ["postgresql", "label + ' 2 years'", "habit", "+", "label || ' 2 years'"],
  ["sqlite", "date_add(label, interval 1 day)", "habit", "_add(label, interval 1 day", "date(label, 1 || ' days')"],
  ["sqlite", "substr(label from 1 for 3)", "habit", " from 1 for", "substr(label, 1, 3)"],
  ["openformula", 'CONCAT_WS(", ";label;n;"x")', "unknown-function", "CONCAT_WS", 'TEXTJOIN(", ";TRUE();TEXTJOIN(", ";TRUE();label;n);"x")'],
];

describe("problems have a code, a place and a mend", () => {
  const named = problems.map(([dialect, source, code, text, mended]) => ({ dialect, source, code, text, mended }));
  test.each(named)("$dialect $source: $code", ({ dialect, source, code, text, mended }) => {
    const { diagnostics, ok } = program(dialect, source);
    const [first] = diagnostics;
    expect(first.code).toBe(code);
    expect(source.slice(first.range.start, first.range.end)).toBe(text);
    expect(message(first)).toMatch(/^\S.*[.?)\]]$/s);
    expect(ok).toBe(first.severity === "warning");
    if (mended === undefined) return;
    expect(applyFix(source, first.fixes[0])).toBe(mended);
  });
});

describe("what counts places from 0 in other languages gives the same where it is mended", () => {
  const texts = ["Alnus, glutinosa", "a,b,c", "Salix,x y"];
  // The host is such a language: what it gives is wanted.
  const wanted: Readonly<Record<string, (label: string) => string | number | boolean>> = {
    "label.slice(0, 3)": (label) => label.slice(0, 3),
    "label.slice(2, 5)": (label) => label.slice(2, 5),
    "label.slice(-3)": (label) => label.slice(-3),
    "label.substring(2, 4)": (label) => label.substring(2, 4),
    "label.substring(0, label.indexOf(','))": (label) => label.substring(0, label.indexOf(",")),
    "label.substring(label.indexOf(',') + 1)": (label) => label.substring(label.indexOf(",") + 1),
    "label.slice(1, label.indexOf(','))": (label) => label.slice(1, label.indexOf(",")),
    "label.charAt(1)": (label) => label.charAt(1),
    "label.indexOf(',')": (label) => label.indexOf(","),
    "3 * label.indexOf(',')": (label) => 3 * label.indexOf(","),
    "label.split(',')[0]": (label) => label.split(",")[0],
    "label.split(',')[1].length()": (label) => label.split(",")[1].trim().length,
    "label[:3]": (label) => label.slice(0, 3),
    "label[-2:]": (label) => label.slice(-2),
    "label[:-2]": (label) => label.slice(0, -2),
    "label[0]": (label) => label[0],
    "label[-1]": (label) => label.slice(-1),
  };
  const inDialect: Readonly<Record<string, (source: string) => string>> = {
    openformula: (source) => source.replaceAll("'", '"'),
    xpath: (source) => source.replaceAll("label", "$label"),
  };
  const written = Object.entries(wanted);
  test.each(["openformula", "postgresql", "mariadb", "sqlite", "xpath"])("%s", (id) => {
    const dialect = dialects[id]();
    const rows = sampleOf(texts.map((label) => ({ label: label.replace(", ", ",") })));
    // A single $x[n] is an item of a sequence in XPath, which is no mistake.
    const asked = written.filter(([source]) => id !== "xpath" || !/^label\[-?\d\]$/.test(source));
    for (const [plain, javascript] of asked) {
      const source = inDialect[id]?.(plain) ?? plain;
      const { fixes } = compile(dialect, source, rows).diagnostics[0] ?? { fixes: [] };
      const mended = fixes[0] ? applyFix(source, fixes[0]) : "";
      const given = compile(dialect, mended, rows)
        .run(rows)
        .map((value) => dialect.plain(value));
      expect([source, mended, given]).toEqual([source, mended, rows.columns[0].values.map((label) => javascript(String(label)))]);
    }
  });
});

test("the same slip all over a long text is tried so many times, and told", () => {
  const dialect = dialects.openformula();
  let parsed = 0;
  const counting = {
    ...dialect,
    parse(...given: Parameters<typeof dialect.parse>) {
      parsed++;
      return dialect.parse(...given);
    },
  };
  const { ok, diagnostics } = compile(counting, Array(40).fill("FIND(' ';label)").join("&"), sample);
  expect([ok, diagnostics.length, diagnostics[0].fixes.length]).toEqual([false, 40, 1]);
  // Without a bound it would be thousands.
  expect(parsed).toBeLessThan(700);
});

test("a word is no column that there is not", () => {
  expect(program("mariadb", "if n > 1").diagnostics.flatMap(({ fixes }) => fixes)).toEqual([]);
  expect(program("xpath", "where $n").diagnostics.flatMap(({ fixes }) => fixes)).toMatchObject([{ title: "Write $n" }]);
});

test.each(Object.keys(dialects))("%s: the names that every object has are unknown like others", (dialect) => {
  for (const name of ["constructor", "__proto__", "toString", "hasOwnProperty"]) {
    for (const source of [
      name,
      `${name}(1)`,
      `xs:${name}('1')`,
      `'a'::${name}`,
      `1 ${name} 2`,
      `extract(${name} from date '2019-04-03')`,
    ]) {
      const typed = program(dialect, source);
      expect({ source, outcome: typed.run(sample)[0] }).toMatchObject({ source, outcome: { code: expect.any(String) } });
      for (const diagnostic of typed.diagnostics) expect(message(diagnostic)).toMatch(/^\S/);
    }
  }
  const rows = sampleOf([{ constructor: "x" }, { label: "y" }]);
  expect(rows.columns[0]).toEqual({ name: "constructor", values: ["x", null] });
});

test("a message names the choices", () => {
  const [unknown] = program("openformula", "lable").diagnostics;
  expect(message(unknown)).toBe("There is no column lable. Did you mean label? The columns are: label, 'Collector Notes', n.");
  const [count] = program("openformula", "MID(label)").diagnostics;
  expect(message(count)).toBe("MID takes 3 arguments, 1 given: MID(text; start; length).");
});

test("the caret stands under the place, on its own line of a longer source", () => {
  expect(drawCaret("a +\n  nosuch(1)", { start: 6, end: 12 })).toBe("  nosuch(1)\n  ^^^^^^");
  expect(drawCaret("1 +", { start: 3, end: 3 })).toBe("1 +\n   ^");
});

describe("an expression half typed", () => {
  const whole: readonly (readonly [string, string])[] = [
    ["openformula", 'IF(ISERROR(FIND("x";label));"none";MID(label;2;{1;2}))'],
    ["postgresql", "case when label like '%a\\_b%' then substring(label from 2 for n) else coalesce(label, E'\\n') || 'x' end"],
    ["xpath", "for $x in tokenize($label, ',')[. != ''] return map { 'a': [1, $x] }?a => string-join('-')"],
  ];

  /** Every child lies within its parent, and the tree within the source. */
  function nested(node: Expression, start: number, end: number): void {
    expect(node.range.start).toBeGreaterThanOrEqual(start);
    expect(node.range.end).toBeLessThanOrEqual(end);
  }

  test.each(whole)("%s: every beginning gives a tree and never throws", (dialect, source) => {
    for (let length = 0; length <= source.length; length++) {
      const half = source.slice(0, length);
      const typed = program(dialect, half);
      const { tree, diagnostics } = typed;
      nested(tree, 0, half.length);
      const pending = [tree];
      for (let node = pending.pop(); node; node = pending.pop()) pending.push(...childrenOf(node));
      expect(typed.run(sample)).toHaveLength(1);
      for (const { range } of diagnostics) expect(range.end).toBeLessThanOrEqual(half.length);
    }
    expect(program(dialect, source).diagnostics).toEqual([]);
  });

  test.each(Object.keys(dialects))("%s: random tokens never make it throw (seed 5)", (dialect) => {
    const next = random(5);
    const parts = [
      "label",
      "$label",
      "(",
      ")",
      ",",
      ";",
      "'",
      '"',
      "1",
      "2.5",
      "+",
      "-",
      "||",
      "&",
      "=",
      "left(",
      "LEFT(",
      "case",
      "when",
      "if",
      "then",
      "for $x in",
      "return",
      "[",
      "]",
      "{",
      "}",
      "::",
      "is",
      "not",
      "in",
      "like",
      "\ud800",
      " ",
      "#",
      "?",
      "!",
      "=>",
      "and",
    ];
    const untold: string[] = [];
    for (let i = 0; i < 3000; i++) {
      const source = Array.from({ length: 1 + Math.floor(next() * 9) }, () => parts[Math.floor(next() * parts.length)]).join(
        next() < 0.5 ? " " : "",
      );
      const typed = program(dialect, source);
      const [value] = typed.run(sample);
      const isBroken = typed.diagnostics.some(({ severity }) => severity === "error");
      if (value === undefined || (isBroken && !(value instanceof Failure))) untold.push(source);
    }
    expect(untold).toEqual([]);
  });
});

describe("limits", () => {
  test.each([
    ["openformula", "(".repeat(10_000) + "1" + ")".repeat(10_000), "too-deep"],
    ["postgresql", "(".repeat(10_000) + "1" + ")".repeat(10_000), "too-deep"],
    ["xpath", "(".repeat(10_000) + "1" + ")".repeat(10_000), "too-deep"],
    ["openformula", "1" + "+1".repeat(250_000), "too-deep"],
    ["postgresql", "not ".repeat(10_000) + "true", "too-deep"],
    ["xpath", "-".repeat(10_000) + "1", "too-deep"],
    ["openformula", "(".repeat(600), "too-deep"],
    ["openformula", `"${"x".repeat(5 << 20)}"`, "too-long"],
  ])("%s: a very large expression is refused by name", (dialect, source, code) => {
    const { diagnostics } = program(dialect, source);
    expect(diagnostics.map((d) => d.code)).toContain(code);
    expect(message(diagnostics.find((d) => d.code === code)!)).toMatch(/limit "(nestingDepth|expressionLength)"/);
  });

  test("a literal of one megabyte is read", () => {
    expect(program("openformula", `LEN("${"x".repeat(1 << 20)}")`).run(sample)).toEqual([1 << 20]);
  });

  test.each([
    ["openformula", 'REPT("x";1E12)', "text-too-long"],
    ["postgresql", "repeat('x', 2147483647)", "text-too-long"],
    ["postgresql", "lpad('x', 2147483647)", "text-too-long"],
    ["openformula", 'SUBSTITUTE(REPT("x";1000000);"x";REPT("y";1000))', "text-too-long"],
    ["openformula", 'REPT("x";200000000)&REPT("x";200000000)', "text-too-long"],
    ["postgresql", "cardinality(string_to_array(repeat('x', 1000001), null))", "list-too-long"],
    ["xpath", "count(tokenize(fold-left(1 to 20, ',', function($a, $b) { $a || $a }), ','))", "list-too-long"],
    ["xpath", "for $i in 1 to 1000000 return for $j in 1 to 1000000 return $i", "steps-spent"],
    ["xpath", "let $f := function($f) { $f($f) } return $f($f)", "calls-too-deep"],
    ["postgresql", "repeat('a', 60) ~ '(a*)(a*)(a*)(a*)(a*)\\1\\2b'", "pattern-budget"],
  ])("%s: %s is the error %s, not a crash", (dialect, source, code) => {
    const patient = compile(dialects[dialect](), source, sample, { ...defaultLimits, milliseconds: Infinity });
    expect(patient.run(sample)[0]).toMatchObject({ code });
  });

  test("a row ends when its time is spent, and a run when it is told to", () => {
    const source = "length(reverse(repeat(label, 20000000)))";
    const hurried = compile(dialects.postgresql(), source, sample, { ...defaultLimits, milliseconds: 1 });
    expect(hurried.run(sample)[0]).toMatchObject({ code: "time-spent" });
    // Work that is no row's, as finding a cause, is not held to a row's time.
    const start = Date.now();
    while (Date.now() < start + 5) expect(() => tick(1 << 17)).not.toThrow();
    const wide = sampleOf(Array.from({ length: 1000 }, (_, i) => ({ n: i })));
    const counted = compile(dialects.postgresql(), "n + 1", wide);
    let looks = 0;
    const values = counted.run(wide, { isStopped: () => ++looks > 2 });
    expect(values.slice(511, 513)).toEqual([512, expect.objectContaining({ code: "run-stopped" })]);
    expect(counted.run(wide, { milliseconds: -1 })[0]).toMatchObject({ code: "run-stopped" });
  });

  test.each([
    ["openformula", ";"],
    ["postgresql", ","],
    ["xpath", ","],
  ])("%s: of a hundred thousand mistakes the first are told", (dialect, separator) => {
    expect(program(dialect, `f(1${`${separator})`.repeat(100_000)}`).diagnostics.length).toBeLessThanOrEqual(100);
  });

  test("a list of many values is no deep tree", () => {
    const list = Array.from({ length: 20_000 }, (_, i) => `'c${i}'`).join();
    expect(program("postgresql", `label in (${list}) or label not in (${list})`).run(sample)).toEqual([true]);
  });

  const repeated = (count: number): Value => String(sample.columns[0].values[0]).repeat(count);

  test.each<[dialect: string, sign: string, operand: string, result: (count: number) => Value]>([
    ["openformula", "&", "label", repeated],
    ["postgresql", " || ", "label", repeated],
    ["duckdb", " || ", "label", repeated],
    ["mariadb", " or ", "label = 'x'", () => 0],
    ["sql", " || ", "label", repeated],
    ["sqlite", " || ", "label", repeated],
    ["xpath", " or ", "$label = 'x'", () => false],
  ])("%s: a long chain of %j is no deep tree, nor is one of 100 slow", (dialect, sign, operand, result) => {
    for (const count of [100, 2000]) {
      const chain = program(dialect, Array.from({ length: count }, () => operand).join(sign));
      const again = chain.dialect.parse(chain.dialect.print(chain.tree));
      expect({ ok: chain.ok, same: sameTree(chain.tree, again.tree) }).toEqual({ ok: true, same: true });
      expect(chain.run(sample)).toEqual([result(count)]);
    }
  });

  test.each(["duckdb", "mariadb", "postgresql", "sqlite"])("%s: what a form compares twice is worked out once", (dialect) => {
    const nested = (form: (inner: string) => string, depth: number): string =>
      depth === 0 ? "n" : form(nested(form, depth - 1));
    for (const form of [
      (x: string) => `coalesce(${x}, 1)`,
      (x: string) => `nullif(${x}, 9)`,
      (x: string) => `case when ${x} between 0 and 5 then 3 end`,
      (x: string) => `case when (${x}, 1) < (5, 1) then 3 end`,
    ]) {
      const deep = program(dialect, nested(form, 40));
      expect([deep.ok, deep.run(sample)]).toEqual([true, [3]]);
    }
  });

  test("a long row is no deep tree", () => {
    const row = `(${Array.from({ length: 3000 }, () => "n").join(", ")})`;
    for (const sign of ["=", "<", ">="])
      expect(program("postgresql", `${row} ${sign} ${row}`).run(sample)).toEqual([sign !== "<"]);
  });

  test("an aggregate of a column is worked out once for all its rows", () => {
    const values = Array.from({ length: 20_000 }, (_, i) => i);
    const wide = { columns: [{ name: "n", values }], rows: values.length };
    const counted = compile(dialects.openformula(), 'SUM(n)+COUNTIF(n;">10")', wide).run(wide);
    expect(counted[19_999]).toBe((19_999 * 20_000) / 2 + 19_989);
  });
});

// A column of texts beside a number: refused, an error on every row, or a comparison that says the same whatever the text says.
// prettier-ignore
test.each([
  ["postgresql", "qty > 3", "argument-type", "cast(qty as numeric) > 3", true],
  ["postgresql", "3 <> (upper(qty))", "argument-type", "3 <> cast(upper(qty) as numeric)", true],
  ["postgresql", "qty + n", "argument-type", "cast(qty as numeric) + n", 13.5],
  ["sql", "n = qty", "argument-type", "n = cast(qty as double precision)", false],
  ["duckdb", "qty * 2", "argument-type", "cast(qty as double) * 2", 21],
  ["openformula", "IF(qty<30;1;2)", "text-with-number", "IF(VALUE(qty)<30;1;2)", 1],
  ["sqlite", "qty >= 9", "text-with-number", "cast(qty as numeric) >= 9", 1],
  ["xpath", "$qty < 30", "text-with-number", "number($qty) < 30", true],
  ["sqlite", "qty between 1 and 30", "text-with-number", "cast(qty as numeric) between 1 and 30", 1],
  ["sqlite", "qty < n", undefined, "", 0],
  ["sqlite", "qty = null", undefined, "", null],
  ["mariadb", "qty > 9", undefined, "", 1],
  ["postgresql", "qty > '3'", undefined, "", false],
  ["openformula", 'n="3"', undefined, "", false],
] as const)("%s %s: texts are read as numbers", (id, source, code, mended, expected) => {
  const given = sampleOf([{ qty: "10.5", n: 3 }]);
  const valueOf = (expression: string) => dialects[id]().plain(compile(dialects[id](), expression, given).run(given)[0]);
  const { diagnostics } = compile(dialects[id](), source, given);
  expect(diagnostics.map((each) => each.code)).toEqual(code === undefined ? [] : [code]);
  if (code === undefined) expect(valueOf(source)).toBe(expected);
  else {
    expect(applyFix(source, diagnostics[0].fixes[0])).toBe(mended);
    expect(valueOf(mended)).toBe(expected);
  }
});
