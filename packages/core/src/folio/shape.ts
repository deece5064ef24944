import { nearest } from "../diagnostics/index.ts";

/** What plain data of a folio must look like; the reader and the published JSON Schema are both made from it. */
export type Shape = { readonly about: string } & (
  | { readonly kind: "text" | "number" | "any" | "truth" }
  | { readonly kind: "one of"; readonly values: readonly (string | number | boolean)[] }
  /** Any keys, each with a value of one shape. */
  | { readonly kind: "map"; readonly of: Shape }
  | { readonly kind: "list"; readonly of: Shape; readonly least?: number }
  | { readonly kind: "record"; readonly fields: Readonly<Record<string, Shape>>; readonly wanted: readonly string[] }
  | { readonly kind: "either"; readonly of: readonly Shape[] }
);

/** Something that is not as it must be, and where: keys and places, 0-based, from the outside in. */
export interface ShapeProblem {
  readonly path: readonly (string | number)[];
  readonly message: string;
}

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** What is wrong with data that should have a shape; nothing is passed over. */
export function problemsOf(value: unknown, shape: Shape, path: readonly (string | number)[] = []): ShapeProblem[] {
  const problem = (message: string): ShapeProblem[] => [{ path, message }];
  const here = path.length === 0 ? "a folio" : `"${String(path.at(-1))}"`;
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
        : problem(`${here} must be ${shape.values.join(" or ")}, not ${JSON.stringify(value)}`);
    case "map":
      if (!isRecord(value)) return problem(`${here} must have names with values`);
      return Object.entries(value).flatMap(([key, item]) => problemsOf(item, shape.of, [...path, key]));
    case "list":
      if (!Array.isArray(value)) return problem(`${here} must be a list`);
      if (value.length < (shape.least ?? 0)) return problem(`${here} must have at least ${String(shape.least)}`);
      return value.flatMap((item, i) => problemsOf(item, shape.of, [...path, i]));
    case "either": {
      const tried = shape.of.map((each) => problemsOf(value, each, path));
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
        if (Object.hasOwn(shape.fields, key)) return problemsOf(item, shape.fields[key], [...path, key]);
        const near = nearest(key, Object.keys(shape.fields));
        const mend = near.length > 0 ? `; did you mean "${near[0]}"?` : `; it has ${Object.keys(shape.fields).join(", ")}`;
        return [{ path: [...path, key], message: `${here} has no "${key}"${mend}` }];
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
      return { ...about, enum: shape.values };
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
