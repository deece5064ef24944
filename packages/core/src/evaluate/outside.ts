/** The stretches of a text, those in straight quotes (with an end or without) marked. */
export function stretches(source: string): { text: string; isQuoted: boolean }[] {
  const parts = source.match(/'(?:[^']|'')*(?:'|$)|"(?:[^"]|"")*(?:"|$)|`[^`]*(?:`|$)|[^'"`]+/g) ?? [];
  return parts.map((text) => ({ text, isQuoted: /^['"`]/.test(text) }));
}

/** Changes what is not in quotes. */
export const outside = (source: string, change: (text: string) => string): string =>
  stretches(source)
    .map(({ text, isQuoted }) => (isQuoted ? text : change(text)))
    .join("");

/** Splits at what stands outside brackets and quotes. */
export function splitOutside(text: string, at: RegExp): string[] {
  const parts: string[] = [];
  let [depth, from, place] = [0, 0, 0];
  for (const { text: stretch, isQuoted } of stretches(text)) {
    for (const { 0: token, index } of isQuoted ? [] : stretch.matchAll(new RegExp(`[()]|${at.source}`, "gi"))) {
      if (token === "(") depth++;
      else if (token === ")") depth--;
      else if (depth === 0) {
        parts.push(text.slice(from, place + index));
        from = place + index + token.length;
      }
    }
    place += stretch.length;
  }
  return [...parts, text.slice(from)];
}

/** A text with what is in quotes made signs of no meaning, each place as it was. */
export const masked = (source: string): string =>
  stretches(source)
    .map(({ text, isQuoted }) => (isQuoted ? "\0".repeat(text.length) : text))
    .join("");

/** Where the bracket that opens at a place of a masked text is closed. */
export function closingOf(mask: string, open: number): number | undefined {
  let depth = 0;
  for (let i = open; i < mask.length; i++) {
    depth += mask[i] === "(" ? 1 : mask[i] === ")" ? -1 : 0;
    if (depth === 0) return i;
  }
  return undefined;
}

/** Where an operand begins that ends at a place of a masked text: a name, a text, or brackets with what is called; an item of any of these. */
export function operandStart(mask: string, end: number): number | undefined {
  if (mask[end - 1] === "]") {
    const open = mask.lastIndexOf("[", end - 1);
    return open < 0 ? undefined : operandStart(mask, open);
  }
  let from = end;
  if (mask[end - 1] === ")") {
    let depth = 0;
    do {
      from--;
      depth += mask[from] === ")" ? 1 : mask[from] === "(" ? -1 : 0;
    } while (depth > 0 && from > 0);
    if (depth > 0) return undefined;
  }
  const [name = ""] = /(?:\$?[\p{L}_][\p{L}\p{N}_:-]*|\0+)$/u.exec(mask.slice(0, from)) ?? [];
  return name === "" && from === end ? undefined : from - name.length;
}

/** Changes each part between separators and brackets, the inner ones first. */
export function inParts(text: string, change: (part: string) => string): string {
  const mask = masked(text);
  let [result, part, from] = ["", "", 0];
  for (let i = 0; i < text.length; i++) {
    const end = mask[i] === "(" ? closingOf(mask, i) : undefined;
    if (end !== undefined) {
      part += text.slice(from, i + 1) + inParts(text.slice(i + 1, end), change);
      from = i = end;
    } else if (mask[i] === "," || mask[i] === ";") {
      result += change(part + text.slice(from, i)) + text[i];
      [part, from] = ["", i + 1];
    }
  }
  return result + change(part + text.slice(from));
}

/** What stands in a part, without the white space around it; and the part with something else there. */
export function bare(part: string): { inner: string; put: (text: string) => string } {
  const inner = part.trim();
  const at = part.indexOf(inner);
  return { inner, put: (text) => part.slice(0, at) + text + part.slice(at + inner.length) };
}

/** Splits in two at the first of the places where a sign stands outside brackets and quotes. */
export function halves(text: string, sign: string): readonly [string, string | undefined] {
  const [first, ...rest] = splitOutside(text, new RegExp(sign));
  return [
    first.trim(),
    rest.length === 0
      ? undefined
      : text
          .slice(first.length)
          .replace(new RegExp(`^(?:${sign})`, "i"), "")
          .trim(),
  ];
}

/** Changes that are made one after the other, at most. */
export const mostChanges = 20;

/** Calls by their names with their arguments rewritten, the last one first: what is written is not read again. */
export function rewrittenCalls(
  source: string,
  names: string,
  rewrite: (name: string, inside: string) => string | undefined,
): string {
  const places = [...masked(source).matchAll(new RegExp(`\\b(${names})\\s*\\(`, "gi"))].slice(-mostChanges);
  return places.reduceRight((text, { index, 0: { length }, 1: name }) => {
    const open = index + length - 1;
    const close = closingOf(masked(text), open);
    const written = close === undefined ? undefined : rewrite(name.toLowerCase(), text.slice(open + 1, close));
    return written === undefined ? text : text.slice(0, index) + written + text.slice(close! + 1);
  }, source);
}

/** Whether a text is a whole number. */
export const isWhole = (text: string): boolean => /^-?\d+$/.test(text);

/** A sum with `by` more: whole numbers at its end are put together. */
export function plus(text: string, by: number): string {
  if (isWhole(text)) return String(Number(text) + by);
  const [, rest, sign, digits] = /^([^]*\S)\s*([+-])\s*(\d+)$/.exec(text) ?? [];
  if (rest !== undefined) return plus(rest, by + Number(`${sign}${digits}`));
  return by === 0 ? text : `${text} ${by < 0 ? "-" : "+"} ${Math.abs(by)}`;
}
