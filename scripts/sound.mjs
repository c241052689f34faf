import { bundle } from "./build.mjs";
import { existsSync } from "node:fs";
import { ROOT, install, run } from "./install.mjs";

// render FILE IN.wav OUT.wav  |  measure IN.wav: sound through the core, figures as JSON.
install();
if (!existsSync(`${ROOT}.build/sound.mjs`)) bundle();
process.stdout.write(
  run(process.execPath, [".build/sound.mjs", process.env.INIT_CWD ?? process.cwd(), ...process.argv.slice(2)], {
    quiet: true,
  }),
);
