import { visibleText } from "indigo-quill/authoring";
import { useEffect, useRef, useState } from "react";
import { Cell } from "./cells.tsx";
import type { Bench } from "./bench/client.ts";
import type { CellShown, PartShown, TableHead, TableRow, View } from "./bench/protocol.ts";

/** Pixels of a row, and rows that are fetched at a time. */
const rowHeight = 27;
const pageRows = 120;

interface VirtualTableProps {
  readonly bench: Bench;
  readonly view: View;
  readonly helpers: boolean;
  /** Changes whenever the rows are others. */
  readonly version: number;
  readonly label: string;
  readonly onCell?: (row: number, column: string) => void;
  /** What was decided about a value, and how that is said; of a view of values. */
  readonly decided?: (column: string, before: string) => string | undefined;
  readonly onDecide?: (column: string, before: string, after: string) => void;
}

/** A table's head, and the pages of its rows that are there. */
interface Fetched {
  readonly head: TableHead | undefined;
  readonly pages: ReadonlyMap<number, readonly TableRow[]>;
}

const nothingFetched: Fetched = { head: undefined, pages: new Map() };

/** Rows of any number, of which only those are fetched and drawn that are in sight. */
export function VirtualTable(props: VirtualTableProps) {
  const { bench, view, helpers, version, label } = props;
  const [{ head, pages }, setTable] = useState<Fetched>(nothingFetched);
  const [top, setTop] = useState(0);
  const [height, setHeight] = useState(600);
  const box = useRef<HTMLDivElement>(null);
  /** Pages that were asked for, of the rows under a head. */
  const asked = useRef({ head, pages: new Set<number>() });
  const first = Math.max(0, Math.floor(top / rowHeight) - 8);
  const last = Math.min(head?.rows ?? 0, Math.ceil((top + height) / rowHeight) + 8);

  useEffect(() => {
    let isOver = false;
    void bench.ask("head", { view, helpers }).then((found) => {
      if (!isOver) setTable({ head: found, pages: new Map() });
    });
    return () => {
      isOver = true;
    };
  }, [bench, view, helpers, version]);

  useEffect(() => {
    if (!head) return;
    if (asked.current.head !== head) asked.current = { head, pages: new Set() };
    const { pages: known } = asked.current;
    for (let page = Math.floor(first / pageRows); page * pageRows < last; page++) {
      if (known.has(page)) continue;
      known.add(page);
      void bench.ask("rows", { view, helpers, from: page * pageRows, count: pageRows }).then((rows) =>
        // Rows of a table that is no longer shown are dropped with it.
        setTable((now) => (now.head === head ? { head, pages: new Map(now.pages).set(page, rows) } : now)),
      );
    }
  }, [bench, head, first, last, view, helpers]);

  useEffect(() => {
    const watcher = new ResizeObserver(([entry]) => setHeight(entry.contentRect.height));
    watcher.observe(box.current!);
    return () => watcher.disconnect();
  }, []);

  const rows = Array.from({ length: Math.max(0, last - first) }, (_, i) => first + i);
  return (
    <div
      ref={box}
      className="virtual"
      role="region"
      aria-label={label}
      tabIndex={0}
      onScroll={(event) => setTop(event.currentTarget.scrollTop)}
    >
      {head && (
        <table aria-rowcount={head.rows + 1}>
          <thead>
            <tr>
              <th scope="col">{view === "values" ? "rows" : "row"}</th>
              {head.columns.map(({ name, kind }) => (
                <th key={name} scope="col" className={kind}>
                  {visibleText(name, false)}
                  {kind !== "given" && <span className="kind"> {kind}</span>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <Room rows={first} />
            {rows.map((index) => {
              const row = pages.get(Math.floor(index / pageRows))?.[index % pageRows];
              return (
                <tr key={index} aria-rowindex={index + 2}>
                  {row ? <Row row={row} head={head} {...props} /> : <th scope="row">…</th>}
                </tr>
              );
            })}
            <Room rows={head.rows - last} />
          </tbody>
        </table>
      )}
      {head?.rows === 0 && <p className="quiet">{view === "all" ? "There are no rows." : "Nothing changes."}</p>}
    </div>
  );
}

interface RowProps extends VirtualTableProps {
  readonly row: TableRow;
  readonly head: TableHead;
}

/** The cells of a row; of a view of values what each becomes can be decided. */
function Row({ row, head, view, decided, onDecide, onCell }: RowProps) {
  const text = (cell: CellShown | undefined) => (cell?.now.kind === "text" ? cell.now.text : undefined);
  const [column, before] = [text(row.cells[0]), text(row.cells[1])];
  return (
    <>
      <th scope="row">{row.number}</th>
      {row.cells.map((cell, i) => (
        <td
          key={i}
          className={cell.before ? "changed" : ""}
          onDoubleClick={onCell && (() => onCell(row.number, head.columns[i].name))}
        >
          {view === "values" && i === 2 && onDecide && column !== undefined && before !== undefined ? (
            <input
              aria-label={`What ${before} becomes`}
              value={decided?.(column, before) ?? text(cell) ?? ""}
              className={decided?.(column, before) === undefined ? "" : "decided"}
              onChange={(event) => onDecide(column, before, event.target.value)}
            />
          ) : (
            <Change cell={cell} half={view === "values" ? (i === 1 ? "before" : "after") : undefined} />
          )}
        </td>
      ))}
    </>
  );
}

/** The room that rows out of sight take. */
const Room = ({ rows }: { readonly rows: number }) =>
  rows > 0 ? <tr aria-hidden="true" style={{ height: `${rows * rowHeight}px` }} /> : null;

const Parts = ({ parts, isOld }: { readonly parts: readonly PartShown[]; readonly isOld: boolean }) =>
  parts.map(({ text, isChanged }, i) =>
    isChanged ? isOld ? <del key={i}>{text}</del> : <ins key={i}>{text}</ins> : <span key={i}>{text}</span>,
  );

/** A cell; one that changes with what it was before, the changed part marked. */
function Change({ cell, half }: { readonly cell: CellShown; readonly half?: "before" | "after" | undefined }) {
  const { now, before, parts } = cell;
  if (half) return parts ? <Parts parts={parts[half]} isOld={half === "before"} /> : <Cell value={now} />;
  if (!before) return <Cell value={now} />;
  return (
    <>
      <span className="was">{parts ? <Parts parts={parts.before} isOld /> : <Cell value={before} />}</span>
      <span className="arrow" aria-label="becomes">
        {" → "}
      </span>
      {parts ? <Parts parts={parts.after} isOld={false} /> : <Cell value={now} />}
    </>
  );
}
