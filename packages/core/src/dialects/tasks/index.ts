export { dateFormatFor, dateFormatted, foreignFormat } from "./date-formats.ts";
export { foreignNumberFormat, numberFormatted } from "./number-formats.ts";
export { type Meant, foreignTasks, isForeign, meantBy } from "./foreign.ts";
export { type Part, filled, isClosed, isSetOff, joinedAs, templateOf } from "./said.ts";
export { type Task, type TaskId, tasks } from "./table.ts";
