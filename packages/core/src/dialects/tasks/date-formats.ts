import { type Part, filled } from "./said.ts";

/** How formats of dates name a part: with % (C), so without names (SQLite), in MariaDB, in the words of TO_CHAR, in letters as others have them, in XPath's pictures. */
const languagesOfParts = ["percent", "sqlite", "mariadb", "words", "letters", "picture"] as const;
type Language = (typeof languagesOfParts)[number];

/** Parts of dates by their tokens in each language, in that order; empty where there is none. A test writes dates by all of them. */
// prettier-ignore
const parts: readonly (readonly string[])[] = [
  ["%Y", "%Y", "%Y", "YYYY", "yyyy", "[Y0001]"], ["%y", "", "%y", "YY", "yy", "[Y01]"], ["%B", "", "%M", "FMMonth", "MMMM", "[MNn]"], ["%b", "", "%b", "Mon", "MMM", "[MNn,3-3]"],
  ["%m", "%m", "%m", "MM", "MM", "[M01]"], ["%d", "%d", "%d", "DD", "dd", "[D01]"], ["%H", "%H", "%H", "HH24", "HH", "[H01]"], ["%I", "%I", "%h", "HH12", "hh", "[h01]"],
  ["%M", "%M", "%i", "MI", "mm", "[m01]"], ["%S", "%S", "%s", "SS", "ss", "[s01]"], ["%p", "%p", "%p", "AM", "tt", "[PN]"], ["%A", "", "%W", "FMDay", "dddd", "[FNn]"],
  ["%a", "", "%a", "Dy", "ddd", "[FNn,3-3]"], ["%j", "%j", "%j", "DDD", "", "[d001]"],
];
/** Other ways to write a part, to the one that is told. */
const alike: Readonly<Partial<Record<Language, Readonly<Record<string, string>>>>> = {
  mariadb: { "%S": "%s", "%I": "%h" },
  letters: { YYYY: "yyyy", YY: "yy", DD: "dd", HH24: "HH", mi: "mm", MI: "mm", SS: "ss", Month: "MMMM", Mon: "MMM" },
};

/** The language of the formats of each dialect. */
const languages: Readonly<Record<string, Language>> = {
  postgresql: "words",
  mariadb: "mariadb",
  duckdb: "percent",
  sqlite: "sqlite",
  xpath: "picture",
  openformula: "letters",
};

const tokenOf = (part: readonly string[], language: Language): string => part[languagesOfParts.indexOf(language)];

/** The tokens of a language and other ways to write them, the longest first, each with the part that it is. */
function tokensOf(language: Language): (readonly [token: string, part: readonly string[]])[] {
  const others = Object.entries(alike[language] ?? {});
  const own = parts.flatMap((part) => {
    const token = tokenOf(part, language);
    return [token, ...others.flatMap(([other, told]) => (told === token ? [other] : []))].map((each) => [each, part] as const);
  });
  return own.filter(([token]) => token !== "").sort(([a], [b]) => b.length - a.length);
}

/** A format in another language, part by part; undefined where a letter stands for nothing there, or has no token in the other one. */
function rewritten(given: string, from: Language, to: Language): string | undefined {
  // What one token is short for.
  const format = from === "letters" ? given : given.replaceAll("%F", "%Y-%m-%d").replaceAll("%T", from === "mariadb" ? "%H:%i:%s" : "%H:%M:%S"); // prettier-ignore
  const tokens = tokensOf(from);
  let text = "";
  for (let at = 0; at < format.length;) {
    const [token, part] = tokens.find(([each]) => format.startsWith(each, at)) ?? [format[at]];
    const written = part ? tokenOf(part, to) : token;
    if (written === "" || (!part && /[%\p{L}]/u.test(token))) return undefined;
    text += written;
    at += token.length;
  }
  return text;
}

/** `yyyy-mm-dd`, where months are in small letters, too. */
const monthsTold = (format: string): string =>
  /M/.test(format) || !/y/i.test(format) ? format : format.replace(/(?<!:)mm(?!:)/g, "MM");

/**
 * A format of dates as it is written here, from what it is taken to be: with % or in letters.
 *
 * @param to the dialect, "words" for formats like those of TO_CHAR, or "letters"
 * @param of the dialect whose function it was written for, where that is known
 */
export function dateFormatFor(format: string, to: string, of?: string): string | undefined {
  const isPercent = /%[A-Za-z]/.test(format);
  const own = to === "words" || to === "letters" ? to : languages[to];
  if (own === undefined || !(isPercent || /y{2}|m{2}|d{2}|h{2}/i.test(format))) return undefined;
  if (!isPercent)
    return (
      (languages[of ?? ""] === "words" ? rewritten(format, "words", own) : undefined) ??
      rewritten(monthsTold(format), "letters", own)
    );
  return rewritten(format, languages[of ?? ""] === "mariadb" || /%i/.test(format) ? "mariadb" : "percent", own);
}

/** A format of dates in another language than that of here, as it is written here; undefined where it may be of here. */
export function foreignFormat(format: string, to: string): string | undefined {
  const own = to === "words" ? to : languages[to];
  const isPercent = /%[A-Za-z]/.test(format);
  // Letters and words are alike; a picture has brackets.
  const isForeign = own === "picture" ? !format.includes("[") : isPercent === (own === "words" || own === "letters");
  return isForeign ? dateFormatFor(format, to) : undefined;
}

/** Functions that write a date by a format, and such that read one, with the dialect that has them. */
const functions: Readonly<Record<string, readonly [does: "write" | "read", of: string | undefined]>> = {
  text: ["write", "openformula"], to_char: ["write", "postgresql"], date_format: ["write", "mariadb"], strftime: ["write", "duckdb"], format_date: ["write", undefined],
  to_date: ["read", "postgresql"], to_timestamp: ["read", "postgresql"], str_to_date: ["read", "mariadb"], strptime: ["read", "duckdb"], parse_date: ["read", undefined],
}; // prettier-ignore

/** What writes a date by a format, and what reads one: of days alone, and with a time. */
const said: Readonly<
  Record<"write" | "read", Readonly<Record<string, readonly [ofDays: string, withTime: string | undefined]>>>
> = {
  write: {
    postgresql: ["to_char(cast({date} as date), {format})", "to_char(cast({date} as timestamp), {format})"],
    mariadb: ["date_format({date}, {format})", "date_format({date}, {format})"],
    duckdb: ["strftime(cast({date} as date), {format})", "strftime(cast({date} as timestamp), {format})"],
    sqlite: ["strftime({format}, {date})", "strftime({format}, {date})"],
    xpath: ["format-date(xs:date({date}), {format})", "format-dateTime(xs:dateTime(translate({date}, ' ', 'T')), {format})"],
    openformula: ["TEXT(DATEVALUE({date});{format})", undefined],
  },
  read: {
    postgresql: ["to_date({date}, {format})", "cast(to_timestamp({date}, {format}) as timestamp)"],
    mariadb: ["str_to_date({date}, {format})", "str_to_date({date}, {format})"],
    duckdb: ["cast(strptime({date}, {format}) as date)", "strptime({date}, {format})"],
  },
};

/** What a function of another language that writes or reads dates by a format is here, its format in the language of here. */
export function dateFormatted(
  name: string,
  args: readonly Part[],
  dialect: string,
  literal: (text: string) => string,
): string | undefined {
  const known = Object.hasOwn(functions, name.toLowerCase()) ? functions[name.toLowerCase()] : undefined;
  const [quote] = literal("");
  const at = args.findIndex(({ text }) => text.startsWith(quote) && text.endsWith(quote));
  if (!known || args.length !== 2 || at < 0) return undefined;
  const [does, of] = known;
  const template = Object.hasOwn(said[does], dialect) ? said[does][dialect] : undefined;
  const format = dateFormatFor(args[at].text.slice(1, -1), dialect, of);
  if (!template || format === undefined) return undefined;
  const hasTime = /%[HIhiMSsp]|HH|MI|SS|\[[Hhms]|hh|ss/.test(
    languages[dialect] === "mariadb" ? format.replaceAll("%M", "") : format,
  );
  const wanted = template[hasTime ? 1 : 0];
  return wanted && filled(wanted, { date: args[1 - at], format: { text: literal(format), isOpen: false } });
}
