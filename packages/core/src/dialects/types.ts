/** What more may be known of a type than its name. */
export interface Details {
  /** Decimals behind the point, of a number that shows so many. */
  readonly scale?: number | undefined;
  /** Digits in all, of a decimal. */
  readonly width?: number | undefined;
  /** The collation of a text, or of what is made of one. */
  readonly collation?: string | undefined;
  /** Whether COLLATE says that collation, which then goes before that of a column. */
  readonly isSaid?: boolean | undefined;
  /** What a text or bytes were made from, where that decides what becomes of them. */
  readonly from?: string | undefined;
}

const known = new Map<string, Type>();

/**
 * A type of a dialect: what its columns, calls and parameters have. The same type is the same object. Rows and conversions
 * write one as a text (`typeOf`), which is also what it is shown as: `text`, `decimal 3`, `text nocase`, `integer[]`.
 */
export class Type implements Details {
  /** Without what more is known of it or its items: `decimal` of `decimal 3`, `text[]` of a list of texts with a collation. */
  readonly name: string;
  /** The type of the items, of a list. */
  readonly item: Type | undefined;
  readonly scale: number | undefined;
  readonly width: number | undefined;
  readonly collation: string | undefined;
  readonly isSaid: boolean | undefined;
  readonly from: string | undefined;
  readonly #written: string;

  private constructor(written: string, name: string, { scale, width, collation, isSaid, from }: Details = {}, item?: Type) {
    this.#written = written;
    this.name = name;
    this.scale = scale;
    this.width = width;
    this.collation = collation;
    this.isSaid = isSaid;
    this.from = from;
    this.item = item;
    known.set(written, this);
  }

  /** The one type with this name and what is known of it. */
  static of(name: string, details: Details = {}): Type {
    const { scale, width, collation, isSaid, from } = details;
    const said = [scale, width, collation && `${collation}${isSaid ? "!" : ""}`, from && `from ${from}`];
    const written = [name, ...said.filter((each) => each !== undefined)].join(" ");
    return known.get(written) ?? new Type(written, name, details);
  }

  /** The type of lists of such items. */
  static list(item: Type): Type {
    const written = `${item.#written}[]`;
    return known.get(written) ?? new Type(written, `${item.name}[]`, {}, item);
  }

  /** The type of that name alone, with nothing more known of it. */
  get plain(): Type {
    return typeOf(this.name);
  }

  /** As rows and conversions write it. */
  toString(): string {
    return this.#written;
  }
}

/**
 * The type that a text writes: a name, after a space what more is known of it (the decimals and digits of a decimal, a collation,
 * `from` what it was made), and `[]` for a list of such values.
 */
export function typeOf(written: string): Type {
  const found = known.get(written);
  if (found) return found;
  if (written.endsWith("[]")) return Type.list(typeOf(written.slice(0, -2)));
  const [, name, scale, width, collation, isSaid, from] =
    /^(\S*)(?: (\d+)(?: (\d+))?)?(?: (?!from )([\w.]+)(!)?)?(?: from (\w+))?$/.exec(written) ?? [undefined, written];
  const numberOf = (digits: string | undefined) => (digits === undefined ? undefined : Number(digits));
  return Type.of(name, {
    scale: numberOf(scale),
    width: numberOf(width),
    collation,
    isSaid: isSaid === undefined ? undefined : true,
    from,
  });
}

/** A decimal type with so many decimals, NaN where their number is not known, and so many digits in all. */
export const decimalOf = (scale: number, width?: number): Type => Type.of("decimal", Number.isNaN(scale) ? {} : { scale, width });

/** Types that every dialect may have: of what is not known, of a condition, and of what could not be bound. */
export const anyType = typeOf("any");
export const conditionType = typeOf("condition");
export const unknownType = typeOf("unknown");

function isNamed(type: Type, name: string): boolean {
  if (name === "*") return true;
  if (name.endsWith("…")) return String(type).startsWith(name.slice(0, -1));
  if (name.startsWith("…")) return String(type).endsWith(name.slice(1));
  return type.name === name || String(type) === name;
}

/**
 * Whether a type is one of those that are named: `text|date` names several, `!text` all others, `*` any, `text …` what begins
 * and `…[]` what ends so.
 */
export function isOneOf(type: Type, names: string): boolean {
  const isOther = names.startsWith("!");
  return (isOther ? names.slice(1) : names).split("|").some((name) => isNamed(type, name)) !== isOther;
}
