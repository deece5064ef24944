/** What tells the two flavours apart that grew out of Perl's patterns. */
export interface PerlRules {
  /** The name, for messages. */
  readonly name: string;
  /** Whether \d, \w, \s and \b know letters beyond ASCII. */
  readonly unicode: boolean;
  /** Look-around, back references, atomic groups and the like. */
  readonly backtracks: boolean;
  /** The largest count of a repeat. */
  readonly bound: number;
  /** Whether $ also fits before a line feed that ends the text. */
  readonly dollarBeforeLast: boolean;
}

export const pcre: PerlRules = { name: "PCRE2", unicode: true, backtracks: true, bound: 65_535, dollarBeforeLast: true };
export const re2: PerlRules = { name: "RE2", unicode: false, backtracks: false, bound: 1000, dollarBeforeLast: false };
