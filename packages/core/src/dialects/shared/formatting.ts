import { Decimal, Double, Failure, type Value, bad, countCodePoints, roundedTo, scientificText } from "../../values/index.ts";
import { textLimit, tooLong } from "../../text/index.ts";

/**
 * Formats of the fmt library, `{:>8.2f}`, and of C, `%8.2f`, as two engines have them: they differ in how
 * they write values, and in the version of the library.
 */
export interface FormatStyle {
  /** A double with nothing said about it. */
  readonly doubleText: (value: number) => string;
  readonly toText: (value: Value) => Value;
  /**
   * From version 9 on wide characters count twice, a width or precision may come from a value (`{:{}}`),
   * and there are no marks between thousands.
   */
  readonly isLate: boolean;
}

/** What stands between a directive's mark and its type. */
interface Spec {
  readonly fill: string;
  readonly align: "<" | ">" | "^" | "=" | "";
  readonly sign: string;
  readonly alternate: boolean;
  readonly zero: boolean;
  readonly width: number;
  readonly separator: string;
  readonly precision: number | undefined;
  readonly type: string;
}

type Kind = "int" | "float" | "string" | "bool";

const kindOf = (value: Value): Kind => {
  if (typeof value === "boolean") return "bool";
  if (typeof value === "number" || typeof value === "bigint") return "int";
  return value instanceof Double || value instanceof Decimal ? "float" : "string";
};

/** `[[fill]align][sign][#][0][width][,][.precision][type]` as the fmt library has it. */
const braces =
  /^(?:(?<fill>[\s\S])?(?<align>[<>^=]))?(?<sign>[-+ ])?(?<alternate>#)?(?<zero>0)?(?<width>\d+)?(?:(?<mark>[,_'])|t(?<custom>[\s\S]))?(?:\.(?<precision>\d+))?(?<type>[\s\S])?$/u;
const lateBraces =
  /^(?:(?<fill>[^{}])?(?<align>[<>^]))?(?<sign>[-+ ])?(?<alternate>#)?(?<zero>0)?(?<width>\d+)?(?:\.(?<precision>\d+))?(?<type>[\s\S])?$/u;
const percent = /^([-+ #0,']*)(\d+)?(?:\.(\d*))?([A-Za-z])$/;

function readBraces(written: string, isLate: boolean): Spec | undefined {
  const found = (isLate ? lateBraces : braces).exec(written);
  if (!found?.groups) return undefined;
  const { fill = " ", align = "", sign = "", alternate, zero, width = "0", mark, custom, precision, type = "" } = found.groups;
  return {
    fill,
    align: align as Spec["align"],
    sign,
    alternate: alternate !== undefined,
    zero: zero !== undefined,
    width: Number(width),
    separator: custom ?? mark ?? "",
    precision: precision === undefined ? undefined : Number(precision),
    type,
  };
}

function readPercent(written: string): Spec | undefined {
  const found = percent.exec(written);
  if (!found) return undefined;
  const [, flags, width = "0", precision, type] = found;
  return {
    fill: " ",
    align: flags.includes("-") ? "<" : ">",
    sign: flags.includes("+") ? "+" : flags.includes(" ") ? " " : "",
    alternate: flags.includes("#"),
    zero: flags.includes("0") && !flags.includes("-"),
    width: Number(width),
    separator: /[,']/.exec(flags)?.[0] ?? "",
    precision: precision === undefined ? undefined : Number(precision || "0"),
    type,
  };
}

/** The characters that the library counts as two columns wide. */
const wide =
  /[\u1100-\u115f\u2329\u232a\u2e80-\u303e\u3040-\ua4cf\uac00-\ud7a3\uf900-\ufaff\ufe10-\ufe19\ufe30-\ufe6f\uff00-\uff60\uffe0-\uffe6\u{1f300}-\u{1f64f}\u{1f900}-\u{1f9ff}\u{20000}-\u{2fffd}\u{30000}-\u{3fffd}]/gu;

/** Laid out in the width; `usual` is where a value of its kind stands unless said otherwise. */
function laidOut(body: string, { fill, align, width }: Spec, usual: "<" | ">", columns = countCodePoints(body)): string {
  const lacking = Math.max(0, width - columns);
  const side = align === "" || align === "=" ? usual : align;
  const before = side === "<" ? 0 : side === ">" ? lacking : lacking >> 1;
  return fill.repeat(before) + body + fill.repeat(lacking - before);
}

/** A number of a sign and digits, zeros between them up to the width where asked for. */
function numberText(negative: boolean, mark: string, digits: string, spec: Spec): string {
  const sign = (negative ? "-" : spec.sign.replace("-", "")) + mark;
  const zeros = spec.zero ? "0".repeat(Math.max(0, spec.width - sign.length - digits.length)) : "";
  return laidOut(sign + zeros + digits, spec, ">");
}

const grouped = (digits: string, separator: string): string =>
  separator === "" ? digits : digits.replace(/\B(?=(?:\d{3})+$)/g, separator);

function integerText(value: Value, spec: Spec, { isLate }: FormatStyle): string | Failure {
  const given = BigInt(value as number);
  const size = given < 0n ? -given : given;
  const { type, alternate } = spec;
  if (spec.precision !== undefined && type !== "c") return bad("a precision is not allowed for a whole number");
  if (type === "" || type === "d" || (!isLate && (type === "i" || type === "u")))
    return numberText(given < 0n, "", grouped(String(size), spec.separator), spec);
  if (type === "c") {
    const byte = Number(BigInt.asUintN(8, given));
    return byte > 127 ? bad("a single byte above 127 is no character") : laidOut(String.fromCharCode(byte), spec, "<");
  }
  const base = ({ x: 16, X: 16, o: 8, b: 2, B: 2 } as Record<string, number>)[type];
  if (base === undefined)
    return isLate && type === "L"
      ? new Failure("not-covered", { what: "formats by the locale of the server" })
      : bad(`the type "${type}" is not for a whole number`);
  const digits = size.toString(base);
  const mark = alternate && type !== "o" ? `0${type}` : alternate ? "0" : "";
  return numberText(given < 0n, mark, type === "X" ? digits.toUpperCase() : digits, spec);
}

/** So many digits after the point. */
function fixedText(value: number, places: number): string {
  const { digits, exponent } = roundedTo(value, (power) => power + 1 + places);
  const whole = exponent < 0 ? "0" : digits.slice(0, exponent + 1).padEnd(exponent + 1, "0");
  const fraction = exponent < 0 ? "0".repeat(-exponent - 1) + digits : digits.slice(exponent + 1);
  return places === 0 ? whole : `${whole}.${fraction.slice(0, places).padEnd(places, "0")}`;
}

function floatText(value: Value, spec: Spec, { doubleText, isLate }: FormatStyle): string | Failure {
  const given = value instanceof Double ? value.value : (value as Decimal).toNumber();
  const { type, precision } = spec;
  const size = Math.abs(given);
  const negative = given < 0 || Object.is(given, -0);
  if (!Number.isFinite(given)) {
    const word = Number.isNaN(given) ? "nan" : "inf";
    return numberText(negative, "", /[EFG]/.test(type) ? word.toUpperCase() : word, { ...spec, zero: false });
  }
  let body: string;
  if (type === "" && precision !== undefined) {
    const general = generalText(size, precision, spec.alternate);
    body = isLate || /[.e]/.test(general) ? general : `${general}.0`;
  } else if (type === "" && isLate && spec.alternate && Number.isInteger(size)) body = `${doubleText(size)}.0`;
  else if (type === "") body = doubleText(size);
  else if (type === "f" || type === "F") body = fixedText(size, precision ?? 6);
  else if (type === "e" || type === "E") body = scientificText(size, precision ?? 6);
  else if (type === "g" || type === "G") body = generalText(size, precision ?? 6, spec.alternate);
  else if (/^[aA]$/.test(type)) return new Failure("not-covered", { what: "formats of base 16 for a fraction" });
  else return bad(`the type "${type}" is not for a number with a fraction`);
  if (type === "E" || type === "G") body = body.toUpperCase();
  const [whole, ...rest] = body.split(".");
  const shown = spec.separator === "" || body.includes("e") ? body : [grouped(whole, spec.separator), ...rest].join(".");
  return numberText(negative, "", shown, spec);
}

function generalText(size: number, precision: number, alternate: boolean): string {
  const digits = Math.max(1, precision);
  if (size === 0) return alternate ? fixedText(0, digits - 1) : "0";
  const { exponent } = roundedTo(size, () => digits);
  const body =
    exponent < -4 || exponent >= digits ? scientificText(size, digits - 1) : fixedText(size, Math.max(0, digits - 1 - exponent));
  return alternate ? body : body.replace(/\.?0+(?=e|$)/, (zeros) => (zeros.startsWith(".") || body.includes(".") ? "" : zeros));
}

function one(value: Value, spec: Spec, style: FormatStyle): string | Failure {
  switch (kindOf(value)) {
    case "int":
      return integerText(value, spec, style);
    case "float":
      return floatText(value, spec, style);
    case "bool":
      return spec.type === "" ? one(String(value), spec, style) : integerText(value, spec, style);
    case "string": {
      if (style.isLate && spec.type === "?") return new Failure("not-covered", { what: 'the type "?" of a format' });
      if (spec.sign !== "" || spec.align === "=" || (style.isLate && spec.zero)) return bad("a sign is only for a number");
      if (spec.type !== "" && spec.type !== "s") return bad(`the type "${spec.type}" is not for a text`);
      const text = style.toText(value) as string;
      const shown = spec.precision === undefined ? text : [...text].slice(0, spec.precision).join("");
      const columns = countCodePoints(shown) + (style.isLate ? (shown.match(wide) ?? []).length : 0);
      return laidOut(shown, spec, "<", columns);
    }
  }
}

/** The values put in place of what `shape` matches; each match names a place, or an escape. */
function filled(
  template: string,
  shape: RegExp,
  read: (match: RegExpExecArray, take: (place: number | undefined) => Value | Failure) => string | Failure,
  values: readonly Value[],
): Value {
  let next = 0;
  const take = (place: number | undefined): Value | Failure => {
    const at = place ?? next++;
    return at < values.length ? values[at] : bad(`the format wants a value ${at}, which is not there`);
  };
  let result = "";
  let kept = 0;
  shape.lastIndex = 0;
  for (let match = shape.exec(template); match; match = shape.exec(template)) {
    const text = read(match, take);
    if (text instanceof Failure) return text;
    result += template.slice(kept, match.index) + text;
    if (result.length > textLimit) return tooLong(result.length);
    kept = match.index + match[0].length;
  }
  return result + template.slice(kept);
}

const early = /\{\{|\}\}|\{(\d*)(?::([^{}]*))?\}|[{}]/g;
const late = /\{\{|\}\}|\{(0|[1-9]\d*|)(?::((?:[^{}]|\{\d*\})*))?\}|[{}]/g;

/** The places `{}`, `{n}` and `{:spec}` of a format, filled with values. */
export const formatBraces = ([template, ...values]: readonly Value[], style: FormatStyle): Value => {
  let isNumbered: boolean | undefined;
  return filled(
    template as string,
    style.isLate ? late : early,
    ([part, place, written = ""], take) => {
      if (part === "{{" || part === "}}") return part[0];
      if (place === undefined) return bad("the format has a brace that is not closed or not opened");
      if ((isNumbered ??= place !== "") !== (place !== "")) return bad("the format has places with numbers and places without");
      const value = take(place === "" ? undefined : Number(place));
      if (value instanceof Failure) return value;
      const sizes = written.replace(/\{(\d*)\}/g, (_part, at: string) => String(take(at === "" ? undefined : Number(at))));
      const spec = readBraces(sizes, style.isLate);
      const isBeyond = typeof value === "bigint" && BigInt.asIntN(64, value) !== value;
      if (spec?.sign && isBeyond) return bad("a sign is only for a number of 64 bits");
      if (spec?.type === "c" && !style.isLate) return bad('the type "c" is not for a whole number');
      if (spec?.precision !== undefined && typeof value === "boolean") return bad("a precision is not allowed for a truth value");
      return spec && spec.width <= textLimit ? one(value, spec, style) : bad(`"${written}" cannot be read in a format`);
    },
    values,
  );
};

/** A whole number as a directive sees it: cut to its length, and without a sign for a type that has none. */
function asPassed(value: Value, length: string, type: string, bits: number): Value {
  const cut = { hh: 8, h: 16 }[length];
  const whole =
    typeof value === "boolean"
      ? value
      : cut === undefined
        ? BigInt(value as number)
        : BigInt.asIntN(cut, BigInt(value as number));
  return typeof whole === "bigint" && /[xXobBu]/.test(type) && whole < 0n ? BigInt.asUintN(bits, whole) : whole;
}

const directive = /%(?:(%)|(?:(\d+)\$)?([-+ #0,']*)(\d+|\*)?(?:\.(\*|\d*))?(ll|l|hh|h|z|j|t|L)?([\s\S]|$))/g;

/** The directives `%[n$][flags][width][.precision]type` of a format, filled with values; `bits` is the size of the nth. */
export const formatPercent = (
  [template, ...values]: readonly Value[],
  style: FormatStyle,
  bits: (place: number) => number,
): Value => {
  let next = 0;
  return filled(
    template as string,
    directive,
    ([part, escaped, place, flags, width = "", precision, length = "", type], take) => {
      if (escaped) return "%";
      const sizes = [width, precision].map((size) => (size === "*" ? take(next++) : size));
      const failure = sizes.find((size) => size instanceof Failure);
      if (failure) return failure;
      const spec = readPercent(`${flags}${String(sizes[0])}${precision === undefined ? "" : `.${String(sizes[1])}`}${type}`);
      if (!spec) return bad(`"${part}" is no directive of a format`);
      const at = place === undefined ? next++ : Number(place) - 1;
      const value = take(at);
      if (value instanceof Failure) return value;
      const kind = kindOf(value);
      if (kind === "bool" && spec.type === "s") return one(String(value), { ...spec, type: "" }, style);
      if (kind !== "int" && kind !== "bool") return one(value, spec, style);
      const whole = asPassed(value, length, spec.type, bits(at));
      // The precision is the least number of digits.
      const isPadded = spec.precision !== undefined && spec.type !== "c";
      return one(whole, isPadded ? { ...spec, precision: undefined, zero: true, width: spec.precision } : spec, style);
    },
    values,
  );
};
