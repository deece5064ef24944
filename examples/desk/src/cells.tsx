import { type Dialect, Failure, type Value, message } from "indigo-quill";
import { visibleText } from "indigo-quill/authoring";

/** UTF-16 units of a text that a cell shows. */
const shownLength = 300;

/** A text with its white space shown in a quiet colour; the end of a long one is left out. */
export function Text({ text }: { readonly text: string }) {
  if (text === "") return <span className="quiet">empty text</span>;
  const parts = visibleText(text.slice(0, shownLength), true)
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
      {text.length > shownLength && <span className="quiet"> … {text.length} in all</span>}
    </>
  );
}

/** A value in a table: nothing and errors told apart from texts, with what the error says as a tooltip. */
export function Cell({ value, dialect }: { readonly value: Value; readonly dialect: Dialect | undefined }) {
  if (value === null) return <span className="quiet">nothing</span>;
  if (value instanceof Failure) {
    return (
      <span className="failure" title={message(value)}>
        {value.standard ?? value.code}
      </span>
    );
  }
  if (typeof value === "string") return <Text text={value} />;
  const plain = dialect ? dialect.plain(value) : value;
  return <span className="plain">{typeof plain === "object" ? JSON.stringify(plain) : String(plain)}</span>;
}
