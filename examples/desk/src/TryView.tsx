import type { Sample } from "indigo-quill";
import { stepAt } from "indigo-quill/authoring";
import { dialectTitles } from "indigo-quill/dialects/load";
import { useEffect, useMemo, useRef, useState } from "react";
import { CausesPanel } from "./CausesPanel.tsx";
import { Editor } from "./Editor.tsx";
import { RowsTable } from "./RowsTable.tsx";
import { TracePanel } from "./TracePanel.tsx";
import { type ExpressionHandle } from "./ExpressionText.tsx";
import { FindBox } from "./FindBox.tsx";
import { type Question, type Side, type TraceFindings, pageSize } from "./findings.ts";
import type { Change, Memory } from "./memory.ts";
import type { Scratch } from "./sample.ts";
import { wordsFor } from "./shown.ts";
import { useDialect } from "./useDialect.ts";
import { useFindings } from "./useFindings.ts";
import { WantedPanel } from "./WantedPanel.tsx";

interface TryViewProps {
  /** The rows' file; the demo register when left out. */
  readonly file: File | undefined;
  readonly sides: readonly Side[];
  /** The first rows. */
  readonly glimpse: Sample;
  readonly scratch: readonly Scratch[];
  readonly wanted: Memory["wanted"];
  readonly onChange: Change<Pick<Memory, "sides" | "scratch" | "wanted">>;
}

/** Expressions side by side; more do not fit. */
const mostSides = 7;

/** Milliseconds without a change after which what takes longer is asked. */
const settledAfter = 500;

/** The row of a name, 0-based, scratch rows first. */
const rowNamed = (name: string, scratch: number): number =>
  name.startsWith("s") ? Number(name.slice(1)) - 1 : Number(name) - 1 + scratch;

/** What the innermost step around a place gives on a row, in words; of a text that has changed since, nothing. */
function valueWithin(trace: TraceFindings | undefined, text: string, row: string) {
  if (!trace?.steps || trace.source !== text) return undefined;
  const { steps } = trace;
  return (offset: number): string | undefined => {
    const inner = stepAt(steps, offset);
    return inner && `On row ${row}, ${inner.text} gives ${inner.values.map(wordsFor).join(", ")}`;
  };
}

/** Rows, an expression, others beside it, traces and causes. */
export function TryView({ file, glimpse, sides, scratch, wanted, onChange }: TryViewProps) {
  const [selected, setSelected] = useState(3);
  const [page, setPage] = useState(0);
  const [areStepsShown, setStepsShown] = useState(false);
  /** The expressions that nobody has changed for a while. */
  const [settled, setSettled] = useState<readonly Side[]>();
  useEffect(() => {
    const timer = setTimeout(() => setSettled(sides), settledAfter);
    return () => clearTimeout(timer);
  }, [sides]);
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

  const question = useMemo<Question>(() => {
    const named = Object.entries(wanted ?? {}).map(([name, text]) => [rowNamed(name, scratch.length), text] as const);
    return {
      sides,
      file,
      scratch,
      selected,
      page,
      wanted: named,
      isSettled: settled === sides,
      steps: areStepsShown,
      hunt: hunts,
    };
  }, [sides, file, scratch, selected, page, wanted, settled, areStepsShown, hunts]);
  const { sides: sideFindings, answered, end } = useFindings(question);
  const { table, contrast, hunted, traces = [] } = answered;
  useEffect(() => {
    if (hunts === 0 || hunted?.hunt !== hunts) return;
    setHunts(0);
    setFruitless(hunted.rows.length === 0 ? sides : undefined);
    if (hunted.rows.length === 0) return;
    onChange(({ scratch }) => ({ scratch: [...hunted.rows, ...scratch] }));
    setSelected(0);
    setPage(0);
  }, [hunts, hunted, sides, onChange]);

  const row = Math.min(selected, (table?.rowCount ?? 0) - 1);
  // The table follows what is typed at once, and new or removed scratch rows when the values are there.
  const asked = answered.question?.scratch ?? [];
  const shownScratch = asked.length === scratch.length ? scratch : asked;
  const first = useDialect(sides[0].dialect);
  const firstText = useRef<ExpressionHandle>(null);
  const [chosen, setChosen] = useState(0);
  const candidates = (wanted && answered.wanted?.candidates) ?? [];
  const candidate = candidates[Math.min(chosen, candidates.length - 1)];
  const telling = (wanted && answered.wanted?.telling) ?? [];
  const goTo = (index: number) => {
    setSelected(index);
    setPage(Math.floor(index / pageSize));
  };
  const rowName = (index: number) => (index < shownScratch.length ? `s${index + 1}` : String(index - shownScratch.length + 1));
  const edit = (index: number, change: Partial<Side>) =>
    onChange(({ sides }) => ({ sides: sides.map((side, i) => (i === index ? { ...side, ...change } : side)) }));
  const valuesAt = useMemo(() => {
    const at = answered.question;
    const name = at && rowName(at.selected);
    return sides.map(({ text }, i) => (name === undefined ? undefined : valueWithin(traces[i], text, name)));
    // The names of rows follow what was answered.
  }, [answered, sides]);
  const group = contrast?.groups.find(({ holdsSelected }) => holdsSelected);
  const places = useMemo(
    // Of texts that have changed since nothing is marked.
    () =>
      group && answered.question?.sides === sides
        ? sides.map((_, i) => group.places.filter(({ side }) => side === i).map(({ range }) => range))
        : undefined,
    [group, answered, sides],
  );
  // An experiment is of one row and one cause; with another of either it is off.
  const key = (cause: number) => `${row} ${group?.places.map(({ range }) => range.start).join()} ${cause}`;
  const tried = group?.experiments.find((_, cause) => key(cause) === experiment);

  function addSide() {
    const used = new Set(sides.map(({ dialect }) => dialect));
    const next = Object.keys(dialectTitles).find((id) => !used.has(id)) ?? sides[0].dialect;
    onChange(({ sides }) => ({ sides: [...sides, { dialect: next, text: "" }] }));
  }

  function keep(row: Scratch) {
    onChange(({ scratch }) => ({ scratch: [...scratch, row] }));
    setSelected(scratch.length);
    setPage(0);
  }

  function addScratch() {
    const names = table?.columns ?? [];
    keep({ ...Object.fromEntries(names.map((name) => [name, null])), ...table?.selectedCells });
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
        <button
          type="button"
          aria-pressed={wanted !== undefined}
          onClick={() => onChange(({ wanted }) => ({ wanted: wanted ? undefined : {} }))}
        >
          Wanted values
        </button>
        <button type="button" aria-pressed={areStepsShown} onClick={() => setStepsShown(!areStepsShown)}>
          Steps beside the rows
        </button>
        <FindBox dialect={first} onTake={(written) => firstText.current?.insert(written)} />
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
            sample={glimpse}
            places={places?.[i]}
            valueAt={valuesAt[i]}
            ref={i === 0 ? firstText : undefined}
            onDialect={(id) => edit(i, { dialect: id })}
            onText={(changed) => edit(i, { text: changed })}
            onRemove={i > 0 ? () => onChange(({ sides }) => ({ sides: sides.filter((_, place) => place !== i) })) : undefined}
          />
        ))}
      </div>
      {wanted && (
        <WantedPanel
          found={answered.wanted}
          chosen={Math.min(chosen, candidates.length - 1)}
          rowName={rowName}
          onChoose={setChosen}
          onTake={(expression) => edit(0, { text: expression })}
          onRow={goTo}
        />
      )}
      {table?.isCut && (
        <p className="stopped">
          The first {table.rowCount - shownScratch.length} rows are tried here; the other pages work on all.
        </p>
      )}
      {(end === "late" || end === "stopped") && (
        <p className="stopped" role="status">
          {end === "stopped"
            ? "This took longer than ten seconds and was stopped: what is missing below was not reached. Fewer rows, or the iquill command, which takes its time, will tell."
            : answered.question === question
              ? "This takes longer than a second: what is missing below comes later, or is stopped after ten."
              : "This takes longer than a second: until it comes, or is stopped after ten, the values before are shown."}
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
            wanted={wanted}
            candidate={candidate?.values}
            telling={telling}
            selected={row}
            rowName={rowName}
            onSelect={setSelected}
            onPage={setPage}
            onScratch={(index, name, text) =>
              onChange(({ scratch }) => ({ scratch: scratch.map((each, i) => (i === index ? { ...each, [name]: text } : each)) }))
            }
            onWanted={(index, text) =>
              onChange(({ wanted }) => {
                const { [rowName(index)]: _, ...others } = wanted ?? {};
                return { wanted: text === "" ? others : { ...others, [rowName(index)]: text } };
              })
            }
            onDropScratch={(index) => onChange(({ scratch }) => ({ scratch: scratch.filter((_, i) => i !== index) }))}
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
              onRow={goTo}
            />
          )}
          {answered.untold?.map(({ sentence, row: telling }) => (
            <p key={sentence} className="untold">
              {sentence}{" "}
              {telling && (
                <button type="button" onClick={() => keep(telling)}>
                  Keep a row that tells
                </button>
              )}
            </p>
          ))}
          {traces.length > 0 && <h2>Row {rowName(answered.question!.selected)}, step by step</h2>}
          {traces.map((trace, i) => trace.source !== "" && <TracePanel key={i} {...trace} />)}
        </aside>
      </main>
    </>
  );
}
