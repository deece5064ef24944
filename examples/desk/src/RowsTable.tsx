import { type Program, type Sample, type Value, columnsUsed } from "indigo-quill";
import type { Contrast } from "indigo-quill/contrast";
import { describeTrait } from "indigo-quill/traits";
import { useState } from "react";
import { Cell } from "./cells.tsx";
import type { Scratch } from "./sample.ts";

interface RowsTableProps {
  readonly sample: Sample;
  readonly programs: readonly Program[];
  readonly values: readonly (readonly Value[])[];
  readonly contrast: Contrast | undefined;
  readonly scratch: readonly Scratch[];
  readonly selected: number;
  readonly rowName: (row: number) => string;
  readonly onSelect: (row: number) => void;
  readonly onScratch: (index: number, name: string, text: string) => void;
  readonly onDropScratch: (index: number) => void;
}

/** Rows on one page of the table. */
const pageSize = 200;

/** Sample and scratch rows with the value of each expression; rows that differ are marked with their cause. */
export function RowsTable(props: RowsTableProps) {
  const { sample, programs, values, contrast, scratch, selected, rowName, onSelect } = props;
  const [asked, setPage] = useState(0);
  const pages = Math.max(1, Math.ceil(sample.rows / pageSize));
  const page = Math.min(asked, pages - 1);
  const shown = Array.from({ length: Math.min(pageSize, sample.rows - page * pageSize) }, (_, i) => page * pageSize + i);
  const used = shownColumns(programs, sample);

  /** Arrow keys move from row to row. */
  function onKeyDown(event: React.KeyboardEvent<HTMLTableRowElement>, row: number) {
    if (event.target !== event.currentTarget) return;
    const target = event.key === "ArrowDown" ? row + 1 : event.key === "ArrowUp" ? row - 1 : undefined;
    if (event.key === "Enter" || event.key === " ") onSelect(row);
    else if (target === undefined || target < 0 || target >= sample.rows) return;
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
            {used.map((i) => (
              <th key={i} scope="col">
                {sample.columns[i].name}
              </th>
            ))}
            {programs.map((program, i) => (
              <th key={i} scope="col" className="result">
                {program.dialect.title}
              </th>
            ))}
            {contrast && (
              <th scope="col" className="why">
                why they differ
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {shown.map((row) => {
            const differs = contrast !== undefined && !contrast.rows[row].agree;
            return (
              <tr
                key={row}
                tabIndex={row === selected ? 0 : -1}
                aria-selected={row === selected}
                className={[row === selected && "selected", differs && "differs", row < scratch.length && "scratch"]
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
                {used.map((i) => {
                  const { name, values: cells } = sample.columns[i];
                  return (
                    <td key={i}>
                      {row < scratch.length ? (
                        <input
                          aria-label={`${name} of scratch row ${rowName(row)}`}
                          placeholder={scratch[row][name] === null ? "nothing" : "empty text"}
                          value={scratch[row][name] ?? ""}
                          onChange={(event) => props.onScratch(row, name, event.target.value)}
                        />
                      ) : (
                        <Cell value={cells[row]} dialect={undefined} />
                      )}
                    </td>
                  );
                })}
                {programs.map((program, i) => (
                  <td key={i} className="result">
                    {program.source !== "" && program.ok ? <Cell value={values[i][row]} dialect={program.dialect} /> : null}
                  </td>
                ))}
                {contrast && <td className="why">{differs ? shortCause(contrast, row) : ""}</td>}
              </tr>
            );
          })}
        </tbody>
      </table>
      {pages > 1 && (
        <nav aria-label="Pages">
          <button type="button" disabled={page === 0} onClick={() => setPage(page - 1)}>
            Earlier rows
          </button>{" "}
          rows {page * pageSize + 1} to {page * pageSize + shown.length} of {sample.rows}{" "}
          <button type="button" disabled={page === pages - 1} onClick={() => setPage(page + 1)}>
            Later rows
          </button>
        </nav>
      )}
    </div>
  );
}

/** The places of the columns that the expressions read; the first three while none does. */
function shownColumns(programs: readonly Program[], sample: Sample): number[] {
  const used = new Set(programs.flatMap((program) => [...columnsUsed(program)]));
  const all = sample.columns.map((_, i) => i);
  return used.size > 0 ? all.filter((i) => used.has(i)) : all.slice(0, 3);
}

/** Both answers to the traits that explain a row, in a few words. */
function shortCause(contrast: Contrast, row: number): React.ReactNode {
  const [difference] = contrast.rows[row].differences;
  const cause = difference?.parting?.causes[0];
  if (!cause) return <span className="quiet">no single operation</span>;
  return cause.map(({ trait, answers }) => (
    <span key={trait} title={describeTrait(trait).question} className="trait">
      {trait}: {answers[0]} / {answers[1]}
    </span>
  ));
}
