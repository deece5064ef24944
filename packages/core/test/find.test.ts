import { expect, test } from "@jest/globals";
import { sampleOf, compile } from "indigo-quill";
import { find } from "indigo-quill/authoring";
import { agree } from "indigo-quill/contrast";
import { dialects } from "indigo-quill/dialects";
import { type TaskId, templateOf } from "../src/dialects/tasks/index.ts";

/** Questions of authors, with the tasks that answer them. */
// prettier-ignore
const questions: readonly (readonly [question: string, tasks: string])[] = [
  ["text after the last slash", "lastPiece"], ["count characters", "length"], ["leading zeros gone", "zeroFilled padLeft"],
  ["leading zeros are lost", "zeroFilled padLeft"], ["remove leading zeros", "leadingZeros"], ["accents off", "removeAccents"],
  ["title case", "title"], ["split by any of several delimiters", "splitAny"], ["nth word", "nthWord"],
  ["phone number", "keepDigits"], ["keep only digits", "keepDigits"], ["first name", "firstWord before swapNames"],
  ["surname", "lastWord before swapNames"], ["everything before the comma", "before firstPiece"], ["part after the colon", "after"],
  ["text between brackets", "between"], ["first three letters", "first"], ["last 4 characters", "last"],
  ["middle of a text", "slice"], ["cut off the last character", "withoutLast"], ["drop the first character", "withoutFirst"],
  ["position of a character", "position"], ["find second dash", "positionFrom occurrences nthWord piece"], ["does it contain a word", "contains"],
  ["starts with", "startsWith"], ["ends with .txt", "endsWith"], ["replace all commas", "replace"],
  ["replace only the first", "replaceFirst"], ["delete spaces", "remove trim singleSpaces"], ["extra spaces between words", "singleSpaces"],
  ["trailing spaces", "trimEnd trim"], ["white space at the start", "trimStart trim"], ["make upper case", "upper"],
  ["lowercase", "lower"], ["capitalize first letter", "capital title"], ["how long is the text", "length"],
  ["number of bytes", "bytes"], ["count commas", "occurrences"], ["how many words", "words"],
  ["join first and last name", "joinWith join"], ["concatenate two columns", "join joinWith"], ["join skipping blanks", "joinFilled"],
  ["pad with zeros", "padLeft zeroFilled"], ["fill with dots on the right", "padRight"], ["repeat a text", "repeat"],
  ["reverse a string", "reverse"], ["split into list", "split"], ["if else", "choose"],
  ["if then", "choose"], ["default when null", "fallback whenEmpty"], ["blank cell replaced by something", "whenEmpty fallback"],
  ["turn dash into null", "nothingFor"], ["is null", "isMissing"], ["check for empty", "isEmpty isMissing"],
  ["compare ignoring case", "sameAnyCase"], ["exact comparison", "sameText"], ["regular expression match", "matches"],
  ["extract with regex", "extractPattern"], ["regex replace", "replacePattern"], ["first number in a text", "firstNumber"],
  ["convert text to number", "toNumber"], ["number to text", "toText"], ["is it numeric", "isNumber"],
  ["two decimals", "decimals"], ["round to 1 decimal", "round"], ["round up", "roundUp"],
  ["round down", "roundDown"], ["absolute value", "absolute"], ["remainder", "remainder"],
  ["larger of two", "larger"], ["minimum of two values", "smaller"], ["ascii code of a letter", "codeOf"],
  ["character from code", "characterOf"], ["value in a list", "oneOf"], ["contains any of several terms", "containsAny"],
  ["remove line breaks", "lineBreaks"], ["truncate with ellipsis", "shorten"], ["year of a date", "year"],
  ["month from date", "month"], ["day of month", "day"], ["swap surname and given name", "swapNames"],
  ["thousands separator", "thousands"], ["days between two dates", "daysBetween"], ["add a month of days", "addDays"],
  ["weekday name", "weekday"], ["name of the month", "monthName"], ["date as dd.mm.yyyy", "dateWritten"], ["text to date", "toDate"],
  ["strip html", "removeTags"], ["initials", "initials"], ["decimal comma", "decimalComma"], ["no punctuation", "removePunctuation keepLetters"],
  ["string to integer", "toWhole toNumber"], ["domain of an email address", "after"], ["check the format of a code", "matches"],
  ["overwrite characters at a position", "replaceSpan"], ["insert a hyphen", "insert"], ["mid", "slice"],
  ["vlookup substring", "slice from"], ["LEFT", "first"], ["substitute", "replace"],
  ["COALESCE", "fallback"], ["text position", "position"], ["split_part", "piece firstPiece lastPiece"],
  ["initcap", "title"], ["lpad", "padLeft"], ["iif", "choose"],
  ["nvl", "fallback"], ["strip quotes", "trimCharacters remove"], ["only letters", "keepLetters"],
  ["remove numbers from text", "removeDigits"], ["case insensitive search", "positionAnyCase sameAnyCase"], ["file extension", "lastPiece endsWith"],
  ["domain of an email address", "after before lastPiece"], ["genus of a plant name", "firstWord before nthWord"], ["what stands after the first space", "after"],
  ["get rid of double blanks", "singleSpaces"], ["shout: all caps", "upper"], ["number with thousands lost its zeros", "zeroFilled padLeft"],
  ["line feed in a cell", "lineBreaks"], ["combine text with a comma in between", "joinWith joinFilled join"], ["is the cell empty", "isEmpty isMissing"],
  ["use another column if this one is missing", "fallback whenEmpty"], ["how often does a letter occur", "occurrences"], ["the third piece between hashes", "piece"],
  ["last two digits", "last"], ["skip the first four characters", "withoutFirst"], ["strip everything but letters", "keepLetters"],
  ["umlauts to plain letters", "removeAccents"], ["label rows high or low", "choose"], ["whole number below", "roundDown"],
  ["even or odd", "remainder"], ["extension of a file name", "lastPiece"], ["inside quotes", "between"],
  ["cut a long text and add dots", "shorten"], ["only when it begins with BR", "startsWith"], ["parse a decimal number", "toNumber toNumber"],
  ["indent with spaces", "padLeft repeat"], ["mask first letters with stars", "replaceSpan"], ["word count", "words"],
  ["same text in different case", "sameAnyCase"], ["biggest of two numbers", "larger"], ["compare exactly", "sameText"],
  ["turn a number into text", "toText"],
  ["cut off the file extension", "withoutLast before firstPiece lastPiece"],
  ["domain of an email address", "after lastPiece"], ["what comes after the @", "after"],
  ["get rid of double spaces", "singleSpaces"], ["make first letter big", "capital title"], ["shout", "upper"],
  ["all caps", "upper"], ["minuscule", "lower"], ["remove everything except numbers", "keepDigits"],
  ["strip html", "removeTags"], ["pad with zeroes", "zeroFilled padLeft"], ["add leading zeros", "zeroFilled padLeft"],
  ["leading zeros gone", "zeroFilled padLeft toText"], ["number stored as text", "toNumber toText"],
  ["convert string to integer", "toWhole toNumber"], ["is it numeric", "isNumber"], ["replace nulls", "fallback"],
  ["default value if empty", "fallback whenEmpty"], ["first non-null", "fallback"], ["blank to null", "nothingFor"],
  ["ternary", "choose"], ["switch case", "choose"], ["starts with", "startsWith"], ["does it contain a word", "contains"],
  ["any of several words", "containsAny"], ["count commas", "occurrences"],
  ["how many items in a comma list", "pieceCount occurrences"], ["third element of comma separated list", "piece"],
  ["middle name", "nthWord"], ["initials of a name", "initials"], ["swap first and last name", "swapNames"],
  ["month as word", "monthName"], ["day of week", "weekday"], ["age in days", "daysBetween"], ["tomorrow", "addDays"],
  ["year from date", "year"], ["format date dd/mm/yyyy", "dateWritten"], ["european decimal comma", "decimalComma"],
  ["thousand separator", "thousands"], ["two decimal places", "decimals round"], ["percent", "hundredfold"],
  ["integer division", "wholeQuotient"], ["even odd", "remainder"], ["bigger of two columns", "larger"],
  ["glue columns together with a comma", "joinWith joinFilled"], ["join skipping blanks", "joinFilled"],
  ["accents off", "removeAccents"], ["ignore case when comparing", "sameAnyCase"], ["reverse a string", "reverse"],
  ["repeat a character", "repeat"], ["position of last slash", "lastPiece position"], ["text between parentheses", "between"],
  ["extract the number from text", "firstNumber keepDigits"], ["extract with regex", "extractPattern"],
  ["regex replace", "replacePattern"], ["ascii code", "codeOf"], ["char from code", "characterOf"],
  ["truncate with ellipsis", "shorten"], ["remove line breaks", "lineBreaks"], ["split on several delimiters", "splitAny"],
  ["last word", "lastWord"], ["surname", "lastWord swapNames before firstPiece"], ["phone number digits only", "keepDigits"],
  ["strip punctuation", "removePunctuation"], ["length in bytes", "bytes"], ["trim trailing spaces", "trimEnd trim"],
  ["remove quotes around", "trimCharacters"], ["insert a dash after 3 characters", "insert"],
  ["overwrite characters 2 to 4", "replaceSpan"], ["compare two texts exactly", "sameText"],
  ["negate a condition", "opposite"], ["round up to whole", "roundUp"], ["absolute", "absolute"],
  ["in a list of values", "oneOf"], ["mask all but last four", "last replaceSpan"], ["substring from the right", "last"],
];

test.each(Object.keys(dialects))("%s: nine in ten questions have an answer among the first three", (id) => {
  const dialect = dialects[id]();
  const asked = questions.flatMap(([question, wanted]) => {
    const said = wanted.split(" ").filter((task) => templateOf(task as TaskId, id) !== undefined);
    return said.length > 0 ? [{ question, said, found: find(question, dialect, 3) }] : [];
  });
  const missed = asked.filter(({ said, found }) => !found.some(({ task }) => task !== undefined && said.includes(task)));
  expect(missed.length / asked.length).toBeLessThan(0.1);
});

test("what is found runs as it is written, and a function is found by its name", () => {
  const dialect = dialects.sqlite();
  for (const { written, example } of find("text after the last slash", dialect).filter((found) => found.example)) {
    const sample = sampleOf([example!.given]);
    expect(agree(compile(dialect, written, sample).runRow(sample, 0), example!.value)).toBe(true);
  }
  expect(find("printf", dialect, 1)[0].written).toMatch(/^printf\(/);
  expect(find("qqqq", dialect)).toEqual([]);
  expect(find("", dialect)).toEqual([]);
});
