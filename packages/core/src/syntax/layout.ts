/** A text that may be broken over lines: a `line` is a space and a `soft` nothing, unless their group does not fit. */
export type Doc = string | readonly Doc[] | Line | { readonly kind: "group" | "nest"; readonly inner: Doc };

interface Line {
  readonly kind: "line";
  readonly flat: string;
}

const isMany = (doc: Doc): doc is readonly Doc[] => Array.isArray(doc);

export const line: Line = { kind: "line", flat: " " };
export const soft: Line = { kind: "line", flat: "" };

/** Parts that stay on one line together, or are broken at each of their own lines. */
export const group = (...doc: Doc[]): Doc => ({ kind: "group", inner: doc });

/** Lines within are two spaces further in. */
export const nest = (...doc: Doc[]): Doc => ({ kind: "nest", inner: doc });

/** Documents between brackets, with a mark between them. */
export const bracketed = (open: string, items: readonly Doc[], mark: Doc, close: string): Doc =>
  items.length === 0
    ? open + close
    : group(open, nest(soft, ...items.flatMap((item, i) => (i === 0 ? [item] : [mark, item]))), soft, close);

interface Placed {
  readonly doc: Doc;
  readonly indent: number;
  readonly isFlat: boolean;
}

/** Lays a document out in lines of `width` UTF-16 code units where that can be; in one line where it is infinite. */
export function layOut(root: Doc, width: number): string {
  let text = "";
  let column = 0;
  const pending: Placed[] = [{ doc: root, indent: 0, isFlat: width === Infinity }];
  for (let next = pending.pop(); next; next = pending.pop()) {
    const { doc, indent, isFlat } = next;
    if (typeof doc === "string") {
      text += doc;
      const broken = doc.lastIndexOf("\n");
      column = broken < 0 ? column + doc.length : doc.length - broken - 1;
    } else if (isMany(doc)) {
      for (let i = doc.length - 1; i >= 0; i--) pending.push({ doc: doc[i], indent, isFlat });
    } else if (doc.kind === "line") {
      if (isFlat) column += doc.flat.length;
      else column = indent;
      text += isFlat ? doc.flat : `\n${" ".repeat(indent)}`;
    } else if (doc.kind === "nest") pending.push({ doc: doc.inner, indent: indent + 2, isFlat });
    else pending.push({ doc: doc.inner, indent, isFlat: isFlat || fits(doc.inner, pending, width - column) });
  }
  return text;
}

/** Whether a document in one line, and what follows it up to the next line break, has room. */
function fits(first: Doc, after: readonly Placed[], room: number): boolean {
  const pending: Placed[] = [{ doc: first, indent: 0, isFlat: true }];
  for (let followed = after.length; room >= 0;) {
    const next = pending.pop() ?? after[--followed];
    if (!next) return true;
    const { doc, isFlat } = next;
    if (typeof doc === "string") room -= doc.length;
    else if (isMany(doc)) for (let i = doc.length - 1; i >= 0; i--) pending.push({ ...next, doc: doc[i] });
    else if (doc.kind === "line") {
      if (!isFlat) return true;
      room -= doc.flat.length;
    } else pending.push({ ...next, doc: doc.inner });
  }
  return false;
}
