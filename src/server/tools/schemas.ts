import { mkdirSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { SCHEMAS } from "@/core/archive/schemas";

/** FOLDER: writes the JSON Schema of every kind of document there. */
const folder = resolve(process.argv[2] ?? "docs/formats");
mkdirSync(folder, { recursive: true });
for (const [name, schema] of Object.entries(SCHEMAS))
  writeFileSync(join(folder, `${name}.schema.json`), `${JSON.stringify(schema(), null, 2)}\n`);
