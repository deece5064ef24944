export { PatternError } from "./ast.ts";
export { type CarriedPattern, type PatternDifference, carryPattern } from "./carry.ts";
export {
  type Budget,
  type Flavour,
  type Match,
  OverBudget,
  type Pattern,
  type Template,
  asMatch,
  cachedPattern,
  compilePattern,
  hasEscape,
  hostTemplate,
  newBudget,
  patternSteps,
  stepOver,
  usualEscape,
} from "./compile.ts";
export { type ExplainedPattern, type PatternPart, explainPattern } from "./explain.ts";
export { textsToTry } from "./samples.ts";
export { type BuiltPattern, patternFromWords } from "./words.ts";
