import { purpose, trait } from "./trait.ts";

const patterns = {
  literal: "Every character stands for itself.",
  posix: "A POSIX advanced regular expression; the earliest and then longest match counts.",
  xpath: "An XML Schema regular expression with anchors; the first alternative that fits counts.",
  open: "A regular expression as in OpenFormula; the first alternative that fits counts.",
  like: "% stands for any run of characters and _ for any one; the whole text must fit.",
  "like, escape strict": "As in LIKE; an escape character must stand before %, _ or itself.",
  "like, escape open": "As in LIKE; an escape character at the end of the pattern never fits.",
  "like, escape literal": "As in LIKE; an escape character at the end of the pattern stands for itself.",
  "glob with escapes": "As in a glob; a backslash takes the next character literally, and any other is [!...], not [^...].",
  glob: "* stands for any run of characters, ? for any one and [...] for one of several; the whole text must fit.",
  similar: "% and _ as in LIKE, with alternatives, repeats and brackets; the whole text must fit.",
  pcre: "A PCRE2 regular expression; the first alternative that fits counts.",
  re2: "An RE2 regular expression, in which \\w and \\d are ASCII; the first alternative that fits counts.",
  wildcards: "* stands for any run of characters and ? for any one; ~ takes the next one literally.",
};

/** Questions about texts: positions, searching, replacing, case, trimming, padding, splitting and joining. */
export const texts = {
  missing: trait("What comes back when an argument is missing (null, blank, empty sequence)?", {
    null: "The result is missing too.",
    blank: "It counts as empty text, or as 0 where a number is wanted.",
  }),
  unit: trait("What is counted as one character?", {
    grapheme: "A letter with a combining accent counts 1, and so does a family of emoji.",
    "code point": "An emoji counts 1; a letter with a combining accent counts 2.",
    "utf-16 unit": "An emoji counts 2 and can be cut in half.",
    "utf-8 byte": "A letter with an accent counts 2, an emoji 4.",
  }),
  counted: trait("What does the length count?", {
    grapheme: "A letter with a combining accent counts 1, and so does a family of emoji.",
    "code point": "An emoji counts 1; a letter with a combining accent counts 2.",
    "utf-16 unit": "An emoji counts 2.",
    "utf-8 byte": "A letter with an accent counts 2, an emoji 4.",
    "utf-8 bit": "Eight for every byte of the UTF-8 form.",
  }),
  first: trait("What number does the first position have?", {
    "1": "Positions are counted from 1.",
    "0": "Positions are counted from 0.",
  }),
  from: purpose("From which end is it counted?", {
    start: "The first character is the leftmost in logical order.",
    end: "The first character is the last of the text.",
  }),
  third: trait("What does the third argument say?", {
    length: "How many characters to take.",
    end: "The position before which to stop.",
    last: "The last position to take.",
  }),
  startBelow: trait("What happens when the start lies before the first position?", {
    window: "The positions before the text use up part of the length.",
    error: "It is an error.",
    clamp: "It counts as the first position.",
    "from the end": "A negative start is counted from the end of the text; what lies before it uses up the length.",
    "from the end or nothing": "A negative start is counted from the end; 0, or one before the text, gives empty text.",
    "from the end, within":
      "A negative start is counted from the end, at most to the first position; 0 uses up one of the length.",
    "from the end, 0 the first": "A negative start is counted from the end; 0 counts as the first position.",
    nowhere: "Nothing is found there.",
    unchanged: "The text comes back as it is.",
  }),
  negativeLength: trait("What does a negative length give?", {
    error: "It is an error.",
    empty: "Empty text.",
    "all but": "Everything but that many characters at the other end.",
    before: "That many characters before the start.",
  }),
  spanBeyond: trait("What does replacing from after the last character on give?", {
    added: "What is put in follows the text.",
    unchanged: "The text comes back as it is.",
  }),
  startBeyond: trait("What does a start after the end of the text give?", {
    empty: "Empty text: 'abc' from the fifth on is ''.",
    null: "Nothing: 'abc' from the fifth on is missing.",
    error: "It is an error; from the fourth on, just after the end, it is ''.",
  }),
  farEnd: trait("May a stretch end beyond position 2147483647?", {
    taken: "It ends with the text.",
    error: "That is an error.",
  }),
  negativeSpan: trait("What does a negative length replace?", {
    error: "It is an error.",
    empty: "Nothing: the text is put in.",
    "to the end": "Everything from the start on.",
    repeated: "The characters before the start stand again after what was put in.",
  }),
  negativeCount: trait("What does a negative count give?", {
    error: "It is an error.",
    empty: "Empty text.",
    null: "Nothing.",
  }),
  tooLong: trait("What happens where a text would become longer than it may?", {
    error: "It is an error.",
    "null beyond 16 MiB": "Nothing comes back.",
  }),
  fraction: trait("What happens to a fraction in a position or a count?", {
    truncated: "It is cut off: 2.9 counts as 2.",
    rounded: "It is rounded, halves up: 2.5 counts as 3.",
    refused: "It is an error.",
  }),
  absent: trait("What comes back when what is searched for is not there?", {
    error: "An error.",
    zero: "The position before the first: 0 where positions start at 1.",
    null: "Nothing: null or the empty sequence.",
    empty: "Empty text.",
    whole: "The whole text.",
    first: "The first position, as for a text that begins with it.",
  }),
  emptyNeedle: trait("What does empty text match when it is searched for?", {
    "at the start": "It is found before the first character.",
    "before a character":
      "It is found before any character, and in empty text; from a start on, which must be below the number of bytes, its place is counted in bytes.",
    nowhere: "It is never found.",
    "between characters": "It stands between any two characters.",
  }),
  part: purpose("Which part of the text is taken?", {
    before: "What stands before the first delimiter.",
    after: "What stands after the first delimiter.",
    "through nth": "What stands before the nth delimiter; for a negative n, after the nth from the end.",
    nth: "The nth of the pieces between delimiters; a negative n counts from the end.",
  }),
  zeroPiece: trait("What is the piece 0, where the first is 1?", {
    error: "There is none: it is an error.",
    empty: "Empty text.",
  }),
  noPiece: trait("What comes back when there are fewer pieces than asked for?", {
    empty: "Empty text: the third piece of 'a,b' is ''.",
    null: "Nothing: the third piece of 'a,b' is missing.",
    error: "It is an error.",
    whole: "The whole text: the third piece of 'a,b' is 'a,b'.",
    last: "The last that there is: the third piece of 'a,b' is 'b'.",
  }),
  case: trait("Are upper and lower case letters told apart?", {
    minded: "A and a are different.",
    ignored: "A and a are the same.",
    lowered: "Both are put in lower case letter by letter: A and a are the same, σ and ς are different.",
    "ignored in ascii": "A and a are the same, but É and é are different.",
    "accents ignored": "A and Á are the same, A and a are different.",
    "both ignored": "A, a, Á and á are the same, by taking accents off.",
    general: "A, a, Á and á are the same, and ß and s; one character for one.",
    unicode: "A, a, Á and á are the same, and ß and ss (Unicode Collation Algorithm 4.0.0, primary weights).",
  }),
  escapeSize: trait("What may the escape character of a pattern be?", {
    "one character": "One character, and nothing else.",
    "one character or none": "One character, or empty text, which is none.",
    "one byte or none": "One byte in UTF-8, or empty text, which is none.",
  }),
  pattern: trait("In which language is the searched text written?", patterns),
  padding: trait("Do spaces at the end count when two texts are compared?", {
    counted: "'a ' and 'a' are different.",
    stripped: "They are taken off before comparing.",
    padded: "The shorter text counts as filled up with spaces.",
  }),
  where: purpose("Where in the text must it stand?", {
    anywhere: "At any place.",
    start: "At the start.",
    end: "At the end.",
    whole: "It must be the whole text.",
  }),
  occurrences: trait("Which occurrences are replaced, unless an argument says so?", {
    all: "Every one.",
    first: "Only the first.",
  }),
  replacement: trait("How does the replacement name what was matched?", {
    literal: "It does not: every character stands for itself.",
    backslash: "\\1 to \\9 are the groups and \\& is the whole match.",
    "backslash digits": "\\0 is the whole match, \\1 to \\9 are the groups; a backslash takes any other character literally.",
    "backslash numbers": "\\0 is the whole match, \\1 to \\9 are the groups; a group that is not there leaves the text as it is.",
    dollar: "$1, $2, … are the groups and $0 is the whole match; \\$ and \\\\ stand for themselves.",
  }),
  emptyOld: trait("What does replacing a text by a missing one give, where there is nothing to replace?", {
    null: "Nothing, as with any other missing argument.",
    whole: "For empty text that would be replaced, the text as it is; otherwise nothing.",
    "whole if not found": "The text as it is: what would be put in is not looked at.",
  }),
  emptyMatch: trait("May the pattern match empty text?", {
    allowed: "Empty matches count like others.",
    "one character": "An empty match cuts off one character; what is left is searched as a text of its own.",
    ends: "An empty match ends the search, and is not replaced.",
    "not after a match": "An empty match right after another match does not count.",
    error: "A pattern that matches empty text is an error.",
  }),
  asked: purpose("What is asked about the normal form?", {
    text: "The text in that form.",
    whether: "Whether the text is in that form already.",
  }),
  report: purpose("What does it report about a match?", {
    text: "The matched text.",
    position: "Where it starts.",
    count: "How many matches there are.",
    groups: "The text of every group, as a list.",
    texts: "The texts of all matches, as a list.",
  }),
  group: trait("What is taken of a match that has groups?", {
    match: "The whole match.",
    "first group": "The first group.",
  }),
  measure: purpose("How is the likeness of two texts measured?", {
    edits: "By the fewest bytes put in, taken out or changed (Levenshtein).",
    "edits and swaps": "The same, neighbours that change places counting once (Damerau-Levenshtein).",
    "differing bytes": "By the bytes that differ between texts of one length (Hamming).",
    "shared bytes": "By the part of all bytes that both have (Jaccard).",
    jaro: "By bytes that both have at about the same place, from 0 to 1 (Jaro).",
    "jaro-winkler": "By the same, more for texts that start alike (Jaro-Winkler).",
  }),
  form: purpose("To which case are letters changed?", {
    upper: "All to upper case.",
    lower: "All to lower case.",
    title: "The first letter of each word to upper case, the others to lower case.",
    unaccented: "Letters lose their accents: é becomes e.",
    "half width": "Full-width Latin letters and katakana become half-width ones.",
    "full width": "Half-width Latin letters and katakana become full-width ones.",
  }),
  mapping: trait("How are letters mapped to the other case?", {
    full: "By the full Unicode mapping, of one letter to several where it says so: ß becomes SS, İ an i with a dot above it.",
    simple: "One letter to one letter: ß stays, İ becomes i.",
    "simple, capital ß": "One letter to one letter: ß becomes ẞ, İ becomes i.",
    ascii: "Only A to Z: é stays, and so does İ.",
    "early simple": "One letter to one letter, of the letters that Unicode 3 had: ß stays, and so does ⱥ.",
  }),
  words: trait("What ends a word?", {
    "not a letter": "Anything but a letter with its accents: 2nd becomes 2Nd.",
    "not alphanumeric": "Anything but a letter or digit, a combining accent too: 2nd stays 2nd.",
    "not ascii alphanumeric": "Anything but A to Z and the digits 0 to 9: éa becomes éA.",
    space: "White space only: o'neil-smith becomes O'neil-smith.",
    nothing: "Nothing, the whole text is one: o'neil smith becomes O'neil smith.",
  }),
  restOfWord: trait("What becomes of the letters after the first of a word in title case?", {
    lowered: "They are put in lower case: McLEAN becomes Mclean.",
    kept: "They stay as they are: McLEAN stays McLEAN.",
  }),
  ends: purpose("Where are characters removed?", {
    both: "At both ends.",
    start: "At the start.",
    end: "At the end.",
    everywhere: "At the ends and within.",
  }),
  inner: trait("What happens to runs of them within the text?", {
    kept: "They stay as they are.",
    "one space": "Each run becomes one space.",
  }),
  characters: trait("Which characters are removed, unless an argument says so?", {
    space: "Only the space U+0020; a no-break space or a tab stays.",
    separator: "Every space of Unicode's category Zs, a no-break space too; a tab stays.",
    "xml space": "Space, tab, carriage return and line feed; a no-break space stays.",
    control: "The control characters U+0000 to U+001F.",
  }),
  alphabet: trait("By which character set are characters numbered?", {
    unicode: "By Unicode code points.",
    "unicode and nul": "By Unicode code points, 0 being the character U+0000.",
    "utf-8 byte": "By its first byte in UTF-8: é is 195.",
    "windows-1252": "By an 8-bit code page: € is 128.",
  }),
  ofEmpty: trait("What is the code of empty text?", {
    zero: "0.",
    error: "It is an error.",
    null: "Nothing.",
    "minus one": "-1.",
  }),
  longer: trait("What becomes of a text that is longer than it is to be?", {
    cut: "It is cut at its end: 'Alnus' to 3 is 'Aln'.",
    "cut at the start": "It is cut at its start: 'Alnus' to 3 is 'nus'.",
    kept: "It stays as it is: 'Alnus' to 3 is 'Alnus'.",
    error: "It is an error.",
  }),
  emptyFill: trait("What does padding with empty text give?", {
    whole: "The text as it is.",
    null: "Nothing, where something would have to be filled up.",
    error: "It is an error, where something would have to be filled up.",
  }),
  removed: trait("How are the characters to remove taken?", {
    each: "Each of them by itself, in any order.",
    whole: "All of them together, as one text.",
  }),
  side: purpose("On which side is it padded?", {
    left: "Before the text.",
    right: "After the text.",
  }),
  missingItem: trait("What happens to a missing item when texts are joined?", {
    skipped: "It is left out, with its separator.",
    null: "The result is missing.",
    empty: "It counts as empty text.",
  }),
  emptyItem: trait("What happens to an empty item when texts are joined?", {
    kept: "It is kept: two separators follow each other.",
    skipped: "It is left out, with its separator.",
  }),
  missingDelimiter: trait("What does a missing delimiter split the text into?", {
    whole: "One piece, the whole text.",
    null: "Nothing comes back.",
    characters: "One piece for each character.",
  }),
  emptyDelimiter: trait("What does an empty delimiter split the text into?", {
    whole: "One piece, the whole text.",
    characters: "One piece for each character.",
  }),
  delimiterIs: trait("What is a delimiter of several characters?", {
    "one text": "All of it stands between two pieces: 'a, b;c' is split by ', ' into 'a' and 'b;c'.",
    "any of its characters": "Each of its characters does: 'a, b;c' is split by ', ' into 'a', '' and 'b;c'.",
  }),
  emptyText: trait("What does splitting empty text give?", {
    nothing: "No piece at all.",
    "one piece": "One empty piece.",
  }),
  edges: trait("What happens to delimiters at the ends of the text?", {
    pieces: "They make empty pieces.",
    trimmed: "They are ignored.",
  }),
  scheme: purpose("What must the result be safe in?", {
    "uri part": "Part of a URI: everything but letters, digits and - _ . ~ is percent-encoded.",
    iri: "A URI made from an IRI: what a URI may not hold is percent-encoded.",
    "html uri": "A URI in HTML: everything outside printable ASCII is percent-encoded.",
    "sql literal": "An SQL text literal: quotes are doubled.",
    "sql name": "An SQL name: quoted where it must be.",
  }),
} as const;
