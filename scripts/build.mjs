import { existsSync, mkdirSync, readdirSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { ROOT, bin, install, run } from "./install.mjs";

const BUNDLES = [
  { entry: "src/server/http/main.ts", out: ".build/server.mjs", platform: "node" },
  { entry: "src/server/near-copies/worker.ts", out: ".build/near-copies.mjs", platform: "node" },
  { entry: "src/server/check/worker.ts", out: ".build/check.mjs", platform: "node" },
  { entry: "src/server/sheets/worker.ts", out: ".build/sheets.mjs", platform: "node" },
  { entry: "src/server/loudness/worker.ts", out: ".build/loudness.mjs", platform: "node" },
  { entry: "src/demo/main.ts", out: ".build/demo.mjs", platform: "node" },
  { entry: "src/server/tools/backup.ts", out: ".build/backup.mjs", platform: "node" },
  { entry: "src/server/tools/schemas.ts", out: ".build/schemas.mjs", platform: "node" },
  { entry: "src/server/tools/archive.ts", out: ".build/archive.mjs", platform: "node" },
  { entry: "src/server/tools/sound.ts", out: ".build/sound.mjs", platform: "node" },
  { entry: "src/server/tools/pictures.ts", out: ".build/pictures.mjs", platform: "node" },
  { entry: "src/workers/audition.worklet.ts", out: "public/worklets/audition.js", platform: "browser" },
];

/** Bundles of our own TypeScript for where Next does not reach: the server before it, tools, the audio worklet. */
export function bundle() {
  for (const { entry, out, platform } of BUNDLES) {
    const node = platform === "node" ? ["--packages=external", "--platform=node"] : ["--platform=browser", "--minify"];
    run(bin("esbuild"), [
      entry,
      "--bundle",
      `--outfile=${out}`,
      "--format=esm",
      "--target=es2022",
      "--log-level=warning",
      ...node,
    ]);
  }
}

const SOURCES = ["src", "public", "package-lock.json", "next.config.ts", "tsconfig.json", "postcss.config.mjs"];

function newest(path) {
  const stat = statSync(join(ROOT, path));
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(0, ...readdirSync(join(ROOT, path)).map((name) => newest(join(path, name))));
}

const STAMP = join(ROOT, ".build/stamp");

/** Builds the application when a source is newer than the last build. */
export function build() {
  const sources = () => Math.max(...SOURCES.filter((s) => existsSync(join(ROOT, s)) && s !== "public").map(newest));
  if (existsSync(STAMP) && existsSync(join(ROOT, ".next/BUILD_ID")) && statSync(STAMP).mtimeMs >= sources()) return;
  console.error("Building; under a minute.");
  bundle();
  run(process.execPath, [".build/pictures.mjs", "public/materials"]);
  run(bin("next"), ["build"], { quiet: true, env: { NODE_ENV: "production" } });
  mkdirSync(join(ROOT, ".build"), { recursive: true });
  writeFileSync(STAMP, "");
}

if (process.argv[1] === import.meta.filename) {
  install();
  build();
}
