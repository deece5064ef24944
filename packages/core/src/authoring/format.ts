import type { Diagnostic } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import type { TextRange } from "../values/index.ts";

/** An expression laid out, or what is wrong with it. */
export type Formatted =
  | {
      readonly ok: true;
      readonly text: string;
      /** Comments of the source, 0-based in UTF-16 code units, which the layout does not have. */
      readonly comments: readonly TextRange[];
    }
  | { readonly ok: false; readonly diagnostics: readonly Diagnostic[] };

/**
 * Lays an expression out in lines of at most `width` UTF-16 code units where that can be, with only the brackets that are
 * needed; it reads back as the same tree.
 * @example format(postgresql(), "(upper( taxon ))") // { ok: true, text: "upper(taxon)", comments: [] }
 */
export function format(dialect: Dialect, source: string, width = 80): Formatted {
  const { tree, comments, diagnostics } = dialect.parse(source);
  return diagnostics.some(({ severity }) => severity === "error")
    ? { ok: false, diagnostics }
    : { ok: true, text: dialect.print(tree, width), comments };
}
