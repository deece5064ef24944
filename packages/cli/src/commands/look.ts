import { writeFile } from "node:fs/promises";
import { visibleText } from "indigo-quill/authoring";
import { type ColumnSurvey, type Found, type Remark, Survey, remarksOn } from "indigo-quill/survey";
import { type RowOptions, readFiles } from "../input.ts";
import { counted } from "../output/counted.ts";
import { progress } from "../output/progress.ts";
import { type Style, headerText, styleFor } from "../output/style.ts";
import { table } from "../output/table.ts";
import { type Guarded, UsageError, exit } from "../streams.ts";

export interface LookOptions extends Omit<RowOptions, "types" | "text"> {
  readonly column?: readonly string[];
  readonly json?: boolean;
  readonly svg?: string;
}

/** Shows what the columns of files hold, taken together: an overview of all, or one by one what is asked for. */
export async function look(files: readonly string[], options: LookOptions, streams: Guarded): Promise<number> {
  const survey = new Survey();
  const say = progress(streams);
  for await (const piece of readFiles(files, { ...options, text: true }, streams)) {
    survey.add(piece);
    say(survey.rows);
  }
  const all = survey.result();
  const names = all.map(({ name }) => name);
  const unknown = options.column?.find((name) => !names.includes(name));
  if (unknown !== undefined) throw new UsageError(`there is no column "${unknown}"; the columns are ${names.join(", ")}`);
  const wanted = all.filter(({ name }) => options.column?.includes(name) ?? true);
  if (options.svg !== undefined) await writeFile(options.svg, drawing(wanted), { flag: "wx" }).catch(refused(options.svg));
  if (options.json) streams.data.write(`${JSON.stringify(wanted, undefined, 1)}\n`);
  else {
    const style = styleFor(streams);
    streams.stdout.write(
      options.column ? wanted.map((each) => detail(each, style)).join("\n") : overview(wanted, survey.rows, style),
    );
  }
  return exit.ok;
}

const refused = (path: string) => (error: NodeJS.ErrnoException) => {
  const reasons: Readonly<Record<string, string>> = {
    EEXIST: "there is such a file already; give another name",
    ENOENT: "there is no such folder",
  };
  throw new UsageError(`${path}: ${reasons[error.code ?? ""] ?? error.message}`);
};

const range = (least: number, most: number): string => (least === most ? String(least) : `${least}–${most}`);
const about = ({ distinct, isEstimated }: ColumnSurvey): string => (isEstimated ? `≈ ${distinct}` : String(distinct));
const quoted = (text: string): string => `"${visibleText(text, true)}"`;

function overview(columns: readonly ColumnSurvey[], rows: number, style: Style): string {
  const lines = columns.map((column) => [
    headerText(column.name),
    column.kind + (column.exceptions.length > 0 ? ", nearly" : ""),
    String(column.nothing),
    String(column.empty),
    about(column),
    column.lengths ? range(column.lengths.least, column.lengths.most) : "",
    column.shapes.length > 0 ? `${bar(column.shapes[0].count / rows, 8)} ${column.shapes[0].what}` : "",
  ]);
  const findings = columns.flatMap((column) =>
    remarksOn(column).map((remark, i) => [
      i === 0 ? headerText(column.name) : "",
      remark.what,
      String(remark.rows),
      firstOf(remark),
    ]),
  );
  const head = `${counted(rows, "row")}, ${counted(columns.length, "column")}\n\n`;
  const body = table(
    ["column", "kind", "nothing", "empty", "distinct", "characters", "commonest shape"],
    lines,
    style,
    [2, 3, 4, 5],
  );
  const told = findings.length === 0 ? "" : `\n${table(["column", "worth a look", "rows", "first"], findings, style, [2])}`;
  return head + body + told;
}

const placed = ({ example, row }: Found): string => `${quoted(example)} on row ${row + 1}`;
/** The first texts of a remark, with their rows unless they are about one another. */
const firstOf = ({ first, isAlike }: Remark): string =>
  isAlike ? first.map(({ what }) => quoted(what)).join(" and ") : first.map(placed).join(", ");

const eighths = ["", "▏", "▎", "▍", "▌", "▋", "▊", "▉"];

/** A share as a bar of a number of places. */
function bar(share: number, places: number): string {
  const eighth = Math.round(share * places * 8);
  const drawn = "█".repeat(Math.floor(eighth / 8)) + eighths[eighth % 8];
  return (drawn === "" && share > 0 ? "▏" : drawn).padEnd(places);
}

/** Everything about one column. */
function detail(column: ColumnSurvey, style: Style): string {
  const { name, rows, nothing, failed, empty, lengths, kind, shapes, top, near, cases, isEstimated } = column;
  const counts = [
    `${rows} rows`,
    `${about(column)} distinct`,
    ...(nothing > 0 ? [`${nothing} nothing`] : []),
    ...(empty > 0 ? [`${empty} empty`] : []),
    ...(failed > 0 ? [`${failed} errors`] : []),
    ...(lengths ? [`${range(lengths.least, lengths.most)} characters, ${lengths.mean.toFixed(1)} on average`] : []),
  ];
  const share = (list: readonly Found[], title: string, show: (found: Found) => string, first = placed, all = list.length) =>
    list.length === 0
      ? ""
      : `\n${table(
          [title, "rows", "", "first"],
          list
            .slice(0, 12)
            .map((found) => [show(found), String(found.count), bar(found.count / list[0].count, 16), first(found)]),
          style,
          [1],
        )}${all > 12 ? `… and ${all - 12} more\n` : ""}`;
  const told = remarksOn(column).map((remark) => [remark.what, String(remark.rows), firstOf(remark)]);
  return [
    `${style.colour.bold(headerText(name))}: ${kind}; ${counts.join(", ")}\n`,
    told.length > 0 ? `\n${table(["worth a look", "rows", "first"], told, style, [1])}` : "",
    share(shapes, "shape", ({ what }) => what),
    share(cases, "letters", ({ what }) => what),
    share(
      top,
      isEstimated ? "value, of the first ones" : "value",
      ({ what }) => quoted(what),
      ({ row }) => `row ${row + 1}`,
      column.distinct,
    ),
    near.length === 0
      ? ""
      : `\n${style.colour.bold("nearly the same")}\n${near
          .slice(0, 12)
          .map(
            (group) =>
              `  ${group
                .slice(0, 6)
                .map(({ what, count }) => `${quoted(what)} ×${count}`)
                .join("  ")}\n`,
          )
          .join("")}`,
  ].join("");
}

const markup = (text: string): string => text.replace(/[&<>"]/g, (char) => `&#${char.charCodeAt(0)};`);

/** The commonest shapes of each column as bars, for a report. */
function drawing(columns: readonly ColumnSurvey[]): string {
  const [line, left, room] = [22, 260, 420];
  const parts: string[] = [];
  let y = 0;
  const text = (x: number, content: string, kind: string) =>
    parts.push(`<text x="${x}" y="${y - 6}" class="${kind}">${markup(content)}</text>`);
  for (const column of columns) {
    y += line * 1.5;
    text(
      12,
      `${visibleText(column.name, false)} — ${column.kind}, ${about(column)} distinct, ${column.empty} empty, ${column.nothing} nothing`,
      "head",
    );
    for (const { what, count } of column.shapes.slice(0, 6)) {
      y += line;
      text(24, visibleText(what, false).slice(0, 30), "label");
      const size = Math.max(1, (room * count) / column.rows);
      parts.push(`<rect x="${left}" y="${y - line + 4}" width="${size.toFixed(1)}" height="${line - 8}"/>`);
      text(left + size + 6, String(count), "count");
    }
  }
  const style =
    "text{font:14px sans-serif;fill:#222}.head{font-weight:bold}.label{font-family:monospace}.count{fill:#555}rect{fill:#4b3f9e}";
  return `<svg xmlns="http://www.w3.org/2000/svg" width="760" height="${y + line}" role="img"><title>What the columns hold</title><style>${style}</style><rect width="100%" height="100%" style="fill:#fff"/>${parts.join("")}</svg>\n`;
}
