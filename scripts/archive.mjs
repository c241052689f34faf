import { existsSync } from "node:fs";
import { resolve } from "node:path";
import { bundle } from "./build.mjs";
import { ROOT, install, run } from "./install.mjs";

// The library as a file, and back: npm run -s archive -- write|check|bring FILE
install();
if (!existsSync(`${ROOT}.build/archive.mjs`)) bundle();
const from = process.env.INIT_CWD ?? process.cwd();
const [command, file, ...more] = process.argv.slice(2);
const path = file === undefined || file.startsWith("-") ? file : resolve(from, file);
run(process.execPath, [".build/archive.mjs", ...[command, path].filter((one) => one !== undefined), ...more]);
