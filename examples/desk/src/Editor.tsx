import { type Diagnostic, type Program, applyFix, message } from "indigo-quill";
import { dialects } from "indigo-quill/dialects";
import { useId, useRef } from "react";

interface EditorProps {
  readonly label: string;
  readonly dialect: string;
  readonly text: string;
  readonly program: Program;
  readonly onDialect: (id: string) => void;
  readonly onText: (text: string) => void;
}

/** An expression with its dialect; what is wrong is underlined as one types, and said below with its mends. */
export function Editor({ label, dialect, text, program, onDialect, onText }: EditorProps) {
  const id = useId();
  const backdrop = useRef<HTMLPreElement>(null);
  const problems = text === "" ? [] : program.diagnostics;
  return (
    <section className="editor" aria-label={label}>
      <div className="editor-head">
        <label htmlFor={id}>{label}</label>
        <select aria-label={`${label}: dialect`} value={dialect} onChange={(event) => onDialect(event.target.value)}>
          {Object.entries(dialects).map(([name, make]) => (
            <option key={name} value={name}>
              {make().title}
            </option>
          ))}
        </select>
        <span className="type">{text !== "" && program.ok ? `gives ${program.type.replace(/[?*]$/, "")}` : ""}</span>
      </div>
      <div className="editor-text">
        <pre ref={backdrop} aria-hidden="true">
          {marked(text, problems)}
          {"\n"}
        </pre>
        <textarea
          id={id}
          value={text}
          rows={2}
          spellCheck={false}
          aria-invalid={problems.length > 0}
          aria-describedby={`${id}-problems`}
          onChange={(event) => onText(event.target.value)}
          onScroll={(event) => backdrop.current?.scrollTo(0, event.currentTarget.scrollTop)}
        />
      </div>
      <div id={`${id}-problems`} className="problems" role="status">
        {problems.slice(0, 2).map((problem) => (
          <p key={`${problem.code}${problem.range.start}`} className={problem.severity}>
            {message(problem)}{" "}
            {problem.fixes.slice(0, 3).map((fix) => (
              <button key={fix.title} type="button" onClick={() => onText(applyFix(text, fix))}>
                {fix.title}
              </button>
            ))}
          </p>
        ))}
      </div>
    </section>
  );
}

/** The text with the ranges of problems marked; an empty range marks the character beside it. */
function marked(text: string, problems: readonly Diagnostic[]) {
  const parts: React.ReactNode[] = [];
  let at = 0;
  for (const { range, severity } of [...problems].sort((a, b) => a.range.start - b.range.start)) {
    const start = Math.max(at, range.start === range.end ? range.start - 1 : range.start);
    const end = Math.max(start, range.end);
    if (end === start) continue;
    parts.push(
      text.slice(at, start),
      <mark key={start} className={severity}>
        {text.slice(start, end)}
      </mark>,
    );
    at = end;
  }
  return [...parts, text.slice(at)];
}
