import { build } from "./build.mjs";
import { install, run } from "./install.mjs";
import { serve } from "./serve.mjs";

// The sample world, in a folder of its own. --reset lays it anew.
const folder = process.env.DIATHESIS_DATA ?? ".data/demo";
install();
build();
run(process.execPath, [".build/demo.mjs", folder, ...(process.argv.includes("--reset") ? ["--reset"] : [])]);
serve(folder);
