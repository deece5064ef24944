/**
 * npm run collations -- --mariadb URL — writes packages/core/src/text/collations/unicode.ts anew from the weights
 * that a running MariaDB gives to the characters of Latin, Greek, Cyrillic, Armenian and kana, and to symbols.
 */
import { writeFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { open } from "@indigo-quill/engines";

const ranges = [
  [0x01, 0x58a],
  [0x1e00, 0x2b0d],
  [0x3000, 0x30ff],
  [0xfb00, 0xfb06],
  [0xff01, 0xffef],
];
const { values } = parseArgs({ options: { mariadb: { type: "string" } } });
const connection = await open("mariadb", values.mariadb);

const chars = ranges.flatMap(([first, last]) =>
  Array.from({ length: last - first + 1 }, (_, i) => String.fromCharCode(first + i)),
);
const outcomes = await connection.run({
  expression: "hex(weight_string(label collate utf8mb4_unicode_ci))",
  columns: [{ name: "label", type: "text" }],
  rows: chars.map((char) => [char]),
});
await connection.close();

/** Weights of four digits, of which a character has none, one or several. */
const weights = new Map(chars.map((char, i) => [char, outcomes[i].value.match(/.{4}/g) ?? []]));
// From FB40 on a weight is made from the code point, which needs no table.
const isListed = (weight) => weight < "FB40";
const groups = new Map();
for (const [char, [weight, ...more]] of weights) {
  if (weight === undefined || more.length > 0 || !isListed(weight)) continue;
  groups.set(weight, (groups.get(weight) ?? "") + char);
}
const ordered = [...groups].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, group]) => group);
const ignored = [...weights].filter(([, own]) => own.length === 0).map(([char]) => char);
const expansions = [...weights].flatMap(([char, own]) => {
  const others = own.map((weight) => groups.get(weight)?.[0]);
  return own.length > 1 && !others.includes(undefined) ? [char + others.join("")] : [];
});

const written = (text) =>
  JSON.stringify(text).replace(/[\p{Cc}\xad\p{M}\p{Cf}\p{Zl}\p{Zp}\p{Zs}]/gu, (char) =>
    char === " " ? char : `\\u${char.charCodeAt(0).toString(16).padStart(4, "0")}`,
  );
const lines = (items) => {
  const result = [""];
  for (const item of items) {
    if (result.at(-1).length > 220) result.push("");
    result[result.length - 1] += `${item}\0`;
  }
  return result.map(written).join(" +\n  ");
};

writeFileSync(
  new URL("../packages/core/src/text/collations/unicode.ts", import.meta.url),
  `// Made by scripts/collations.js from ${connection.version}; do not edit.

// prettier-ignore
/**
 * Characters by their primary weight in utf8mb4_unicode_ci (Unicode Collation Algorithm 4.0.0), in ascending order:
 * groups that weigh the same, with U+0000 after each.
 */
export const unicodeOrder: string =
  ${lines(ordered)};

// prettier-ignore
/** Characters that weigh nothing. */
export const unicodeIgnored: string = ${written(ignored.join(""))};

// prettier-ignore
/** Characters that weigh like several others, which follow them; U+0000 after each. */
export const unicodeExpansions: string =
  ${lines(expansions)};
`,
);
