import { message } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import type { Program } from "../evaluate/index.ts";
import { operationOf } from "../text/index.ts";
import { describeTrait } from "../traits/index.ts";
import type { Failure } from "../values/index.ts";
import type { Given, Parting } from "./parting.ts";
import type { Difference } from "./swap.ts";
import type { Effect } from "./effect.ts";
import { quoted, showValue } from "./shown.ts";

/** The title of a dialect, with its options that are not the usual ones. */
function titleOf({ title, options, chosen }: Dialect): string {
  const own = options.filter((option) => chosen[option.name] !== option.default).map(({ name }) => chosen[name]);
  return own.length > 0 ? `${title} ${own.join(" ")}` : title;
}

/** A title for each side; one that stands there twice is numbered. */
export function titlesOf(programs: readonly Pick<Program, "dialect">[]): string[] {
  const titles = programs.map(({ dialect }) => titleOf(dialect));
  return titles.map((title, i) =>
    titles.filter((t) => t === title).length > 1 ? `${title} ${titles.slice(0, i + 1).filter((t) => t === title).length}` : title,
  );
}

/** A trait that two dialects answer differently: the question, and for each side its answer and what follows from it. */
export interface ExplainedDifference {
  readonly question: string;
  readonly sides: readonly [string, string];
}

/** A parting in words: what happened on the row, what was to be done, and each smallest set of traits that explains it. */
export interface ExplainedParting {
  readonly happened: string;
  readonly does: string;
  /** Empty when no set of up to three traits explains it. */
  readonly causes: readonly (readonly ExplainedDifference[])[];
  /** What the experiment was and gave; undefined where no cause was found, and for what parts only together with others. */
  readonly tried?: string;
  /** What parts, too, where it is not all of it. */
  readonly further?: readonly ExplainedParting[];
}

/** `asIf` is the side that has no such step: it gives what would come of its answer. */
export function explainDifference(
  { trait, answers }: Difference,
  titles: readonly [string, string],
  asIf?: 0 | 1,
): ExplainedDifference {
  const { question, answers: known } = describeTrait(trait);
  const side = (i: 0 | 1) => `${titles[i]}${asIf === i ? " gives what would come of" : ""}: ${known[answers[i]]}`;
  return { question, sides: [side(0), side(1)] };
}

/** What two steps that do the same are given, where it is not the same. */
function explainGiven(given: readonly Given[], titles: readonly [string, string]): ExplainedDifference {
  const side = (i: 0 | 1) => {
    const all = given.map(({ name, values }) => {
      const value = values[i] === undefined ? "not said" : showValue(values[i]);
      return name === "" ? value : `${name} ${value}`;
    });
    return `${titles[i]}: ${all.join(", ")}`;
  };
  return { question: describeTrait("isGiven").question, sides: [side(0), side(1)] };
}

/** Says where two evaluations part, on what inputs, with what outputs, and why. */
export function explainParting(parting: Parting, titles: readonly [string, string]): ExplainedParting {
  const { causes, reaches, further, experiment, alone } = parting;
  const asIf = experiment?.is === "as if" ? (alone === 0 ? 1 : 0) : undefined;
  return {
    happened: happenedText(parting, titles),
    does: doesText(parting, titles),
    causes:
      experiment?.is === "given"
        ? [[explainGiven(experiment.given, titles)]]
        : causes.map((cause) => cause.map((difference) => explainDifference(difference, titles, asIf))),
    ...(further && { further: further.map((other) => explainParting(other, titles)) }),
    ...(causes.length > 0 && further === undefined && reaches === "whole" && { tried: triedText(parting, titles) }),
  };
}

/** What happened on the row. */
function happenedText({ functions, outputs, inputs, operation, alone }: Parting, titles: readonly [string, string]): string {
  const given = Object.entries(inputs).map(([name, [own, other]]) => {
    const [a, b] = [showValue(own), showValue(other)];
    return a === b ? `${name} ${a}` : `${name} ${a} (${titles[0]}) or ${b} (${titles[1]})`;
  });
  const isWhole = operation === "whole" || alone !== undefined;
  const [left, right] = titles.map((title, i) => (isWhole ? title : `${functions[i]} (${title})`));
  const on = given.length > 0 ? `On ${given.join(", ")}: ` : "";
  return `${on}${left} gives ${showValue(outputs[0])}, ${right} ${showValue(outputs[1])}.`;
}

/** What is to be done where they part; empty where it is the whole. */
function doesText({ functions, operation, otherOperation, alone }: Parting, titles: readonly [string, string]): string {
  if (operation === "whole") return "";
  const job = operationOf(operation).summary;
  if (alone !== undefined) return `${functions[alone]} (${titles[alone]}) ${job}.`;
  return otherOperation ? `${functions[0]} ${job}, ${functions[1]} ${operationOf(otherOperation).summary}.` : `Each ${job}.`;
}

function triedText(parting: Parting, titles: readonly [string, string]): string {
  const { oneWay, side, outputs, causes, experiment } = parting;
  const given = `${titles[side]} gives ${showValue(outputs[1 - side])}, too`;
  switch (experiment?.is) {
    case "without":
      return `Tried: without it ${given}.`;
    case "converted":
      return `Tried: with what comes of it in the place of the value ${given}.`;
    case "as if":
      return `Tried: with that answer ${given}.`;
    case "parts":
      return `Tried: with this part as ${titles[1 - side]} writes it ${titles[side]} gives the other's result.`;
    case "alone":
      return `Tried: on this row alone ${given}.`;
    case "as":
      return `Tried: as ${experiment.kind} ${given}.`;
    case "changed":
      return `Tried: with ${showValue(experiment.value)} in ${experiment.column} ${given}.`;
    case "given":
      return `Tried: with what the other is given ${given}.`;
    case "usual":
      return `Tried: with ${experiment.values.slice(0, 3).map(showValue).join(", ")} in ${experiment.column} both give the same.`;
  }
  const answers = causes[0].length > 1 ? "the other's answers" : "the other's answer";
  return oneWay === undefined
    ? `Tried: with ${answers} each gives what the other gave.`
    : `Tried: with ${answers} ${given}; the other way round it does not show.`;
}

/** Where two results differ first, and what stands there. */
export function explainEffect({ of, at, left, right }: Effect, titles: readonly [string, string]): string {
  const shown = (text: string) => (of !== "texts" ? text : text === "" ? "nothing there" : quoted(text));
  const place = { texts: `at character ${at + 1}`, lists: `at item ${at + 1}`, values: "as values" }[of];
  return `The results differ ${place}: ${titles[0]} has ${shown(left)}, ${titles[1]} ${shown(right)}.`;
}

/** What a failure says, for a person; its standard code in front where it has one. */
export function explainFailure(failure: Failure): string {
  return failure.standard && failure.standard !== message(failure) ? `${failure.standard} ${message(failure)}` : message(failure);
}
