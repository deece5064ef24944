import type { Sample, TextRange } from "indigo-quill";
import { dialectTitles } from "indigo-quill/dialects/load";
import { type Ref, useMemo } from "react";
import { type ExpressionHandle, ExpressionText } from "./ExpressionText.tsx";
import type { Problem, SideFindings } from "./findings.ts";
import { useDialect } from "./useDialect.ts";

interface EditorProps {
  readonly ref?: Ref<ExpressionHandle> | undefined;
  readonly label: string;
  readonly dialect: string;
  readonly text: string;
  /** Undefined until they are known. */
  readonly findings: SideFindings | undefined;
  /** The first rows, whose columns and values may be written. */
  readonly sample: Sample;
  /** Where steps stand that differ from another expression's. */
  readonly places?: readonly TextRange[];
  /** What the innermost step around a place gives on the chosen row, in words. */
  readonly valueAt?: ((offset: number) => string | undefined) | undefined;
  /** Whether it stands among others, without a head of its own. */
  readonly isShort?: boolean;
  readonly onDialect?: (id: string) => void;
  readonly onText: (text: string) => void;
  readonly onRemove?: (() => void) | undefined;
}

const noPlaces: readonly TextRange[] = [];
const noProblems: readonly Problem[] = [];

/** An expression with its dialect; what is wrong is underlined as one types, and said below with its mends. */
export function Editor(props: EditorProps) {
  const {
    label,
    dialect,
    text,
    findings,
    sample,
    places = noPlaces,
    isShort = false,
    valueAt,
    onDialect,
    onText,
    onRemove,
  } = props;
  const loaded = useDialect(dialect);
  const problems = text === "" ? noProblems : (findings?.problems ?? noProblems);
  const known = useMemo(() => {
    const marks =
      problems.length > 0
        ? problems.map(({ range, severity }) => ({ range, name: severity }))
        : places.map((range) => ({ range, name: "step" }));
    return { dialect: loaded, sample, marks, valueAt };
  }, [loaded, sample, problems, places, valueAt]);
  const mend = problems.flatMap(({ mends }) => mends)[0];
  const formatted = findings?.formatted;
  return (
    <section className="editor" aria-label={label}>
      {!isShort && (
        <div className="editor-head">
          <span>{label}</span>
          <DialectSelect label={`${label}: dialect`} dialect={dialect} onDialect={(id) => onDialect?.(id)} />
          <button
            type="button"
            aria-label={`${label}: format`}
            title="Lay it out in lines, with only the brackets that are needed"
            disabled={formatted === undefined}
            onClick={() => onText(formatted!)}
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
      <ExpressionText
        ref={props.ref}
        label={label}
        text={text}
        known={known}
        isWrong={problems.length > 0}
        onText={onText}
        onMend={mend && (() => onText(mend.text))}
        onFormat={formatted === undefined ? undefined : () => onText(formatted)}
      />
      <Problems problems={problems} onText={onText} />
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
  problems,
  onText,
}: {
  readonly problems: readonly Problem[];
  readonly onText?: (text: string) => void;
}) {
  return (
    <div className="problems" role="status">
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
