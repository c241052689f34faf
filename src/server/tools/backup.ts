import { resolve } from "node:path";
import { CopyFailed, copyLibrary } from "../data/copy";
import { findStorageFault } from "../data/faults";
import { DATABASE_FILE } from "../data/library-file";

/** FILE: a checked copy of the library there, also while it serves. Ends with 0 done, 1 refused, 2 not understood. */

const [file, ...more] = process.argv.slice(2);
const folder = resolve(process.env.DIATHESIS_DATA ?? ".data/library");

function backUp(to: string): number {
  try {
    copyLibrary(resolve(folder, DATABASE_FILE), resolve(to));
    console.log(`The library in ${folder} is copied to ${resolve(to)}, and the copy is sound.`);
    return 0;
  } catch (error) {
    const known = error instanceof CopyFailed ? error : findStorageFault(error);
    console.error(`${known?.message ?? String(error)} (${folder} to ${resolve(to)})`);
    return 1;
  }
}

if (file === undefined || file.startsWith("-") || more.length > 0) {
  console.error("Say where the copy is to go: npm run backup -- FILE");
  process.exitCode = 2;
} else process.exitCode = backUp(file);
