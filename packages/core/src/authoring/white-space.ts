const signs: Readonly<Record<string, string>> = { " ": "·", "\u00a0": "⍽", "\t": "→", "\n": "⏎", "\r": "␍" };

/** A text on one line: line breaks and other invisible characters by signs (a no-break space is ⍽); spaces too (·) when `spaces` is set. */
export function visibleText(text: string, spaces: boolean): string {
  return text.replace(/[\s\p{C}\u200b-\u200f]/gu, (char) => {
    if (char === " " && !spaces) return char;
    return (
      signs[char] ??
      (char.length === 2 && char.isWellFormed() ? char : `‹${char.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0")}›`)
    );
  });
}
