import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { spawnServer } from "./server";

/*
 * The real process on a disk that is really full: a small one in memory, which only that process sees. It is filled with archives until
 * none fits any more.
 */

const PORT = 4796;
const SIZE = "10m";

/** A command within a view of the files of its own, in which a small disk lies at `folder`. */
const onSmallDisk = (folder: string, script: string): readonly [string, ...string[]] => [
  "unshare",
  "--map-root-user",
  "--mount",
  "sh",
  "-c",
  `mount -t tmpfs -o size=${SIZE} tmpfs "${folder}" && ${script}`,
];

interface Job {
  readonly id: string;
  readonly state: "running" | "done" | "failed";
  readonly error?: { readonly code: string; readonly message: string };
  readonly result?: { readonly kind: string };
}

const url = `http://127.0.0.1:${PORT}`;

async function ask<T>(method: string, path: string, body?: unknown): Promise<T & { error?: { code: string } }> {
  const answer = await fetch(url + path, {
    method,
    ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { "Content-Type": "application/json" } }),
  });
  return (await answer.json()) as T & { error?: { code: string } };
}

async function settled(begun: { job: Job }): Promise<Job> {
  for (;;) {
    const { job } = await ask<{ job: Job }>("GET", `/api/jobs/${begun.job.id}`);
    if (job.state !== "running") return job;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

const archive = async () => settled(await ask("POST", "/api/archive/files", { wish: { kind: "all" } }));
const files = async () =>
  (await ask<{ files: { name: string }[] }>("GET", "/api/archive")).files.map(({ name }) => name);
const remove = (name: string) => ask("DELETE", `/api/archive/files/${encodeURIComponent(name)}`);
const sounds = async () => (await ask<{ items: unknown[] }>("GET", "/api/presets?sort=name&limit=500")).items;

/** Archives until none fits any more; why the last did not. */
async function fillUp(): Promise<Job> {
  for (let n = 0; n < 200; n++) {
    const job = await archive();
    if (job.state === "failed") return job;
  }
  throw new Error("The disk is not full.");
}

const MISSING = "Nothing here may lay a disk of its own";
const canMount = () => {
  const folder = mkdtempSync(join(tmpdir(), "diathesis-disk-"));
  const [program, ...args] = onSmallDisk(folder, "true");
  const { status } = spawnSync(program, args);
  rmSync(folder, { recursive: true, force: true });
  return status === 0;
};

test("on a full disk an archive is not written, nothing comes in half, and all goes on once there is room", async () => {
  test.skip(!canMount(), MISSING);
  const demo = mkdtempSync(join(tmpdir(), "diathesis-demo-"));
  const folder = mkdtempSync(join(tmpdir(), "diathesis-full-"));
  execFileSync(process.execPath, [".build/demo.mjs", demo]);
  const command = onSmallDisk(folder, `cp -r "${demo}/." "${folder}" && exec "${process.execPath}" .build/server.mjs`);
  const { child } = await spawnServer(folder, PORT, {}, command);
  try {
    const before = await sounds();
    expect((await archive()).state).toBe("done");
    // Nothing of what was being written stays, and what lies there is whole.
    const { error } = await fillUp();
    expect(error?.message).toContain("The disk is full");
    expect(error).toMatchObject({ code: "diskFull" });
    const whole = await files();
    expect(whole.every((name) => name.endsWith(".zip"))).toBe(true);
    for (const name of whole) {
      const { incoming } = await ask<{ incoming: { id: string } }>("POST", "/api/incoming", { file: name });
      const compared = await settled(await ask("POST", `/api/incoming/${incoming.id}/comparison`));
      expect(compared.error, name).toBeUndefined();
      await ask("DELETE", `/api/incoming/${incoming.id}`);
    }
    expect(await sounds()).toEqual(before);

    // With room again it goes on; then everything is thrown away for good, and the disk is full once more.
    await remove(whole[0]!);
    await remove(whole[1]!);
    const { items } = await ask<{ items: { id: string; cardRevision: number; pack: string | null }[] }>(
      "GET",
      "/api/presets?sort=name&limit=500",
    );
    const changes = items
      .filter(({ pack }) => pack === null)
      .map(({ id, cardRevision }) => ({ id, baseCard: cardRevision, binned: true }));
    for (const done of [
      await ask("PATCH", "/api/presets", { changes }),
      await ask("DELETE", "/api/bin", { ids: null }),
    ])
      expect(done.error).toBeUndefined();
    const emptied = await sounds();
    expect(emptied.length).toBeLessThan(before.length);
    await fillUp();
    const left = await files();

    const bring = async () => {
      const { incoming } = await ask<{ incoming: { id: string } }>("POST", "/api/incoming", { file: left.at(-1)! });
      await settled(await ask("POST", `/api/incoming/${incoming.id}/comparison`));
      return settled(await ask("POST", `/api/incoming/${incoming.id}/bring`, { items: {}, groups: {} }));
    };
    const full = await bring();
    expect(full.error).toMatchObject({ code: "diskFull" });
    expect(await sounds()).toEqual(emptied);
    // What is done by hand is refused in words, too.
    for (const name of left.slice(0, -1)) await remove(name);
    expect((await bring()).result?.kind).toBe("brought");
    expect((await sounds()).length).toBe(before.length);
    expect((await archive()).state).toBe("done");
    const check = await settled(await ask("POST", "/api/archive/check"));
    expect(check.result).toMatchObject({ kind: "checked", checked: { faults: [] } });
  } finally {
    child.kill("SIGKILL");
    rmSync(demo, { recursive: true, force: true });
    rmSync(folder, { recursive: true, force: true });
  }
});
