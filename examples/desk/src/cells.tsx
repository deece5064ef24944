import type { TextRange } from "indigo-quill";
import { visibleText } from "indigo-quill/authoring";
import type { Shown } from "./findings.ts";

/** A text with its white space shown in a quiet colour. */
function visible(text: string) {
  return visibleText(text, true)
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
}

interface TextProps {
  readonly text: string;
  readonly length: number;
  /** The stretch that is not the others'. */
  readonly apart?: TextRange | undefined;
}

/** A text with what is apart marked; the end of a long one is left out. */
function Text({ text, length, apart }: TextProps) {
  if (length === 0) return <span className="quiet">empty text</span>;
  const [start, end] = apart ? [apart.start, apart.end] : [0, 0];
  return (
    <>
      {visible(text.slice(0, start))}
      {end > start && <span className="apart">{visible(text.slice(start, end))}</span>}
      {visible(text.slice(end))}
      {length > text.length && <span className="quiet"> … {length} in all</span>}
    </>
  );
}

/** A value in a table: nothing and errors told apart from texts, with what the error says as a tooltip. */
export function Cell({ value, apart }: { readonly value: Shown; readonly apart?: TextRange | undefined }) {
  if (value.kind === "nothing") return <span className="quiet">nothing</span>;
  if (value.kind === "failure") {
    return (
      <span className="failure" title={value.sentence}>
        {value.code}
      </span>
    );
  }
  return value.kind === "text" ? <Text {...value} apart={apart} /> : <span className="plain">{value.text}</span>;
}
