import { lookup } from "../values/index.ts";
import type { Dialect } from "./dialect.ts";
import { duckdb } from "./duckdb/index.ts";
import { mariadb } from "./mariadb/index.ts";
import { openformula } from "./openformula/index.ts";
import { postgresql } from "./postgresql/index.ts";
import { sql } from "./sql/index.ts";
import { sqlite } from "./sqlite/index.ts";
import { xpath } from "./xpath/index.ts";

export type { Cell, Code, ConversionLine, Dialect, DialectOption, TypeRules } from "./dialect.ts";
export { convertingSteps, stepsOf } from "./conversions.ts";
export { type Step, isStep, partsOfWork, stepsIn, worked } from "./step.ts";
export { Type, isOneOf, typeOf } from "./types.ts";
export { type FunctionRow, type Parameter, arity, functionsNamed, isData, isPure, namesOf, params, signature } from "./row.ts";
export { duckdb, mariadb, openformula, postgresql, sql, sqlite, xpath };

/** Every dialect, made with options; a new dialect is added here and nowhere else. */
export const dialects: Readonly<Record<string, (options?: Readonly<Record<string, string>>) => Dialect>> = lookup({
  duckdb,
  mariadb,
  openformula,
  postgresql,
  sql,
  sqlite,
  xpath,
});
