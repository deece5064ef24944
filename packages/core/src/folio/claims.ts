import { agree } from "../contrast/equal.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { sampleOf } from "../evaluate/index.ts";
import { type Value, isFailure } from "../values/index.ts";
import { type CalculatedColumn, planColumns } from "./columns.ts";
import { type Claim, type Folio, snippetColumn } from "./folio.ts";
import { neededFor } from "./order.ts";

/** A claim with what its column gives. */
export interface ClaimResult {
  readonly claim: Claim;
  readonly holds: boolean;
  /** The value, as plain data, or an error; nothing where the columns do not fit the row. */
  readonly got: Value | undefined;
}

/** What each claim's column gives on its row, with the columns that it needs; conditions count as they do in the folio. */
export function checkClaims(dialect: Dialect, { columns: own, snippets, plan: options, claims }: Folio): ClaimResult[] {
  const unused = [...snippets].map(([name, { expression }]) => ({ names: [snippetColumn(name)], expression }));
  const columns: readonly CalculatedColumn[] = [...own, ...unused];
  return claims.map((claim) => {
    const sample = { ...sampleOf([claim.row]), rows: 1 };
    // Helpers may be claimed about, too; columns that are not needed may want what the row has not.
    const needed = neededFor(dialect, columns, claim.column);
    const shown = needed
      .filter(({ names }) => !claim.alone || names.includes(claim.column))
      .map(({ isHelper: _, ...column }) => column);
    const plan = planColumns(dialect, shown, sample, claim.alone ? {} : { where: options.where });
    if (!plan.ok) return { claim, holds: false, got: undefined };
    const got = plan.run(sample).sample.columns.find(({ name }) => name === claim.column)?.values[0];
    return { claim, holds: got !== undefined && meets(claim, got), got };
  });
}

function meets({ expect }: Claim, got: Value): boolean {
  if ("value" in expect) return !isFailure(got) && agree(expect.value as Value, got);
  return isFailure(got) && (expect.error === true || expect.error === (got.standard ?? got.code));
}
