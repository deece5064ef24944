import { nearest } from "./index.ts";

/** What plain data must look like, a folio or a dialect; the reader and the published JSON Schema are both made from it. */
export type Shape = { readonly about: string } & (
  | { readonly kind: "text" | "number" | "any" | "truth" }
  /** `named`: where the schema defines it once for all places, under `$defs`. */
  | { readonly kind: "one of"; readonly values: readonly (string | number | boolean)[]; readonly named?: string }
  /** Any keys, each with a value of one shape. */
  | { readonly kind: "map"; readonly of: Shape }
  | { readonly kind: "list"; readonly of: Shape; readonly least?: number }
  | { readonly kind: "record"; readonly fields: Readonly<Record<string, Shape>>; readonly wanted: readonly string[] }
  | { readonly kind: "either"; readonly of: readonly Shape[] }
);

export const text = (about: string): Shape => ({ kind: "text", about });
export const list = (about: string, of: Shape, least?: number): Shape => ({
  kind: "list",
  about,
  of,
  ...(least !== undefined && { least }),
});
export const record = (about: string, wanted: readonly string[], fields: Readonly<Record<string, Shape>>): Shape => ({
  kind: "record",
  about,
  wanted,
  fields,
});
export const number = (about: string): Shape => ({ kind: "number", about });
export const oneOf = (about: string, ...values: string[]): Shape => ({ kind: "one of", about, values });

/** Something that is not as it must be, and where: keys and places, 0-based, from the outside in. */
export interface ShapeProblem {
  readonly path: readonly (string | number)[];
  readonly message: string;
}

export const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** `; did you mean …?` for a name, or what there is. */
export function mend(name: string, names: Iterable<string>, otherwise = `; it may be ${[...names].join(", ")}`): string {
  const [near] = nearest(name, names);
  return near === undefined ? otherwise : `; did you mean "${near}"?`;
}

/** What is wrong with data that should have a shape, which as a whole is called `whole`; nothing is passed over. */
export function problemsOf(value: unknown, shape: Shape, whole: string, path: readonly (string | number)[] = []): ShapeProblem[] {
  const problem = (message: string): ShapeProblem[] => [{ path, message }];
  const here = path.length === 0 ? whole : `"${String(path.at(-1))}"`;
  switch (shape.kind) {
    case "any":
      return [];
    case "text":
      return typeof value === "string" ? [] : problem(`${here} must be a text`);
    case "number":
      return typeof value === "number" ? [] : problem(`${here} must be a number`);
    case "truth":
      return typeof value === "boolean" ? [] : problem(`${here} must be true or false`);
    case "one of":
      return shape.values.includes(value as string)
        ? []
        : problem(
            `${here} must be ${shape.values.join(" or ")}, not ${JSON.stringify(value)}${typeof value === "string" ? mend(value, shape.values.map(String), "") : ""}`,
          );
    case "map":
      if (!isRecord(value)) return problem(`${here} must have names with values`);
      return Object.entries(value).flatMap(([key, item]) => problemsOf(item, shape.of, whole, [...path, key]));
    case "list":
      if (!Array.isArray(value)) return problem(`${here} must be a list`);
      if (value.length < (shape.least ?? 0)) return problem(`${here} must have at least ${String(shape.least)}`);
      return value.flatMap((item, i) => problemsOf(item, shape.of, whole, [...path, i]));
    case "either": {
      const tried = shape.of.map((each) => problemsOf(value, each, whole, path));
      return tried.some((found) => found.length === 0)
        ? []
        : (tried.find(([first]) => first.path.length > path.length) ?? tried[0]);
    }
    case "record": {
      if (!isRecord(value)) return problem(`${here} must have ${Object.keys(shape.fields).join(", ")}`);
      const missing = shape.wanted
        .filter((key) => !Object.hasOwn(value, key))
        .map((key) => ({ path, message: `${here} lacks "${key}"` }));
      const others = Object.entries(value).flatMap(([key, item]): ShapeProblem[] => {
        if (Object.hasOwn(shape.fields, key)) return problemsOf(item, shape.fields[key], whole, [...path, key]);
        return [
          {
            path: [...path, key],
            message: `${here} has no "${key}"${mend(key, Object.keys(shape.fields), `; it has ${Object.keys(shape.fields).join(", ")}`)}`,
          },
        ];
      });
      return [...missing, ...others];
    }
  }
}

/** A shape as JSON Schema (draft 2020-12). */
export function schemaOf(shape: Shape): Readonly<Record<string, unknown>> {
  const about = { description: shape.about };
  switch (shape.kind) {
    case "any":
      return about;
    case "text":
      return { ...about, type: "string" };
    case "number":
      return { ...about, type: "number" };
    case "truth":
      return { ...about, type: "boolean" };
    case "one of":
      return shape.named === undefined ? { ...about, enum: shape.values } : { $ref: `#/$defs/${shape.named}` };
    case "map":
      return { ...about, type: "object", additionalProperties: schemaOf(shape.of) };
    case "list":
      return { ...about, type: "array", items: schemaOf(shape.of), ...(shape.least !== undefined && { minItems: shape.least }) };
    case "either":
      return { ...about, anyOf: shape.of.map(schemaOf) };
    case "record":
      return {
        ...about,
        type: "object",
        properties: Object.fromEntries(Object.entries(shape.fields).map(([key, field]) => [key, schemaOf(field)])),
        required: shape.wanted,
        additionalProperties: false,
      };
  }
}
