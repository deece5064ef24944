import type { Dialect } from "indigo-quill";
import { type Found, find } from "indigo-quill/authoring";
import { showValue } from "indigo-quill/contrast";
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from "react";

/** Answers that are shown. */
const most = 6;

interface FindBoxProps {
  /** Undefined until it is loaded. */
  readonly dialect: Dialect | undefined;
  readonly onTake: (written: string) => void;
}

/** A question in the author's words, answered as one types with what the dialect says it by. */
export function FindBox({ dialect, onTake }: FindBoxProps) {
  const [question, setQuestion] = useState("");
  const input = useRef<HTMLInputElement>(null);
  const found = useMemo(() => (dialect && question.trim() !== "" ? find(question, dialect, most) : []), [dialect, question]);

  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (event.key !== "k" || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      input.current?.focus();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  }, []);

  /** Arrow keys go from the question to its answers; Escape closes them. */
  function onKeyDown(event: KeyboardEvent<HTMLElement>) {
    if (event.key === "Escape") {
      setQuestion("");
      input.current?.focus();
      return;
    }
    const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    if (step === 0) return;
    const places = [...event.currentTarget.querySelectorAll<HTMLElement>("input, button")];
    places[places.indexOf(event.target as HTMLElement) + step]?.focus();
    event.preventDefault();
  }

  function take({ written }: Found) {
    setQuestion("");
    onTake(written);
  }

  return (
    <div className="find" role="search" onKeyDown={onKeyDown}>
      <label>
        Find{" "}
        <input
          ref={input}
          type="search"
          value={question}
          placeholder="text after the last slash"
          title="What you want to do, a function's name here or elsewhere, or what went wrong (Ctrl+K)"
          onChange={(event) => setQuestion(event.target.value)}
        />
      </label>
      {question.trim() !== "" && (
        <ul className="found" aria-label="Found">
          {found.length === 0 && <li className="quiet">Nothing is known by these words.</li>}
          {found.map((each) => (
            <li key={each.written}>
              <button type="button" onClick={() => take(each)}>
                <code>{each.written}</code> <span>{each.does}</span>
                {each.example && (
                  <span className="quiet">
                    {Object.entries(each.example.given)
                      .map(([name, value]) => `${name} ${showValue(value)}`)
                      .join(", ")}{" "}
                    → {showValue(each.example.value)}
                  </span>
                )}
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
