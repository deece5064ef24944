import { visibleText } from "indigo-quill/authoring";
import type { Conflict, Job, Rule } from "indigo-quill/lists";
import { counted } from "./counted.ts";

/** A rule in one line: what is replaced by what, with what is said about it. */
export function ruleText(rule: Rule): string {
  const quoted = (text: string) => `"${visibleText(text, true)}"`;
  const said = [rule.as, rule.where, rule.case && "case ignored", rule.which !== undefined && `place ${rule.which}`].filter(
    (part) => typeof part === "string",
  );
  return `${quoted(rule.old)} → ${quoted(rule.new)}${said.length > 0 ? ` (${said.join(", ")})` : ""}`;
}

/** What a conflict means, with the rules that it is about, counted from 1. */
export function conflictText(conflict: Conflict, rules: readonly Rule[]): string {
  const named = (place: number) => `rule ${place + 1}, ${ruleText(rules[place])}`;
  const own = named(conflict.rule);
  switch (conflict.kind) {
    case "duplicate":
      return `${own}: ${named(conflict.by)} looks for the same, and comes first`;
    case "unreachable":
      return `${own}: ${named(conflict.by)} has replaced a part of it before, so that it is never found`;
    case "feeding":
      return `${own}: what it writes is replaced again by ${named(conflict.by)}`;
  }
}

/** A job in a few words. */
export function jobText(job: Job): string {
  const [name, what] = Object.entries(job)[0] as [string, unknown];
  if ("replace" in job) return `replace, ${counted(job.replace.length, "rule")}`;
  if (what === true) return name;
  const list = what as { values?: readonly string[]; from?: number; to?: number; shape?: string };
  const said = Array.isArray(what)
    ? what.join(" ")
    : typeof what !== "object"
      ? String(what)
      : (list.shape ?? (list.values ? counted(list.values.length, "value") : `${list.from} to ${list.to}`));
  return `${name} ${said}`;
}
