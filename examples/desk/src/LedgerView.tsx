import { useEffect, useState } from "react";
import { Cell } from "./cells.tsx";
import type { Bench } from "./bench/client.ts";
import type { CellHistory, ExportFormat, RowsState, Step } from "./bench/protocol.ts";
import { VirtualTable } from "./VirtualTable.tsx";

interface LedgerViewProps {
  readonly bench: Bench;
  readonly version: number;
  readonly state: RowsState;
  readonly steps: readonly Step[];
  readonly undone: readonly Step[];
  readonly onUndo: () => void;
  readonly onRedo: () => void;
  readonly fileName: string;
}

const formats: readonly ExportFormat[] = ["csv", "tsv", "json", "ndjson", "parquet", "arrow"];

/** Gives a file to whoever sits before the page. */
export function save(content: Blob, name: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** The steps that made the rows what they are, back and forth, and the rows to be taken away. */
export function LedgerView({ bench, version, state, steps, undone, onUndo, onRedo, fileName }: LedgerViewProps) {
  const [format, setFormat] = useState<ExportFormat>("csv");
  const [cell, setCell] = useState<{ row: number; column: string }>();
  const [history, setHistory] = useState<CellHistory>();
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    if (cell) void bench.ask("cell", { row: cell.row - 1, column: cell.column }).then(setHistory);
  }, [bench, cell, version]);
  function take() {
    bench.ask("export", { format }).then(
      (content) => {
        setProblem(undefined);
        save(content, `${fileName.replace(/\.\w+$/, "")}.${format}`);
      },
      (error: unknown) => setProblem((error as Error).message),
    );
  }

  const list = [
    ...steps.map((step, i) => ({ step, i, isUndone: false })),
    ...[...undone].reverse().map((step, i) => ({ step, i: steps.length + i, isUndone: true })),
  ];
  return (
    <main className="ledger">
      <section aria-label="Steps" className="steps" tabIndex={0}>
        <div className="bar">
          <button type="button" disabled={steps.length === 0} onClick={onUndo}>
            Undo
          </button>
          <button type="button" disabled={undone.length === 0} onClick={onRedo}>
            Redo
          </button>
        </div>
        {list.length === 0 && <p className="quiet">Nothing was applied yet: the rows are those of {fileName}.</p>}
        <ol>
          {list.map(({ step, i, isUndone }) => (
            <li key={`${i}${step.at}`} className={isUndone ? "undone" : ""}>
              <p>
                <strong>Step {i + 1}</strong> {step.at.slice(0, 16).replace("T", " ")}
                {isUndone && ", undone"}
              </p>
              {step.columns.map(({ names, expression, then = [], isHelper }) => {
                const effect = isUndone ? undefined : state.steps[i]?.effects[names[0]];
                return (
                  <p key={names.join()}>
                    {names.join(", ")}
                    {isHelper && " (helper)"} = <code>{expression}</code>
                    {then.map((job) => ` then ${Object.keys(job)[0]}`).join("")}
                    {effect && (
                      <span className="quiet">
                        {" "}
                        {effect.changed} {effect.isNew ? "values" : "changed"}
                        {effect.failed > 0 && `, ${effect.failed} errors`}
                      </span>
                    )}
                  </p>
                );
              })}
              {step.where !== undefined && (
                <p>
                  where <code>{step.where}</code>
                </p>
              )}
              {step.only !== undefined && (
                <p>
                  only <code>{step.only}</code>
                </p>
              )}
            </li>
          ))}
        </ol>
        <div className="bar">
          <label>
            Take the rows away as{" "}
            <select value={format} onChange={(event) => setFormat(event.target.value as ExportFormat)}>
              {formats.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </select>
          </label>
          <button type="button" onClick={take}>
            Export
          </button>
        </div>
        {problem && <p className="error">{problem}</p>}
        <h3>Which step changed a cell</h3>
        <form
          className="bar"
          onSubmit={(event) => {
            event.preventDefault();
            const data = new FormData(event.currentTarget);
            setCell({ row: Number(data.get("row")), column: String(data.get("column")) });
          }}
        >
          <label>
            row <input name="row" type="number" min={1} max={state.rows} defaultValue={1} required />
          </label>
          <label>
            column{" "}
            <select name="column">
              {state.columns.map((name) => (
                <option key={name}>{name}</option>
              ))}
            </select>
          </label>
          <button type="submit">Show</button>
        </form>
        {history && cell && (
          <div role="status">
            {history.steps.length === 0 && (
              <p>
                No step changed {history.column} on row {cell.row}.
              </p>
            )}
            {history.steps.map(({ step, by, before, after }) => (
              <p key={step}>
                Step {step}: <Cell value={before} /> → <Cell value={after} /> by <code>{by}</code>
              </p>
            ))}
          </div>
        )}
      </section>
      <VirtualTable
        bench={bench}
        view="all"
        helpers={false}
        version={version}
        label="The rows as they are"
        onCell={(row, column) => setCell({ row, column })}
      />
    </main>
  );
}
