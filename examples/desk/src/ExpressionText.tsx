import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { Annotation, Compartment, type Extension } from "@codemirror/state";
import { EditorView, keymap } from "@codemirror/view";
import { type Ref, useEffect, useImperativeHandle, useRef } from "react";
import { type Known, helping, knowing } from "./help.ts";

/** What may be done with the text from outside. */
export interface ExpressionHandle {
  /** Writes in the place of what is selected, or of all where nobody has been in the text yet, and selects it. */
  insert(text: string): void;
}

interface ExpressionTextProps {
  readonly ref?: Ref<ExpressionHandle> | undefined;
  readonly label: string;
  readonly text: string;
  readonly known: Known;
  readonly isWrong: boolean;
  readonly onText: (text: string) => void;
  /** Does the first mend that is offered, and the layout in lines; undefined where there is none. */
  readonly onMend: (() => void) | undefined;
  readonly onFormat: (() => void) | undefined;
}

const attributesOf = ({ label, isWrong }: Pick<ExpressionTextProps, "label" | "isWrong">): Extension =>
  EditorView.contentAttributes.of({ "aria-label": label, "aria-invalid": String(isWrong), spellcheck: "false" });

/** A change that does not come from the keyboard. */
const fromOutside = Annotation.define<true>();

const theme = EditorView.theme({
  "&": {
    font: "14px/1.5 var(--mono)",
    color: "var(--ink)",
    background: "var(--leaf)",
    border: "1px solid var(--line)",
    borderRadius: "4px",
  },
  "&.cm-focused": { outline: "2px solid var(--focus)", outlineOffset: "1px" },
  ".cm-scroller": { fontFamily: "inherit", lineHeight: "inherit", maxHeight: "12em", overflow: "auto" },
  ".cm-content": { padding: "6px 0", caretColor: "var(--ink)" },
  ".cm-line": { padding: "0 8px" },
  mark: {
    color: "inherit",
    background: "var(--rust-soft)",
    textDecoration: "underline wavy var(--rust)",
    textUnderlineOffset: "3px",
  },
  "mark.warning": { background: "var(--amber)", textDecorationColor: "#c98a00" },
  ".step": { borderRadius: "2px", background: "var(--step)" },
  ".cm-tooltip": { color: "var(--ink)", background: "var(--leaf)", border: "1px solid var(--line)", borderRadius: "4px" },
  ".signature, .hover": { padding: "4px 8px", maxWidth: "560px", fontSize: "13px" },
  ".signature p, .hover p": { margin: "2px 0", fontFamily: "var(--sans)", whiteSpace: "pre-wrap", overflowWrap: "anywhere" },
  ".signature-line": { display: "block" },
  ".signature .current": { textDecoration: "underline", textUnderlineOffset: "3px" },
  ".signature .value": { color: "var(--quiet)" },
  "&:not(.cm-focused) .cm-tooltip:has(.signature)": { display: "none" },
  ".cm-tooltip.cm-tooltip-autocomplete > ul": { fontFamily: "var(--mono)", maxHeight: "16em" },
  ".cm-tooltip-autocomplete ul li[aria-selected]": { color: "#ffffff", background: "var(--indigo)" },
  ".cm-tooltip.cm-completionInfo": { maxWidth: "320px", padding: "4px 8px", fontFamily: "var(--sans)", fontSize: "13px" },
  ".option-task": { fontStyle: "italic" },
});

/**
 * The text of an expression, with marks, completions, signatures and what is known of the word under the pointer. It stands in a
 * shadow tree, where its styles need no exception from the page's policy.
 */
export function ExpressionText(props: ExpressionTextProps) {
  const { label, text, known, isWrong } = props;
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const attributes = useRef(new Compartment());
  const latest = useRef(props);
  latest.current = props;
  const isVisited = useRef(false);
  /** What was typed and has not come back yet: not to be written over what was typed since. */
  const said = useRef<string[]>([]);

  useImperativeHandle(
    props.ref,
    () => ({
      insert(text) {
        const { main } = view.current!.state.selection;
        const [from, to] = isVisited.current ? [main.from, main.to] : [0, view.current!.state.doc.length];
        view.current!.dispatch({ changes: { from, to, insert: text }, selection: { anchor: from, head: from + text.length } });
        view.current!.focus();
      },
    }),
    [],
  );

  useEffect(() => {
    const root = host.current!.shadowRoot ?? host.current!.attachShadow({ mode: "open" });
    const doing = (what: "onMend" | "onFormat") => () => {
      latest.current[what]?.();
      return latest.current[what] !== undefined;
    };
    const made = new EditorView({
      parent: root,
      root,
      doc: latest.current.text,
      extensions: [
        theme,
        history(),
        keymap.of([
          { key: "Mod-.", run: doing("onMend"), preventDefault: true },
          { key: "Shift-Alt-f", run: doing("onFormat"), preventDefault: true },
          ...defaultKeymap,
          ...historyKeymap,
        ]),
        EditorView.lineWrapping,
        helping,
        attributes.current.of(attributesOf(latest.current)),
        EditorView.domEventHandlers({
          focus: () => {
            isVisited.current = true;
          },
          // Left to itself the browser keeps the look of a mark that is written over in a style attribute, which the policy refuses.
          beforeinput(event, view) {
            if (event.inputType !== "insertText" || event.data === null || view.state.selection.main.empty) return false;
            event.preventDefault();
            view.dispatch(view.state.replaceSelection(event.data), { userEvent: "input.type", scrollIntoView: true });
            return true;
          },
        }),
        EditorView.updateListener.of(({ docChanged, transactions, state }) => {
          if (!docChanged || transactions.some((each) => each.annotation(fromOutside))) return;
          const now = state.doc.toString();
          said.current.push(now);
          latest.current.onText(now);
        }),
      ],
    });
    view.current = made;
    return () => made.destroy();
    // The view is made once; what changes is told to it below.
  }, []);

  useEffect(() => {
    const { state } = view.current!;
    const place = said.current.lastIndexOf(text);
    if (place >= 0) said.current.splice(0, place + 1);
    else if (text !== state.doc.toString()) {
      said.current = [];
      const changes = { from: 0, to: state.doc.length, insert: text };
      view.current!.dispatch({ changes, annotations: fromOutside.of(true) });
    }
  }, [text]);

  useEffect(() => {
    view.current!.dispatch({ effects: knowing.of(known) });
  }, [known]);
  useEffect(() => {
    view.current!.dispatch({ effects: attributes.current.reconfigure(attributesOf({ label, isWrong })) });
  }, [label, isWrong]);

  return <div ref={host} className="editor-text" />;
}
