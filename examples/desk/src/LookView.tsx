import { visibleText } from "indigo-quill/authoring";
import type { ColumnSurvey, Found, Remark } from "indigo-quill/survey";
import { useEffect, useState } from "react";
import type { Bench } from "./bench/client.ts";
import type { LookFindings } from "./bench/protocol.ts";

/** Entries of a list that are shown. */
const most = 12;

const quoted = (text: string): string => `"${visibleText(text, true)}"`;
const count = (number: number): string => number.toLocaleString("en");

/** What each column holds, and one of them in full. */
export function LookView({ bench, version }: { readonly bench: Bench; readonly version: number }) {
  const [found, setFound] = useState<LookFindings>();
  const [chosen, setChosen] = useState<string>();
  useEffect(() => {
    bench.ask("look", {}).then(setFound, () => undefined);
  }, [bench, version]);
  if (!found) return <p className="quiet waiting">Looking at the rows …</p>;
  const column = found.columns.find(({ survey }) => survey.name === chosen) ?? found.columns[0];
  return (
    <main className="look">
      <div className="survey" role="region" aria-label="Columns" tabIndex={0}>
        <table>
          <caption>
            {count(found.rows)} rows, {found.columns.length} columns
          </caption>
          <thead>
            <tr>
              <th scope="col">column</th>
              <th scope="col">kind</th>
              <th scope="col" className="number">
                nothing
              </th>
              <th scope="col" className="number">
                empty
              </th>
              <th scope="col" className="number">
                distinct
              </th>
              <th scope="col">commonest shape</th>
              <th scope="col">worth a look</th>
            </tr>
          </thead>
          <tbody>
            {found.columns.map(({ survey, remarks }) => (
              <tr key={survey.name} className={survey === column?.survey ? "selected" : ""}>
                <th scope="row">
                  <button
                    type="button"
                    className="link"
                    aria-pressed={survey === column?.survey}
                    onClick={() => setChosen(survey.name)}
                  >
                    {visibleText(survey.name, false)}
                  </button>
                </th>
                <td>{survey.exceptions.length > 0 ? `${survey.kind}, nearly` : survey.kind}</td>
                <td className="number">{count(survey.nothing)}</td>
                <td className="number">{count(survey.empty)}</td>
                <td className="number">{(survey.isEstimated ? "≈ " : "") + count(survey.distinct)}</td>
                <td>
                  {survey.shapes.length > 0 && <Share found={survey.shapes[0]} of={survey.rows} text={survey.shapes[0].what} />}
                </td>
                <td>
                  {remarks.length > 0 && `${remarks[0].what}${remarks.length > 1 ? ` and ${remarks.length - 1} more` : ""}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {column && <Detail {...column} />}
    </main>
  );
}

/** A text with the share of the rows that have it, as a bar. */
function Share({
  found,
  of,
  text = visibleText(found.what, true),
}: {
  readonly found: Found;
  readonly of: number;
  readonly text?: string;
}) {
  return (
    <span className="share">
      <svg viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">
        <rect width={Math.max(1, (100 * found.count) / Math.max(1, of))} height="10" />
      </svg>
      <span>{text}</span>
    </span>
  );
}

function Detail({ survey, remarks }: { readonly survey: ColumnSurvey; readonly remarks: readonly Remark[] }) {
  const { name, rows, lengths, shapes, top, cases, near } = survey;
  return (
    <section className="detail" aria-label={`About ${name}`} tabIndex={0}>
      <h2>{visibleText(name, false)}</h2>
      <p className="quiet">
        {survey.kind}
        {lengths && `; ${lengths.least} to ${lengths.most} characters, ${lengths.mean.toFixed(1)} on average`}
      </p>
      {remarks.length > 0 && (
        <>
          <h3>Worth a look</h3>
          <ul className="remarks">
            {remarks.map(({ what, rows: own, first, isAlike }) => (
              <li key={what}>
                {what}: {count(own)} {own === 1 ? "row" : "rows"},{" "}
                <span className="example">
                  {first
                    .map((each) => (isAlike ? quoted(each.what) : `${quoted(each.example)} on row ${each.row + 1}`))
                    .join(", ")}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      <Shares title="Shapes" found={shapes} of={rows} isPlain />
      <Shares title="Values" found={top} of={rows} all={survey.distinct} />
      <Shares title="Letters" found={cases} of={rows} isPlain />
      {near.length > 0 && (
        <>
          <h3>Nearly the same</h3>
          <ul className="remarks">
            {near.slice(0, most).map((group) => (
              <li key={group[0].what}>{group.map((each) => `${quoted(each.what)} ×${each.count}`).join("  ")}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function Shares({
  title,
  found,
  of,
  all = found.length,
  isPlain = false,
}: {
  readonly title: string;
  readonly found: readonly Found[];
  readonly of: number;
  readonly all?: number;
  /** Whether they are no texts of the rows, whose white space is shown. */
  readonly isPlain?: boolean;
}) {
  if (found.length === 0) return null;
  return (
    <>
      <h3>{title}</h3>
      <table className="shares">
        <tbody>
          {found.slice(0, most).map((each) => (
            <tr key={each.what}>
              <td>
                <Share found={each} of={of} {...(isPlain && { text: each.what })} />
              </td>
              <td className="number">{count(each.count)}</td>
              <td className="quiet">from row {each.row + 1}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {all > most && <p className="quiet">and {count(all - most)} more</p>}
    </>
  );
}
