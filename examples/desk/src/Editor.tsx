import type { TextRange } from "indigo-quill";
import { dialectTitles } from "indigo-quill/dialects/load";
import { useId, useRef } from "react";
import type { Problem, SideFindings } from "./findings.ts";

interface EditorProps {
  readonly label: string;
  readonly dialect: string;
  readonly text: string;
  /** Undefined until they are known. */
  readonly findings: SideFindings | undefined;
  /** Where steps stand that differ from another expression's. */
  readonly places?: readonly TextRange[];
  /** Whether it stands among others, without a head of its own. */
  readonly isShort?: boolean;
  readonly onDialect?: (id: string) => void;
  readonly onText: (text: string) => void;
  readonly onRemove?: (() => void) | undefined;
}

/** Characters that stand on a line of an expression among others. */
const shortLine = 42;

/** The lines that an expression among others takes. */
const linesOf = (text: string): number =>
  text.split("\n").reduce((sum, { length }) => sum + Math.max(1, Math.ceil(length / shortLine)), 0);

/** An expression with its dialect; what is wrong is underlined as one types, and said below with its mends. */
export function Editor({
  label,
  dialect,
  text,
  findings,
  places = [],
  isShort = false,
  onDialect,
  onText,
  onRemove,
}: EditorProps) {
  const id = useId();
  const backdrop = useRef<HTMLPreElement>(null);
  const problems = text === "" ? [] : (findings?.problems ?? []);
  return (
    <section className="editor" aria-label={label}>
      {!isShort && (
        <div className="editor-head">
          <label htmlFor={id}>{label}</label>
          <DialectSelect label={`${label}: dialect`} dialect={dialect} onDialect={(id) => onDialect?.(id)} />
          <button
            type="button"
            aria-label={`${label}: format`}
            title="Lay it out in lines, with only the brackets that are needed"
            disabled={findings?.formatted === undefined}
            onClick={() => onText(findings!.formatted!)}
          >
            Format
          </button>
          {onRemove && (
            <button type="button" aria-label={`${label}: remove`} title="Take this expression away" onClick={onRemove}>
              Remove
            </button>
          )}
          <span className="type">{findings?.isOk ? `gives ${findings.type}` : ""}</span>
        </div>
      )}
      <div className="editor-text">
        <pre ref={backdrop} aria-hidden="true">
          {marked(text, problems.length > 0 ? problems : places.map((range) => ({ range, severity: "step" })))}
          {"\n"}
        </pre>
        <textarea
          id={id}
          aria-label={isShort ? label : undefined}
          value={text}
          rows={Math.min(8, isShort ? linesOf(text) : Math.max(2, text.split("\n").length))}
          spellCheck={false}
          aria-invalid={problems.length > 0}
          aria-describedby={`${id}-problems`}
          onChange={(event) => onText(event.target.value)}
          onScroll={(event) => backdrop.current?.scrollTo(0, event.currentTarget.scrollTop)}
        />
      </div>
      <Problems id={`${id}-problems`} problems={problems} onText={onText} />
    </section>
  );
}

interface DialectSelectProps {
  /** What it is called where no label stands around it. */
  readonly label?: string;
  readonly dialect: string;
  readonly onDialect: (id: string) => void;
}

/** One of the dialects. */
export function DialectSelect({ label, dialect, onDialect }: DialectSelectProps) {
  return (
    <select aria-label={label} value={dialect} onChange={(event) => onDialect(event.target.value)}>
      {Object.entries(dialectTitles).map(([id, title]) => (
        <option key={id} value={id}>
          {title}
        </option>
      ))}
    </select>
  );
}

/** What is wrong, with its mends. */
export function Problems({
  id,
  problems,
  onText,
}: {
  readonly id?: string;
  readonly problems: readonly Problem[];
  readonly onText?: (text: string) => void;
}) {
  return (
    <div id={id} className="problems" role="status">
      {problems.slice(0, 2).map(({ severity, range, sentence, mends }) => (
        <p key={`${sentence}${range.start}`} className={severity}>
          {sentence}{" "}
          {onText &&
            mends.map((mend) => (
              <button key={mend.title} type="button" onClick={() => onText(mend.text)}>
                {mend.title}
              </button>
            ))}
        </p>
      ))}
    </div>
  );
}

/** The text with the ranges of problems, or of steps, marked; an empty range marks the character beside it. */
function marked(text: string, problems: readonly { readonly range: TextRange; readonly severity: string }[]) {
  const parts: React.ReactNode[] = [];
  let at = 0;
  for (const { range, severity } of [...problems].sort((a, b) => a.range.start - b.range.start)) {
    const start = Math.max(at, range.start === range.end ? range.start - 1 : range.start);
    const end = Math.max(start, range.end);
    if (end === start) continue;
    const Mark = severity === "step" ? "span" : "mark";
    parts.push(
      text.slice(at, start),
      <Mark key={start} className={severity}>
        {text.slice(start, end)}
      </Mark>,
    );
    at = end;
  }
  return [...parts, text.slice(at)];
}
