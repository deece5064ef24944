/**
 * Half-width and full-width forms (OpenDocument 1.3 part 4, 6.20.2 and 6.20.11). Unicode's compatibility
 * mapping pairs them, but for the quotes, the yen sign and the long dash, which the standard pairs by its own table.
 */
const special: readonly (readonly [half: string, full: string])[] = [
  ['"', "”"],
  ["'", "’"],
  ["`", "‘"],
  ["\\", "￥"],
];

const toFull = new Map<string, string>([[" ", "\u3000"]]);
for (let code = 0x21; code <= 0x7e; code++) toFull.set(String.fromCharCode(code), String.fromCharCode(code + 0xfee0));
for (let code = 0xff61; code <= 0xff9f; code++) {
  const half = String.fromCharCode(code);
  toFull.set(half, half.normalize("NFKC"));
}
const toHalf = new Map([...toFull].map(([half, full]) => [full, half]));
for (const [half, full] of special) {
  toFull.set(half, full);
  toHalf.set(full, half);
}
toHalf.set("―", "\uff70");

/** Puts each character of a map in place of another; what has none is passed over as a whole. */
const replacing = (map: ReadonlyMap<string, string>): ((text: string) => string) => {
  const codes = [...map.keys()].map((key) => `\\u${key.charCodeAt(0).toString(16).padStart(4, "0")}`);
  const some = new RegExp(`[${codes.join("")}]`, "g");
  return (text) => text.replace(some, (char) => map.get(char)!);
};
const halved = replacing(toHalf);
const filled = replacing(toFull);

/** A katakana letter with its voice mark apart; the marks have half-width forms of their own. */
const apart = (text: string): string => text.replace(/[\u30a1-\u30ff]/g, (letter) => letter.normalize("NFD"));

export const widths = {
  "half width": (text: string): string => halved(apart(text)),
  "full width": (text: string): string => filled(text).replace(/[\u30a1-\u30ff][\u3099\u309a]/g, (pair) => pair.normalize("NFC")),
} as const;
