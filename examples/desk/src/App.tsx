import { type DragEvent, useMemo, useState } from "react";
import { CausesPanel } from "./CausesPanel.tsx";
import { Editor } from "./Editor.tsx";
import { RowsTable } from "./RowsTable.tsx";
import { TracePanel } from "./TracePanel.tsx";
import { type Question, type Side, pageSize } from "./findings.ts";
import type { Scratch } from "./sample.ts";
import { useFindings } from "./useFindings.ts";

const startSides: readonly [Side, Side] = [
  { dialect: "openformula", text: 'TRIM(LEFT(collector;FIND(",";collector)-1))' },
  { dialect: "postgresql", text: "btrim(split_part(collector, ',', 1))" },
];

/** The first page of the desk: rows, an expression, a second one beside it, traces and causes. */
export function App() {
  const [sides, setSides] = useState<readonly [Side, Side]>(startSides);
  const [isDouble, setDouble] = useState(true);
  /** The rows' file, and the last one that could be read. */
  const [file, setFile] = useState<File>();
  const [taken, setTaken] = useState<File>();
  const [scratch, setScratch] = useState<readonly Scratch[]>([]);
  const [selected, setSelected] = useState(3);
  const [page, setPage] = useState(0);
  const [notices, setNotices] = useState<readonly string[]>([]);

  const question = useMemo<Question>(
    () => ({ sides: isDouble ? sides : sides.slice(0, 1), file, scratch, selected, page }),
    [sides, isDouble, file, scratch, selected, page],
  );
  const { sides: sideFindings, answered, isStopped, reading } = useFindings(question);
  const { table, contrast, traces = [] } = answered;

  if (file !== taken && file === reading.file) {
    setNotices(reading.notices);
    if (reading.isRefused) setFile(taken);
    else {
      setTaken(file);
      setScratch([]);
      setSelected(0);
      setPage(0);
    }
  }

  const row = Math.min(selected, (table?.rowCount ?? 0) - 1);
  // The table follows what is typed at once, and new or removed scratch rows when the values are there.
  const asked = answered.question?.scratch ?? [];
  const shownScratch = asked.length === scratch.length ? scratch : asked;
  const rowName = (index: number) => (index < shownScratch.length ? `s${index + 1}` : String(index - shownScratch.length + 1));
  const edit = (index: 0 | 1, change: Partial<Side>) =>
    setSides((before) => before.map((side, i) => (i === index ? { ...side, ...change } : side)) as [Side, Side]);

  function load(chosen: File | undefined) {
    if (chosen) setFile(chosen);
  }

  function drop(event: DragEvent) {
    event.preventDefault();
    load(event.dataTransfer.files[0]);
  }

  function addScratch() {
    const names = table?.columns ?? [];
    const empty = Object.fromEntries(names.map((name) => [name, null]));
    setScratch((before) => [...before, { ...empty, ...table?.selectedCells }]);
    setSelected(scratch.length);
    setPage(0);
  }

  return (
    <div className="desk" onDragOver={(event) => event.preventDefault()} onDrop={drop}>
      <header>
        <h1>Indigo Quill</h1>
        <p>the desk: an expression, its value on every row, and where another dialect parts from it</p>
        <div className="actions">
          <label className="file">
            Load rows
            <input
              type="file"
              accept=".csv,.tsv,.json,.ndjson,text/csv,application/json"
              aria-label="Load rows from CSV or JSON"
              onChange={(event) => {
                load(event.target.files?.[0]);
                // So that the same file can be chosen again after a change.
                event.target.value = "";
              }}
            />
          </label>
          <button type="button" onClick={addScratch}>
            Add scratch row
          </button>
          <label>
            <input type="checkbox" checked={isDouble} onChange={(event) => setDouble(event.target.checked)} /> second dialect
          </label>
        </div>
      </header>
      {notices.length > 0 && (
        <div className="notices" role="alert">
          {notices.map((notice) => (
            <p key={notice}>{notice}</p>
          ))}
          <button type="button" onClick={() => setNotices([])}>
            Close
          </button>
        </div>
      )}
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
              setScratch((before) => before.map((each, i) => (i === index ? { ...each, [name]: text } : each)))
            }
            onDropScratch={(index) => setScratch((before) => before.filter((_, i) => i !== index))}
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
    </div>
  );
}
