import { build } from "./build.mjs";
import { bin, install, run } from "./install.mjs";

// One JSON line per figure: npm run bench [-- --only NAME]
install();
build();
run(bin("esbuild"), [
  "bench=scripts/bench/main.ts",
  "bench-plain=scripts/bench/plain.worker.ts",
  "--bundle",
  "--outdir=.build",
  "--out-extension:.js=.mjs",
  "--format=esm",
  "--platform=node",
  "--packages=external",
  "--log-level=warning",
]);
run(process.execPath, [".build/bench.mjs", ...process.argv.slice(2)]);
