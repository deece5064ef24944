import { visibleText } from "indigo-quill/authoring";
import { Cell } from "./cells.tsx";
import {
  type ContrastFindings,
  type Experiment,
  type ShortCause,
  type Shown,
  type SideFindings,
  type TableFindings,
  pageSize,
} from "./findings.ts";
import type { Scratch } from "./sample.ts";
import { wordsFor } from "./shown.ts";

interface RowsTableProps {
  readonly table: TableFindings;
  readonly sides: readonly SideFindings[];
  readonly contrast: ContrastFindings | undefined;
  /** What a side gives on the selected row in an experiment, in the place of its own value. */
  readonly tried: Experiment | undefined;
  readonly scratch: readonly Scratch[];
  /** What is wanted on rows, by their names, where that is asked; and what the chosen candidate gives on the rows of the page. */
  readonly wanted: Readonly<Record<string, string>> | undefined;
  readonly candidate: readonly Shown[] | undefined;
  /** Rows on which candidates differ. */
  readonly telling: readonly number[];
  /** 0-based, as rows are. */
  readonly selected: number;
  readonly rowName: (row: number) => string;
  readonly onSelect: (row: number) => void;
  readonly onPage: (page: number) => void;
  readonly onScratch: (index: number, name: string, text: string) => void;
  readonly onWanted: (row: number, text: string) => void;
  readonly onDropScratch: (index: number) => void;
}

/** Sample and scratch rows with the value of each expression; rows that differ are marked with their cause. */
export function RowsTable(props: RowsTableProps) {
  const { table, sides, contrast, scratch, wanted, candidate, selected, rowName, onSelect, onPage } = props;
  const { rowCount, columns, shownColumns, rows } = table;
  const pages = Math.max(1, Math.ceil(rowCount / pageSize));
  const page = rows.length > 0 ? Math.floor(rows[0].row / pageSize) : 0;

  /** Arrow keys move from row to row. */
  function onKeyDown(event: React.KeyboardEvent<HTMLTableRowElement>, row: number) {
    if (event.target !== event.currentTarget) return;
    const target = event.key === "ArrowDown" ? row + 1 : event.key === "ArrowUp" ? row - 1 : undefined;
    if (event.key === "Enter" || event.key === " ") onSelect(row);
    else if (target === undefined || target < 0 || target >= rowCount) return;
    else {
      onSelect(target);
      const sibling =
        event.key === "ArrowDown" ? event.currentTarget.nextElementSibling : event.currentTarget.previousElementSibling;
      if (sibling instanceof HTMLElement) sibling.focus();
    }
    event.preventDefault();
  }

  return (
    <div className="rows-table">
      <table>
        <thead>
          <tr>
            <th scope="col">row</th>
            {shownColumns.map((i) => (
              <th key={i} scope="col">
                {visibleText(columns[i], false)}
              </th>
            ))}
            {table.steps.map((text, i) => (
              <th key={i} scope="col" className="step">
                <code>{text}</code>
              </th>
            ))}
            {sides.map(({ title }, i) => (
              <th key={i} scope="col" className="result">
                {title}
              </th>
            ))}
            {wanted && (
              <th scope="col" className="result">
                wanted
              </th>
            )}
            {contrast && (
              <th scope="col" className="why">
                why they differ
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ row, cells, values, steps }) => {
            const causes = contrast?.causes.get(row);
            const isDiffering = contrast?.causes.has(row);
            return (
              <tr
                key={row}
                tabIndex={row === selected ? 0 : -1}
                aria-selected={row === selected}
                className={[row === selected && "selected", isDiffering && "differs", row < scratch.length && "scratch"]
                  .filter(Boolean)
                  .join(" ")}
                onClick={() => onSelect(row)}
                onKeyDown={(event) => onKeyDown(event, row)}
              >
                <th scope="row">
                  {rowName(row)}
                  {row < scratch.length && (
                    <button
                      type="button"
                      className="drop"
                      aria-label={`Remove scratch row ${rowName(row)}`}
                      onClick={() => props.onDropScratch(row)}
                    >
                      ×
                    </button>
                  )}
                </th>
                {shownColumns.map((i, place) => {
                  const name = columns[i];
                  return (
                    <td key={i}>
                      {row < scratch.length ? (
                        <input
                          aria-label={`${visibleText(name, false)} of scratch row ${rowName(row)}`}
                          placeholder={(scratch[row][name] ?? null) === null ? "nothing" : "empty text"}
                          value={scratch[row][name] ?? ""}
                          onChange={(event) => props.onScratch(row, name, event.target.value)}
                        />
                      ) : (
                        <Cell value={cells[place]} />
                      )}
                    </td>
                  );
                })}
                {steps.map((value, i) => (
                  <td key={i} className="step">
                    {value && <Cell value={value} />}
                  </td>
                ))}
                {values.map((value, i) => {
                  const isTried = row === selected && props.tried?.side === i;
                  return (
                    <td key={i} className={isTried ? "result tried" : "result"}>
                      {isTried ? (
                        <Cell value={props.tried.value} />
                      ) : (
                        value && <Cell value={value} apart={contrast?.apart.get(row)?.[i]} />
                      )}
                    </td>
                  );
                })}
                {wanted && (
                  <td className={props.telling.includes(row) ? "wanted telling" : "wanted"}>
                    <input
                      aria-label={`wanted on row ${rowName(row)}`}
                      value={wanted[rowName(row)] ?? ""}
                      placeholder={candidate?.[row - rows[0].row] && wordsFor(candidate[row - rows[0].row])}
                      onChange={(event) => props.onWanted(row, event.target.value)}
                    />
                  </td>
                )}
                {contrast && <td className="why">{isDiffering && <Causes causes={causes} />}</td>}
              </tr>
            );
          })}
        </tbody>
      </table>
      {pages > 1 && (
        <nav aria-label="Pages">
          <button type="button" disabled={page === 0} onClick={() => onPage(page - 1)}>
            Earlier rows
          </button>{" "}
          rows {page * pageSize + 1} to {page * pageSize + rows.length} of {rowCount}{" "}
          <button type="button" disabled={page === pages - 1} onClick={() => onPage(page + 1)}>
            Later rows
          </button>
        </nav>
      )}
    </div>
  );
}

/** Both answers to the traits that explain a row, in a few words. */
function Causes({ causes }: { readonly causes: readonly ShortCause[] | undefined }) {
  if (!causes) return <span className="quiet">not looked for yet</span>;
  if (causes.length === 0) return <span className="quiet">no cause found</span>;
  return causes.map(({ trait, question, answers }) => (
    <span key={trait} title={question} className="trait">
      {trait}: {answers}
    </span>
  ));
}
