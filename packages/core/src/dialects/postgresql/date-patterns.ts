/** Formats of dates and times (PostgreSQL documentation, tables 9.26 and 9.27). */

/** The Julian day of 1970-01-01. */
export const julianEpoch = 2_440_588;

/** Patterns in capitals; each may be written in small letters too, but not in both. */
const keywords =
  "Y,YYY YYYY YYY YY Y IYYY IYY IY IDDD ID IW I MONTH MON MM DDD DD DAY DY D HH24 HH12 HH MI SSSSS SSSS SS MS US FF1 FF2 FF3 FF4 FF5 FF6 FX A.M. P.M. AM PM A.D. B.C. AD BC WW W Q CC J RM TZH TZM TZ OF";

const shape = new RegExp(
  `(?:FM|fm|TM|tm)$|(FM|fm|TM|tm)?(?:(Month|Mon|Day|Dy|${keywords
    .split(" ")
    .flatMap((word) => [word, word.toLowerCase()])
    .join("|")
    .replaceAll(".", "\\.")})(TH|th|SP|sp)?|"((?:\\\\[^]|[^"\\\\])*)"?|(\\\\"|[^]))`,
  "gu",
);

/** A pattern as it is written, or text that stands for itself. */
export interface Part {
  readonly pattern?: string;
  /** FM stands before it. */
  readonly isBare?: boolean;
  /** FM or TM stands before it, so that a name is not filled up. */
  readonly isTight?: boolean;
  /** TH or th stands after it. */
  readonly suffix?: string;
  readonly text?: string;
  readonly isQuoted?: boolean;
}

export const partsOf = (format: string): Part[] =>
  [...format.matchAll(shape)].map(([, before, pattern, after, quoted, char]): Part => {
    if (pattern !== undefined)
      return {
        pattern,
        isBare: /^fm$/i.test(before ?? ""),
        isTight: before !== undefined,
        ...(/^th$/i.test(after ?? "") && { suffix: after }),
      };
    if (quoted !== undefined) return { text: quoted.replace(/\\([^])/g, "$1"), isQuoted: true };
    return { text: char === '\\"' ? '"' : (char ?? "") };
  });

/** A name in the case of its pattern: MONTH, Month or month. */
export const inCaseOf = (pattern: string, name: string): string =>
  pattern[0] !== pattern[0].toUpperCase()
    ? name.toLowerCase()
    : pattern[1] === pattern[1].toUpperCase()
      ? name.toUpperCase()
      : name;

export const romanMonths = ["I", "II", "III", "IV", "V", "VI", "VII", "VIII", "IX", "X", "XI", "XII"];
