import { mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { MATERIALS } from "@/core/materials/material";
import { pictureOf } from "@/core/materials/outline";

/** Draws every material once, when the application is built: to look at one nothing has to be played. */
const [folder = "public/materials"] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
for (const { id, make } of MATERIALS)
  writeFileSync(join(folder, `${id}.json`), JSON.stringify(pictureOf(await make(48_000))));
