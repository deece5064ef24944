/** Thrown where a row has taken all its time; caught where its evaluation began. */
export class OverTime extends Error {}

/** Units of work between two looks at the clock. */
const between = 1 << 16;

let allowed = Infinity;
let until = 0;
let work = 0;

/** Gives what follows so many milliseconds, counted from its first look at the clock: a row of little work takes none. */
export function startClock(milliseconds: number): void {
  allowed = milliseconds;
  until = 0;
  work = 0;
}

/** Gives what follows all the time there is: what a finished row has spent is nothing to a later one. */
export const stopClock = (): void => startClock(Infinity);

/** Counts work of about so many characters, and looks at the clock from time to time. @throws OverTime when the time is up */
export function tick(units: number): void {
  work += units;
  if (work < between) return;
  work = 0;
  const now = Date.now();
  if (until === 0) until = now + allowed;
  else if (now > until) throw new OverTime();
}
