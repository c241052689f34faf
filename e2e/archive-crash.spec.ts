import { type ChildProcess, spawn } from "node:child_process";
import { cpSync, existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from "node:fs";
import { once } from "node:events";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strFromU8, unzipSync } from "fflate";
import { seededRandom } from "@/core/random";
import { createServer, expect, test } from "./server";

/** The real process is killed at random moments of a long write, a restore and a bringing-in: all that was there is there, and nothing half. */

const COUNT = 1500;
const PORT = 4792;

/** Of each of the three, so many. */
const MOMENTS = 17;

const begin = (data: string, ...args: readonly string[]): ChildProcess =>
  spawn(process.execPath, [".build/archive.mjs", ...args], {
    env: { ...process.env, NODE_ENV: "production", DIATHESIS_DATA: data },
    stdio: "ignore",
  });

const toItsEnd = async (data: string, ...args: readonly string[]): Promise<number | null> => {
  const child = begin(data, ...args);
  await once(child, "exit");
  return child.exitCode;
};

/** Kills it that many milliseconds after it began; it may have come to its end by then. */
async function killAfter(child: ChildProcess, ms: number): Promise<void> {
  const end = once(child, "exit");
  const timer = setTimeout(() => child.kill("SIGKILL"), ms);
  await end;
  clearTimeout(timer);
}

/** Every sound of a library, each as it would be archived; null where its file has no tables yet. */
async function findSounds(data: string): Promise<ReadonlySet<string> | null> {
  const file = join(data, "..", `look-${process.hrtime.bigint()}.zip`);
  if ((await toItsEnd(data, "write", file)) !== 0) return null;
  const files = unzipSync(readFileSync(file));
  rmSync(file);
  const lines = Object.entries(files)
    .filter(([path]) => path.startsWith("presets/"))
    .flatMap(([, bytes]) => strFromU8(bytes).trimEnd().split("\n"));
  return new Set(lines);
}

async function soundsIn(data: string): Promise<ReadonlySet<string>> {
  const sounds = await findSounds(data);
  if (!sounds) throw new Error(`${data} cannot be read`);
  return sounds;
}

test("kill -9 while an archive is written, restored, or brought in leaves nothing half", async () => {
  test.setTimeout(900_000);
  const random = seededRandom(4747);
  const folder = mkdtempSync(join(tmpdir(), "diathesis-crash-"));
  const [large, small, work] = ["large", "small", "work"].map((name) => join(folder, name)) as [string, string, string];
  const server = await createServer(PORT, true);
  await server.end();
  cpSync(server.folder, small, { recursive: true });
  await server.start();
  const { preset } = (await (await fetch(`${server.url}/api/presets/air-only-just`)).json()) as {
    preset: { kind: string; content: object; card: object };
  };
  const { kind, content, card } = preset;
  const presets = Array.from({ length: COUNT }, (_, n) => ({
    kind,
    content,
    card: { ...card, name: `Numbered ${n}` },
  }));
  const saved = await fetch(`${server.url}/api/presets/batch`, {
    method: "POST",
    body: JSON.stringify({ presets }),
    headers: { "Content-Type": "application/json" },
  });
  expect(saved.status).toBe(201);
  await server.end();
  cpSync(server.folder, large, { recursive: true });
  const file = join(folder, "large.zip");
  const timed = async (run: () => Promise<unknown>): Promise<number> => {
    const before = performance.now();
    await run();
    return performance.now() - before;
  };

  const writing = await timed(() => toItsEnd(large, "write", file));
  for (let n = 0; n < MOMENTS; n++) {
    const to = join(folder, `w${n}.zip`);
    await killAfter(begin(large, "write", to), 150 + random() * writing);
    if (existsSync(to)) expect(await toItsEnd(large, "check", to)).toBe(0);
  }
  expect(await toItsEnd(large, "write", join(folder, "last.zip"))).toBe(0);
  expect(readdirSync(folder).filter((name) => name.includes(".part-"))).toEqual([]);

  const all = await soundsIn(large);
  for (const from of [null, small]) {
    const lay = () => {
      rmSync(work, { recursive: true, force: true });
      if (from) cpSync(from, work, { recursive: true });
    };
    lay();
    const bringing = await timed(() => toItsEnd(work, "bring", file));
    const after = await soundsIn(work);
    expect(after.size).toBeGreaterThan(COUNT);
    for (let n = 0; n < MOMENTS; n++) {
      lay();
      const before = from ? await soundsIn(work) : null;
      await killAfter(begin(work, "bring", file), 150 + random() * bringing);
      // Before there is a library, there is nothing to be looked at.
      if (!existsSync(join(work, "diathesis.db"))) continue;
      const now = await findSounds(work);
      if (!now) {
        // Killed while it was made: nothing was in it, and it is made to its end by whoever comes next.
        expect(before).toBeNull();
        expect(await toItsEnd(work, "bring", file)).toBe(0);
        continue;
      }
      const isAll = now.size === after.size;
      const copies = [...now].filter((line) => line.includes('"Numbered ')).length;
      expect([0, COUNT]).toContain(copies);
      if (!isAll && before) expect(now).toEqual(before);
    }
    // And it goes on as if nothing had been.
    expect(await toItsEnd(work, "bring", file)).toBe(0);
    expect((await soundsIn(work)).size).toBe(after.size);
  }
  expect(all.size).toBeGreaterThan(COUNT);
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});
