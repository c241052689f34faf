import { bundle } from "./build.mjs";
import { install, run } from "./install.mjs";

// The JSON Schema of every kind of document, into docs/formats: after a change of a form.
install();
bundle();
run(process.execPath, [".build/schemas.mjs", "docs/formats"]);
