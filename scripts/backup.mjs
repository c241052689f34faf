import { existsSync } from "node:fs";
import { resolve } from "node:path";
import { bundle } from "./build.mjs";
import { ROOT, install, run } from "./install.mjs";

// A checked copy of the library, also while it serves: npm run backup -- FILE
install();
if (!existsSync(`${ROOT}.build/backup.mjs`)) bundle();
const from = process.env.INIT_CWD ?? process.cwd();
const files = process.argv.slice(2).map((name) => (name.startsWith("-") ? name : resolve(from, name)));
run(process.execPath, [".build/backup.mjs", ...files]);
