import { type Dialect, sampleOf } from "indigo-quill";
import { type Connection, probe } from "@indigo-quill/engines";

/** What may end a literal, a comment or a statement in one dialect or another. */
const ends = [
  "'",
  "''",
  "\\'",
  "\\",
  '"',
  "`",
  "$$",
  "$a$",
  "E'",
  "x'",
  "--",
  "-- \n",
  "#",
  "/*",
  "*/",
  "/*!",
  ";",
  "\n",
  "\r",
  ")",
  "||",
  "\u2019",
  "?",
  "$1",
  ":a",
  "%s",
  "{d '",
  "u&'",
  "\ufeff",
];

/**
 * Asks an engine about 300 texts that try to get out of their quotes and run a statement; as a literal, as a value of the
 * sample and as the name of a column. Gives the texts that did not come back as they were.
 */
export async function hostile(connection: Connection, dialect: Dialect, harm: string): Promise<string[]> {
  const quote = (text: string) => `'${(dialect.id === "mariadb" ? text.replaceAll("\\", "\\\\") : text).replaceAll("'", "''")}'`;
  const texts = Array.from({ length: 300 }, (_, i) => {
    const [a, b, c] = [ends[i % ends.length], ends[(i * 7 + 3) % ends.length], ends[(i * 11 + (i >> 3)) % ends.length]];
    return i % 2 === 0 ? `a${a}${b}); ${harm}; ${c}` : `${b}${c} or 1; ${harm}${a}`;
  });
  const held = texts.map(async (text) => {
    const sample = sampleOf([{ label: text }]);
    const answers = [];
    for (const expression of [`${quote(text)} || ''`, "label", `case when label = ${quote(text)} then label end`].map((each) =>
      dialect.id === "mariadb" ? each.replace(/^(.*) \|\| ''$/s, "concat($1)") : each,
    )) {
      const { program, rows } = await probe(connection, dialect, expression, sample);
      answers.push(program.ok && rows.every(({ agree, theirs }) => agree && "value" in theirs && theirs.value === text));
    }
    return answers.every(Boolean) ? [] : [text];
  });
  return (await Promise.all(held)).flat();
}
