import { dialectTitles } from "indigo-quill/dialects/load";
import { useEffect, useMemo, useState } from "react";
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
  readonly sides: readonly Side[];
  readonly scratch: readonly Scratch[];
  readonly onChange: (change: Partial<Pick<TryViewProps, "sides" | "scratch">>) => void;
}

/** Expressions side by side; more do not fit. */
const mostSides = 7;

/** Rows, an expression, others beside it, traces and causes. */
export function TryView({ file, sides, scratch, onChange }: TryViewProps) {
  const [selected, setSelected] = useState(3);
  const [page, setPage] = useState(0);
  const [hunts, setHunts] = useState(0);
  /** The expressions between which a hunt found nothing. */
  const [fruitless, setFruitless] = useState<readonly Side[]>();
  const [experiment, setExperiment] = useState<string>();
  const [shownFile, setShownFile] = useState(file);
  if (file !== shownFile) {
    setShownFile(file);
    setSelected(0);
    setPage(0);
  }

  const question = useMemo<Question>(
    () => ({ sides, file, scratch, selected, page, hunt: hunts }),
    [sides, file, scratch, selected, page, hunts],
  );
  const { sides: sideFindings, answered, isStopped } = useFindings(question);
  const { table, contrast, hunted, traces = [] } = answered;
  useEffect(() => {
    if (hunts === 0 || hunted?.hunt !== hunts) return;
    setHunts(0);
    setFruitless(hunted.rows.length === 0 ? sides : undefined);
    if (hunted.rows.length === 0) return;
    onChange({ scratch: [...hunted.rows, ...scratch] });
    setSelected(0);
    setPage(0);
  }, [hunts, hunted, sides, scratch, onChange]);

  const row = Math.min(selected, (table?.rowCount ?? 0) - 1);
  // The table follows what is typed at once, and new or removed scratch rows when the values are there.
  const asked = answered.question?.scratch ?? [];
  const shownScratch = asked.length === scratch.length ? scratch : asked;
  const rowName = (index: number) => (index < shownScratch.length ? `s${index + 1}` : String(index - shownScratch.length + 1));
  const edit = (index: number, change: Partial<Side>) =>
    onChange({ sides: sides.map((side, i) => (i === index ? { ...side, ...change } : side)) });
  const group = contrast?.groups.find(({ holdsSelected }) => holdsSelected);
  // An experiment is of one row and one cause; with another of either it is off.
  const key = (cause: number) => `${row} ${group?.places.map(({ range }) => range.start).join()} ${cause}`;
  const tried = group?.experiments.find((_, cause) => key(cause) === experiment);

  function addSide() {
    const used = new Set(sides.map(({ dialect }) => dialect));
    const next = Object.keys(dialectTitles).find((id) => !used.has(id)) ?? sides[0].dialect;
    onChange({ sides: [...sides, { dialect: next, text: "" }] });
  }

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
        <button type="button" disabled={sides.length >= mostSides} onClick={addSide}>
          Add an expression
        </button>
        <button
          type="button"
          disabled={!contrast || hunts > 0}
          title="Search the smallest rows on which the first two expressions differ"
          onClick={() => setHunts((answered.hunted?.hunt ?? 0) + 1)}
        >
          Hunt for rows
        </button>
        {fruitless === sides && <span role="status">No row was found on which they differ.</span>}
      </div>
      <div className="editors">
        {question.sides.map(({ dialect, text }, i) => (
          <Editor
            key={i}
            label={i === 0 ? "Expression" : i === 1 ? "Beside it" : `Beside it, ${i}`}
            dialect={dialect}
            text={text}
            findings={sideFindings?.[i]}
            places={group?.places.filter(({ side }) => side === i).map(({ range }) => range)}
            onDialect={(id) => edit(i, { dialect: id })}
            onText={(changed) => edit(i, { text: changed })}
            onRemove={i > 0 ? () => onChange({ sides: sides.filter((_, place) => place !== i) }) : undefined}
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
            tried={tried}
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
              isTried={(cause) => key(cause) === experiment}
              onTry={(cause, isOn) => setExperiment(isOn ? key(cause) : undefined)}
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
