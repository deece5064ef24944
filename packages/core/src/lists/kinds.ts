import { byCategories } from "../dialects/shared/phrases.ts";
import { withoutAccents } from "../text/folding.ts";

/** Kinds of characters, by Unicode's general categories. */
export const characterKinds = {
  ...byCategories,
  /** What nothing is seen of: format characters, and those that have no meaning. */
  invisible: "\\p{Cf}\\p{Co}\\p{Cn}",
} as const;

export type CharacterKind = keyof typeof characterKinds;

/** Takes characters of kinds away, or all others. Accents are taken from the letters that they stand on. */
export function withoutKinds(kinds: readonly CharacterKind[], others: boolean): (text: string) => string {
  const unwanted = new RegExp(`[${others ? "^" : ""}${kinds.map((kind) => characterKinds[kind]).join("")}]+`, "gu");
  const takesAccents = kinds.includes("accents") && !others;
  return (text) => (takesAccents ? withoutAccents(text) : text).replace(unwanted, "");
}

/** Latin letters that have no decomposition, as plain ones. */
export const plainLetters: Readonly<Record<string, string>> = Object.fromEntries(
  (
    "Æ AE æ ae Ð D ð d Ø O ø o Þ Th þ th ß ss ẞ SS Đ D đ d Ħ H ħ h ı i ĸ k Ł L ł l Ŋ N ŋ n Œ OE œ oe Ŧ T ŧ t ƀ b Ɓ B Ƃ B ƃ b Ɔ O Ƈ C ƈ c Ɖ D Ɗ D Ƌ D ƌ d Ǝ E Ə A ə a Ɛ E ɛ e Ƒ F ƒ f Ɠ G ƕ hv Ɨ I ɨ i Ƙ K ƙ k ƚ l Ɲ N ƞ n Ƥ P ƥ p ƫ t Ƭ T ƭ t Ʈ T Ʋ V Ƴ Y ƴ y Ƶ Z ƶ z Ǥ G ǥ g ȡ d ȴ l ȵ n ȶ t ȷ j Ⱥ A ⱥ a Ȼ C ȼ c Ƚ L Ⱦ T ⱦ t Ƀ B Ʉ U ʉ u Ɇ E ɇ e Ɉ J ɉ j Ɋ Q ɋ q Ɍ R ɍ r Ɏ Y ɏ y ﬀ ff ﬁ fi ﬂ fl ﬃ ffi ﬄ ffl ﬅ st ﬆ st".match(
      /\S+ \S+/g,
    ) ?? []
  ).map((pair) => pair.split(" ") as [string, string]),
);

const special = new RegExp(`[${Object.keys(plainLetters).join("")}]`, "gu");

/** A text in plain Latin letters: accents off, ligatures taken apart, ł as l, ø as o, đ as d, ß as ss. */
export const toPlainLetters = (text: string): string => withoutAccents(text).replace(special, (letter) => plainLetters[letter]);

const month = "(?:[Jj]an|[Ff]eb|[Mm]ar|[Aa]pr|[Mm]ay|[Jj]un|[Jj]ul|[Aa]ug|[Ss]ep|[Oo]ct|[Nn]ov|[Dd]ec)[a-z]*";
const dated = [
  "[0-9]{4}-[0-9]{1,2}-[0-9]{1,2}",
  "[0-9]{1,2}[.] ?[0-9]{1,2}[.] ?[0-9]{2,4}",
  "[0-9]{1,2}/[0-9]{1,2}/[0-9]{2,4}",
  `[0-9]{1,2}[.]? ${month}[.]?,? [0-9]{4}`,
  `${month}[.]? [0-9]{1,2},? [0-9]{4}`,
];

/**
 * Things that can be found in a text, as patterns that every language with looking around reads; `word` is what letters and
 * numbers are between its brackets.
 */
export const thingPatterns = {
  number: (word: string) => `(?<![${word}])[-+−]?[0-9]+(?:[.,][0-9]+)*(?:[eE][-+]?[0-9]+)?(?![${word}])`,
  /** At least seven digits in groups, with a leading + or not; no date. */
  telephone: (word: string) =>
    `(?<![${word}.,+-])(?![0-9]{4}-[0-9]{1,2}-[0-9]{1,2}(?![0-9]))(?![0-9]{1,2}[./][0-9]{1,2}[./][0-9]{2,4}(?![0-9]))[+(]?(?:[0-9][ ()/.-]{0,2}){6,14}[0-9](?![${word}])`,
  mail: (word: string) => `[${word}._%+-]+@[${word}-]+(?:[.][${word}-]+)+`,
  date: (word: string) => `(?<![${word}])(?:${dated.join("|")})(?![${word}])`,
} as const;

export type Findable = keyof typeof thingPatterns;

/** The same for the host. */
export const findable = Object.fromEntries(
  Object.entries(thingPatterns).map(([name, pattern]) => [name, new RegExp(pattern("\\p{L}\\p{N}"), "gu")]),
) as Readonly<Record<Findable, RegExp>>;

const superscripts = "⁰¹²³⁴⁵⁶⁷⁸⁹";

const runs: Readonly<Record<string, string>> = { A: "(?:\\p{Lu}\\p{M}*)+", a: "(?:\\p{Ll}\\p{M}*)+", x: "(?:\\p{L}\\p{M}*)+" };

/** What has a shape, in the notation of a survey: `A` capitals, `a` small letters, `x` others, `0⁴` four digits, `+` several words. */
export function shapePattern(shape: string): RegExp {
  const source = shape.replace(
    /(0)([⁰¹²³⁴⁵⁶⁷⁸⁹]*)|(Aa|[Aax])(\+?)|([^])/gu,
    (_, digit?: string, count = "", letters?: string, more?: string, other = "") => {
      if (digit) return `\\p{Nd}{${count ? [...(count as string)].map((each) => superscripts.indexOf(each)).join("") : "1"}}`;
      if (!letters) return other === "·" ? "\\s" : escapePattern(other as string);
      const word = [...letters].map((letter) => runs[letter]).join("");
      return more ? `${word}(?: ${word})+` : word;
    },
  );
  return new RegExp(`(?<![\\p{L}\\p{N}])${source}(?![\\p{L}\\p{N}])`, "gu");
}

/** A text as a pattern that matches just it, in the host's language and in those of the dialects. */
export const escapePattern = (text: string): string => text.replace(/[\\^$.*+?()[\]{}|]/g, "\\$&");
