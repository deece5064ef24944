import type { Sample } from "indigo-quill";
import { type Contrast, explainParting } from "indigo-quill/contrast";

interface CausesPanelProps {
  readonly contrast: Contrast;
  readonly sample: Sample;
  readonly rowName: (row: number) => string;
  readonly onRow: (row: number) => void;
}

/** The rows that differ, grouped by why. */
export function CausesPanel({ contrast, sample, rowName, onRow }: CausesPanelProps) {
  const differing = contrast.rows.filter((row) => !row.agree).length;
  const titles = contrast.programs.map((program) => program.dialect.title);
  return (
    <section className="causes" aria-label="Where they part">
      <h2>{differing === 0 ? "They agree on every row" : `They differ on ${differing} of ${sample.rows} rows`}</h2>
      {contrast.groups.slice(0, 20).map(({ side, parting, rows }) => {
        const explained = parting && explainParting(parting, [titles[0], titles[side]]);
        return (
          <article key={rows[0]}>
            <p className="rows">
              {rows.slice(0, 14).map((row) => (
                <button key={row} type="button" onClick={() => onRow(row)}>
                  {rowName(row)}
                </button>
              ))}
              {rows.length > 14 && ` and ${rows.length - 14} more`}
            </p>
            {!explained && (
              <p>No operation got the same inputs in both and gave another output: they do the job by different operations.</p>
            )}
            {explained && (
              <>
                <p>{explained.place}</p>
                <p className="quiet">{explained.outputs}</p>
                {explained.causes.length === 0 && <p>No set of up to three traits explains it.</p>}
                {explained.causes.map((cause, i) => (
                  <dl key={i}>
                    {cause.map(({ question, sides }) => (
                      <div key={question}>
                        <dt>{question}</dt>
                        {sides.map((answer) => (
                          <dd key={answer}>{answer}</dd>
                        ))}
                      </div>
                    ))}
                  </dl>
                ))}
              </>
            )}
          </article>
        );
      })}
    </section>
  );
}
