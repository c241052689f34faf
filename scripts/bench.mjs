import { build } from "./build.mjs";
import { bin, install, run } from "./install.mjs";

// One JSON line per figure: npm run bench [-- --only NAME]
install();
build();
const out = ".build/bench.mjs";
run(bin("esbuild"), [
  "scripts/bench/main.ts",
  "--bundle",
  `--outfile=${out}`,
  "--format=esm",
  "--platform=node",
  "--packages=external",
  "--log-level=warning",
]);
run(process.execPath, [out, ...process.argv.slice(2)]);
