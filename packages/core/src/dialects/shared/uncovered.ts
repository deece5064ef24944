/** The names of functions that a dialect has and that are not covered, each with the reason; from reasons with their names. */
export const byName = (reasons: Readonly<Record<string, string>>): ReadonlyMap<string, string> =>
  new Map(Object.entries(reasons).flatMap(([reason, names]) => names.split(/\s+/).map((name) => [name, reason] as const)));
