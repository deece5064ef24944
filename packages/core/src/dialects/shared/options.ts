import type { DialectOption } from "../dialect.ts";

/**
 * The value of every option: what is given, or its default.
 * @throws RangeError for an option or a value that the dialect does not have
 */
export function chooseOptions(
  dialect: string,
  options: readonly DialectOption[],
  given: Readonly<Record<string, string>>,
): Readonly<Record<string, string>> {
  const chosen = Object.fromEntries(options.map((option) => [option.name, option.default]));
  for (const [name, value] of Object.entries(given)) {
    const option = options.find((candidate) => candidate.name === name);
    if (!option)
      throw new RangeError(`${dialect} has no option "${name}"; it has ${options.map((o) => o.name).join(", ") || "none"}`);
    if (!option.values.includes(value))
      throw new RangeError(`${dialect}: "${name}" cannot be "${value}"; use one of ${option.values.join(", ")}`);
    chosen[name] = value;
  }
  return chosen;
}
