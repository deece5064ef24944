import { type Value, isFailure, isList } from "../values/index.ts";
import {
  type CharacterKind,
  type Findable,
  escapePattern,
  findable,
  shapePattern,
  toPlainLetters,
  withoutKinds,
} from "./kinds.ts";
import { Replacer, type Rule } from "./rules.ts";
import { type NumberRange, type Terms, membership, termFinder } from "./terms.ts";

/** What is done with the values of an expression, the same in every dialect; plain data. */
export type Job =
  /** Carries a replacement list out. */
  | { readonly replace: readonly Rule[] }
  /** Whether any of the terms stands in the text. */
  | { readonly has: Terms }
  /** The first term of the list that stands in the text; nothing where none does. */
  | { readonly which: Terms }
  /** All terms of the list that stand in the text, in the list's order. */
  | { readonly terms: Terms }
  /** The pieces between any of these marks. */
  | { readonly split: readonly string[] }
  /** The pieces that are in the list or range; of one text, the text or nothing. */
  | { readonly keep: Terms | NumberRange }
  /** Which pieces are in the list or range, counted from 1. */
  | { readonly places: Terms | NumberRange }
  /** Takes kinds of characters away, or all others. */
  | { readonly drop: readonly CharacterKind[] }
  | { readonly only: readonly CharacterKind[] }
  /** Plain Latin letters. */
  | { readonly plain: true }
  /** White space at the ends away, single spaces within, empty pieces away. */
  | { readonly tidy: true }
  /** All things of a kind, or of a shape in the notation of a survey. */
  | { readonly find: Findable | { readonly shape: string } }
  /** The piece with this number from 1, or from the end with a negative one. */
  | { readonly item: number }
  /** The pieces with a text between them. */
  | { readonly join: string };

type Named<J> = J extends unknown ? keyof J : never;
export type JobName = Named<Job>;

/** What comes out of each job: a list, one text, true or false, or what came in, piece by piece. */
const gives: Readonly<Record<JobName, "list" | "text" | "truth" | "same">> = {
  replace: "same",
  has: "truth",
  which: "same",
  terms: "list",
  split: "list",
  keep: "same",
  places: "list",
  drop: "same",
  only: "same",
  plain: "same",
  tidy: "same",
  find: "list",
  item: "text",
  join: "text",
};

export const jobNames = Object.keys(gives) as readonly JobName[];

/** What a job is called. */
export const jobName = (job: Job): JobName => Object.keys(job)[0] as JobName;

/** Jobs made ready, one after another. */
export interface Treatment {
  /** A value with all jobs done; `hits` has the counts of each job's rules, where it has any. */
  run(value: Value, hits?: readonly (Uint32Array | undefined)[]): Value;
  /** The value after each job. */
  trace(value: Value): Value[];
  /** Counters of zero for each job with rules. */
  newHits(): (Uint32Array | undefined)[];
  /** What comes out, where a text comes in. */
  readonly gives: "list" | "text" | "truth";
}

type Step = (value: string | readonly string[], hits: Uint32Array | undefined) => Value;

function stepOf(job: Job): Step {
  /** On each piece of a list, or on the one text. */
  const each =
    (change: (text: string, hits: Uint32Array | undefined) => Value): Step =>
    (value, hits) =>
      typeof value === "string" ? change(value, hits) : value.map((item) => change(item, hits));
  const pieces = (value: string | readonly string[]) => (typeof value === "string" ? [value] : value);
  if ("replace" in job) {
    const replacer = new Replacer(job.replace);
    return each((text, hits) => replacer.run(text, hits));
  }
  if ("has" in job) {
    const found = termFinder(job.has);
    return (value) => pieces(value).some((text) => found(text).length > 0);
  }
  if ("which" in job) {
    const found = termFinder(job.which);
    return each((text) => job.which.values[found(text)[0]] ?? null);
  }
  if ("terms" in job) {
    const found = termFinder(job.terms);
    return (value) => pieces(value).flatMap((text) => found(text).map((id) => job.terms.values[id]));
  }
  if ("split" in job) {
    const marks = [...job.split].sort((a, b) => b.length - a.length).map(escapePattern);
    const between = new RegExp(marks.join("|"), "u");
    return (value) => pieces(value).flatMap((text) => text.split(between));
  }
  if ("keep" in job) {
    const isIn = membership(job.keep);
    return (value) => (typeof value === "string" ? (isIn(value) ? value : null) : value.filter(isIn));
  }
  if ("places" in job) {
    const isIn = membership(job.places);
    return (value) => pieces(value).flatMap((text, i) => (isIn(text) ? [i + 1] : []));
  }
  if ("drop" in job) return each(withoutKinds(job.drop, false));
  if ("only" in job) return each(withoutKinds(job.only, true));
  if ("plain" in job) return each(toPlainLetters);
  if ("tidy" in job) {
    const tidied = (text: string) => text.replace(/\s+/gu, " ").trim();
    return (value) => (typeof value === "string" ? tidied(value) : value.map(tidied).filter((text) => text !== ""));
  }
  if ("find" in job) {
    const pattern = typeof job.find === "string" ? findable[job.find] : shapePattern(job.find.shape);
    return (value) => pieces(value).flatMap((text) => text.match(pattern) ?? []);
  }
  if ("item" in job) return (value) => pieces(value).at(job.item > 0 ? job.item - 1 : job.item) ?? null;
  return (value) => pieces(value).join(job.join);
}

/** A value as texts; undefined where there is nothing to be done. */
function textsOf(value: Value, written: (value: Value) => unknown): string | readonly string[] | undefined {
  if (value === null || isFailure(value)) return undefined;
  if (!isList(value)) return typeof value === "string" ? value : String(written(value));
  return value.flatMap((item) => (item === null ? [] : [typeof item === "string" ? item : String(written(item))]));
}

/** Makes jobs ready; `written` gives a value that is no text as it is written. */
export function treatment(jobs: readonly Job[], written: (value: Value) => unknown): Treatment {
  const steps = jobs.map(stepOf);
  const done = (step: Step, value: Value, hits: Uint32Array | undefined): Value => {
    const failure = isList(value) ? value.find(isFailure) : undefined;
    if (failure) return failure;
    const texts = textsOf(value, written);
    return texts === undefined ? value : step(texts, hits);
  };
  const newHits = () => jobs.map((job) => ("replace" in job ? new Uint32Array(job.replace.length) : undefined));
  return {
    newHits,
    gives: jobs.reduce<Treatment["gives"]>((before, job) => {
      const own = gives[jobName(job)];
      return own === "same" ? before : own;
    }, "text"),
    run(value, hits) {
      return steps.reduce((now, step, i) => done(step, now, hits?.[i]), value);
    },
    trace(value) {
      let now = value;
      return steps.map((step) => (now = done(step, now, undefined)));
    },
  };
}
