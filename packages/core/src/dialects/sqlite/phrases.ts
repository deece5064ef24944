import type { Phrases } from "../dialect.ts";
import { ofSql } from "../shared/phrases.ts";

export const phrases: Phrases = { ...ofSql, contains: (text, part) => `instr(${text}, ${part}) > 0` };
