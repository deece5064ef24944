import { type Expression, type Name, childrenOf } from "./tree.ts";

/** The names that are no variables of the expression, with the variables that hold where each stands. */
export function* freeNames(node: Expression, scope: readonly string[]): Generator<{ node: Name; scope: readonly string[] }> {
  if (node.kind === "name") {
    if (!scope.includes(node.name)) yield { node, scope };
  } else if (node.kind === "binding") {
    yield* freeNames(node.source, scope);
    yield* freeNames(node.body, [...scope, node.variable]);
  } else if (node.kind === "lambda") yield* freeNames(node.body, [...scope, ...node.parameters]);
  else for (const child of childrenOf(node)) yield* freeNames(child, scope);
}
