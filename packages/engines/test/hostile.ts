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
 * Asks an engine about 300 texts that try to get out of their quotes and run a statement: as literals, as a value of the
 * sample, and (shortened to what all engines allow) as the name of its column. Gives what did not come back as it was.
 */
export async function hostile(connection: Connection, dialect: Dialect, harm: string): Promise<string[]> {
  const quote = (text: string) => `'${(dialect.id === "mariadb" ? text.replaceAll("\\", "\\\\") : text).replaceAll("'", "''")}'`;
  const escaped: string[] = [];
  for (let i = 0; i < 300; i++) {
    const [a, b, c] = [ends[i % ends.length], ends[(i * 7 + 3) % ends.length], ends[(i * 11 + (i >> 3)) % ends.length]];
    const text = i % 2 === 0 ? `a${a}${b}); ${harm}; ${c}` : `${b}${c} or 1; ${harm}${a}`;
    const name = `n${text}n`.slice(0, 50);
    const column = dialect.statements!.quoted(name);
    const asked = [`coalesce(${quote(text)}, '')`, `case when ${column} = ${quote(text)} then ${column} end`];
    for (const expression of asked) {
      const { program, rows } = await probe(connection, dialect, expression, sampleOf([{ [name]: text }]));
      const isHeld = program.ok && rows.every(({ agree, theirs }) => agree && "value" in theirs && theirs.value === text);
      if (!isHeld) escaped.push(expression);
    }
  }
  return escaped;
}
