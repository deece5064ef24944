/** What is done with many values at once: replacement lists, lists of values, kinds of characters and of things. */
export { Unsaid, jobsSaid, trapTextsOf } from "./expression.ts";
export { type Job, type JobName, type Treatment, jobName, jobNames, treatment } from "./jobs.ts";
export { type CharacterKind, type Findable, characterKinds, findable, plainLetters } from "./kinds.ts";
export { type Conflict, type Problem, Replacer, type Rule } from "./rules.ts";
export type { NumberRange, Terms } from "./terms.ts";
export {
  type ListDefaults,
  ListProblem,
  type NamedList,
  type WrittenJob,
  jobFrom,
  listFromTable,
  runnable,
  tableOfList,
  termsOf,
} from "./read.ts";
