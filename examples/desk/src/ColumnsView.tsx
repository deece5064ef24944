import type { Sample } from "indigo-quill";
import { type WrittenJob, characterKinds, findable } from "indigo-quill/lists";
import { type Ref, useEffect, useMemo, useRef, useState } from "react";
import { type Bench, StaleError } from "./bench/client.ts";
import { namesIn } from "./bench/folio.ts";
import type { Draft, DraftColumn, PlanFindings, View } from "./bench/protocol.ts";
import { DialectSelect, Editor, Problems } from "./Editor.tsx";
import type { ExpressionHandle } from "./ExpressionText.tsx";
import { FileButton } from "./FileButton.tsx";
import { FindBox } from "./FindBox.tsx";
import type { Change, Memory } from "./memory.ts";
import { useDialect } from "./useDialect.ts";
import { VirtualTable } from "./VirtualTable.tsx";

interface ColumnsViewProps {
  readonly bench: Bench;
  /** Changes whenever the rows are others. */
  readonly version: number;
  /** The first rows. */
  readonly glimpse: Sample;
  readonly draft: Draft;
  readonly decided: Memory["decided"];
  readonly onChange: Change<Pick<Memory, "draft" | "decided">>;
  readonly onApply: () => void;
  readonly onOpenFolio: (files: readonly File[]) => void;
  readonly onSaveFolio: () => void;
}

/** Milliseconds without a key after which a draft is tried. */
const pause = 150;

const views: Readonly<Record<View, string>> = { all: "all rows", changed: "rows that change", values: "by value" };

/** Several calculated columns, with what they make of the rows before they are applied. */
export function ColumnsView(props: ColumnsViewProps) {
  const { bench, version, draft, decided, onChange } = props;
  const [findings, setFindings] = useState<PlanFindings>({ problems: {} });
  const [tried, setTried] = useState(0);
  const [isBusy, setBusy] = useState(true);
  const [problem, setProblem] = useState<string>();
  const [view, setView] = useState<View>("all");
  const [showsHelpers, setShowsHelpers] = useState(false);

  useEffect(() => {
    const timer = setTimeout(() => {
      setBusy(true);
      bench.ask("plan", { draft, decided }).then(
        (found) => {
          setFindings(found);
          setProblem(undefined);
          setTried((before) => before + 1);
          setBusy(false);
        },
        (error: unknown) => {
          if (error instanceof StaleError) return;
          setProblem((error as Error).message);
          setBusy(false);
        },
      );
    }, pause);
    return () => clearTimeout(timer);
  }, [bench, version, draft, decided]);

  const edit = (change: Partial<Draft>) => onChange(({ draft }) => ({ draft: { ...draft, ...change } }));
  const editColumns = (change: (columns: Draft["columns"]) => Draft["columns"]) =>
    onChange(({ draft }) => ({ draft: { ...draft, columns: change(draft.columns) } }));
  const editColumn = (key: string, change: Partial<DraftColumn>) =>
    editColumns((columns) => columns.map((column) => (column.key === key ? { ...column, ...change } : column)));
  const known = useMemo(() => withDraft(props.glimpse, draft.columns), [props.glimpse, draft.columns]);
  const { result, problems } = findings;
  const dialect = useDialect(draft.dialect);
  /** The expressions, by their columns; the one that was written in last, or the last one, takes what is found. */
  const texts = useRef(new Map<string, ExpressionHandle | null>());
  const written = useRef<string>(undefined);
  const textOf = (key = "") => texts.current.get(key);
  const hasHelpers = draft.columns.some(({ isHelper }) => isHelper);

  return (
    <main className="columns">
      <div className="drafts" role="region" aria-label="Columns" tabIndex={0}>
        <div className="bar">
          <label>
            Dialect <DialectSelect dialect={draft.dialect} onDialect={(dialect) => edit({ dialect, options: {} })} />
          </label>
          <FileButton
            title="Open folio"
            label="Open a folio, with the files of its lists"
            accept=".yaml,.yml,.json,.csv"
            isForSeveral
            onFiles={props.onOpenFolio}
          />
          <button type="button" onClick={props.onSaveFolio}>
            Save folio
          </button>
          <FindBox
            dialect={dialect}
            onTake={(found) => [written.current, draft.columns.at(-1)?.key].map(textOf).find(Boolean)?.insert(found)}
          />
        </div>
        {draft.columns.map((column) => (
          <ColumnCard
            key={column.key}
            column={column}
            dialect={draft.dialect}
            sample={known}
            lists={Object.keys(draft.lists)}
            findings={findings}
            ref={(text) => void texts.current.set(column.key, text)}
            onFocus={() => (written.current = column.key)}
            onChange={(change) => editColumn(column.key, change)}
            onRemove={() => editColumns((columns) => columns.filter(({ key }) => key !== column.key))}
          />
        ))}
        <button
          type="button"
          onClick={() =>
            editColumns((columns) => [
              ...columns,
              { key: crypto.randomUUID(), name: "", expression: "", isHelper: false, then: [] },
            ])
          }
        >
          Add a column
        </button>
        <h3>Rows</h3>
        <Condition
          label="Change only where"
          value={draft.where}
          problems={problems.where}
          onChange={(where) => edit({ where })}
        />
        <Condition label="Leave out unless" value={draft.only} problems={problems.only} onChange={(only) => edit({ only })} />
        <Condition
          label="Make rows of the list in"
          value={draft.unfold}
          problems={problems.unfold}
          onChange={(unfold) => edit({ unfold })}
        />
        <Lists draft={draft} problems={problems} onChange={(lists) => edit({ lists })} />
      </div>
      <section className="outcome" aria-label="What becomes of the rows">
        <div className="bar">
          <span role="status">{outcome(findings, problem, isBusy)}</span>
          <label>
            show{" "}
            <select value={view} onChange={(event) => setView(event.target.value as View)}>
              {Object.entries(views).map(([id, name]) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          {hasHelpers && (
            <label>
              <input type="checkbox" checked={showsHelpers} onChange={(event) => setShowsHelpers(event.target.checked)} /> helper
              columns
            </label>
          )}
          <button type="button" className="main" disabled={!result || isBusy} onClick={props.onApply}>
            Apply
          </button>
        </div>
        {result?.warnings.map((warning) => (
          <p key={warning} className="warning">
            {warning}
          </p>
        ))}
        <VirtualTable
          bench={bench}
          view={view}
          helpers={showsHelpers}
          version={version * 1e6 + tried}
          label="Before and after"
          decided={(column, before) => decided[column]?.[before]}
          onDecide={(column, before, after) =>
            onChange(({ decided }) => ({ decided: { ...decided, [column]: { ...decided[column], [before]: after } } }))
          }
        />
      </section>
    </main>
  );
}

/** The rows with the columns of a draft, whose values are not at hand. */
function withDraft(sample: Sample, columns: readonly DraftColumn[]): Sample {
  const given = new Set(sample.columns.map(({ name }) => name));
  const names = columns.flatMap(({ name }) => namesIn(name)).filter((name) => !given.has(name));
  return { ...sample, columns: [...sample.columns, ...names.map((name) => ({ name, values: [] }))] };
}

/** What a draft makes of the rows, in a few words. */
function outcome({ result, problems }: PlanFindings, problem: string | undefined, isBusy: boolean): string {
  if (problem !== undefined) return problem;
  if (!result)
    return Object.keys(problems).length > 0 ? "Something is to be mended first." : isBusy ? "Working …" : "Write a column.";
  const { given, kept, changedRows, counts } = result;
  const added = counts.filter(({ isNew, isHelper }) => isNew && !isHelper).length;
  const left = kept === given ? "" : `${kept.toLocaleString("en")} rows of ${given.toLocaleString("en")} stay; `;
  return `${left}${changedRows.toLocaleString("en")} of ${kept.toLocaleString("en")} rows change${added > 0 ? `, ${added} new ${added === 1 ? "column" : "columns"}` : ""}${isBusy ? " …" : ""}`;
}

interface ColumnCardProps {
  readonly column: DraftColumn;
  readonly dialect: string;
  readonly sample: Sample;
  readonly lists: readonly string[];
  readonly findings: PlanFindings;
  readonly ref: Ref<ExpressionHandle>;
  readonly onFocus: () => void;
  readonly onChange: (change: Partial<DraftColumn>) => void;
  readonly onRemove: () => void;
}

/** A column: its name, its expression, what is done with its values, what became of them. */
function ColumnCard(props: ColumnCardProps) {
  const { column, dialect, sample, lists, findings, ref, onFocus, onChange, onRemove } = props;
  const { problems, result } = findings;
  const { key, name, expression, isHelper, then } = column;
  const names = name.split(",").map((each) => each.trim());
  const counts = result?.counts.filter((each) => names.includes(each.name)) ?? [];
  const own = problems[key];
  const found = useMemo(() => own && { title: "", isOk: false, type: "", problems: own, formatted: undefined }, [own]);
  return (
    <article className="card" onFocus={onFocus}>
      <div className="bar">
        <label>
          Column <input value={name} placeholder="name" size={16} onChange={(event) => onChange({ name: event.target.value })} />
        </label>
        <label>
          <input type="checkbox" checked={isHelper} onChange={(event) => onChange({ isHelper: event.target.checked })} /> helper
        </label>
        <button type="button" aria-label={`Remove the column ${name}`} onClick={onRemove}>
          ×
        </button>
      </div>
      <Editor
        label={`Expression of ${name || "the new column"}`}
        isShort
        dialect={dialect}
        sample={sample}
        text={expression}
        findings={found}
        ref={ref}
        onText={(text) => onChange({ expression: text })}
      />
      {then.map((job, i) => (
        <JobLine
          key={i}
          job={job}
          lists={lists}
          onChange={(changed) => onChange({ then: then.map((each, at) => (at === i ? changed : each)) })}
          onRemove={() => onChange({ then: then.filter((_, at) => at !== i) })}
        />
      ))}
      <label>
        then{" "}
        <select
          value=""
          aria-label={`Then, with ${name || "the new column"}`}
          onChange={(event) => onChange({ then: [...then, jobs[event.target.value].start(lists)] })}
        >
          <option value="">…</option>
          {Object.entries(jobs).map(([id, { title }]) => (
            <option key={id} value={id}>
              {title}
            </option>
          ))}
        </select>
      </label>
      {counts.map((each) => (
        <p key={each.name} className="quiet">
          {names.length > 1 && `${each.name}: `}
          {each.changed.toLocaleString("en")} {each.isNew ? "values" : "changed"}
          {each.empty > 0 && `, ${each.empty.toLocaleString("en")} empty`}
          {each.nothing > 0 && `, ${each.nothing.toLocaleString("en")} nothing`}
          {each.failed > 0 && <span className="failure">, {each.failed.toLocaleString("en")} errors</span>}
        </p>
      ))}
      {counts.some(({ hits, unused }) => hits.length + unused > 0) && (
        <ul className="hits" aria-label={`Rules used in ${name}`}>
          {counts
            .flatMap(({ hits }) => hits.slice(0, 8))
            .map(({ rule, count }) => (
              <li key={rule}>
                <span className="number">{count.toLocaleString("en")}</span> {rule}
              </li>
            ))}
          {counts.map(
            ({ name: own, unused }) =>
              unused > 0 && (
                <li key={own} className="quiet">
                  {unused} found nothing
                </li>
              ),
          )}
        </ul>
      )}
    </article>
  );
}

interface JobKind {
  readonly title: string;
  readonly takes: "list" | "text" | "kinds" | "thing" | "number" | "none";
  readonly start: (lists: readonly string[]) => WrittenJob;
}

/** The jobs that can be done with values, as they are offered. */
const jobs: Readonly<Record<string, JobKind>> = {
  replace: { title: "replace by a list", takes: "list", start: ([first = ""]) => ({ replace: first }) },
  has: { title: "whether a value of a list is in it", takes: "list", start: ([first = ""]) => ({ has: first }) },
  which: { title: "which value of a list is in it", takes: "list", start: ([first = ""]) => ({ which: first }) },
  terms: { title: "all values of a list that are in it", takes: "list", start: ([first = ""]) => ({ terms: first }) },
  split: { title: "split at marks", takes: "text", start: () => ({ split: [";"] }) },
  keep: { title: "keep pieces that are in a list", takes: "list", start: ([first = ""]) => ({ keep: first }) },
  places: { title: "which pieces are in a list", takes: "list", start: ([first = ""]) => ({ places: first }) },
  item: { title: "one piece", takes: "number", start: () => ({ item: 1 }) },
  join: { title: "join pieces", takes: "text", start: () => ({ join: ", " }) },
  drop: { title: "drop kinds of characters", takes: "kinds", start: () => ({ drop: ["digits"] }) },
  only: { title: "keep only kinds of characters", takes: "kinds", start: () => ({ only: ["letters"] }) },
  find: { title: "find all of a kind", takes: "thing", start: () => ({ find: "number" }) },
  plain: { title: "plain letters", takes: "none", start: () => ({ plain: true }) },
  tidy: { title: "tidy white space", takes: "none", start: () => ({ tidy: true }) },
};

interface JobLineProps {
  readonly job: WrittenJob;
  readonly lists: readonly string[];
  readonly onChange: (job: WrittenJob) => void;
  readonly onRemove: () => void;
}

/** One thing that is done with the values. */
function JobLine({ job, lists, onChange, onRemove }: JobLineProps) {
  const [name, value] = Object.entries(job)[0] as [string, unknown];
  const { title, takes } = jobs[name];
  const set = (changed: unknown) => onChange({ [name]: changed });
  const text = Array.isArray(value) ? value.join(" ") : typeof value === "object" ? JSON.stringify(value) : String(value);
  return (
    <div className="job">
      <span>then {title}</span>
      {takes === "list" && (
        <select aria-label={title} value={text} onChange={(event) => set(event.target.value)}>
          {!lists.includes(text) && <option value={text}>{text === "" ? "no list yet" : text}</option>}
          {lists.map((list) => (
            <option key={list}>{list}</option>
          ))}
        </select>
      )}
      {takes === "kinds" && (
        <select
          aria-label={title}
          multiple
          size={3}
          value={value as string[]}
          onChange={(event) => set([...event.target.selectedOptions].map((option) => option.value))}
        >
          {Object.keys(characterKinds).map((kind) => (
            <option key={kind}>{kind}</option>
          ))}
        </select>
      )}
      {takes === "thing" && (
        <select aria-label={title} value={text} onChange={(event) => set(event.target.value)}>
          {Object.keys(findable).map((kind) => (
            <option key={kind}>{kind}</option>
          ))}
        </select>
      )}
      {takes === "number" && (
        <input aria-label={title} type="number" value={text} onChange={(event) => set(event.target.valueAsNumber || 1)} />
      )}
      {takes === "text" && <TextOf key={name} label={title} name={name} value={text} onChange={set} />}
      <button type="button" aria-label={`Do not ${title}`} onClick={onRemove}>
        ×
      </button>
    </div>
  );
}

/** A text; between spaces the marks of a split. */
function TextOf({
  label,
  name,
  value,
  onChange,
}: {
  label: string;
  name: string;
  value: string;
  onChange: (value: unknown) => void;
}) {
  const [text, setText] = useState(value);
  return (
    <input
      aria-label={label}
      title={name === "split" ? "several marks between spaces" : undefined}
      size={8}
      value={text}
      onChange={({ target }) => {
        setText(target.value);
        onChange(
          name !== "split" ? target.value : target.value.trim() === "" ? [target.value || " "] : target.value.trim().split(/\s+/),
        );
      }}
    />
  );
}

interface ConditionProps {
  readonly label: string;
  readonly value: string;
  readonly problems: PlanFindings["problems"][string] | undefined;
  readonly onChange: (value: string) => void;
}

function Condition({ label, value, problems = [], onChange }: ConditionProps) {
  return (
    <div className="condition">
      <label>
        {label} <input className="code" value={value} spellCheck={false} onChange={(event) => onChange(event.target.value)} />
      </label>
      <Problems problems={problems} onText={onChange} />
    </div>
  );
}

interface ListsProps {
  readonly draft: Draft;
  readonly problems: PlanFindings["problems"];
  readonly onChange: (lists: Draft["lists"]) => void;
}

/** Replacement and value lists, as CSV. */
function Lists({ draft: { lists }, problems, onChange }: ListsProps) {
  const name = useRef<HTMLInputElement>(null);
  const free = (wanted: string) => {
    let own = wanted;
    for (let n = 2; own in lists; n++) own = `${wanted} ${n}`;
    return own;
  };
  return (
    <>
      <h3>Lists</h3>
      {Object.entries(lists).map(([key, csv]) => (
        <article key={key} className="card">
          <div className="bar">
            <strong>{key}</strong>
            <button
              type="button"
              aria-label={`Remove the list ${key}`}
              onClick={() => onChange(Object.fromEntries(Object.entries(lists).filter(([each]) => each !== key)))}
            >
              Remove
            </button>
          </div>
          <textarea
            aria-label={`The list ${key}, as CSV`}
            className="code"
            rows={Math.min(8, csv.split("\n").length + 1)}
            spellCheck={false}
            value={csv}
            onChange={(event) => onChange({ ...lists, [key]: event.target.value })}
          />
          <Problems problems={problems[`list ${key}`] ?? []} />
        </article>
      ))}
      <div className="bar">
        <input ref={name} placeholder="name of a new list" aria-label="Name of a new list" size={16} />
        <button type="button" onClick={() => onChange({ ...lists, [free(name.current!.value.trim() || "list")]: "old,new\n" })}>
          Replacements
        </button>
        <button type="button" onClick={() => onChange({ ...lists, [free(name.current!.value.trim() || "list")]: "value\n" })}>
          Values
        </button>
        <FileButton
          title="From a file"
          label="A list from a file"
          accept=".csv,.tsv"
          onFiles={([file]) =>
            void file.text().then((text) => onChange({ ...lists, [free(file.name.replace(/\.\w+$/, ""))]: text }))
          }
        />
      </div>
    </>
  );
}
