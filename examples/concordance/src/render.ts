import { compile, sampleOf } from "indigo-quill";
import { type ConcordanceEntry, concordanceOf, exampleColumn, examplesOf } from "indigo-quill/authoring";
import { showValue } from "indigo-quill/contrast";
import { dialects } from "indigo-quill/dialects";
import { families } from "indigo-quill/text";

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (char) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[char]!);

/** Functions that stand in a cell; the others are under the table. */
const mostNames = 6;

const all = Object.values(dialects).map((make) => make());

const titles: Readonly<Record<string, string>> = {
  extract: "Extracting",
  locate: "Searching",
  substitute: "Replacing",
  recase: "Case",
  "split-join": "Splitting and joining",
  trim: "Trimming",
  "measure-test": "Measuring and testing",
  pad: "Padding",
  convert: "Converting and calculating",
  logic: "Comparing and deciding",
  list: "Lists",
};

/** What an expression gives of a text, as it is shown. */
export function valueOf(dialect: string, expression: string, text: string): string {
  const sample = sampleOf([{ [exampleColumn]: text }], { [exampleColumn]: "text" });
  const [value] = compile(dialects[dialect](), expression, sample).run(sample);
  return showValue(value);
}

function cell(entry: ConcordanceEntry["answers"][number], id: string): string {
  const found = entry.dialects.find(({ dialect }) => dialect === id);
  if (!found) return "<td></td>";
  const names = found.functions.slice(0, mostNames).map(({ name, evidence, collations }) => {
    const told = collations ? `${evidence}; in ${collations.join(", ")} only` : evidence;
    return `<span title="${escaped(told)}">${escaped(name)}${collations ? "*" : ""}</span>`;
  });
  const rest = found.functions.length - names.length;
  const more = rest > 0 ? [`<i>and ${rest} more</i>`] : [];
  return `<td>${[...names, ...more, ...(found.converts ? ["<i>conversions</i>"] : [])].join(", ")}</td>`;
}

function evidenceOf({ answers }: ConcordanceEntry): string {
  const lines = answers.flatMap(({ answer, dialects: given }) =>
    given.map(({ title, functions }) => {
      const told = [...new Set(functions.map(({ evidence }) => evidence))].map((evidence) => {
        const named = functions
          .filter((each) => each.evidence === evidence)
          .map(({ name, collations }) => escaped(collations ? `${name} (${collations.join(", ")})` : name));
        return `${named.join(", ")}: ${escaped(evidence)}`;
      });
      return told.length === 0 ? "" : `<li><b>${escaped(title)}</b>, ${escaped(answer)}: ${told.join("; ")}</li>`;
    }),
  );
  return `<details><summary>Evidence</summary><ul>${lines.join("")}</ul></details>`;
}

function exampleHtml(entry: ConcordanceEntry): string {
  const found = examplesOf(all, entry.trait);
  if (!found) return "";
  const rows = found.of.map(
    ({ dialect, title, expression }) =>
      `<tr><th scope="row">${escaped(title)}</th><td><code>${escaped(expression)}</code></td><td><output data-dialect="${dialect}" data-expression="${escaped(expression)}">${escaped(valueOf(dialect, expression, found.text))}</output></td></tr>`,
  );
  return `<div class="example"><label>${exampleColumn} <input class="text" value="${escaped(found.text)}" readonly spellcheck="false"></label><table>${rows.join("")}</table></div>`;
}

const exampleOf = ({ example }: ConcordanceEntry["answers"][number]): string =>
  example
    ? ` <span class="shown"><code>${escaped(example.call)}</code> gives <code>${escaped(example.shown)}</code>.</span>`
    : "";

function questionHtml(entry: ConcordanceEntry): string {
  const { trait, question, isPurpose, operations, answers } = entry;
  const given = answers.filter(({ dialects: some }) => some.length > 0);
  const head = all.map(({ title }) => `<th scope="col">${escaped(title)}</th>`).join("");
  const rows = given.map(
    (each) =>
      `<tr><th scope="row"><b>${escaped(each.answer)}</b> ${escaped(each.consequence)}${exampleOf(each)}</th>${all.map(({ id }) => cell(each, id)).join("")}</tr>`,
  );
  const purpose = isPurpose ? " The answer is what a function is for, not how it does it." : "";
  return `<article id="${trait}"><h3><a href="#${trait}">${escaped(question)}</a> <code>${trait}</code></h3>
<p class="asked">Asked of what ${operations.map(({ summary }) => escaped(summary)).join("; of what ")}.${purpose}</p>
<div class="scroll"><table class="answers"><thead><tr><th scope="col">Answer</th>${head}</tr></thead><tbody>${rows.join("")}</tbody></table></div>
${exampleHtml(entry)}${evidenceOf(entry)}</article>`;
}

/** Every question with its answers, an example and the evidence, by what is done. */
export function questionsHtml(): string {
  const entries = concordanceOf(all);
  const seen = new Set<ConcordanceEntry>();
  const sections = families.map((family) => {
    const own = entries.filter((entry) => !seen.has(entry) && entry.families.includes(family));
    for (const entry of own) seen.add(entry);
    const title = titles[family] ?? `${family[0].toUpperCase()}${family.slice(1)}`;
    return { family, title, own };
  });
  const nav = sections.map(({ family, title, own }) => `<a href="#family-${family}">${title}</a> ${own.length}`);
  return [
    `<nav aria-label="What is done">${nav.join("")}</nav>`,
    ...sections.map(
      ({ family, title, own }) => `<section id="family-${family}"><h2>${title}</h2>${own.map(questionHtml).join("")}</section>`,
    ),
  ].join("\n");
}
