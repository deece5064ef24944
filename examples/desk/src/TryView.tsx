import { useMemo, useState } from "react";
import { CausesPanel } from "./CausesPanel.tsx";
import { Editor } from "./Editor.tsx";
import { RowsTable } from "./RowsTable.tsx";
import { TracePanel } from "./TracePanel.tsx";
import { type Question, type Side, pageSize } from "./findings.ts";
import type { Scratch } from "./sample.ts";
import { useFindings } from "./useFindings.ts";

interface TryViewProps {
  /** The rows' file; the demo register when left out. */
  readonly file: File | undefined;
  readonly sides: readonly [Side, Side];
  readonly isDouble: boolean;
  readonly scratch: readonly Scratch[];
  readonly onChange: (change: Partial<Pick<TryViewProps, "sides" | "isDouble" | "scratch">>) => void;
}

/** Rows, an expression, a second one beside it, traces and causes. */
export function TryView({ file, sides, isDouble, scratch, onChange }: TryViewProps) {
  const [selected, setSelected] = useState(3);
  const [page, setPage] = useState(0);
  const [shownFile, setShownFile] = useState(file);
  if (file !== shownFile) {
    setShownFile(file);
    setSelected(0);
    setPage(0);
  }

  const question = useMemo<Question>(
    () => ({ sides: isDouble ? sides : sides.slice(0, 1), file, scratch, selected, page }),
    [sides, isDouble, file, scratch, selected, page],
  );
  const { sides: sideFindings, answered, isStopped } = useFindings(question);
  const { table, contrast, traces = [] } = answered;

  const row = Math.min(selected, (table?.rowCount ?? 0) - 1);
  // The table follows what is typed at once, and new or removed scratch rows when the values are there.
  const asked = answered.question?.scratch ?? [];
  const shownScratch = asked.length === scratch.length ? scratch : asked;
  const rowName = (index: number) => (index < shownScratch.length ? `s${index + 1}` : String(index - shownScratch.length + 1));
  const edit = (index: 0 | 1, change: Partial<Side>) =>
    onChange({ sides: sides.map((side, i) => (i === index ? { ...side, ...change } : side)) as [Side, Side] });

  function addScratch() {
    const names = table?.columns ?? [];
    const empty = Object.fromEntries(names.map((name) => [name, null]));
    onChange({ scratch: [...scratch, { ...empty, ...table?.selectedCells }] });
    setSelected(scratch.length);
    setPage(0);
  }

  return (
    <>
      <div className="bar">
        <button type="button" onClick={addScratch}>
          Add scratch row
        </button>
        <label>
          <input type="checkbox" checked={isDouble} onChange={(event) => onChange({ isDouble: event.target.checked })} /> second
          dialect
        </label>
      </div>
      <div className="editors">
        {question.sides.map(({ dialect, text }, i) => (
          <Editor
            key={i}
            label={i === 0 ? "Expression" : "Beside it"}
            dialect={dialect}
            text={text}
            findings={sideFindings?.[i]}
            onDialect={(id) => edit(i as 0 | 1, { dialect: id })}
            onText={(changed) => edit(i as 0 | 1, { text: changed })}
          />
        ))}
      </div>
      {table?.isCut && (
        <p className="stopped">
          The first {table.rowCount - shownScratch.length} rows are tried here; the other pages work on all.
        </p>
      )}
      {isStopped && (
        <p className="stopped" role="status">
          This took longer than a second and was stopped: what is missing below was not reached. Fewer rows, or the iquill
          command, which takes its time, will tell.
        </p>
      )}
      <main>
        {table && (
          <RowsTable
            table={table}
            sides={answered.sides ?? []}
            contrast={contrast}
            scratch={shownScratch}
            selected={row}
            rowName={rowName}
            onSelect={setSelected}
            onPage={setPage}
            onScratch={(index, name, text) =>
              onChange({ scratch: scratch.map((each, i) => (i === index ? { ...each, [name]: text } : each)) })
            }
            onDropScratch={(index) => onChange({ scratch: scratch.filter((_, i) => i !== index) })}
          />
        )}
        <aside>
          {contrast && (
            <CausesPanel
              contrast={contrast}
              rowCount={table?.rowCount ?? 0}
              selected={row}
              rowName={rowName}
              onRow={(to) => {
                setSelected(to);
                setPage(Math.floor(to / pageSize));
              }}
            />
          )}
          {traces.length > 0 && <h2>Row {rowName(answered.question!.selected)}, step by step</h2>}
          {traces.map((trace, i) => (
            <TracePanel key={i} {...trace} />
          ))}
        </aside>
      </main>
    </>
  );
}
