/** Makes the page answer: examples on a text that can be changed, questions found by words, and what differs from one dialect to another. */
import { compile, message, sampleOf } from "indigo-quill";
import { type Moved, movedTo } from "indigo-quill/authoring";
import { columnsOf, showValue } from "indigo-quill/contrast";
import { dialects } from "indigo-quill/dialects";
import { describeTrait } from "indigo-quill/traits";

const byId = (id: string): HTMLElement => document.getElementById(id)!;
const made = (name: string, text: string): HTMLElement => Object.assign(document.createElement(name), { textContent: text });

/** The column of the examples is the text that stands above them. */
function tryExamples(example: Element): void {
  const text = example.querySelector<HTMLInputElement>(".text")!.value;
  const sample = sampleOf([{ label: text }], { label: "text" });
  for (const output of example.querySelectorAll<HTMLOutputElement>("output")) {
    const { dialect, expression } = output.dataset;
    output.value = showValue(compile(dialects[dialect!](), expression!, sample).run(sample)[0]);
  }
}

for (const input of document.querySelectorAll<HTMLInputElement>(".text")) {
  input.readOnly = false;
  input.addEventListener("input", () => tryExamples(input.closest(".example")!));
}

/** Shows the questions in which every word stands. */
function find(words: string): void {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  let count = 0;
  for (const section of document.querySelectorAll<HTMLElement>("main > section")) {
    let shown = 0;
    for (const article of section.querySelectorAll<HTMLElement>("article")) {
      const text = article.textContent.toLowerCase();
      article.hidden = !wanted.every((word) => text.includes(word));
      if (!article.hidden) shown++;
    }
    section.hidden = shown === 0;
    count += shown;
  }
  (byId("tool-found") as HTMLOutputElement).value = wanted.length === 0 ? "" : count === 1 ? "1 question" : `${count} questions`;
}

const words = byId("tool-words") as HTMLInputElement;
words.addEventListener("input", () => find(words.value));

const [from, to] = [byId("tool-from") as HTMLSelectElement, byId("tool-to") as HTMLSelectElement];
for (const select of [from, to])
  for (const [id, make] of Object.entries(dialects)) select.append(Object.assign(made("option", make().title), { value: id }));
const moved = byId("tool-moved") as HTMLInputElement;

/** A difference: the question, both answers, and a row that shows it. */
function differenceOf({ trait, answers, row, values, call }: Moved["differences"][number]): HTMLElement {
  const { question, answers: known } = describeTrait(trait);
  const item = document.createElement("li");
  const link = Object.assign(document.createElement("a"), { href: `#${trait}`, textContent: question });
  item.append(link, made("p", `Here: ${known[answers[0]]}`), made("p", `There: ${known[answers[1]]}`));
  if (row && values) {
    const cells = Object.entries(row).map(([name, value]) => `${name} = ${showValue(value)}`);
    item.append(
      made(
        "p",
        `With ${cells.join(", ")} ${call ?? "it"} gives ${showValue(values[0])} here and would give ${showValue(values[1])}.`,
      ),
    );
  }
  return item;
}

/** What the functions of the expression answer differently in the other dialect; what a row shows comes first. */
function move(): void {
  const [own, target] = [dialects[from.value](), dialects[to.value]()];
  const columns = columnsOf([{ dialect: own, expression: moved.value }], {});
  const sample = sampleOf([], columns);
  const program = compile(own, moved.value, sample);
  const error = program.diagnostics.find(({ severity }) => severity === "error");
  if (error) {
    byId("tool-moves").replaceChildren(made("p", message(error)));
    return;
  }
  const parts = movedTo(program, target).map((part) => {
    const section = document.createElement("section");
    const there = part.there === undefined ? `no function of ${target.title} does its job` : `${part.there} in ${target.title}`;
    section.append(made("h3", `${part.name}: ${there}`));
    const list = document.createElement("ul");
    const shown = part.differences.filter(({ row }) => row);
    const hidden = part.differences.length - shown.length;
    list.append(...shown.map(differenceOf));
    const more = shown.length > 0 ? "more" : hidden === 1 ? "question" : "questions";
    if (hidden > 0) list.append(made("li", `${hidden} ${more} answered differently; no row was found on which it shows here.`));
    if (part.there !== undefined && part.differences.length === 0) list.append(made("li", "It answers every question alike."));
    section.append(list);
    return section;
  });
  byId("tool-moves").replaceChildren(...(parts.length > 0 ? parts : [made("p", "There is no function in it.")]));
}

for (const changed of [from, to, moved]) changed.addEventListener("input", move);
[from.value, to.value, moved.value] = ["openformula", "postgresql", 'LEFT(label;FIND(",";label)-1)'];
move();
for (const tool of document.querySelectorAll<HTMLElement>(".tool")) tool.hidden = false;
