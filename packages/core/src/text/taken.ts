/** Where in its text the value of the extraction that ran last begins, in UTF-16 units; −1 where it is no stretch of it. */
let place = -1;

/** Gives the value of an extraction on, and keeps where it begins for who watches. */
export function taken(at: number, value: string): string {
  place = at;
  return value;
}

/** The place that was kept last, which is then forgotten. */
export function placeTaken(): number {
  const last = place;
  place = -1;
  return last;
}
