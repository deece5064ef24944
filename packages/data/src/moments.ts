/** Microseconds after 1970-01-01 as ISO text with a space between date and time. */
export function momentText(micros: bigint): string {
  const fraction = ((micros % 1_000_000n) + 1_000_000n) % 1_000_000n;
  const text = new Date(Number((micros - fraction) / 1000n)).toISOString().slice(0, 19).replace("T", " ");
  return fraction === 0n ? text : `${text}.${String(fraction).padStart(6, "0").replace(/0+$/, "")}`;
}

/** Days after 1970-01-01 as ISO text. */
export const dateText = (days: number): string => new Date(days * 86_400_000).toISOString().slice(0, 10);
