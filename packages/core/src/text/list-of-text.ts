import type { AnswerOf } from "../traits/index.ts";
import { Failure, type Value, asciiTrimmed, bad } from "../values/index.ts";
import { any, kept, operation } from "./operation.ts";

const blank = "[ \\t\\n\\v\\f\\r]*";
const single = `${blank}'(?<single>(?:[^'\\\\]|\\\\[^]|'')*)'${blank}`;
const double = `${blank}"(?<double>(?:[^"\\\\]|\\\\[^])*)"${blank}`;
const end = "(?<end>,|$)";

/** How a list is written: its brackets, its items with what ends each, and what is not covered within it. */
interface Form {
  readonly brackets: readonly [string, string];
  /** An item in quotes, or as it stands. */
  readonly item: RegExp;
  readonly refused: RegExp;
  readonly what: string;
  /** Whether an item may be blank where it is not in quotes. */
  readonly mayBeBlank: boolean;
  /** An item that is not in quotes. */
  readonly bare: (text: string) => string;
}

const unescaped = (text: string): string => text.replace(/\\([^])/g, "$1");

const forms: Readonly<Record<AnswerOf<"listForm">, Form>> = {
  "[a, b]": {
    brackets: ["[", "]"],
    item: new RegExp(`(?:${single}|${double}|(?<bare>(?:[^,'"\\\\]|\\\\[^])*))${end}`, "y"),
    refused: /[[{]/,
    what: "lists of lists as text",
    mayBeBlank: true,
    bare: (text) => text,
  },
  "{a,b}": {
    brackets: ["{", "}"],
    item: new RegExp(`(?:${double}|(?<bare>[^{}",]*))${end}`, "y"),
    refused: /^[ \t\n\v\f\r]*\{/,
    what: "arrays of arrays",
    mayBeBlank: false,
    bare: unescaped,
  },
};

/** The items between the brackets; undefined where they are none. */
function itemsOf(inner: string, { item, mayBeBlank, bare }: Form): readonly (string | null)[] | undefined {
  const items: (string | null)[] = [];
  item.lastIndex = 0;
  for (let more = true; more;) {
    const found: Readonly<Record<string, string | undefined>> | undefined = item.exec(inner)?.groups;
    if (!found) return undefined;
    const quoted = found.single ?? found.double;
    const plain = asciiTrimmed(found.bare ?? "");
    if (quoted === undefined && plain === "" && !mayBeBlank) return undefined;
    items.push(quoted !== undefined ? unescaped(quoted) : /^null$/i.test(plain) ? null : bare(plain));
    more = found.end === ",";
  }
  return items;
}

/** A text as the list of texts that is written there; lists stay. */
export const listOfText = operation({
  id: "list-of-text",
  family: "list",
  summary: "reads a text as a list",
  slots: [kept(any("value"))],
  traits: ["listForm"],
  prepare({ listForm }) {
    const form = forms[listForm];
    const [open, close] = form.brackets;
    return (value: Value = null): Value => {
      if (typeof value !== "string") return value;
      const text = asciiTrimmed(value);
      if (listForm === "{a,b}" && text.startsWith("["))
        return new Failure("not-covered", { what: "arrays whose first position is not 1" });
      const none = () => bad(`"${value}" is not a list`);
      if (text.length < 2 || !text.startsWith(open) || !text.endsWith(close)) return none();
      const inner = text.slice(1, -1);
      if (form.refused.test(inner)) return new Failure("not-covered", { what: form.what });
      return asciiTrimmed(inner) === "" ? [] : (itemsOf(inner, form) ?? none());
    };
  },
});
