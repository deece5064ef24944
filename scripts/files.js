import { execFileSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";

/** The source files of the project that git knows or would add, by ending. */
export function sourceFiles(endings = [".ts", ".tsx", ".js"]) {
  const listed = execFileSync("git", ["ls-files", "--cached", "--others", "--exclude-standard"], { encoding: "utf8" });
  return listed.split("\n").filter((file) => endings.some((ending) => file.endsWith(ending)) && existsSync(file));
}

export const isTest = (file) => /(^|\/)test\//.test(file) || /\.test\.tsx?$/.test(file);

/** Lines that are neither blank nor comment only. */
export function codeLines(file) {
  return readFileSync(file, "utf8")
    .split("\n")
    .filter((line) => !/^\s*(?:\/\/.*|\*.*|\/\*.*)?$/.test(line)).length;
}
