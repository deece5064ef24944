import type { Dialect } from "../dialects/dialect.ts";
import type { Treatment } from "../lists/index.ts";
import { type Value, isList } from "../values/index.ts";
import { Type } from "../dialects/types.ts";

/** The dialect's type for what jobs give. */
export function typeAfter({ types }: Dialect, { gives }: Treatment): Type {
  const type = types.columnType([gives === "truth" ? true : "a"]);
  return gives === "list" && /^\w+$/.test(String(type)) ? Type.list(type) : type;
}

/** A value with all jobs done; a list and a truth value as the dialect has them. */
export function treated({ types }: Dialect, treatment: Treatment, value: Value, hits?: ReturnType<Treatment["newHits"]>): Value {
  const made = treatment.run(value, hits);
  if (typeof made === "boolean") return types.readColumn?.(types.columnType([made]), made) ?? made;
  return isList(made) && types.sequence ? types.sequence(made) : made;
}
