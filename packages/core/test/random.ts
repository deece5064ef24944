/** A small generator of random numbers with a seed (mulberry32), so that a failure can be run again. */
export function random(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

export const pick = <T>(next: () => number, items: readonly T[]): T => items[Math.floor(next() * items.length)];

/** Texts that hold the classic traps. */
export const trapTexts = [
  "",
  " ",
  "Alnus",
  "Alnus glutinosa",
  "  Alnus  glutinosa ",
  "a,b,,c",
  "Lindqvist, Åsa",
  "#12#x#",
  "o'neil-smith 2nd",
  "ABC",
  "abc",
  "aXbXc",
  "x",
  "2019-04-03",
  "007",
  "12.50",
  "-3",
  "ﬁr",
  "İstanbul",
  "e\u0301te\u0301",
  "a😀b",
  "a\u00a0b",
  "tab\there",
  "line\nbreak",
  "100%",
  "a_b",
  "a\\b",
  "(x)",
  "[y]",
  "aaa",
  "foobarbequebaz",
  "×hybrid",
];
