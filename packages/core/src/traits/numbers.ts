import { purpose, trait } from "./trait.ts";

/** Questions about numbers: calculating, rounding, bits, bases; and about dates. */
export const numbers = {
  numbers: trait("What kinds of number are there?", {
    double: "Only binary floating point: 0.1 + 0.2 is not 0.3.",
    exact: "Integers and decimals are exact; doubles are told apart from them.",
  }),
  quotient: trait("What does dividing one integer by another give?", {
    integer: "An integer, cut towards zero: 7/2 is 3.",
    decimal: "A decimal: 7/2 is 3.5.",
    double: "A floating-point number: 7/2 is 3.5.",
  }),
  quotientDigits: trait("How many digits has the quotient of decimals?", {
    "sixteen significant ones": "At least 16, and as many decimals as either: 1.0/3 is 0.3333333333333333.",
    "four more decimals":
      "Four decimals more than what is divided are shown, and more are kept, cut after a group of nine: 2/3 is 0.6667, 2/3*3 is 2.",
    "twenty decimals": "Up to 20 decimals: 1.0/3 is 0.33333333333333333333.",
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
  tooSmall: trait("What does a number give that is nearer to zero than any that there is?", {
    zero: "0: 1e-400 is 0.",
    error: "It is an error.",
  }),
  outside: trait("What does a mathematical function give where it has no value?", {
    error: "It is an error: sqrt(-1).",
    null: "Nothing.",
    "not a number": "What is not a number (NaN).",
  }),
  ofDecimals: trait("What does a mathematical function make of decimals?", {
    "a double": "The nearest double: sqrt(2.00) is 1.4142135623730951.",
    "16 digits": "A decimal of 16 digits at least, as many decimals as were given: sqrt(2.00) is 1.414213562373095.",
    "16 decimals": "The same, but a whole power has 16 decimals: 2.00 to the power of 3 is 8.0000000000000000.",
  }),
  closeness: trait("How close are angles, and logarithms to 10 and 2, to the true ones?", {
    nearest: "As close as can be.",
    "the host's": "The last digit may be another.",
  }),
  remainder: trait("What is the remainder of numbers with fractions?", {
    "of fractions": "5.5 mod 2 is 1.5.",
    "of whole parts": "Fractions are cut first: 5.5 mod 2 is 1.",
  }),
  remainderSign: trait("Which sign has the remainder of a division?", {
    "of what is divided": "-5 mod 3 is -2.",
    "of the divisor": "-5 mod 3 is 1.",
  }),
  signKind: trait("What kind of number is the sign of one?", {
    whole: "A whole number.",
    "the number's": "A number of the same kind: the sign of 2.5e0 is 1e0.",
  }),
  direction: purpose("Which way is a number rounded?", {
    "half away from zero": "To the nearest; 2.5 is 3, -2.5 is -3.",
    "half up": "To the nearest; 2.5 is 3, -2.5 is -2.",
    "half to even": "To the nearest; 2.5 is 2, 3.5 is 4.",
    up: "2.1 is 3, -2.9 is -2.",
    down: "2.9 is 2, -2.1 is -3.",
    "toward zero": "2.9 is 2, -2.9 is -2.",
    "away from zero": "2.1 is 3, -2.1 is -3.",
  }),
  digitsBelow: trait("What does rounding to less than 0 digits do?", {
    "before the point": "It rounds to tens, hundreds and so on.",
    none: "It rounds to whole numbers, as 0 does.",
  }),
  roundedDigits: trait("Which digits of a floating-point number are rounded?", {
    shortest: "Those that it is written with: 1.005 to two digits is 1.01.",
    exact: "Those that it has: 1.005 is a little less, and to two digits 1; 2.675 is 2.67.",
    scaled: "Those of its product with a power of ten, which may be rounded itself: 1.005 is 1, 2.675 is 2.68.",
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
  letterDigits: trait("With which letters are numbers written in a base above ten?", {
    capital: "With capital ones: 255 in base 16 is FF.",
    small: "With small ones: 255 in base 16 is ff.",
  }),
  digitRoom: trait("What happens where a number has more digits than are asked for?", {
    "as needed": "It has as many as it needs; zeros are put before fewer.",
    "as asked": "That is an error; zeros are put before fewer.",
  }),
  weeks: trait("Which week of the year is a date in?", {
    "ISO 8601":
      "Weeks begin on Monday, and the first one is that of the year's first Thursday; days before it are in the last year's last.",
    "Sundays from 0": "Weeks begin on Sunday; the days before the first Sunday are in week 0.",
    "Mondays from 0": "Weeks begin on Monday; the days before the first Monday are in week 0.",
    "Sundays from 1": "Weeks begin on Sunday; 1 January is in week 1.",
    "Mondays from 1": "Weeks begin on Monday; 1 January is in week 1.",
  }),
  weekdays: trait("How are the days of the week numbered?", {
    "Sunday 0": "From 0 for Sunday to 6 for Saturday.",
    "Sunday 1": "From 1 for Sunday to 7 for Saturday.",
    "Monday 0": "From 0 for Monday to 6 for Sunday.",
    "Monday 1": "From 1 for Monday to 7 for Sunday, as ISO 8601 does.",
  }),
  numberFormats: trait("What language are number formats in?", {
    nines:
      "9 is a digit where there is one, 0 one in any case, D or a point the point, G or a comma the mark between thousands; a place before the digits is for the sign: '9,990.0'.",
    sections:
      "# is a digit where there is one, 0 one in any case; after ; stands the format of negative numbers, then that of 0; letters write a date: '#,##0.0;-0'.",
    picture:
      "# is a digit where there is one, 0 one in any case, halves go to the even digit; what is missing is NaN: '#,##0.0'.",
    numbering: "1, a or I says how a whole number is counted: in digits, letters or Roman numerals.",
  }),
  powerHalves: trait("How is a whole number rounded that is written with a power of ten?", {
    "to even": "12345 with three decimals is 1.234e4, of halves the even one, as the nearest floating-point number is.",
    "away from zero": "12345 with three decimals is 1.235e4.",
  }),
  centuriesFrom: trait("With which year do centuries and millennia begin?", {
    "the year 1": "2000 is the last year of the twentieth century, which began with 1901.",
    "the year 0": "2000 is the first year of a century.",
  }),
  formatLanguage: trait("What language are date formats in?", {
    percent: "A letter after a %, capital and small apart: %m is the month, %M is something else.",
    words:
      "Words in capitals or small letters: MM is the month; a name is written as its word is, MONTH, Month or month; FM before a word takes away what fills it up.",
    "words in any case": "Words in capitals or small letters: MM and Mm are the month; names begin with a capital letter.",
    components: "A letter in square brackets, with how it is written: [M01] is the month in two digits, [MNn] its name.",
  }),
  unknownToken: trait("What does a letter that stands for nothing give in a date format?", {
    error: "It is an error.",
    null: "Nothing comes back.",
    itself: "The letter itself, without its mark.",
  }),
  formatSpaces: trait("What does white space in a date format stand for?", {
    "as it stands": "The same, and more of it.",
    any: "Any white space or none, which may stand before every part of the text.",
  }),
  restOfText: trait("What if a text ends before the date format, or goes on after it?", {
    "no date": "It is no date.",
    "passed over": "The parts that are missing are as though they were not asked for; what goes on is passed over.",
  }),
  partsLeftOut: trait("What are the parts of a date that its format does not ask for?", {
    "1900-01-01": "Those of 1900-01-01; there must be such a day.",
    zero: "0, and other days than there are may be read: 2019-02-30.",
  }),
  yearDigits: trait("Which year is one of two digits where four are asked for?", {
    "as written": "Year 19 is the year 19.",
    completed: "It is completed: 19 is 2019, 70 is 1970.",
  }),
  nameBeginnings: trait("Are names of months and days read by their beginnings?", {
    read: "Where they are clear: Ap is April.",
    refused: "They are no date.",
  }),
  halfOfDay: trait("What does AM or PM mean beside an hour of 24?", {
    counts: "The half of the day: 5 PM is 17 o'clock, and 13 PM is no time.",
    refused: "It is no date.",
  }),
  formatGives: trait("What does a date come to that is read by a format?", {
    "a date and time": "A date and time, whatever the format asks for: 2019-04-03 is 2019-04-03 00:00:00.",
    "what it asks for": "A date, a time or both, as the format asks for them; days beside a time alone are 24 hours each.",
  }),
  doubledSign: trait("What do two % signs stand for where a date is read?", {
    "one sign": "One of them.",
    nothing: "It is no date.",
  }),
  emptyFormat: trait("What does an empty date format give?", {
    error: "It is an error.",
    null: "Nothing.",
    "empty text": "Empty text.",
  }),
} as const;
