import { type Shape, list, oneOf, record, schemaOf, text } from "../../diagnostics/shape.ts";
import { type OperationId, families, operationOf, operations } from "../../text/index.ts";
import { type TraitId, describeTrait, traits } from "../../traits/index.ts";
import { dialects } from "../index.ts";
import type { FunctionRow } from "../row.ts";

/** A function that is an operation with answers, as it is written in a definition. */
export interface OwnFunction {
  readonly name: string;
  readonly aliases?: readonly string[];
  readonly family?: FunctionRow["family"];
  readonly summary: string;
  readonly parameters: string;
  readonly result: string;
  readonly operation: OperationId;
  readonly answers: Readonly<Record<string, string>>;
  readonly fixed?: Readonly<Record<string, string | number | boolean>>;
  readonly evidence?: string;
}

/** A function that does what another one does, but for some answers. */
export interface LikeFunction {
  readonly name: string;
  readonly aliases?: readonly string[];
  readonly like: string;
  readonly summary?: string;
  readonly answers?: Readonly<Record<string, string>>;
  readonly evidence?: string;
}

/** A dialect as plain data, on top of one of ours: its grammar, its operators, its rules for values. */
export interface Definition {
  readonly dialect: 1;
  readonly id: string;
  readonly title: string;
  readonly source: string;
  readonly on: string;
  readonly options?: Readonly<Record<string, string>>;
  readonly keeps?: readonly string[];
  readonly functions: readonly (OwnFunction | LikeFunction)[];
  readonly steps?: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly conversions?: readonly ChangedConversion[];
}

/** How values become a type, and what an operation on the way there answers otherwise. */
export interface ChangedConversion {
  readonly to: string;
  readonly operation: OperationId;
  readonly answers: Readonly<Record<string, string>>;
}

export const answersOf = (trait: TraitId): Shape => {
  const { question, answers } = describeTrait(trait);
  return { kind: "one of", about: question, values: Object.keys(answers), named: trait };
};
const answersFor = (id: OperationId): Readonly<Record<string, Shape>> =>
  Object.fromEntries(operationOf(id).traits.map((trait) => [trait, answersOf(trait)]));

const anyValue: Shape = {
  kind: "either",
  about: "A value that is the same for every call.",
  of: [text("A text."), { kind: "number", about: "A number." }, { kind: "truth", about: "A truth value." }],
};
const called = {
  name: text("Its name."),
  aliases: list("Other names of it.", text("A name.")),
  summary: text("What it does, in one sentence."),
  evidence: text("Where that is known from; the source of the dialect where it is left out."),
};

/** The shape of a function that is an operation. */
const shapeFor = (id: OperationId): Shape => {
  const { summary, slots } = operationOf(id);
  const settled = slots.filter((slot) => slot.settled).map((slot) => slot.name);
  return record(
    `A function that ${summary}.`,
    ["name", "summary", "parameters", "result", "operation", "answers", ...(settled.length > 0 ? ["fixed"] : [])],
    {
      ...called,
      family: oneOf("The group in which it is browsed.", ...families),
      parameters: text(
        `What it takes, as "name type > slot, name? type > slot = default"; the slots are ${slots.map((slot) => slot.name).join(", ")}.`,
      ),
      result: text("The type of what it gives."),
      operation: oneOf("What it does.", id),
      answers: record("How it does it.", operationOf(id).traits, answersFor(id)),
      fixed: record(
        "Slots that are the same for every call.",
        settled,
        Object.fromEntries(
          slots.map((slot) => [slot.name, slot.settled && !slot.fault ? oneOf("Which.", ...slot.settled) : anyValue]),
        ),
      ),
    },
  );
};
export const operationIds = Object.keys(operations) as OperationId[];
/** By operation: the shape of a function that is that one. */
export const functionShapes = Object.fromEntries(operationIds.map((id) => [id, shapeFor(id)]));
export const likeShape = record("A function that does what another does, but for some answers.", ["name", "like"], {
  ...called,
  like: text("A function of this file, or of the dialect that it stands on."),
  answers: { kind: "map", about: "What it answers otherwise, by traits.", of: text("An answer.") },
});

const shapeWith = (ofFunction: Shape): Shape =>
  record("A dialect on top of one of ours.", ["dialect", "id", "title", "source", "on", "functions"], {
    $schema: text("The schema of this file."),
    dialect: { kind: "one of", about: "The version of this format.", values: [1] },
    id: text("Its name for commands: small letters, digits and hyphens."),
    title: text("Its name for people."),
    source: text("What it is known from: a manual, an engine, with the version."),
    on: oneOf("The dialect whose grammar, operators and rules for values it has.", ...Object.keys(dialects)),
    options: { kind: "map", about: "Options of that dialect.", of: text("A value.") },
    keeps: list("Functions of that dialect that it has, too; operators are kept in any case.", text("A name.")),
    functions: list("Its functions.", ofFunction, 1),
    steps: {
      kind: "map",
      about: "Conversions that answer otherwise, by their names.",
      of: { kind: "map", about: "Answers, by traits.", of: text("An answer.") },
    },
    conversions: list(
      "What is done otherwise to values that become a type.",
      record("An operation on the way to a type.", ["to", "operation", "answers"], {
        to: text("The type that values become."),
        operation: oneOf("What is done on the way.", ...operationIds),
        answers: { kind: "map", about: "What it answers otherwise, by traits.", of: text("An answer.") },
      }),
    ),
  });
const anyFunction: Shape = { kind: "any", about: "A function." };
export const outerShape = shapeWith(anyFunction);

/** The JSON Schema of a dialect that is plain data, made from the operations and traits. */
export const dialectSchema = {
  $schema: "https://json-schema.org/draft/2020-12/schema",
  ...schemaOf(
    shapeWith({ kind: "either", about: "A function.", of: [likeShape, ...operationIds.map((id) => functionShapes[id])] }),
  ),
  title: "Indigo Quill dialect, version 1",
  $defs: Object.fromEntries(
    Object.entries(traits).map(([trait, { question, answers }]) => [
      trait,
      { description: question, anyOf: Object.entries(answers).map(([answer, says]) => ({ const: answer, description: says })) },
    ]),
  ),
};
