import { durationTypes, lookup, momentTypes } from "../../values/index.ts";
import { type Work, step } from "../step.ts";
import { steps } from "./steps.ts";

/** The types of whole numbers that have fewer of them (XML Schema 1.1 part 2, 3.4). */
const integers = lookup<Readonly<Record<string, number>>>({
  nonNegativeInteger: { least: 0 },
  positiveInteger: { least: 1 },
  nonPositiveInteger: { most: 0 },
  negativeInteger: { most: -1 },
  long: { least: -(2 ** 63), below: 2 ** 63 },
  int: { least: -(2 ** 31), below: 2 ** 31 },
  short: { least: -32768, most: 32767 },
  byte: { least: -128, most: 127 },
  unsignedLong: { least: 0, below: 2 ** 64 },
  unsignedInt: { least: 0, below: 2 ** 32 },
  unsignedShort: { least: 0, most: 65535 },
  unsignedByte: { least: 0, most: 255 },
});

/** A number that an exact one can be made of (FOCA0002). */
const finite = step("check-number", {}, { refused: "not-finite" });

/** Casts an atomic item to an `xs:` type (F&O 3.1, 19); undefined when the type is not covered. */
export function castAtom(type: string): Work | undefined {
  const name = type.replace(/^xs:/, "");
  if (name in integers) return [finite, steps.integer, step("check-number", {}, { ...integers[name], refused: "not-a-number" })];
  if (momentTypes.includes(name) || durationTypes.includes(name)) return step("typed-moment", {}, { type: name });
  switch (name) {
    case "integer":
    case "decimal":
      return [finite, steps[name]];
    case "double":
    case "float":
      return steps[name];
    case "string":
    case "untypedAtomic":
    case "anyURI":
      return steps.text;
    case "normalizedString":
      return [steps.text, steps["blanks as spaces"]];
    case "token":
      return [steps.text, steps["spaces collapsed"]];
    case "boolean":
      return steps.boolean;
  }
  return undefined;
}
