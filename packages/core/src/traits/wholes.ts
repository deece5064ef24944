import { trait } from "./trait.ts";

const heeded = { heeded: "It makes a difference.", "not heeded": "It makes none." };

const results = {
  whole: "The value itself.",
  empty: "Empty text.",
  null: "Nothing.",
  zero: "0.",
  one: "1.",
  "minus one": "-1.",
  true: "True.",
  false: "False.",
  infinite: "An infinite number.",
  digits: "The digits of the number.",
  "minus in front": "The number with a minus in front of it: -0001.",
  "minus for a zero": "The number with a minus in the place of the first zero: -001.",
  "minus among zeros": "The number with a minus among its zeros: 00-1.",
  "rounded up": "What the number one digit farther from 0 gives.",
  "rounded down": "What the number one digit nearer to 0 gives.",
  "thousands apart": "Its digits with a comma between groups of three.",
  "as at the end": "What would come back if it stood at the end.",
  "as at the start": "What would come back if it stood at the start.",
  own: "What the steps make of it, as of any other.",
  error: "An error.",
};

/** Questions about where numbers come from, about what several steps come to, and about whole expressions: what of a value one heeds. */
export const wholes = {
  columnNumbers: trait("What is a number with a fraction that a column holds?", {
    "as written": "A decimal with the digits that it is written with.",
    "of one scale": "A decimal with as many digits after the point as the column has.",
    double: "A floating-point number.",
  }),
  wholeQuotient: trait("What is a quotient that is no whole number cut to?", {
    "toward zero": "The whole number before the point: -7/2 is -3.",
    down: "The whole number below it: -7/2 is -4.",
    up: "The whole number above it: 7/2 is 4.",
  }),
  heedsMissing: trait("Is a missing value told from empty text?", heeded),
  heedsEnds: trait("Do spaces at the ends of a text count?", heeded),
  heedsInner: trait("Do several spaces within a text count as more than one?", heeded),
  heedsSpaceKinds: trait("Is other white space told from a space?", heeded),
  heedsCase: trait("Do upper and lower case letters count as different?", heeded),
  heedsAccents: trait("Do accents count?", heeded),
  heedsFraction: trait("Does the fraction of a number count?", heeded),
  heedsNegative: trait("Is a negative number told from 0?", heeded),
  heedsOtherRows: trait("Do the other rows of the sample count?", heeded),
  isDone: trait("Is this done at all?", { done: "It is.", "not done": "It is not." }),
  ofMissing: trait("What comes back for a missing value?", results),
  ofEmptyText: trait("What comes back for empty text?", results),
  ofBlank: trait("What comes back for a text that is nothing but spaces?", results),
  ofWritten: trait("What comes back for a text that is the very one that is written?", results),
  tooShort: trait("What comes back for a text that is shorter than what is asked for?", results),
  ofForeignLetters: trait("What comes back for a text with characters beyond ASCII?", results),
  ofDigits: trait("What comes back for a text with digits in it?", results),
  ofMarks: trait("What comes back for a text with punctuation in it?", results),
  ofZero: trait("What comes back for 0?", results),
  ofNegative: trait("What comes back for a negative number?", results),
  ofFraction: trait("What comes back for a number with a fraction?", results),
  ofHalf: trait("What comes back for a number that lies in the middle between two that it may be rounded to?", results),
  ofLargeNumber: trait("What comes back for a large number?", results),
  tooFew: trait("What comes back where what is searched for does not stand there, or not often enough?", results),
};
