/**
 * Sees to it that there is a Chromium for the tests of the desk: the one that CHROMIUM names, Debian's,
 * or, as root on a Debian that has none, one that it installs.
 */
import { execFileSync } from "node:child_process";
import { existsSync } from "node:fs";

const browser = process.env.CHROMIUM ?? "/usr/bin/chromium";

if (!existsSync(browser) && browser === "/usr/bin/chromium" && existsSync("/usr/bin/apt-get") && process.getuid() === 0) {
  const install = (...args) =>
    execFileSync("apt-get", ["-qq", ...args], { stdio: "inherit", env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" } });
  install("update");
  install("install", "-y", "--no-install-recommends", "chromium");
}
if (!existsSync(browser)) {
  console.error(
    `There is no Chromium at ${browser}. Install it (on Debian: sudo apt-get install chromium), or set CHROMIUM to its path.`,
  );
  process.exitCode = 1;
}
