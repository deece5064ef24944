import { visibleText } from "indigo-quill/authoring";
import type { Shown } from "./findings.ts";

/** A text with its white space shown in a quiet colour; the end of a long one is left out. */
function Text({ text, length }: { readonly text: string; readonly length: number }) {
  if (length === 0) return <span className="quiet">empty text</span>;
  const parts = visibleText(text, true)
    .split(/([·⍽→⏎␍]|‹[0-9A-F]+›)/)
    .map((part, i) =>
      i % 2 === 1 ? (
        <span key={i} className={part === "·" ? "space" : "space odd"}>
          {part}
        </span>
      ) : (
        part
      ),
    );
  return (
    <>
      {parts}
      {length > text.length && <span className="quiet"> … {length} in all</span>}
    </>
  );
}

/** A value in a table: nothing and errors told apart from texts, with what the error says as a tooltip. */
export function Cell({ value }: { readonly value: Shown }) {
  if (value.kind === "nothing") return <span className="quiet">nothing</span>;
  if (value.kind === "failure") {
    return (
      <span className="failure" title={value.sentence}>
        {value.code}
      </span>
    );
  }
  return value.kind === "text" ? <Text {...value} /> : <span className="plain">{value.text}</span>;
}
