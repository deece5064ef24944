import type { Style } from "../generate.ts";
import { duckdb } from "./duckdb.ts";
import { mariadb } from "./mariadb.ts";
import { openformula } from "./openformula.ts";
import { postgresql } from "./postgresql.ts";
import { sql } from "./sql.ts";
import { sqlite } from "./sqlite.ts";
import { xpath } from "./xpath.ts";

/** How the expressions of each dialect are written when they are generated. */
export const styles: Readonly<Record<string, Style>> = { duckdb, mariadb, openformula, postgresql, sql, sqlite, xpath };
