import { purpose, trait } from "./trait.ts";

/** Questions about kinds of values: comparing, truth, and what one becomes as another. */
export const values = {
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
    "true, false, 1 or 0": "Those that say so in small letters, white space around them passed over; others are errors.",
    "not empty": "All but empty text are true.",
  }),
  truthOfNaN: trait("Is what is not a number (NaN) true?", {
    true: "It is, as it is not 0.",
    false: "It is not.",
    "there is none": "No such value is taken for true or false.",
  }),
  evaluates: trait("When is the second of two conditions evaluated?", {
    "left first": "Where the first does not settle it.",
    "left first, not promised":
      "Where the first does not settle it; which comes first is not promised, and a planner may change it.",
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
  numberKind: purpose("Which kind of number is wanted?", {
    integer: "A whole number.",
    decimal: "An exact number with its fraction.",
    double: "A floating-point number.",
    "double of 32 bits": "A floating-point number of 32 bits.",
    "as written": "An integer where it is written as one, otherwise a floating-point number.",
    "as written, to the point":
      "An integer where it is written as one, otherwise the digits before the point as a floating-point number: '5.7e3' is 5.0.",
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
    "not a number": "NaN, and nothing gives that, too.",
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
  truthRead: trait("Is a truth value read as a number?", {
    "1 or 0": "True is 1, false 0.",
    refused: "It is an error.",
  }),
  bytesRead: trait("Are bytes read as a number?", {
    "as text": "As the text that they are the UTF-8 form of.",
    kept: "They stay bytes.",
    never: "They are no numbers.",
    "as digits": "As the digits of one number in base 256: 0x0102 is 258.",
  }),
  numberWords: trait("Are words for infinity and for what is not a number read?", {
    read: "inf, -infinity and nan are numbers.",
    "INF and NaN": "INF, -INF and NaN are, in just these letters.",
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
    "nearest, by its bits":
      "The number without a sign that has the bits of the nearest one that there is, with a sign or without.",
  }),
  tooLarge: trait("What does a number give for which the wanted kind has no room?", {
    error: "It is an error.",
    nearest: "The largest or smallest number that there is.",
    infinity: "Infinity, where the kind has it: 1e300 in 32 bits; otherwise an error.",
    "lowest bits": "The number that its lowest bits are: 4294967297 in 32 bits is 1.",
    "bits, or all of them": "The number without a sign that has the same bits; one that is too far from 0 has all of them set.",
  }),
  digitsLeft: trait("What becomes of digits that a decimal has beyond those of its type?", {
    rounded: "It is rounded to those that its type has: 1.25 to one digit is 1.3.",
    kept: "They stay: 1.25 to one digit is 1.25, and 1 is 1.0.",
    "not shown": "They stay, and are not shown: 1.25 to one digit is shown as 1.3; a whole number stays as it is.",
  }),
  beyondDouble: trait("What does a number give, where it is read, that is too large for double precision?", {
    error: "It is an error.",
    infinity: "Infinity.",
    largest: "The largest number that there is.",
    "no number": "It counts as no number.",
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
    kept: "They stay bytes.",
    "base 16": "\\x and two digits in base 16 for each: \\x616c.",
    escaped: "ASCII for itself, other bytes like \\xC3.",
    "a character each": "As many characters as there are bytes, each of the byte's number: C3 A9 is Ã©.",
  }),
  bytesWritten: trait("How are bytes read from a text?", {
    "utf-8": "As the UTF-8 form of the text.",
    "a character each": "As the number of each character, up to 255: Ã© is C3 A9.",
    "base 16": "As two digits in base 16 for each byte: c3a9.",
    "escapes in base 8": "As the text, in which \\303 is a byte and \\\\ a backslash.",
    "base 16, or escapes": "In base 16 after \\x, otherwise as a text with escapes in base 8.",
    "escapes in base 16": "As ASCII, in which \\xC3 is a byte.",
  }),
  dateForms: trait("Which texts are dates, where no format is given?", {
    "ISO 8601": "2019-04-03 and nothing else.",
    "ISO 8601, or with a time": "2019-04-03, or with a time of day behind it.",
    "ISO 8601, 31 days a month": "2019-04-03, or with a time of day behind it; 2019-04-31 is one, too.",
    "year first": "2019-4-3, 2019/04/03 and the like, with or without a time of day.",
    "numbers or names of months":
      "2019-04-03, 4/3/2019 or 4.3.2019 (the month first), 20190403, Apr 3, 2019 or 3 Apr 2019, and more.",
    "any marks": "2019.4.3, 19*04*03, 20190403 and the like: numbers with any marks, or digits side by side.",
  }),
  clockOfDate: trait("What of a time of day, where a date is read?", {
    "left out": "Only the date stays.",
    kept: "It stays behind the date.",
  }),
  notADate: trait("What does a text that is no date give?", {
    error: "It is an error.",
    null: "Nothing.",
    "before every date": "Empty text, which comes before every date.",
    midnight: "0, which is midnight.",
  }),
  listForm: trait("How is a list read from a text?", {
    "[a, b]": "In brackets, with commas between; items may stand in quotes of either kind: [a, 'b, c'].",
    "{a,b}": 'In braces, with commas between; items may stand in double quotes: {a,"b, c"}.',
  }),
  listText: trait("How is a list written?", {
    "item by item": "As a list of texts.",
    "[a, b]": "In brackets, with a comma and a space between: [a, b].",
    "{a,b}": "In braces, with a comma between: {a,b}.",
  }),
} as const;
