import type { Sample } from "indigo-quill";
import { type CauseGroup, type Contrast, explainParting } from "indigo-quill/contrast";

interface CausesPanelProps {
  readonly contrast: Contrast;
  readonly sample: Sample;
  /** 0-based; the group that it belongs to is told in full. */
  readonly selected: number;
  readonly rowName: (row: number) => string;
  readonly onRow: (row: number) => void;
}

/** The rows that differ, grouped by why; the others' groups are told by their questions alone. */
export function CausesPanel({ contrast, sample, selected, rowName, onRow }: CausesPanelProps) {
  const differing = contrast.rows.filter((row) => !row.agree).length;
  const titles = contrast.programs.map((program) => program.dialect.title);
  return (
    <section className="causes" aria-label="Where they part">
      <h2>{differing === 0 ? "They agree on every row" : `They differ on ${differing} of ${sample.rows} rows`}</h2>
      {contrast.groups.slice(0, 20).map((group) => (
        <article key={group.rows[0]} className={group.rows.includes(selected) ? "selected" : ""}>
          <p className="rows">
            {group.rows.slice(0, 14).map((row) => (
              <button key={row} type="button" aria-pressed={row === selected} onClick={() => onRow(row)}>
                {rowName(row)}
              </button>
            ))}
            {group.rows.length > 14 && ` and ${group.rows.length - 14} more`}
          </p>
          <Cause group={group} titles={[titles[0], titles[group.side]]} isFull={group.rows.includes(selected)} />
        </article>
      ))}
    </section>
  );
}

interface CauseProps {
  readonly group: CauseGroup;
  readonly titles: readonly [string, string];
  readonly isFull: boolean;
}

/** Why the rows of a group differ. */
function Cause({ group, titles, isFull }: CauseProps) {
  if (!group.parting)
    return <p>No operation got the same inputs in both and gave another output: they do the job by different operations.</p>;
  const { place, outputs, causes } = explainParting(group.parting, titles);
  return (
    <>
      {isFull && <p>{place}</p>}
      {isFull && <p className="quiet">{outputs}</p>}
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
    </>
  );
}
