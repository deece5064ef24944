/**
 * A table that is looked up by what a user wrote. It inherits nothing, so that `constructor` or
 * `toString` is as unknown in it as any other name that it does not hold.
 */
export const lookup = <T>(entries: Readonly<Record<string, T>>): Readonly<Record<string, T>> =>
  Object.assign(Object.create(null) as Record<string, T>, entries);
