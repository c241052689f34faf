import { existsSync, rmSync } from "node:fs";
import { join, resolve } from "node:path";
import { openContext } from "@/server/store/open";
import { DATABASE_FILE } from "@/server/data/library-file";
import { DatabaseRefused } from "@/server/data/faults";
import { FolderInUse, lockFolder } from "@/server/data/lock";
import { loadDemo } from "./load";

/** Lays the sample world into a data folder: `FOLDER [--reset]`. A folder that has one keeps what was done to it. */
async function main(): Promise<void> {
  const [folder = ".data/demo", flag] = process.argv.slice(2);
  const path = resolve(folder);
  const fresh = flag === "--reset" || !existsSync(join(path, DATABASE_FILE));
  if (!fresh) return;
  if (flag === "--reset") {
    // Taking the lock first: nobody's open library is pulled away.
    lockFolder(path, `process ${process.pid}`).release();
    for (const end of ["", "-wal", "-shm"]) rmSync(join(path, DATABASE_FILE + end), { force: true });
  }
  const context = await openContext(path, { anew: flag === "--reset" });
  await loadDemo(context);
  await context.close();
}

main().catch((error: unknown) => {
  if (error instanceof FolderInUse || error instanceof DatabaseRefused) console.error(error.message);
  else console.error(error);
  process.exit(1);
});
