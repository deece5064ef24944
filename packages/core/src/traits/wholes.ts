import { trait } from "./trait.ts";

const heeded = { heeded: "It makes a difference.", "not heeded": "It makes none." };

const results = {
  whole: "The whole text.",
  empty: "Empty text.",
  null: "Nothing.",
  zero: "0.",
  one: "1.",
  "minus one": "-1.",
  true: "True.",
  false: "False.",
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
  isDone: trait("Is this done at all?", { done: "It is.", "not done": "It is not." }),
  ofMissing: trait("What comes back for a missing value?", results),
  ofEmptyText: trait("What comes back for empty text?", results),
  tooFew: trait("What comes back where what is searched for does not stand there, or not often enough?", results),
};
