/** What columns hold, before an expression is written over them. */
export { KindReader, type TextKind, commonKind, exactNumber, kindOfText, readAs, textKinds } from "./kinds.ts";
export { type Hazard, HazardTally, hazardOf, hazardText } from "./hazards.ts";
export { type Remark, remarksOn } from "./remarks.ts";
export { type ColumnSurvey, type Found, type LetterCase, Survey } from "./survey.ts";
export { type TextFacts, factsOf, shapeOf } from "./texts.ts";
