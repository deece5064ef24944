/** A question about how an operation behaves, with a closed set of answers. */
export interface Trait<A extends string = string> {
  readonly question: string;
  /** Each answer with its consequence in one sentence. */
  readonly answers: Readonly<Record<A, string>>;
}

const trait = <A extends string>(question: string, answers: Record<A, string>): Trait<A> => ({ question, answers });

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

/** Every trait, by its identifier. */
export const traits = {
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
  from: trait("From which end is it counted?", {
    start: "The first character is the leftmost in logical order.",
    end: "The first character is the last of the text.",
  }),
  third: trait("What does the third argument say?", {
    length: "How many characters to take.",
    end: "The position before which to stop.",
  }),
  startBelow: trait("What happens when the start lies before the first position?", {
    window: "The positions before the text use up part of the length.",
    error: "It is an error.",
    clamp: "It counts as the first position.",
    "from the end": "A negative start is counted from the end of the text; what lies before it uses up the length.",
    "from the end or nothing": "A negative start is counted from the end; 0, or one before the text, gives empty text.",
    "from the end, within":
      "A negative start is counted from the end, at most to the first position; 0 uses up one of the length.",
    nowhere: "Nothing is found there.",
    unchanged: "The text comes back as it is, as for a start beyond the end.",
  }),
  negativeLength: trait("What does a negative length give?", {
    error: "It is an error.",
    empty: "Empty text.",
    "all but": "Everything but that many characters at the other end.",
    before: "That many characters before the start.",
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
  }),
  emptyNeedle: trait("What does empty text match when it is searched for?", {
    "at the start": "It is found before the first character.",
    "before a character":
      "It is found before any character, and in empty text; from a start on, which must be below the number of bytes, its place is counted in bytes.",
    nowhere: "It is never found.",
    "between characters": "It stands between any two characters.",
  }),
  part: trait("Which part of the text is taken?", {
    before: "What stands before the first delimiter.",
    after: "What stands after the first delimiter.",
    "through nth": "What stands before the nth delimiter; for a negative n, after the nth from the end.",
    nth: "The nth of the pieces between delimiters; negative n counts from the end, 0 is an error.",
    "nth or nothing": "The nth of the pieces between delimiters; negative n counts from the end, 0 gives empty text.",
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
  pattern: trait("In which language is the searched text written?", patterns),
  padding: trait("Do spaces at the end count when two texts are compared?", {
    counted: "'a ' and 'a' are different.",
    stripped: "They are taken off before comparing.",
    padded: "The shorter text counts as filled up with spaces.",
  }),
  where: trait("Where in the text must it stand?", {
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
  emptyOld: trait("What does replacing empty text by a missing one give?", {
    null: "Nothing, as with any other missing argument.",
    whole: "The text as it is: what would be put in is not looked at.",
  }),
  emptyMatch: trait("May the pattern match empty text?", {
    allowed: "Empty matches count like others.",
    "one character": "An empty match cuts off one character; what is left is searched as a text of its own.",
    ends: "An empty match ends the search, and is not replaced.",
    "not after a match": "An empty match right after another match does not count.",
    error: "A pattern that matches empty text is an error.",
  }),
  asked: trait("What is asked about the normal form?", {
    text: "The text in that form.",
    whether: "Whether the text is in that form already.",
  }),
  report: trait("What does it report about a match?", {
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
  measure: trait("How is the likeness of two texts measured?", {
    edits: "By the fewest bytes put in, taken out or changed (Levenshtein).",
    "edits and swaps": "The same, neighbours that change places counting once (Damerau-Levenshtein).",
    "differing bytes": "By the bytes that differ between texts of one length (Hamming).",
    "shared bytes": "By the part of all bytes that both have (Jaccard).",
    jaro: "By bytes that both have at about the same place, from 0 to 1 (Jaro).",
    "jaro-winkler": "By the same, more for texts that start alike (Jaro-Winkler).",
  }),
  form: trait("To which case are letters changed?", {
    upper: "All to upper case.",
    lower: "All to lower case.",
    title: "The first letter of each word to upper case, the others to lower case.",
    unaccented: "Letters lose their accents: é becomes e.",
    "half width": "Full-width Latin letters and katakana become half-width ones.",
    "full width": "Half-width Latin letters and katakana become full-width ones.",
  }),
  mapping: trait("How are letters mapped to the other case?", {
    full: "By the full Unicode mapping: ß becomes SS.",
    simple: "One letter to one letter: ß stays.",
    "simple, capital ß": "One letter to one letter: ß becomes ẞ.",
    ascii: "Only A to Z: é stays.",
    "early simple": "One letter to one letter, of the letters that Unicode 3 had: ß stays, and so does ⱥ.",
  }),
  words: trait("What ends a word?", {
    "not a letter": "Anything but a letter with its accents: 2nd becomes 2Nd.",
    "not alphanumeric": "Anything but a letter or digit, a combining accent too: 2nd stays 2nd.",
    "not ascii alphanumeric": "Anything but A to Z and the digits 0 to 9: éa becomes éA.",
    space: "White space only: o'neil-smith becomes O'neil-smith.",
  }),
  ends: trait("Where are characters removed?", {
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
  emptyFill: trait("What does padding with empty text give?", {
    whole: "The text as it is.",
    null: "Nothing, where something would have to be filled up.",
    error: "It is an error, where something would have to be filled up.",
  }),
  removed: trait("How are the characters to remove taken?", {
    each: "Each of them by itself, in any order.",
    whole: "All of them together, as one text.",
  }),
  side: trait("On which side is it padded?", {
    left: "Before the text.",
    right: "After the text.",
  }),
  negativePosition: trait("Where does a negative position count from?", {
    "from the end": "From the end of the list, the last item having −1.",
    nowhere: "There is no item at one.",
  }),
  noItem: trait("What comes back where a list has no item at a position?", {
    null: "Nothing.",
    error: "That is an error.",
  }),
  tooMany: trait("What happens where more items are left out than there are?", {
    "all of them": "Nothing is left: an empty list.",
    error: "That is an error, as is a number below 0.",
  }),
  unknownToken: trait("What does a letter that stands for nothing give in a date format?", {
    error: "It is an error.",
    null: "Nothing comes back.",
    itself: "The letter itself, without its %.",
  }),
  emptyFormat: trait("What does an empty date format give?", {
    error: "It is an error.",
    null: "Nothing.",
    "empty text": "Empty text.",
  }),
  letterDigits: trait("With which letters are numbers written in a base above ten?", {
    capital: "With capital ones: 255 in base 16 is FF.",
    small: "With small ones: 255 in base 16 is ff.",
  }),
  digitRoom: trait("What happens where a number has more digits than are asked for?", {
    "as needed": "It has as many as it needs; zeros are put before fewer.",
    "as asked": "That is an error; zeros are put before fewer.",
  }),
  until: trait("What does the number after a position in a list say?", {
    "number of items": "How many items are taken.",
    position: "The position of the last item that is taken.",
  }),
  outsideList: trait("What happens where positions lie outside the list?", {
    passed: "There is nothing at them.",
    error: "That is an error.",
  }),
  lastNumber: trait("Does a series of numbers have its end?", {
    included: "From 1 to 3 there are 1, 2 and 3.",
    "left out": "From 1 to 3 there are 1 and 2.",
  }),
  missingWanted: trait("What does looking for a missing item in a list give?", {
    null: "Nothing.",
    "looked for": "What it gives for any other: a missing item is like another one.",
  }),
  missingShared: trait("Must a missing item be in the list that is to hold all items of another?", {
    "left out": "No, it is not asked for.",
    "never there": "Yes, and it never is, so that the answer is no.",
  }),
  distinctOrder: trait("In which order do items stand of which each is kept once?", {
    "first met": "As they stand in the list.",
    "last first": "The last one first, as the engine keeps them where they are few.",
  }),
  missingValue: trait("What does the greatest or least of values give where one of them is missing?", {
    null: "Nothing.",
    skipped: "That of the others; nothing where all are missing.",
  }),
  amongEqual: trait("Which is taken of values that are equally great?", {
    first: "The first of them: of 1.0 and 1 it is 1.0.",
    last: "The last of them: of 1.0 and 1 it is 1.",
  }),
  weekdays: trait("How are the days of the week numbered?", {
    "Sunday 0": "From 0 for Sunday to 6 for Saturday.",
    "Sunday 1": "From 1 for Sunday to 7 for Saturday.",
    "Monday 0": "From 0 for Monday to 6 for Sunday.",
    "Monday 1": "From 1 for Monday to 7 for Sunday, as ISO 8601 does.",
  }),
  missingList: trait("What does a missing list give, where lists are put together?", {
    null: "Nothing.",
    skipped: "What the other one has; nothing where both are missing.",
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
  emptyText: trait("What does splitting empty text give?", {
    nothing: "No piece at all.",
    "one piece": "One empty piece.",
  }),
  edges: trait("What happens to delimiters at the ends of the text?", {
    pieces: "They make empty pieces.",
    trimmed: "They are ignored.",
  }),
  scheme: trait("What must the result be safe in?", {
    "uri part": "Part of a URI: everything but letters, digits and - _ . ~ is percent-encoded.",
    iri: "A URI made from an IRI: what a URI may not hold is percent-encoded.",
    "html uri": "A URI in HTML: everything outside printable ASCII is percent-encoded.",
    "sql literal": "An SQL text literal: quotes are doubled.",
    "sql name": "An SQL name: quoted where it must be.",
  }),
  truth: trait("How is a truth value given?", {
    "true or false": "As true or false, which are no numbers.",
    "1 or 0": "As the number 1 or 0.",
  }),
  textTruth: trait("Which texts are true or false?", {
    "true or false": "Those that say so in any case; others are errors.",
    "true, false or unknown": "Those that say so in any case; unknown is missing, others are errors.",
    "words and what they begin with":
      "true, yes, on and 1, false, no, off and 0, and what they alone begin with; others are errors.",
    "words and letters": "true, yes, t, y and 1, false, no, f, n and 0; others are errors.",
    "the number it begins with": "Those that begin with a number that is not 0 are true, all others false.",
  }),
  evaluates: trait("When is the second of two conditions evaluated?", {
    "left first": "Where the first does not settle it.",
    both: "Always; an error of either is that of the whole.",
    "rows left open": "Where both may still hold: after true for AND, after what is not true for OR.",
  }),
  inConditions: trait("And where it only decides which rows something is done for?", {
    "the same": "As everywhere.",
    "rows left open": "Only for rows that may still be meant.",
  }),
  constants: trait("Which constant side settles it, so that the other one may fail?", {
    none: "None, unless it comes first.",
    "whole numbers": "A whole number that is written.",
    any: "Any that no row changes.",
  }),
  mixed: trait("How do values of different kinds compare?", {
    error: "It is an error.",
    "by kind": "Numbers come before texts, texts before truth values and bytes; they are never equal.",
  }),
  notANumber: trait("How does a result that is not a number (NaN) compare?", {
    unordered: "It is neither equal to a number, itself included, nor before or after one.",
    "above all": "It is equal to itself and above all numbers.",
    "there is none": "Numbers here have no such value.",
  }),
  numbers: trait("What kinds of number are there?", {
    double: "Only binary floating point: 0.1 + 0.2 is not 0.3.",
    exact: "Integers and decimals are exact; doubles are told apart from them.",
  }),
  byZero: trait("What does dividing an integer or a decimal by zero give?", {
    error: "It is an error.",
    null: "Nothing.",
  }),
  doubleByZero: trait("What does dividing a floating-point number by zero give?", {
    error: "It is an error.",
    null: "Nothing.",
    infinity: "Infinity, or not a number for 0/0; cut to an integer, it is an error.",
  }),
  overflow: trait("What does a number too large for double precision give?", {
    error: "It is an error.",
    infinity: "Infinity.",
  }),
  outside: trait("What does a mathematical function give where it has no value?", {
    error: "It is an error: sqrt(-1).",
    null: "Nothing.",
    "not a number": "What is not a number (NaN).",
  }),
  closeness: trait("How close are angles, and logarithms to 10 and 2, to the true ones?", {
    nearest: "As close as can be.",
    "the host's": "The last digit may be another.",
  }),
  quotientDigits: trait("How many digits has the quotient of decimals?", {
    "sixteen significant ones": "At least 16, and as many decimals as either: 1.0/3 is 0.3333333333333333.",
    "four more decimals": "Four decimals more than what is divided: 1.0/3 is 0.33333.",
    "twenty decimals": "Up to 20 decimals: 1.0/3 is 0.33333333333333333333.",
  }),
  remainderSign: trait("Which sign has the remainder of a division?", {
    "of what is divided": "-5 mod 3 is -2.",
    "of the divisor": "-5 mod 3 is 1.",
  }),
  remainder: trait("What is the remainder of numbers with fractions?", {
    "of fractions": "5.5 mod 2 is 1.5.",
    "of whole parts": "Fractions are cut first: 5.5 mod 2 is 1.",
  }),
  signKind: trait("What kind of number is the sign of one?", {
    whole: "A whole number.",
    "the number's": "A number of the same kind: the sign of 2.5e0 is 1e0.",
  }),
  direction: trait("Which way is a number rounded?", {
    "half away from zero": "To the nearest; 2.5 is 3, -2.5 is -3.",
    "half up": "To the nearest; 2.5 is 3, -2.5 is -2.",
    "half to even": "To the nearest; 2.5 is 2, 3.5 is 4.",
    up: "2.1 is 3, -2.9 is -2.",
    down: "2.9 is 2, -2.1 is -3.",
    "toward zero": "2.9 is 2, -2.9 is -2.",
    "away from zero": "2.1 is 3, -2.1 is -3.",
  }),
  moreDigits: trait("What does rounding an exact number to more digits than it has give?", {
    kept: "The number as it is: 1.5 stays 1.5.",
    zeros: "The number with zeros: 1.5 to 3 digits is 1.500.",
  }),
  placesBelow: trait("What does shifting bits by less than 0 places do?", {
    "the other way": "It shifts the other way.",
    "a count of 32 bits": "The count is read without a sign in 32 bits: -1 is 4294967295.",
    "counted round": "The count is taken modulo 32, or 64 for numbers of 64 bits.",
    "error, or 0": "To the left it is an error, to the right it gives 0.",
  }),
  placesBeyond: trait("What does shifting bits by more places than there are give?", {
    zero: "0.",
    filled: "0, or -1 where a negative number is shifted to the right.",
    error: "To the left it is an error, as for a negative number; to the right 0.",
  }),
  ofOne: trait("What does the aggregate give over one row?", {
    "the value": "The row's own value.",
    "1 or 0": "1, or 0 where the value is missing.",
    "a list": "A list of the one value.",
    nothing: "Nothing: one value has no spread.",
    zero: "0, or nothing where the value is missing.",
  }),
  numberKind: trait("Which kind of number is wanted?", {
    integer: "A whole number.",
    decimal: "An exact number with its fraction.",
    double: "A floating-point number.",
    "double of 32 bits": "A floating-point number of 32 bits.",
    "as written": "An integer where it is written as one, otherwise a floating-point number.",
    "integer if whole": "An integer where it has no fraction, however it is written, otherwise a floating-point number.",
  }),
  range: trait("How large may a whole number be?", {
    any: "As large as it is.",
    "8 bits": "-128 to 127.",
    "8 bits without a sign": "0 to 255.",
    "16 bits": "-32768 to 32767.",
    "16 bits without a sign": "0 to 65535.",
    "32 bits": "-2147483648 to 2147483647.",
    "32 bits without a sign": "0 to 4294967295.",
    "64 bits": "-9223372036854775808 to 9223372036854775807.",
    "64 bits without a sign": "0 to 18446744073709551615.",
    "128 bits": "38 digits, and some of 39.",
  }),
  reads: trait("How much of a text must be a number?", {
    "all of it": "12abc is none.",
    "its beginning": "12abc counts as 12.",
    nothing: "A text never is one.",
  }),
  blanks: trait("Which white space around a number is passed over?", {
    ascii: "Space, tab, line feed, carriage return and the like; a no-break space is no part of a number.",
    unicode: "All that Unicode calls white space, a no-break space too.",
    none: "None.",
  }),
  notNumber: trait("What does a text that is no number give?", {
    error: "It is an error.",
    zero: "0.",
    null: "Nothing.",
    unchanged: "It stays the text that it is.",
  }),
  plusSign: trait("May a plus sign stand before the digits?", {
    read: "+5 is 5.",
    refused: "+5 is no number.",
  }),
  exponent: trait("Is a power of ten read?", {
    read: "1e3 is 1000.",
    "not read": "1e3 is no number, or 1 where the beginning counts.",
  }),
  fractionRead: trait("What becomes of a fraction where a whole number is wanted of a text?", {
    refused: "12.5 is no whole number; where the beginning counts it is 12.",
    rounded: "12.5 is 13.",
  }),
  separators: trait("What may stand between digits?", {
    none: "Nothing.",
    underscores: "1_000 is 1000.",
    commas: "1,000 is 1000.",
  }),
  bases: trait("In which bases may a number be written besides ten?", {
    ten: "In no other.",
    sixteen: "0x10 is 16.",
    "two and sixteen": "0x10 is 16, 0b10 is 2, without a sign before it or white space after it.",
    "two, eight and sixteen": "0x10 is 16, 0o10 is 8, 0b10 is 2.",
  }),
  bytesRead: trait("Are bytes read as a number?", {
    "as text": "As the text that they are the UTF-8 form of.",
    kept: "They stay bytes.",
    never: "They are no numbers.",
  }),
  numberWords: trait("Are words for infinity and for what is not a number read?", {
    read: "inf, -infinity and nan are numbers.",
    refused: "They are no numbers.",
  }),
  otherForms: trait("Which other forms are read as numbers?", {
    none: "None.",
    "percent, fractions and dates": "12% is 0.12, 1 1/2 is 1.5, and an ISO date counts its days from 1899-12-30.",
  }),
  digitsBeyond: trait("What do more digits than there is room for give?", {
    error: "It is an error.",
    nearest: "The largest or smallest number that there is.",
    double: "A floating-point number.",
    "counted round": "The number counted round from the other end, at most once.",
  }),
  tooLarge: trait("What does a number give for which the wanted kind has no room?", {
    error: "It is an error.",
    nearest: "The largest or smallest number that there is.",
  }),
  beyondDouble: trait("What does a number give, where it is read, that is too large for double precision?", {
    error: "It is an error.",
    infinity: "Infinity.",
    largest: "The largest number that there is.",
    "no number": "It counts as no number.",
  }),
  tooSmall: trait("What does a number give that is nearer to zero than any that there is?", {
    zero: "0: 1e-400 is 0.",
    error: "It is an error.",
  }),
  decimalHalves: trait("How does a decimal become a whole number?", {
    "away from zero": "It is rounded, halves away from zero: 2.5 is 3.",
    "cut off": "Its fraction is cut off: 2.9 is 2.",
  }),
  doubleHalves: trait("How does a floating-point number become a whole number?", {
    "to even": "It is rounded, halves to the even one: 2.5 is 2.",
    "away from zero": "It is rounded, halves away from zero: 2.5 is 3.",
    "cut off": "Its fraction is cut off: 2.9 is 2.",
  }),
  doubleDigits: trait("With how many digits does a floating-point number become a decimal?", {
    shortest: "With as few as mean the same number: 0.1 + 0.2 becomes 0.30000000000000004.",
    fifteen: "With 15: 0.1 + 0.2 becomes 0.3.",
  }),
  digits: trait("How many digits of a floating-point number are written?", {
    shortest: "As few as read back as the same number: 0.1 + 0.2 is written 0.30000000000000004.",
    "shortest of 32 bits": "As few as read back as the same number of 32 bits: 0.1 is written 0.1, 16777217 as 16777216.",
    fifteen: "At most 15 significant ones: 0.1 + 0.2 is written 0.3.",
    seventeen: "At most 17 significant ones: 0.1 + 0.2 is written 0.30000000000000004, and 1e23 as 9.9999999999999992e+22.",
  }),
  powerFrom: trait("From which size on is a floating-point number written with a power of ten?", {
    always: "Every one is: 12 is written 1.2E1.",
    "1e6": "1000000.0 is written 1.0E6.",
    "1e15": "1000000000000000.0 is written with a power, 100000000000000.0 is not.",
    "1e16": "10000000000000000.0 is written with a power, 1000000000000000.0 is not.",
    "1e17": "100000000000000000.0 is written with a power, 10000000000000000.0 is not.",
    "1e21": "100000000000000000000 is written with all its zeros.",
  }),
  powerBelow: trait("Below which size is a floating-point number written with a power of ten?", {
    "1e-4": "0.0001 is written so, 0.00001 with a power.",
    "1e-6": "0.000001 is written so, 0.0000001 with a power.",
    "1e-10": "0.0000000001 is written so, smaller ones with a power.",
    "1e-15": "0.000000000000001 is written so, smaller ones with a power.",
  }),
  power: trait("How is a power of ten written?", {
    "1e+20": "With a sign and two digits at least: 1e+20.",
    "1.0e+20": "With a sign and two digits at least, after a number with a point: 1.0e+20.",
    "1e20": "As short as can be: 1e20.",
    "1E+20": "With a capital E, a sign and two digits at least: 1E+20.",
    "1E20": "With a capital E: 1E20.",
    "1.0E20": "With a capital E, after a number with a point: 1.0E20.",
  }),
  wholeDouble: trait("How is a whole number that is a floating-point one written?", {
    bare: "Like an integer: 12.",
    "with .0": "With a point: 12.0.",
  }),
  negativeZero: trait("How is a zero below zero written?", {
    kept: "With its sign: -0.",
    dropped: "Like zero.",
  }),
  beyondNumbers: trait("How are what is not a number and infinity written?", {
    "NaN and Infinity": "NaN, Infinity and -Infinity.",
    "nan and inf": "nan, inf and -inf.",
    "NaN and INF": "NaN, INF and -INF.",
    "NaN and Inf": "Inf and -Inf; what is not a number is nothing there.",
  }),
  decimalZeros: trait("Are zeros that end the fraction of a decimal written?", {
    kept: "12.50 is written 12.50.",
    dropped: "12.50 is written 12.5.",
  }),
  truthText: trait("How are true and false written?", {
    true: "true and false.",
    TRUE: "TRUE and FALSE.",
    t: "t and f.",
    "1": "1 and 0.",
  }),
  bytesText: trait("How are bytes written?", {
    "utf-8": "As the text that they are the UTF-8 form of.",
    "base 16": "\\x and two digits in base 16 for each: \\x616c.",
    escaped: "ASCII for itself, other bytes like \\xC3.",
  }),
  listText: trait("How is a list written?", {
    "item by item": "As a list of texts.",
    "[a, b]": "In brackets, with a comma and a space between: [a, b].",
    "{a,b}": "In braces, with a comma between: {a,b}.",
  }),
  quotient: trait("What does dividing one integer by another give?", {
    integer: "An integer, cut towards zero: 7/2 is 3.",
    decimal: "A decimal: 7/2 is 3.5.",
    double: "A floating-point number: 7/2 is 3.5.",
  }),
} as const;

export type TraitId = keyof typeof traits;

export type AnswerOf<T extends TraitId> = keyof (typeof traits)[T]["answers"] & string;

/** An answer to each of the traits `T`. */
export type Answers<T extends TraitId = TraitId> = { readonly [K in T]: AnswerOf<K> };

/** The question of a trait with its answers, for showing. */
export const describeTrait = (id: TraitId): Trait => traits[id];
