/**
 * Holds the directions of imports: within the core each layer imports only layers before it, and no
 * dialect another; packages import each other by their public entry points only.
 */
import { readFileSync } from "node:fs";
import { posix } from "node:path";
import { isTest, sourceFiles } from "./files.js";

/** From the bottom up; a folder may import itself and what stands before it. */
const layers = [
  "values",
  "traits",
  "patterns",
  "text",
  "diagnostics",
  "syntax",
  "dialects",
  "evaluate",
  "contrast",
  "authoring",
  "survey",
  "lists",
  "folio",
];
const core = "packages/core/src/";
/** What the core may lean on: arithmetic to any number of digits, and digests, which are not the heart of the job. */
const ofCore = ["decimal.js", "@noble/hashes/legacy.js", "@noble/hashes/sha2.js"];
const problems = [];

for (const file of sourceFiles([".ts", ".tsx"]).filter((name) => !isTest(name))) {
  const imports = [...readFileSync(file, "utf8").matchAll(/^(?:import|export)\b[^;]*?from "([^"]+)";/gms)].map(
    (match) => match[1],
  );
  for (const target of imports) {
    if (!target.startsWith(".")) {
      if (file.startsWith(core) && !ofCore.includes(target))
        problems.push(`${file} imports the package ${target}; the core has no dependency but ${ofCore.join(", ")}`);
      if (/^(?:indigo-quill|@indigo-quill\/[^/]+)\/(?:src|dist)\//.test(target)) problems.push(`${file} reaches into ${target}`);
      continue;
    }
    const path = posix.normalize(posix.join(posix.dirname(file), target));
    if (path.split("/").slice(0, 2).join("/") !== file.split("/").slice(0, 2).join("/"))
      problems.push(`${file} reaches into ${path}`);
    if (!file.startsWith(core) || !path.startsWith(core)) continue;
    const [from, fromDialect] = file.slice(core.length).split("/");
    const [to, toDialect] = path.slice(core.length).split("/");
    if (layers.indexOf(to) > layers.indexOf(from) && layers.includes(from))
      problems.push(`${file} imports ${path}: ${from} stands below ${to}`);
    const isDialect = (name) => name !== undefined && !name.endsWith(".ts") && name !== "shared";
    if (from === "dialects" && to === "dialects" && isDialect(fromDialect) && isDialect(toDialect) && fromDialect !== toDialect) {
      problems.push(`${file} imports the dialect ${toDialect}`);
    }
  }
}

for (const problem of problems) console.error(problem);
console.log(problems.length === 0 ? "directions: every import points down" : `directions: ${problems.length} imports do not`);
process.exitCode = problems.length === 0 ? 0 : 1;
