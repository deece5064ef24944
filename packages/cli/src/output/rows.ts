import { csvLines, jsonItems, writeNdjson } from "@indigo-quill/data";
import { type Column, type Sample, type Value, isFailure } from "indigo-quill";
import { type Applied, ChangedValues, type Plan, placesUsed } from "indigo-quill/folio";
import { UsageError } from "../streams.ts";
import type { RowFormat } from "./formats.ts";
import { jobText } from "./rules.ts";
import { previewOfRows, tableOfValues } from "./preview.ts";
import { type Style, cellText, headerText } from "./style.ts";
import { TableLines } from "./table.ts";
import { exactData } from "indigo-quill/values";

/** Writes rows in one of the formats; `start` counts the rows before the piece that they were made from. */
export interface RowWriter {
  readonly begin?: string;
  rows(applied: Applied, piece: Sample, start: number): string | Uint8Array;
  readonly end?: () => string | Uint8Array | Promise<Uint8Array>;
}

/** A cell as it was written. */
const rawCell = ({ values, written }: Column, row: number): Value => (written ?? values)[row];

/** A cell as data; an error by its code. */
function cellOf(value: Value, format: RowFormat): unknown {
  if (!isFailure(value)) return value;
  const code = value.standard ?? value.code;
  return format === "csv" || format === "tsv" ? `#ERROR ${code}` : { error: code };
}

/** A writer of all rows in a format. */
export async function writerOf(format: RowFormat, plan: Plan, sample: Sample, all: boolean, style: Style): Promise<RowWriter> {
  if (format === "parquet" || format === "arrow") {
    const rows =
      format === "parquet"
        ? new (await import("@indigo-quill/data/parquet")).ParquetRows(plan.names)
        : new (await import("@indigo-quill/data/arrow")).ArrowRows(plan.names);
    return {
      rows: ({ sample: { columns } }) => rows.add(columns.map(({ values }) => values)),
      end: () => rows.end(),
    };
  }
  if (format === "table") return tableWriter(plan, sample, all, style);
  const { names } = plan;
  const cells = ({ sample: { columns, rows } }: Applied) =>
    Array.from({ length: rows }, (_, row) => columns.map(({ values }) => cellOf(values[row], format)));
  if (format === "csv" || format === "tsv") {
    const separator = format === "csv" ? "," : "\t";
    return { begin: csvLines([names], separator), rows: (applied) => csvLines(cells(applied), separator) };
  }
  if (format === "ndjson") return { rows: (applied) => writeNdjson(names, cells(applied)) };
  let hasRows = false;
  return {
    rows(applied) {
      const items = jsonItems(names, cells(applied));
      if (items === "") return "";
      const text = (hasRows ? ",\n" : "[\n") + items;
      hasRows = true;
      return text;
    },
    end: () => (hasRows ? "\n]\n" : "[]\n"),
  };
}

/** A table of the columns that are used, as they were, and those that are calculated. */
function tableWriter(plan: Plan, sample: Sample, all: boolean, style: Style): RowWriter {
  const given = new Set(sample.columns.map(({ name }) => name));
  const used = placesUsed(plan);
  const shown = sample.columns.map((_, i) => i).filter((i) => all || used.has(i) || plan.calculated.has(sample.columns[i].name));
  const calculated = plan.names.map((_, i) => i).filter((i) => plan.calculated.has(plan.names[i]));
  const header = [
    "row",
    ...shown.map((i) => headerText(sample.columns[i].name)),
    ...calculated.map((i) => headerText(plan.names[i]) + (given.has(plan.names[i]) ? " (new)" : "")),
  ];
  const lines = new TableLines(header, style, [0]);
  return {
    rows: ({ sample: { columns }, rows }, piece, start) =>
      lines.lines(
        rows.map((row, i) => [
          String(start + row + 1),
          ...shown.map((place) => cellText(rawCell(piece.columns[place], row), plan.dialect, style)),
          ...calculated.map((place) => cellText(columns[place].values[i], plan.dialect, style)),
        ]),
      ),
  };
}

/** What a preview shows: the cells that change, or the values, each once. */
export type PreviewOf = "rows" | "values";

/** A writer of what would change. @throws UsageError where nothing is replaced, or not in this format */
export function previewOf(of: PreviewOf, format: RowFormat, plan: Plan, sample: Sample, style: Style): RowWriter {
  if (!sample.columns.some(({ name }) => plan.calculated.has(name)))
    throw new UsageError("a preview shows what becomes of columns that are there; give one by --replace, --each or --column");
  if (of === "rows") {
    if (format !== "table") throw new UsageError("a preview of rows is a table; --preview values also comes as CSV");
    const rows = previewOfRows(plan, style);
    return { rows };
  }
  if (format !== "table" && format !== "csv") throw new UsageError("a preview of values is a table or CSV");
  const values = new ChangedValues(plan);
  return {
    rows(applied, piece) {
      values.add(applied, piece);
      return "";
    },
    end: () =>
      format === "table"
        ? tableOfValues(values, plan, style)
        : csvLines([
            ["column", "before", "after", "rows"],
            ...values.list().map(({ column, before, after, count }) => [column, before, cellOf(after, "csv"), count]),
          ]),
  };
}

/** A writer of every sub-expression's value down the rows; a literal says the same on all of them and is left out. */
export function stepsWriter(format: RowFormat, plan: Plan, sample: Sample, style: Style): RowWriter {
  if (format !== "table" && format !== "csv" && format !== "tsv") throw new UsageError("--steps come as a table, CSV or TSV");
  const { dialect } = plan;
  const isLiteral = (text: string) => dialect.parse(text).tree.kind === "literal";
  /** For each column the places of its sub-expressions that are shown; each text once. */
  const shown: number[][] = [];
  const header: string[] = [];
  for (const { step, sample: seen } of plan.stages(sample)) {
    const places: number[] = [];
    const jobs = step.column.then ?? [];
    for (const [place, { text, depth }] of (sample.rows > 0 ? step.program.trace(seen, 0) : []).entries()) {
      const title = depth === 0 && jobs.length === 0 ? step.column.names.join(", ") : text;
      if (header.includes(title) || (depth > 0 && isLiteral(text))) continue;
      places.push(place);
      header.push(title);
    }
    shown.push(places);
    jobs.forEach((job, i) => header.push(i === jobs.length - 1 ? step.column.names.join(", ") : `then ${jobText(job)}`));
  }
  const lines = new TableLines(["row", ...header.map(headerText)], style, [0]);
  const separator = format === "tsv" ? "\t" : ",";
  const cell = (values: readonly Value[]) =>
    values.length === 0
      ? style.colour.dim("–")
      : values
          .slice(0, 6)
          .map((value) => cellText(value, dialect, style))
          .join(" · ") + (values.length > 6 ? " · …" : "");
  const data = (values: readonly Value[]): unknown => {
    const plain = values.map((value) =>
      isFailure(value) ? cellOf(value, format) : exactData(value, (each) => dialect.plain(each)),
    );
    return plain.length > 1 ? plain : plain[0];
  };
  return {
    ...(format !== "table" && { begin: csvLines([["row", ...header]], separator) }),
    rows({ rows }, piece, start) {
      const found: (readonly Value[])[][] = rows.map(() => []);
      let step = 0;
      for (const {
        step: { program, treatment },
        sample: seen,
      } of plan.stages(piece)) {
        const places = shown[step++];
        const given = treatment && program.run(seen);
        rows.forEach((row, i) => {
          const traced = program.trace(seen, row);
          for (const place of places) found[i].push(traced[place].values);
          for (const value of treatment?.trace(given![row]) ?? []) found[i].push([value]);
        });
      }
      const number = (i: number) => String(start + rows[i] + 1);
      return format === "table"
        ? lines.lines(found.map((cells, i) => [number(i), ...cells.map(cell)]))
        : csvLines(
            found.map((cells, i) => [number(i), ...cells.map(data)]),
            separator,
          );
    },
  };
}
