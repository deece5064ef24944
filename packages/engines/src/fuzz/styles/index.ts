import type { Style } from "../generate.ts";
import { duckdb } from "./duckdb.ts";
import { mariadb } from "./mariadb.ts";
import { postgresql } from "./postgresql.ts";
import { sqlite } from "./sqlite.ts";

/** How the expressions of each dialect are written when they are generated. */
export const styles: Readonly<Record<string, Style>> = { sqlite, mariadb, duckdb, postgresql };
