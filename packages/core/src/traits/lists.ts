import { purpose, trait } from "./trait.ts";

/** Questions about lists, and about several values at once. */
export const lists = {
  several: trait("What does a list of several values stand for where one is wanted?", {
    "the first": "Its first value.",
    error: "It is an error.",
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
  missingList: trait("What does a missing list give, where lists are put together?", {
    null: "Nothing.",
    skipped: "What the other one has; nothing where both are missing.",
  }),
  ofOne: purpose("What does the aggregate give over one row?", {
    "the value": "The row's own value.",
    "1 or 0": "1, or 0 where the value is missing.",
    "a list": "A list of the one value.",
    nothing: "Nothing: one value has no spread.",
    zero: "0, or nothing where the value is missing.",
  }),
} as const;
