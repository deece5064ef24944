import { explainFailure } from "indigo-quill/contrast";
import type { Dialect, Value } from "indigo-quill";
import { Failure } from "indigo-quill";
import { exactData, exactJson } from "indigo-quill/values";
import pico from "picocolors";
import type { Streams } from "../streams.ts";
import { visibleText } from "indigo-quill/authoring";

/** How things are written: colours on a terminal only, and whether spaces are shown. */
export interface Style {
  readonly colour: ReturnType<typeof pico.createColors>;
  readonly spaces: boolean;
  /** The columns of the terminal; undefined where the output is no terminal. */
  readonly width: number | undefined;
}

/** Colours only on a terminal, and not where NO_COLOR is set and not empty (no-color.org). */
export function styleFor(streams: Streams, spaces = false): Style {
  const isTerminal = streams.stdout.isTTY === true;
  return {
    colour: pico.createColors(isTerminal && !streams.env.NO_COLOR),
    spaces,
    width: isTerminal ? (streams.stdout.columns ?? 100) : undefined,
  };
}

/** UTF-16 units of a text that a table shows; the data formats give it whole. */
const shownLength = 500;

function shortened(text: string, spaces: boolean): string {
  const shown = visibleText(text.slice(0, shownLength), spaces);
  return text.length > shownLength ? `${shown}… (${text.length} in all)` : shown;
}

/** A value in a table: nothing as ∅, an error by its code, texts on one line and shortened. */
export function cellText(value: Value, dialect: Dialect, style: Style): string {
  if (value === null) return style.colour.dim("∅");
  if (value instanceof Failure) return style.colour.red(`✗ ${value.standard ?? value.code}`);
  if (value === "") return style.colour.dim('""');
  if (typeof value === "string") return shortened(value, style.spaces);
  const data = exactData(value, (each) => dialect.plain(each));
  return typeof data === "object" || typeof data === "string" ? shortened(exactJson(data), style.spaces) : String(data);
}

/** A column's name in the head of a table: on one line, and shortened. */
export const headerText = (name: string): string => shortened(name, false);

export const failureText = (failure: Failure): string => explainFailure(failure);
