/**
 * npm run concordance — writes docs/concordance.md: every question about text with every dialect's answers, to be looked up and
 * cited. With --check it only says whether the file is what it would write.
 */
import { readFileSync, writeFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { concordanceOf } from "indigo-quill/authoring";
import { dialects } from "indigo-quill/dialects";
import { textFamilies } from "indigo-quill/text";

const { values } = parseArgs({ options: { check: { type: "boolean", default: false } } });
const path = new URL("../docs/concordance.md", import.meta.url);

const all = Object.values(dialects).map((make) => make());
const entries = concordanceOf(all).filter(({ families }) => families.some((family) => textFamilies.includes(family)));
const code = (text) => `\`${text.replaceAll("|", "\\|")}\``;
const given = ({ title, functions, converts }) =>
  `${title}: ${[...functions.map(({ name, collations }) => `${code(name)}${collations ? "\\*" : ""}`), ...(converts ? ["conversions"] : [])].join(", ")}`;
const section = ({ trait, question, isPurpose, answers }) =>
  [
    `## ${question}`,
    `\`${trait}\`${isPurpose ? ": the answer is what a function is for, not how it does it." : ""}`,
    ...answers
      .filter(({ dialects: some }) => some.length > 0)
      .map(
        ({ answer, consequence, example, dialects: some }) =>
          `- **${answer}**: ${consequence}${example ? ` ${code(example.call)} gives ${code(example.shown)}.` : ""} ${some.map(given).join("; ")}.`,
      ),
  ].join("\n\n");
const text = [
  "# Concordance",
  `Every question that Indigo Quill asks of a function on text, with the answers of ${all.map(({ source }) => source).join("; ")}. By these answers it evaluates; they are held to the standards' texts and to the engines (docs/dialects.md). With examples to try and the evidence of each function: \`npm run dev --workspace @indigo-quill/concordance\`; as data: \`npx iquill traits --json\`. An asterisk stands where a function answers so in some collations only. This page is written by \`npm run concordance\`.`,
  ...entries.map(section),
].join("\n\n");

if (!values.check) writeFileSync(path, `${text}\n`);
else if (readFileSync(path, "utf8") !== `${text}\n`) {
  console.error("docs/concordance.md is not what the tables say: run npm run concordance");
  process.exitCode = 1;
} else console.log(`concordance: ${entries.length} questions`);
