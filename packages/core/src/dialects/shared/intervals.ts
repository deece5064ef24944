import type { Answers } from "../../traits/index.ts";
import type { IntervalForm } from "../../values/index.ts";
import { step } from "../step.ts";
import type { Stepped } from "./rows.ts";

interface Intervals {
  /** The types of moments that a stretch of time moves, and what they are then where that is another type. */
  readonly moments: Readonly<Record<string, string>>;
  /** The types of numbers by which a stretch is multiplied; the last one divides it. */
  readonly factors: readonly string[];
  readonly answers: Answers<"missing" | "byZero">;
  /** How a stretch is shown. */
  readonly form: IntervalForm;
  readonly evidence: string;
}

export const directions = { "+": "later", "-": "earlier" } as const;

/** What is calculated with stretches of time: the type `interval`. */
export function intervalRows({ moments, factors, answers, form, evidence }: Intervals): Stepped[] {
  const { missing } = answers;
  const moved = (sign: "+" | "-") =>
    step(
      "add-to-date",
      { missing, dayBeyond: "the last day", timeAdded: "a date and time", clockDigits: "as many as it has", noSuchDate: "error" },
      { direction: directions[sign] },
    );
  const scaled = (fixed: Record<string, string | number>) =>
    step("scale-interval", { missing, partsOfMonths: "days and time", byZero: answers.byZero }, { does: "times", ...fixed });
  const between = (parts: string) => step("interval-between", { missing }, { parts, type: "interval", form });
  const row = (signature: string, summary: string, of: Stepped[4]): Stepped => [signature, "convert", summary, evidence, of];
  const span = "span interval > interval";
  return [
    ...Object.entries(moments).flatMap(([type, result]) => [
      row(`+(date ${type}, ${span}): ${result}`, "A moment so much later.", moved("+")),
      row(`+(${span}, date ${type}): ${result}`, "A moment so much later.", moved("+")),
      row(`-(date ${type}, ${span}): ${result}`, "A moment so much earlier.", moved("-")),
    ]),
    ...Object.keys(moments)
      .filter((type) => type.startsWith("timestamp"))
      .flatMap((type) => [
        row(
          `-(later ${type}, earlier ${type}): interval`,
          "The days and the time between two moments.",
          between("days and time"),
        ),
        row(
          `age(later ${type}, earlier ${type}): interval`,
          "The years, months, days and time between two moments.",
          between("years, months and days"),
        ),
      ]),
    ...(["+", "-"] as const).map((sign) =>
      row(
        `${sign}(left interval > a, right interval > b): interval`,
        sign === "+" ? "Two stretches of time together." : "One stretch of time less another.",
        step("add-intervals", { missing }, { direction: directions[sign] }),
      ),
    ),
    ...factors.flatMap((type) => [
      row(`*(${span}, count ${type} > factor): interval`, "A stretch of time several times over.", scaled({})),
      row(`*(count ${type} > factor, ${span}): interval`, "A stretch of time several times over.", scaled({})),
    ]),
    row(`/(${span}, count ${factors.at(-1)!} > factor): interval`, "A part of a stretch of time.", scaled({ does: "by" })),
    row(`-(${span}): interval`, "A stretch of time backwards.", scaled({ factor: -1 })),
  ];
}
