import type { PatternNode } from "./ast.ts";

/** Whether each option of what is looked behind for has one length. */
export const hasFixedLengths = (node: PatternNode): boolean =>
  node.kind === "choice"
    ? node.options.every(hasFixedLengths)
    : node.kind === "group"
      ? hasFixedLengths(node.item)
      : fixedLength(node) !== undefined;

/** The number of characters that a node takes, where that is always the same. */
function fixedLength(node: PatternNode): number | undefined {
  switch (node.kind) {
    case "set":
      return 1;
    case "sequence": {
      const lengths = node.items.map(fixedLength);
      return lengths.includes(undefined) ? undefined : lengths.reduce((sum, each) => sum! + each!, 0);
    }
    case "choice": {
      const [first, ...rest] = node.options.map(fixedLength);
      return rest.every((each) => each === first) ? first : undefined;
    }
    case "group":
    case "atomic":
      return fixedLength(node.item);
    case "repeat": {
      const length = fixedLength(node.item);
      return node.min === node.max && length !== undefined ? length * node.min : undefined;
    }
    case "assertion":
    case "look":
    case "keep":
      return 0;
    default:
      return undefined;
  }
}
