/** Help at the caret for the expression editors: what the core knows of a text and a place in it, as the editor shows it. */
import {
  type Completion as Option,
  type CompletionContext,
  type CompletionResult,
  autocompletion,
} from "@codemirror/autocomplete";
import { type EditorState, type Extension, StateEffect, StateField } from "@codemirror/state";
import { Decoration, EditorView, type Tooltip, hoverTooltip, showTooltip } from "@codemirror/view";
import type { Dialect, Sample, TextRange } from "indigo-quill";
import { type CallHelp, type Completion, callAt, completionsAt, hoverAt } from "indigo-quill/authoring";

/** What is known beside the text. */
export interface Known {
  /** Undefined until it is loaded. */
  readonly dialect: Dialect | undefined;
  readonly sample: Sample;
  /** Stretches of the text to mark, each with its class. */
  readonly marks: readonly { readonly range: TextRange; readonly name: string }[];
  /** What the innermost step around a place gives on the chosen row, in words. */
  readonly valueAt?: ((offset: number) => string | undefined) | undefined;
}

const nothing: Known = { dialect: undefined, sample: { columns: [], rows: 0 }, marks: [] };

/** Tells the editor what is known now. */
export const knowing = StateEffect.define<Known>();

const known = StateField.define<Known>({
  create: () => nothing,
  update: (value, { effects }) => effects.reduce((before, effect) => (effect.is(knowing) ? effect.value : before), value),
});

/** Marks what is wrong, or where steps stand; an empty stretch marks the character before it. */
function marked({ marks }: Known, length: number) {
  const ranges = marks.flatMap(({ range: { start, end }, name }) => {
    const [from, to] = [Math.min(start === end ? Math.max(0, start - 1) : start, length), Math.min(end, length)];
    const tagName = name === "step" ? "span" : "mark";
    return from < to ? [Decoration.mark({ class: name, tagName }).range(from, to)] : [];
  });
  return Decoration.set(ranges, true);
}

const marks = StateField.define({
  create: () => Decoration.none,
  update: (value, { effects, changes, state }) => {
    const told = effects.findLast((effect) => effect.is(knowing));
    return told?.is(knowing) ? marked(told.value, state.doc.length) : value.map(changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});

const element = (name: string, className: string, ...inside: readonly (string | Node)[]): HTMLElement => {
  const made = document.createElement(name);
  made.className = className;
  made.append(...inside);
  return made;
};

/** A signature with the parameter that the caret stands in. */
function signatureLine({ signature, parameters, current }: CallHelp): HTMLElement {
  const range = current === undefined ? { start: 0, end: 0 } : parameters[current].range;
  const { start, end } = range;
  return element(
    "code",
    "signature-line",
    signature.slice(0, start),
    element("strong", "current", signature.slice(start, end)),
    signature.slice(end),
  );
}

/** The ways in which the call at the caret may be written; they stand above it, where completions do not. */
function signatureAt(state: EditorState): Tooltip | null {
  const { dialect, valueAt } = state.field(known);
  const { head } = state.selection.main;
  const ways = dialect ? callAt(state.doc.toString(), head, dialect) : [];
  if (ways.length === 0) return null;
  const fitting = ways.filter(({ current }) => current !== undefined);
  const shown = (fitting.length > 0 ? fitting : ways).slice(0, 3);
  const value = valueAt?.(head);
  const [{ current, parameters, summary }] = shown;
  const about = current === undefined ? undefined : `${parameters[current].name}: ${parameters[current].about}`;
  return {
    pos: head,
    above: true,
    create: () => ({
      dom: element(
        "div",
        "signature",
        ...shown.map(signatureLine),
        element("p", "", summary),
        ...(about === undefined ? [] : [element("p", "", about)]),
        ...(value === undefined ? [] : [element("p", "value", value)]),
      ),
    }),
  };
}

const signatures = StateField.define<Tooltip | null>({
  create: signatureAt,
  update: (before, { docChanged, selection, effects, state }) =>
    docChanged || selection || effects.some((effect) => effect.is(knowing)) ? signatureAt(state) : before,
  provide: (field) => showTooltip.from(field),
});

const hovers = hoverTooltip((view, pos): Tooltip | null => {
  const { dialect, sample, valueAt } = view.state.field(known);
  const hover = dialect && hoverAt(view.state.doc.toString(), pos, dialect, sample);
  const value = valueAt?.(pos);
  const lines = [...(hover?.lines ?? []), ...(value === undefined ? [] : [value])];
  if (lines.length === 0) return null;
  const range = hover?.range ?? { start: pos, end: pos };
  return {
    pos: range.start,
    end: range.end,
    create: () => ({ dom: element("div", "hover", ...lines.map((line) => element("p", "", line))) }),
  };
});

/** A function is written with its brackets, the caret between them. */
function written({ kind, text }: Completion, next: string): Option["apply"] {
  if (kind !== "function" || next === "(" || !/[\p{L}\p{N}]$/u.test(text)) return text;
  return (view, _, from, to) =>
    view.dispatch({ changes: { from, to, insert: `${text}()` }, selection: { anchor: from + text.length + 1 } });
}

function completions({ state, pos, explicit }: CompletionContext): CompletionResult | null {
  const { dialect, sample } = state.field(known);
  const text = state.doc.toString();
  const found = dialect ? completionsAt(text, pos, dialect, sample) : [];
  const [first] = found;
  // Where nothing is begun, all that there is would only stand in the way.
  if (!first || (!explicit && first.kind !== "value" && first.range.start === pos)) return null;
  const options = found.map((each): Option => ({
    label: each.text,
    type: each.kind,
    ...(each.family && { detail: each.family }),
    info: each.about,
    apply: written(each, text.slice(pos, pos + 1)),
  }));
  return { from: first.range.start, options, filter: false };
}

/** All help at the caret. */
export const helping: Extension = [
  known,
  marks,
  signatures,
  hovers,
  autocompletion({ override: [completions], icons: false, optionClass: ({ type }) => `option-${type}` }),
];
