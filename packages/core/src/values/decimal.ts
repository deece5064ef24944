/** Two integers of which the quotient is that of two decimals, with `scale` digits. */
function ratio(a: Decimal, b: Decimal, scale: number): [top: bigint, bottom: bigint] {
  const shift = scale + b.scale - a.scale;
  return shift >= 0
    ? [a.coefficient * 10n ** BigInt(shift), b.coefficient]
    : [a.coefficient, b.coefficient * 10n ** BigInt(-shift)];
}

/**
 * An exact decimal number: `coefficient` × 10^−`scale`. The scale is kept as written, because
 * SQL shows it (`1.50` stays `1.50`).
 *
 * @example
 * const price = Decimal.parse("1.50");
 * [price.coefficient, price.scale, price.toString()]; // [150n, 2, "1.50"]
 * Decimal.parse("1,5"); // undefined
 */
export class Decimal {
  constructor(
    readonly coefficient: bigint,
    /** Digits after the point; never negative. */
    readonly scale: number,
  ) {}

  /** Reads `12`, `-1.50`, `1e-3`; undefined for anything else. */
  static parse(text: string): Decimal | undefined {
    const match = /^([+-]?)(\d*)(?:\.(\d*))?(?:[eE]([+-]?\d{1,5}))?$/.exec(text);
    if (!match || (!match[2] && !match[3])) return undefined;
    const fraction = match[3] ?? "";
    const digits = BigInt(match[1] + (match[2] || "0") + fraction);
    const scale = fraction.length - Number(match[4] ?? 0);
    return scale >= 0 ? new Decimal(digits, scale) : new Decimal(digits * 10n ** BigInt(-scale), 0);
  }

  static of(value: number | bigint): Decimal {
    if (typeof value === "bigint" || Number.isInteger(value)) return new Decimal(BigInt(value), 0);
    return Decimal.parse(String(value))!;
  }

  /** The coefficient at another scale; digits that no longer fit are rounded half away from zero. */
  at(scale: number): bigint {
    if (scale >= this.scale) return this.coefficient * 10n ** BigInt(scale - this.scale);
    return divideRounded(this.coefficient, 10n ** BigInt(this.scale - scale));
  }

  /** Rounded half away from zero to `scale` digits after the point; a negative scale rounds tens. */
  rounded(scale: number): Decimal {
    if (scale >= 0) return new Decimal(this.at(scale), scale);
    const unit = 10n ** BigInt(-scale);
    return new Decimal(divideRounded(this.coefficient, unit * 10n ** BigInt(this.scale)) * unit, 0);
  }

  plus(other: Decimal): Decimal {
    const scale = Math.max(this.scale, other.scale);
    return new Decimal(this.at(scale) + other.at(scale), scale);
  }

  minus(other: Decimal): Decimal {
    return this.plus(other.negated());
  }

  times(other: Decimal): Decimal {
    return new Decimal(this.coefficient * other.coefficient, this.scale + other.scale);
  }

  /** The quotient rounded half away from zero to `scale` digits. The divisor must not be zero. */
  over(other: Decimal, scale: number): Decimal {
    return new Decimal(divideRounded(...ratio(this, other, scale)), scale);
  }

  /** The quotient cut towards zero after `scale` digits. The divisor must not be zero. */
  cutOver(other: Decimal, scale: number): Decimal {
    const [top, bottom] = ratio(this, other, scale);
    return new Decimal(top / bottom, scale);
  }

  /** The quotient cut towards zero, as an integer. The divisor must not be zero. */
  quotient(other: Decimal): bigint {
    const scale = Math.max(this.scale, other.scale);
    return this.at(scale) / other.at(scale);
  }

  /** What is left of the cut quotient; it has the sign of the dividend. */
  remainder(other: Decimal): Decimal {
    const scale = Math.max(this.scale, other.scale);
    return new Decimal(this.at(scale) % other.at(scale), scale);
  }

  negated(): Decimal {
    return new Decimal(-this.coefficient, this.scale);
  }

  compare(other: Decimal): number {
    const scale = Math.max(this.scale, other.scale);
    const [a, b] = [this.at(scale), other.at(scale)];
    return a < b ? -1 : a > b ? 1 : 0;
  }

  /** The largest integer not above this number. */
  floor(): bigint {
    const unit = 10n ** BigInt(this.scale);
    const cut = this.coefficient / unit;
    return this.coefficient < 0n && cut * unit !== this.coefficient ? cut - 1n : cut;
  }

  get isZero(): boolean {
    return this.coefficient === 0n;
  }

  toNumber(): number {
    return Number(this.toString());
  }

  /** Without the zeros that end the fraction: `1.50` becomes `1.5`, `2.0` becomes `2`. */
  trimmed(): Decimal {
    let { coefficient, scale } = this;
    while (scale > 0 && coefficient % 10n === 0n) {
      coefficient /= 10n;
      scale--;
    }
    return new Decimal(coefficient, scale);
  }

  toString(): string {
    const negative = this.coefficient < 0n;
    const digits = String(negative ? -this.coefficient : this.coefficient).padStart(this.scale + 1, "0");
    const point = digits.length - this.scale;
    return (negative ? "-" : "") + digits.slice(0, point) + (this.scale ? "." + digits.slice(point) : "");
  }
}

function divideRounded(top: bigint, bottom: bigint): bigint {
  const negative = top < 0n !== bottom < 0n;
  const [a, b] = [top < 0n ? -top : top, bottom < 0n ? -bottom : bottom];
  const rounded = (2n * a + b) / (2n * b);
  return negative ? -rounded : rounded;
}

/** Rounded to a whole number, halves to the even one. */
export function roundHalfEven(value: number): number {
  const floor = Math.floor(value);
  const part = value - floor;
  return part > 0.5 || (part === 0.5 && floor % 2 !== 0) ? floor + 1 : floor;
}
