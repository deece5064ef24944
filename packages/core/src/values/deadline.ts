/** Thrown where a row has taken all its time; caught where its evaluation began. */
export class OverTime extends Error {}

/** Units of work between two looks at the clock. */
const between = 1 << 16;

let until = Infinity;
let work = 0;

/** Gives what follows so many milliseconds from now. */
export function startClock(milliseconds: number): void {
  until = Date.now() + milliseconds;
  work = 0;
}

/** Counts work of about so many characters, and looks at the clock from time to time. @throws OverTime when the time is up */
export function tick(units: number): void {
  work += units;
  if (work < between) return;
  work = 0;
  if (Date.now() > until) throw new OverTime();
}
