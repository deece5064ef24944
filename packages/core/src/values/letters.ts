/** A letter in upper case by the mapping of one letter to one (Unicode, UnicodeData.txt), which is not always the first of the full one. */
export function simpleUpper(char: string): string {
  const full = char.toUpperCase();
  if (full.length === char.length) return full;
  const code = char.codePointAt(0)!;
  if (code >= 0x1f80 && code <= 0x1faf) return String.fromCodePoint(code | 8);
  if (code === 0x1fb3 || code === 0x1fc3 || code === 0x1ff3) return String.fromCodePoint(code + 9);
  return char;
}

/** The same in lower case. */
export const simpleLower = (char: string): string => (char === "İ" ? "i" : char.toLowerCase());
