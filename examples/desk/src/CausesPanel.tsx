import type { ExplainedParting } from "indigo-quill/contrast";
import type { ContrastFindings } from "./findings.ts";

interface CausesPanelProps {
  readonly contrast: ContrastFindings;
  readonly rowCount: number;
  /** 0-based; the group that it belongs to is told in full. */
  readonly selected: number;
  readonly rowName: (row: number) => string;
  readonly onRow: (row: number) => void;
  /** Whether the experiment of a cause is shown in the table, and turns it on or off. */
  readonly isTried: (cause: number) => boolean;
  readonly onTry: (cause: number, isOn: boolean) => void;
}

/** The rows that differ, grouped by why; the others' groups are told by their questions alone. */
export function CausesPanel({ contrast, rowCount, selected, rowName, onRow, isTried, onTry }: CausesPanelProps) {
  const { differing, unknown, groups } = contrast;
  const agreeing = unknown.length === 0 ? "They agree on every row" : "They differ on no row that can be compared";
  return (
    <section className="causes" aria-label="Where they part">
      <h2>{differing === 0 ? agreeing : `They differ on ${differing} of ${rowCount} rows`}</h2>
      {unknown.map(({ title, count, why }) => (
        <p key={title + why} className="quiet">
          What {title} gives is not known on {count} of {rowCount} rows: {why}
        </p>
      ))}
      {groups.map(({ rows, size, holdsSelected, parting, instead, effect, experiments }, i) => (
        <article key={i} className={holdsSelected ? "selected" : ""}>
          <p className="rows">
            {rows.map((row) => (
              <button key={row} type="button" aria-pressed={row === selected} onClick={() => onRow(row)}>
                {rowName(row)}
              </button>
            ))}
            {size > rows.length && ` and ${size - rows.length} more`}
          </p>
          {instead ? <p>{instead}.</p> : <Cause parting={parting} isFull={holdsSelected} />}
          {holdsSelected &&
            experiments.map((_, cause) => (
              <label key={cause} className="experiment">
                <input type="checkbox" checked={isTried(cause)} onChange={(event) => onTry(cause, event.target.checked)} /> show
                the experiment{experiments.length > 1 && ` ${cause + 1}`} in the table
              </label>
            ))}
          {holdsSelected && <p className="quiet">{effect}</p>}
        </article>
      ))}
    </section>
  );
}

/** Why the rows of a group differ. */
function Cause({ parting, isFull }: { readonly parting: ExplainedParting | undefined; readonly isFull: boolean }) {
  if (!parting) return <p>No step got the same on both sides and makes up the difference by what it gave.</p>;
  const { happened, does, causes, tried, further = [] } = parting;
  return (
    <>
      {isFull && <p>{happened}</p>}
      {isFull && does !== "" && <p className="quiet">{does}</p>}
      {causes.length === 0 && <p>No set of up to three traits explains it.</p>}
      {causes.map((cause, i) => (
        <dl key={i}>
          {cause.map(({ question, sides }) => (
            <div key={question}>
              <dt>{question}</dt>
              {isFull && sides.map((answer) => <dd key={answer}>{answer}</dd>)}
            </div>
          ))}
        </dl>
      ))}
      {isFull && tried && <p className="quiet">{tried}</p>}
      {further.map((other) => (
        <Cause key={other.happened} parting={other} isFull={isFull} />
      ))}
    </>
  );
}
