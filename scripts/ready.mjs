// Makes a fresh clone ready: installs packages when the lock file or Node changed since the last time, and, with
// --chromium, Debian’s Chromium and poppler where they are missing. Node’s own modules only: this runs before
// node_modules exists.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const stamp = join(root, "node_modules", ".ready");
const wanted = createHash("sha256")
  .update(readFileSync(join(root, "package-lock.json")))
  .update(process.version)
  .digest("hex");

const run = (command, args) => {
  console.log(`> ${command} ${args.join(" ")}`);
  const { status } = spawnSync(command, args, { cwd: root, stdio: "inherit" });
  if (status !== 0) {
    console.error(`${command} ${args[0]} did not succeed; see above.`);
    process.exit(status ?? 1);
  }
};

if (!existsSync(stamp) || readFileSync(stamp, "utf8") !== wanted) {
  run("npm", ["ci", "--no-fund", "--no-audit"]);
  writeFileSync(stamp, wanted);
}
const PACKAGES = { chromium: "/usr/bin/chromium", "poppler-utils": "/usr/bin/pdftoppm" };
const missing = Object.entries(PACKAGES).flatMap(([name, program]) => (existsSync(program) ? [] : [name]));
if (process.argv.includes("--chromium") && missing.length > 0) {
  run("apt-get", ["update"]);
  run("apt-get", ["-o", "DPkg::Lock::Timeout=300", "install", "-y", "--no-install-recommends", ...missing]);
}
