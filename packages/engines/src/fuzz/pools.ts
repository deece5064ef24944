/** Texts that hold the classic traps: white space, delimiters, case, accents, characters of several units, numbers. */
export const trapTexts: readonly string[] = [
  "",
  " ",
  "Alnus",
  "alnus",
  "Alnus glutinosa",
  "  Alnus  glutinosa ",
  "a,b,,c",
  "Lindqvist, Åsa",
  "#12#x#",
  "o'neil-smith 2nd",
  "ABC",
  "abc ",
  "aXbXc",
  "x",
  "2019-04-03",
  "2019-02-30",
  "2020-02-29 07:08:09",
  "007",
  "12.50",
  "-3",
  " 4 ",
  "1e3",
  "12abc",
  "ﬁr",
  "İstanbul",
  "straße",
  "ŠKODA",
  "e\u0301te\u0301",
  "été",
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
  "ΣΊΣΥΦΟΣ",
  "Щука",
];

const regexes = [
  "a",
  "b+",
  "[a-z]+",
  "(a)(l)?",
  "^A",
  "x$",
  "\\s+",
  "\\d{2}",
  "a|b",
  "(ab|a)(c|bcd)?",
  ".",
  "[^,]+",
  "(\\w+), (\\w+)",
  "[[:upper:]]",
  "o(.)b",
  "a*?",
  "(a*)(b*)",
  "(?i)alnus",
  "(",
  "b*",
  "\\w+?",
  "(b|c)+",
  "\\bA",
  "[é-ü]",
  "",
];
const likes = ["%", "A%", "%a", "_lnus", "%_%", "a\\%b", "%.%", "", "%l%n%", "\\", "a%", "%É%", "a!%b", "% "];
const globs = ["*", "A*", "*a", "?lnus", "[a-c]*", "[^a]*", "*[0-9]*", "a[", "*l*n*", "[]]", "[a-", ""];

/** Needles and patterns, by the answer to the trait `pattern`. */
export const patternsFor = (language: string | undefined): readonly string[] | undefined => {
  if (language === undefined || language === "literal") return undefined;
  if (language.startsWith("like") || language === "similar") return likes;
  return language === "glob" ? globs : regexes;
};

/** Texts for a slot that wants something short. */
export const slotTexts: Readonly<Record<string, readonly string[]>> = {
  flags: ["i", "", "g", "c", "s"],
  delimiter: [",", " ", "#", "X", "", "a", ", ", "x"],
  separator: [",", " ", "", "--"],
  new: ["-", "", "\\1", "[\\0]", "é", "$1"],
  needle: ["a", "A", "", "lnus", ",", "é", "x", "😀", "b"],
  old: ["a", "A", "", "nus", ",", "é"],
  characters: [" ", "a", "xA", "", " ,", "é"],
  fill: ["*", " ", "", "ab", "é"],
  form: ["nfc", "nfd"],
};

export const integers: readonly number[] = [0, 1, 2, 3, 5, -1, -2, 7, 20, -9];
export const decimals: readonly string[] = ["1.5", "2.50", "-0.5", "0.0", "7", "1234.567", "-2.5"];
