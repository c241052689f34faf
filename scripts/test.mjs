import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { build } from "./build.mjs";
import { ROOT, bin, install } from "./install.mjs";

// Everything that CI checks, in the order in which it fails soonest. The last line counts.

const results = { passed: 0, failed: 0 };

function check(name, command, args, count = (_, ok) => ({ passed: ok ? 1 : 0, failed: ok ? 0 : 1 })) {
  const begin = Date.now();
  const run = spawnSync(command, args, {
    cwd: ROOT,
    encoding: "utf8",
    maxBuffer: 1 << 28,
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", NO_COLOR: "1" },
  });
  const output = `${run.stdout ?? ""}${run.stderr ?? ""}`;
  const ok = run.status === 0;
  const { passed, failed } = count(output, ok);
  results.passed += passed;
  // A tool that broke down before it counted has failed all the same.
  results.failed += ok ? failed : Math.max(1, failed);
  console.log(`${ok ? "ok    " : "FAILED"} ${name} (${((Date.now() - begin) / 1000).toFixed(0)} s)`);
  if (!ok) console.log(output.slice(-20_000));
}

const countOf = (output, pattern) => Number(pattern.exec(output)?.[1] ?? 0);
const vitestCount = (output) => ({
  passed: countOf(output, /Tests\s+.*?(\d+) passed/),
  failed: countOf(output, /Tests\s+(\d+) failed/),
});
const playwrightCount = (output) => ({
  passed: countOf(output, /(\d+) passed/),
  failed: countOf(output, /(\d+) failed/),
});

/** The browser comes from Debian; a machine that has none gets it. */
function installChromium() {
  if (process.env.CHROMIUM || existsSync("/usr/bin/chromium")) return;
  console.log("Installing Debian's Chromium for the browser tests.");
  for (const args of [
    ["update", "-qq"],
    ["install", "-y", "-qq", "--no-install-recommends", "chromium"],
  ])
    spawnSync("apt-get", args, {
      stdio: ["ignore", "ignore", "inherit"],
      env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    });
  if (!existsSync("/usr/bin/chromium"))
    console.log("There is no Chromium: install Debian's package chromium, or set CHROMIUM to one.");
}

install();
check("formatting", bin("biome"), ["format", "."]);
check("route types", bin("next"), ["typegen"]);
check("types", bin("tsc"), ["--noEmit"]);
check("types of the worklet", bin("tsc"), ["--noEmit", "-p", "tsconfig.worklet.json"]);
check("lint", bin("eslint"), [".", "--max-warnings", "0"]);
check("layers", bin("depcruise"), ["src", "e2e", "--config", ".dependency-cruiser.cjs"]);
check("unused code", bin("knip"), []);
check("unit tests", bin("vitest"), ["run"], vitestCount);
build();
installChromium();
check("browser tests", bin("playwright"), ["test"], playwrightCount);

console.log(`${results.passed} passed, ${results.failed} failed`);
process.exitCode = results.failed > 0 ? 1 : 0;
