import { DataError, readTable } from "@indigo-quill/data";
import { type Sample, type Value, compile } from "indigo-quill";
import { contrast as contrastSides } from "indigo-quill/contrast";
import { dialects } from "indigo-quill/dialects";
import { useDeferredValue, useMemo, useState } from "react";
import { CausesPanel } from "./CausesPanel.tsx";
import { Editor } from "./Editor.tsx";
import { RowsTable } from "./RowsTable.tsx";
import { TracePanel } from "./TracePanel.tsx";
import { type Scratch, demoSample, limited, rowLimit, withScratch } from "./sample.ts";

interface Side {
  readonly dialect: string;
  readonly text: string;
}

const startSides: readonly [Side, Side] = [
  { dialect: "openformula", text: 'TRIM(LEFT(collector;FIND(",";collector)-1))' },
  { dialect: "postgresql", text: "btrim(split_part(collector, ',', 1))" },
];

const scratchCell = (value: Value): string | null => (value === null ? null : String(value));

/** The first page of the desk: rows, an expression, a second one beside it, traces and causes. */
export function App() {
  const [sides, setSides] = useState<readonly [Side, Side]>(startSides);
  const [isDouble, setDouble] = useState(true);
  const [rows, setRows] = useState<Sample>(demoSample);
  const [scratch, setScratch] = useState<readonly Scratch[]>([]);
  const [selected, setSelected] = useState(3);
  const [notices, setNotices] = useState<readonly string[]>([]);

  const sample = useMemo(() => withScratch(rows, scratch), [rows, scratch]);
  // Typing stays quick on many rows: the rows follow as soon as there is time.
  const shownSides = useDeferredValue(isDouble ? sides : sides.slice(0, 1));
  const shownSample = useDeferredValue(sample);
  const programs = useMemo(
    () => shownSides.map(({ dialect, text }) => compile(dialects[dialect](), text, shownSample)),
    [shownSides, shownSample],
  );
  const values = useMemo(() => programs.map((program) => program.run(shownSample)), [programs, shownSample]);
  const contrast = useMemo(
    () =>
      programs.length === 2 && programs.every((program) => program.ok)
        ? contrastSides(
            programs.map(({ dialect, source }) => ({ dialect, expression: source })),
            shownSample,
          )
        : undefined,
    [programs, shownSample],
  );
  const row = Math.min(selected, shownSample.rows - 1);
  const rowName = (index: number) => (index < scratch.length ? `s${index + 1}` : String(index - scratch.length + 1));
  const edit = (index: 0 | 1, change: Partial<Side>) =>
    setSides((before) => before.map((side, i) => (i === index ? { ...side, ...change } : side)) as [Side, Side]);

  async function load(file: File | undefined) {
    if (!file) return;
    try {
      const { sample: read, warnings } = readTable(new Uint8Array(await file.arrayBuffer()));
      const cut =
        read.rows > rowLimit
          ? [`${file.name} has ${read.rows} rows; the first ${rowLimit} are shown here. The iquill command takes them all.`]
          : [];
      setRows(limited(read));
      setScratch([]);
      setSelected(0);
      setNotices([...cut, ...warnings]);
    } catch (error) {
      if (!(error instanceof DataError)) throw error;
      setNotices([`${file.name}: ${error.message}`]);
    }
  }

  function addScratch() {
    setScratch((before) => [
      ...before,
      Object.fromEntries(sample.columns.map(({ name, values: cells }) => [name, scratchCell(cells[row])])),
    ]);
    setSelected(scratch.length);
  }

  return (
    <>
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
              onChange={(event) => void load(event.target.files?.[0])}
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
        {programs.map((program, i) => (
          <Editor
            key={i}
            label={i === 0 ? "Expression" : "Beside it"}
            dialect={sides[i].dialect}
            text={sides[i].text}
            program={program}
            onDialect={(dialect) => edit(i as 0 | 1, { dialect })}
            onText={(text) => edit(i as 0 | 1, { text })}
          />
        ))}
      </div>
      <main>
        <RowsTable
          sample={shownSample}
          programs={programs}
          values={values}
          contrast={contrast}
          scratch={scratch}
          selected={row}
          rowName={rowName}
          onSelect={setSelected}
          onScratch={(index, name, text) =>
            setScratch((before) => before.map((each, i) => (i === index ? { ...each, [name]: text } : each)))
          }
          onDropScratch={(index) => setScratch((before) => before.filter((_, i) => i !== index))}
        />
        <aside>
          {contrast && (
            <CausesPanel contrast={contrast} sample={shownSample} selected={row} rowName={rowName} onRow={setSelected} />
          )}
          {row >= 0 && <h2>Row {rowName(row)}, step by step</h2>}
          {row >= 0 &&
            programs.map(
              (program, i) => program.source !== "" && <TracePanel key={i} program={program} sample={shownSample} row={row} />,
            )}
        </aside>
      </main>
    </>
  );
}
