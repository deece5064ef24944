import { trait } from "./trait.ts";

/** Questions about stretches of time, and about dates that they move. */
export const intervals = {
  intervalForms: trait("How may a stretch of time be written?", {
    "units and clocks": "As numbers with units and clocks, each as often as one likes: 1 year 2 days 03:04:05.",
    "units, a clock, 1-2 or P1Y2M":
      "As numbers with units and a clock, each once, with signs; as years and months, 1-2; or as ISO 8601 has it, P1Y2M.",
  }),
  intervalText: trait("How is a stretch of time written as text?", {
    "1 mon": "As years, mons, days and a clock; behind a part below 0 others have their sign: -1 mons +1 day.",
    "1 month": "As years, months, days and a clock: 1 year 2 months.",
    P1M: "As ISO 8601 has it: P1Y2M.",
    "there is none": "No such value is written.",
  }),
  partsOfMonths: trait("What is a part of a month, where a stretch is multiplied?", {
    "days and time": "Days of a thirtieth, and time: half of 1 month is 15 days.",
    rounded: "A whole month from one half on: half of 1 month is 1 month.",
  }),
  dayBeyond: trait("What day is it, some months on, where that month is shorter?", {
    "the last day": "The last one of that month: 31 January and 1 month is 28 or 29 February.",
    "days of the next month": "The days that are too many are those of the next month: 31 January and 1 month is 2 or 3 March.",
  }),
  timeAdded: trait("What is a date without a time, some time on?", {
    "a date and time": "A date with a time, midnight where no hours are added.",
    "a date, with hours a time": "A date; with a time where hours are added.",
    "a date": "A date, whatever the hours that are added make of a day.",
  }),
  clockDigits: trait("With how many digits of the second's fraction is a moment shown that was moved?", {
    "as many as it has": "With those that it has: 12:00:00.5.",
    six: "With six, whatever they are: 12:00:00.500000.",
  }),
  unitsBetween: trait("What is counted between two moments?", {
    borders: "The borders of the unit: from 31 January to 1 February one month, of years none.",
    "whole ones": "Whole units: a month is over on the same day of the next one.",
    "whole ones, or to the last day": "Whole units: a month is over on the same day of the next one, or on its last.",
  }),
  noSuchDate: trait("What if the date lies beyond those that there are?", {
    error: "It is an error.",
    null: "The result is missing.",
  }),
};
