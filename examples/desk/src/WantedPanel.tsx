import type { WantedFindings } from "./findings.ts";

/** Rows that are named among those that tell candidates apart. */
const mostRows = 8;

interface WantedPanelProps {
  /** Undefined as long as nothing is wanted, or it is being searched for. */
  readonly found: WantedFindings | undefined;
  /** The candidate whose values the table shows, 0-based. */
  readonly chosen: number;
  readonly rowName: (row: number) => string;
  readonly onChoose: (candidate: number) => void;
  readonly onTake: (expression: string) => void;
  readonly onRow: (row: number) => void;
}

/** The expressions that give what is wanted on the rows that say so, the simplest first, and the rows on which they differ. */
export function WantedPanel({ found, chosen, rowName, onChoose, onTake, onRow }: WantedPanelProps) {
  if (!found) return <p className="wanted-panel quiet">Write beside a few rows what you want there.</p>;
  const { candidates, telling } = found;
  return (
    <section className="wanted-panel" aria-label="Expressions that give what is wanted">
      {candidates.length === 0 && (
        <p role="status">
          Nothing that was tried gives this on all these rows. One of them may have a slip; or the values come from elsewhere.
        </p>
      )}
      <ol>
        {candidates.map(({ expression }, i) => (
          <li key={expression}>
            <label>
              <input type="radio" name="candidate" checked={i === chosen} onChange={() => onChoose(i)} />{" "}
              <code>{expression}</code>
            </label>{" "}
            <button type="button" onClick={() => onTake(expression)}>
              Take it
            </button>
          </li>
        ))}
      </ol>
      {telling.length > 0 && (
        <p className="rows">
          They differ on{" "}
          {telling.slice(0, mostRows).map((row) => (
            <button key={row} type="button" onClick={() => onRow(row)}>
              {rowName(row)}
            </button>
          ))}
          {telling.length > mostRows && ` and ${telling.length - mostRows} more`}: what you want there tells most.
        </p>
      )}
    </section>
  );
}
