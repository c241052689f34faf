import { chmodSync, mkdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { loadDemo } from "@/demo/load";
import { value } from "../../testing";
import { changeSettings, getSettings } from "../settings";
import { makeFolder } from "../filing/folders";
import { backUpWhenDue, lastBackup } from "./backups";
import { listFiles } from "./files";
import { checkFile } from "./take-file";
import { type Machine, startMachine } from "./testing";

let machine: Machine;
let now: Date;

/** The machine at some time, with its clock in hand. */
const at = (time: string) => {
  now = new Date(time);
  return { ...machine.context, now: () => now };
};

const backups = () =>
  listFiles(machine.context)
    .filter(({ kind }) => kind === "backup")
    .map(({ name }) => name)
    .toSorted();

const change = (name: string) => makeFolder(machine.context, { name, parent: null });

beforeEach(async () => {
  machine = await startMachine("2026-11-25T08:00:00.000Z");
  await loadDemo(machine.context);
});

afterEach(() => machine.close());

describe("Backups by the clock", () => {
  it("are made when one is due and something was changed, whole, and are thinned by the plan", async () => {
    expect(await backUpWhenDue(at("2026-11-01T20:00:00.000Z"))).toBe(true);
    expect(backups()).toEqual(["backup 2026-11-01T20.00.00.000Z.zip"]);
    expect(await checkFile(join(machine.folder, "backups", backups()[0]!))).toMatchObject({ problems: [] });
    await change("One");
    expect(await backUpWhenDue(at("2026-11-01T23:00:00.000Z"))).toBe(false);
    expect(await backUpWhenDue(at("2026-11-02T20:00:00.000Z"))).toBe(true);
    // Nothing was changed since.
    expect(await backUpWhenDue(at("2026-11-03T20:00:00.000Z"))).toBe(false);
    const { settings, revision } = await getSettings(machine.context);
    const plan = { every: "day" as const, days: 2, weeks: 0, months: 0 };
    value(await changeSettings(machine.context, { baseRevision: revision, settings: { ...settings, backups: plan } }));
    expect(await backUpWhenDue(at("2026-11-03T20:00:00.000Z"))).toBe(true);
    expect(backups()).toEqual(["backup 2026-11-02T20.00.00.000Z.zip", "backup 2026-11-03T20.00.00.000Z.zip"]);
    expect(lastBackup(machine.context)).toEqual({ at: "2026-11-03T20:00:00.000Z", failed: null });
  }, 60_000);

  it("are none where the plan says so", async () => {
    const { settings, revision } = await getSettings(machine.context);
    const plan = { ...settings.backups, every: "never" as const };
    value(await changeSettings(machine.context, { baseRevision: revision, settings: { ...settings, backups: plan } }));
    expect(await backUpWhenDue(at("2026-11-01T20:00:00.000Z"))).toBe(false);
    expect(backups()).toEqual([]);
  });

  it("that fail are told, leave nothing half, and are tried again", async () => {
    const silenced = vi.spyOn(console, "error").mockImplementation(() => undefined);
    // A file stands where the folder should be.
    writeFileSync(join(machine.folder, "backups"), "");
    expect(await backUpWhenDue(at("2026-11-01T20:00:00.000Z"))).toBe(true);
    expect(lastBackup(machine.context)).toMatchObject({
      at: "2026-11-01T20:00:00.000Z",
      failed: expect.any(String) as string,
    });
    rmSync(join(machine.folder, "backups"));
    mkdirSync(join(machine.folder, "backups"));
    chmodSync(join(machine.folder, "backups"), 0o755);
    expect(await backUpWhenDue(at("2026-11-01T20:10:00.000Z"))).toBe(true);
    expect(lastBackup(machine.context)).toEqual({ at: "2026-11-01T20:10:00.000Z", failed: null });
    expect(backups()).toHaveLength(1);
    silenced.mockRestore();
  });
});
