import { spawn, spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { ROOT, bin, install } from "./install.mjs";

// Everything that CI checks, in the order in which it fails soonest. The last line counts.

const results = { passed: 0, failed: 0 };
/** What went wrong, told once more at the end: between begins and ends of a thousand tests it is not found. */
const faults = [];

/** Runs a tool to its end: whether all was well, and what it said. */
const run = (command, args) =>
  new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: ROOT,
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", NO_COLOR: "1" },
      stdio: ["ignore", "pipe", "pipe"],
    });
    let output = "";
    for (const stream of [child.stdout, child.stderr])
      stream.setEncoding("utf8").on("data", (text) => (output += text));
    child.on("error", (error) => resolve({ ok: false, output: `${output}${error.message}` }));
    child.on("close", (status) => resolve({ ok: status === 0, output }));
  });

async function check(name, command, args, count = (_, ok) => ({ passed: ok ? 1 : 0, failed: ok ? 0 : 1 })) {
  const begin = Date.now();
  const { ok, output } = await run(command, args);
  const { passed, failed } = count(output, ok);
  results.passed += passed;
  // A tool that broke down before it counted has failed all the same.
  results.failed += ok ? failed : Math.max(1, failed);
  console.log(`${ok ? "ok    " : "FAILED"} ${name} (${((Date.now() - begin) / 1000).toFixed(0)} s)`);
  if (!ok) console.log(output.slice(-20_000));
  if (!ok) faults.push(`${name}:`, ...faultsIn(output));
  return ok;
}

/** The tests that failed, each with the first lines of why, and what no test has caught. */
function faultsIn(output) {
  const lines = output.split("\n");
  const begins = lines.flatMap((line, at) => (/^\s*(FAIL |✘|Unhandled |\d+\) )/.test(line) ? [at] : []));
  return [
    ...new Set(
      begins.slice(0, 12).map((at) =>
        lines
          .slice(at, at + 6)
          .join("\n")
          .slice(0, 600),
      ),
    ),
  ];
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

/** What the browser tests need of Debian: the browser, and what reads a PDF and a ZIP back. A machine that has none gets it. */
const DEBIAN = [
  { package: "chromium", at: process.env.CHROMIUM ?? "/usr/bin/chromium" },
  { package: "poppler-utils", at: "/usr/bin/pdftotext" },
  { package: "unzip", at: "/usr/bin/unzip" },
];

function installFromDebian() {
  const missing = DEBIAN.filter(({ at }) => !existsSync(at)).map((one) => one.package);
  if (missing.length === 0) return;
  console.log(`Installing of Debian, for the browser tests: ${missing.join(", ")}.`);
  for (const args of [
    ["update", "-qq"],
    ["install", "-y", "-qq", "--no-install-recommends", ...missing],
  ])
    spawnSync("apt-get", args, {
      stdio: ["ignore", "ignore", "inherit"],
      env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    });
  if (!existsSync(DEBIAN[0].at))
    console.log("There is no Chromium: install Debian's package chromium, or set CHROMIUM to one.");
}

install();
await check("formatting", bin("biome"), ["format", "."]);
await check("route types", bin("next"), ["typegen"]);
// Two at a time: the linter alone takes as long as the others together.
const [, isBuilt] = await Promise.all([
  check("lint", bin("eslint"), [".", "--max-warnings", "0"]),
  (async () => {
    await check("types", bin("tsc"), ["--noEmit"]);
    await check("types of the worklet", bin("tsc"), ["--noEmit", "-p", "tsconfig.worklet.json"]);
    await check("layers", bin("depcruise"), ["src", "e2e", "--config", ".dependency-cruiser.cjs"]);
    await check("folders", bin("depcruise"), ["src", "--config", ".dependency-cruiser.folders.cjs"]);
    await check("unused code", bin("knip"), []);
    return check("build", process.execPath, ["scripts/build.mjs"]);
  })(),
]);
await check("unit tests", bin("vitest"), ["run"], vitestCount);
installFromDebian();
if (isBuilt) await check("browser tests", bin("playwright"), ["test"], playwrightCount);

for (const fault of faults) console.log(fault);
console.log(`${results.passed} passed, ${results.failed} failed`);
process.exitCode = results.failed > 0 ? 1 : 0;
