import type { AnswerOf } from "../../traits/index.ts";
import { Decimal, Double, Failure, type Value, asDouble, isFailure } from "../../values/index.ts";
import { type Exact, known } from "../numeric.ts";
import { type SlotNumber, any, countBy, number, operation, optional, settled, text, written } from "../operation.ts";
import { readByNines, writeByNines } from "./nines.ts";
import { writeNumbering, writePicture } from "./pictures.ts";
import { writeFixed, writeSections } from "./sections.ts";

type Writer = (value: Exact | Double | Decimal, format: string, powerHalves: AnswerOf<"powerHalves">) => Value;

const notWhole = () => new Failure("wrong-kind", { expected: "a whole number", given: "a number with a fraction" });

/** How each language of formats writes a number, and the number that is written where there is none. */
const languages: Readonly<Record<AnswerOf<"numberFormats">, { readonly write: Writer; readonly missing: Value }>> = {
  nines: { write: writeByNines, missing: 0 },
  sections: { write: (value, format) => writeSections(asDouble(value), format), missing: 0 },
  picture: {
    write: (value, format) =>
      writePicture(value instanceof Double || value instanceof Decimal ? value : Decimal.of(value), format),
    missing: new Double(NaN),
  },
  numbering: {
    write: (value, format) => (typeof value === "object" ? notWhole() : writeNumbering(BigInt(value), format)),
    missing: "",
  },
};

/** Writes a number by a format; a text stays as it is. */
export const formatNumber = operation({
  id: "format-number",
  family: "convert",
  summary: "writes a number by a format",
  slots: [any("number"), written(text("format"), "numberFormats")],
  traits: ["missing", "numberFormats", "powerHalves"],
  prepare({ numberFormats, powerHalves }) {
    const { write, missing } = languages[numberFormats];
    return (given: Value, format: string): Value => {
      const filled = given ?? missing;
      const value = typeof filled === "string" ? filled : known(filled);
      return typeof value === "string" || isFailure(value) ? value : write(value, format, powerHalves);
    };
  },
});

/** Reads a number by a format of nines. */
export const numberByFormat = operation({
  id: "number-by-format",
  family: "convert",
  summary: "reads a number by a format",
  slots: [text("text"), text("format")],
  traits: ["missing"],
  prepare: () => readByNines,
});

/** Writes a number with a fixed number of decimals, after a mark of money or without one. */
export const fixedText = operation({
  id: "fixed-text",
  family: "convert",
  summary: "writes a number with a fixed number of decimals",
  slots: [number("number"), optional(number("decimals")), optional(any("noGroups")), settled("mark", ["", "$"])],
  traits: ["missing", "fraction"],
  prepare({ fraction }, { mark }) {
    const count = countBy(fraction);
    return (value: SlotNumber, decimals: SlotNumber = 2, noGroups: Value = false): Value => {
      const places = count(decimals);
      return isFailure(places) ? places : writeFixed(Number(value), places, noGroups !== true, mark as string);
    };
  },
});
