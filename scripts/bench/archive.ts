import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { INCLUDED } from "@/core/packs/included";
import { openArchive } from "@/server/archive/open-archive";
import { writeArchive } from "@/server/archive/write-archive";
import { type OpenContext } from "@/server/store/context";
import { openContext } from "@/server/store/open";
import { USUAL, compareFile, openFile } from "@/server/use-cases/archive/take-file";
import { bringIn } from "@/server/use-cases/archive/bring";
import { findPresets } from "@/server/use-cases/find-presets";
import { installPack } from "@/server/use-cases/packs";
import { type Figure, median, percentile } from "./figure";
import { fill } from "./library";

const ALL = { chosen: { presets: null, projects: null }, scope: { kind: "all" as const }, madeBy: "bench" };

export async function withLibrary<T>(
  count: number,
  work: (context: OpenContext, folder: string) => Promise<T>,
): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), "diathesis-bench-"));
  const context = await openContext(folder);
  try {
    if (count > 0) await fill(context, count);
    return await work(context, folder);
  } finally {
    await context.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

export const timed = async (work: () => unknown): Promise<number> => {
  const begin = performance.now();
  await work();
  return performance.now() - begin;
};

const RUNS = 5;

/** 10,000 presets written, which includes reading them back, and read, every byte against its sum ÷ plain zip and unzip of the same files. */
export const archives = (): Promise<readonly Figure[]> =>
  withLibrary(10_000, async (_, folder) => {
    const [writes, reads]: [number[], number[]] = [[], []];
    for (let run = 0; run < RUNS; run++) {
      const file = join(folder, `${run}.zip`);
      const ours = await timed(() => writeArchive({ folder, ...ALL, at: new Date() }, file));
      const read = await timed(async () => {
        const archive = await openArchive(file);
        await archive.verify(() => undefined);
        archive.close();
      });
      const plain = join(folder, `plain-${run}`);
      const unzip = await timed(() => execFileSync("unzip", ["-q", file, "-d", plain]));
      const zip = await timed(() =>
        execFileSync("zip", ["-qr", join(folder, `again-${run}.zip`), "."], { cwd: plain }),
      );
      writes.push(zip / ours);
      reads.push(unzip / read);
    }
    return [
      { name: "archive-write", value: median(writes), op: ">=", goal: 0.5, unit: "ratio", runs: RUNS },
      { name: "archive-read", value: median(reads), op: ">=", goal: 0.5, unit: "ratio", runs: RUNS },
    ];
  });

const SEARCHES = ["v", "warm", "cello wa", "room"];

/** Brings the file in, while somebody searches; how long each search waits, the longest silence of the progress, the most memory. */
async function restoring(context: OpenContext, folder: string, file: string) {
  const waits: number[] = [];
  let [isOver, last, silence, memory] = [false, performance.now(), 0, 0];
  const heard = () => {
    silence = Math.max(silence, performance.now() - last);
    last = performance.now();
  };
  const searching = (async () => {
    for (let n = 0; !isOver; n++) {
      waits.push(await timed(() => findPresets(context, { q: SEARCHES[n % SEARCHES.length]!, limit: 60 })));
      memory = Math.max(memory, process.memoryUsage().rss);
      await new Promise((resolve) => setTimeout(resolve, 30));
    }
  })();
  const took = await timed(async () => {
    const opened = await openFile(file);
    await opened.verify(heard);
    const { items } = await compareFile(folder, opened, heard);
    const done = await bringIn(context, opened.incoming, { items, choices: USUAL, called: "bench" }, heard);
    if (!done.ok || done.value.presets < 100_000) throw new Error("It did not come in.");
    opened.close();
  });
  await context.search.settled();
  isOver = true;
  await searching;
  return { took, silence, memory, p95: percentile(waits, 0.95) };
}

/** 100,000 presets restored into an empty library. */
export async function restore(): Promise<readonly Figure[]> {
  const beside = mkdtempSync(join(tmpdir(), "diathesis-archive-"));
  const file = join(beside, "all.zip");
  try {
    await withLibrary(100_000, (_, folder) => writeArchive({ folder, ...ALL, at: new Date() }, file));
    console.error(`${statSync(file).size} bytes`);
    return await withLibrary(0, async (context, folder) => {
      await installPack(context, INCLUDED);
      const { took, silence, memory, p95 } = await restoring(context, folder, file);
      console.error(`${Math.round(took / 1000)} s`);
      return [
        { name: "restore-100k", value: p95, op: "<=", goal: 50, unit: "ms", runs: 1 },
        { name: "restore-100k-mb", value: memory / 1e6, op: "<=", goal: 800, unit: "MB", runs: 1 },
        { name: "restore-100k-silence", value: silence, op: "<=", goal: 1000, unit: "ms", runs: 1 },
      ];
    });
  } finally {
    rmSync(beside, { recursive: true, force: true });
  }
}
