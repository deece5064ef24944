import type { Dialect } from "../dialects/dialect.ts";
import { type Name, freeNames } from "../syntax/index.ts";

/** A source with other sources in the place of names, which no variable of its own may capture. */
export function substituted(
  dialect: Dialect,
  source: string,
  sourceFor: (name: string) => string | undefined,
): string | { readonly refused: string } {
  let result = source;
  const places = new Map<number, { readonly node: Name; readonly scope: readonly string[] }>();
  for (const found of freeNames(dialect.parse(source).tree, [])) places.set(found.node.range.start, found);
  for (const { node, scope } of [...places.values()].sort((a, b) => b.node.range.start - a.node.range.start)) {
    const put = sourceFor(node.name);
    if (put === undefined) continue;
    const captured = [...freeNames(dialect.parse(put).tree, [])].find((inner) => scope.includes(inner.node.name));
    if (captured)
      return { refused: `a variable is called like the column ${dialect.columnText(captured.node.name)}; call it otherwise` };
    result = result.slice(0, node.range.start) + put + result.slice(node.range.end);
  }
  return result;
}

/** A source with columns by other names. */
export const repointed = (
  dialect: Dialect,
  source: string,
  names: ReadonlyMap<string, string>,
): string | { readonly refused: string } =>
  substituted(dialect, source, (written) => {
    const found = [...names].find(([from]) => dialect.namesColumn(written, from));
    return found && dialect.columnText(found[1]);
  });
