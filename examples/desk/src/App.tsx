import { type DragEvent, useEffect, useRef, useState } from "react";
import { Bench } from "./bench/client.ts";
import { folioText } from "./bench/folio.ts";
import type { RowsState } from "./bench/protocol.ts";
import { ColumnsView } from "./ColumnsView.tsx";
import { FileButton } from "./FileButton.tsx";
import { LedgerView, save } from "./LedgerView.tsx";
import { LookView } from "./LookView.tsx";
import { type Change, type Memory, pages, remember, remembered } from "./memory.ts";
import { TryView } from "./TryView.tsx";

/** Milliseconds after which what has changed is kept. */
const keepAfter = 300;

/** The desk, as it was when the page was closed. */
export function App() {
  const [memory, setMemory] = useState<Memory>();
  useEffect(() => void remembered().then(setMemory), []);
  return memory && <Desk first={memory} />;
}

const noRows: RowsState = { rows: 0, columns: [], glimpse: { columns: [], rows: 0 }, steps: [] };

function Desk({ first }: { readonly first: Memory }) {
  const [memory, setMemory] = useState(first);
  const [state, setState] = useState(noRows);
  const [version, setVersion] = useState(0);
  /** The rows as they are for the page of single expressions: the file itself until something is applied. */
  const [current, setCurrent] = useState(first.file);
  const [notices, setNotices] = useState<readonly string[]>([]);
  const bench = useRef<Bench>(undefined);
  bench.current ??= new Bench();
  const asked = bench.current;
  const { page, file, steps, undone, draft, title, kept, decided } = memory;
  const change: Change<Memory> = (part) => setMemory((before) => ({ ...before, ...part(before) }));
  const put = (part: Partial<Memory>) => change(() => part);
  const fileName = file?.name ?? "register.json";

  useEffect(() => {
    const timer = setTimeout(
      () =>
        void remember(memory).then((isKept) => {
          if (!isKept)
            setNotices((before) => [
              ...new Set([...before, "This browser keeps nothing: what is done here is gone when the page is closed."]),
            ]);
        }),
      keepAfter,
    );
    return () => clearTimeout(timer);
  }, [memory]);

  const isOpened = useRef(false);
  useEffect(() => {
    if (isOpened.current) return;
    isOpened.current = true;
    void asked.ask("open", { file: first.file, steps: first.steps }).then((found) => {
      if ("refused" in found) setNotices([found.refused]);
      else taken(found, first.steps.length > 0);
    }, told);
  });

  const told = (error: unknown) => setNotices([(error as Error).message]);

  /** Shows the rows as they are now. */
  function taken(found: RowsState, isOther: boolean, own = file) {
    setState({ rows: found.rows, columns: found.columns, glimpse: found.glimpse, steps: found.steps });
    setVersion((before) => before + 1);
    if (!isOther) setCurrent(own);
    else void asked.ask("export", { format: "csv" }).then((rows) => setCurrent(new File([rows], fileName)), told);
  }

  function load(chosen: File | undefined) {
    if (!chosen) return;
    asked.ask("open", { file: chosen, steps: [] }).then((found) => {
      if ("refused" in found) {
        setNotices([found.refused]);
        // The rows that were there are still the ones that are worked on.
        void asked.ask("open", { file, steps });
        return;
      }
      setNotices(found.notices);
      put({ file: chosen, steps: [], undone: [], decided: {}, scratch: [], wanted: undefined });
      taken(found, false, chosen);
    }, told);
  }

  function drop(event: DragEvent) {
    event.preventDefault();
    load(event.dataTransfer.files[0]);
  }

  function apply() {
    asked.ask("apply", { at: new Date().toISOString() }).then(({ step, ...found }) => {
      put({ steps: [...steps, step], undone: [], decided: {}, page: "Ledger" });
      taken(found, true);
    }, told);
  }

  function move(to: Pick<Memory, "steps" | "undone">) {
    asked.ask("move", { steps: to.steps }).then((found) => {
      put(to);
      taken(found, to.steps.length > 0);
    }, told);
  }

  async function openFolio(files: readonly File[]) {
    const texts = await Promise.all(files.map(async (each) => [each.name, await each.text()] as const));
    const folio = texts.find(([name]) => !/\.(?:csv|tsv)$/i.test(name));
    if (!folio) {
      setNotices(["A folio is YAML or JSON; of its lists alone there is nothing to open."]);
      return;
    }
    const found = await asked.ask("folio", { text: folio[1], files: Object.fromEntries(texts) });
    if ("problems" in found) setNotices(found.problems.map((problem) => `${folio[0]}: ${problem}`));
    else {
      const { held, missed } = found.claims;
      put({ draft: found.draft, title: found.title, kept: found.kept, decided: {} });
      setNotices(
        held + missed.length === 0
          ? []
          : [`${folio[0]}: ${held} claims hold${missed.length > 0 ? `, ${missed.length} do not: ${missed.join(", ")}` : ""}.`],
      );
    }
  }

  return (
    <div className="desk" onDragOver={(event) => event.preventDefault()} onDrop={drop}>
      <header>
        <h1>Indigo Quill</h1>
        <nav aria-label="Pages of the desk">
          {pages.map((name) => (
            <button
              key={name}
              type="button"
              aria-current={page === name ? "page" : undefined}
              onClick={() => put({ page: name })}
            >
              {name}
              {name === "Ledger" && steps.length > 0 && ` (${steps.length})`}
            </button>
          ))}
        </nav>
        <p>
          {fileName}: {state.rows.toLocaleString("en")} rows
        </p>
        <div className="actions">
          <FileButton
            title="Load rows"
            label="Load rows: CSV, JSON, Parquet or Arrow"
            accept=".csv,.tsv,.json,.ndjson,.parquet,.arrow,text/csv,application/json"
            onFiles={([chosen]) => load(chosen)}
          />
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
      {page === "Try" && (
        <TryView
          file={current}
          glimpse={state.glimpse}
          sides={memory.sides}
          scratch={memory.scratch}
          wanted={memory.wanted}
          onChange={change}
        />
      )}
      {page === "Look" && <LookView bench={asked} version={version} />}
      {page === "Columns" && (
        <ColumnsView
          bench={asked}
          version={version}
          glimpse={state.glimpse}
          draft={draft}
          decided={decided}
          onChange={change}
          onApply={apply}
          onOpenFolio={(files) => void openFolio(files)}
          onSaveFolio={() => save(new Blob([folioText(draft, title, file?.name ?? "demo", kept)]), `${title || "folio"}.yaml`)}
        />
      )}
      {page === "Ledger" && (
        <LedgerView
          bench={asked}
          version={version}
          state={state}
          steps={steps}
          undone={undone}
          fileName={fileName}
          onUndo={() => move({ steps: steps.slice(0, -1), undone: [...undone, steps[steps.length - 1]] })}
          onRedo={() => move({ steps: [...steps, undone[undone.length - 1]], undone: undone.slice(0, -1) })}
        />
      )}
    </div>
  );
}
