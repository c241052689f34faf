import { closeSync, fdatasyncSync, mkdtempSync, openSync, readFileSync, rmSync, writeSync } from "node:fs";
import { join } from "node:path";
import { openContext } from "../../src/server/store/open";
import { inTransaction } from "../../src/server/store/transaction";
import { insertPreset } from "../../src/server/repositories/presets";
import { DEMO_PRESETS } from "../../src/demo/library";
import { emptyCard } from "../../src/core/presets/preset";
import { type Figure, ratioOf } from "./figure";

/** Where a write costs nothing, a durable write cannot be measured. */
export function onMemory(folder: string): boolean {
  const mounts = readFileSync("/proc/mounts", "utf8")
    .split("\n")
    .map((line) => line.split(" "));
  const [mount] = mounts
    .filter(([, at]) => at !== undefined && folder.startsWith(at))
    .toSorted((a, b) => (b[1]?.length ?? 0) - (a[1]?.length ?? 0));
  return mount?.[2] === "tmpfs" || mount?.[2] === "ramfs";
}

/** One preset through the repository, search index included, durable ÷ a bare write of the same bytes and fdatasync. */
export async function save(): Promise<Figure> {
  const folder = mkdtempSync(join(process.cwd(), ".bench-"));
  const RUNS = 60;
  const shared = { name: "save", op: "<=", goal: 5, unit: "ratio", runs: RUNS } as const;
  try {
    if (onMemory(folder)) return { ...shared, value: null, note: "a memory file system: refused" };
    const context = await openContext(folder);
    const content = DEMO_PRESETS[0]!.versions.at(-1)!;
    const bytes = JSON.stringify(content);
    const file = openSync(join(folder, "bare"), "w");
    const ours = async (): Promise<number> => {
      const begin = performance.now();
      await inTransaction(context, async (tx, note) => {
        const id = context.mint();
        await insertPreset(tx, { id, content, card: emptyCard("Bench"), at: context.now().toISOString() });
        note({ kind: "preset", id });
      });
      return performance.now() - begin;
    };
    const bare = (): number => {
      const begin = performance.now();
      writeSync(file, bytes);
      fdatasyncSync(file);
      return performance.now() - begin;
    };
    // A server that has been up for a while has met this path before.
    for (let warm = 0; warm < 200; warm++) await ours();
    const value = await ratioOf(RUNS, ours, bare);
    closeSync(file);
    await context.close();
    return { ...shared, value };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
