import type { Find } from "./index.ts";

/** A difference from an engine that is known and argued. */
export interface Argued {
  readonly why: string;
  readonly holds: (dialect: string, found: Find) => boolean;
}

/** Every known difference, with its reason; reviewed, and kept under ten. Whatever else differs is a find. */
export const argued: readonly Argued[] = [
  {
    why: "SQLite gives back a text whose empty part is replaced before it looks at the replacement, which may be null",
    holds: (dialect, { expression }) => dialect === "sqlite" && /replace\([^]*,\s*'',/.test(expression),
  },
];
