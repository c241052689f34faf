import { randomBytes } from "node:crypto";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { writeWav } from "@/core/formats/wav/wav";
import { loadDemo } from "@/demo/load";
import { inTransaction } from "../store/transaction";
import { value } from "../testing";
import { backUp } from "../use-cases/archive/backups";
import { mendFaults } from "../use-cases/archive/check";
import { type Machine, differences, everythingIn, startMachine } from "../use-cases/archive/testing";
import { keepMedia } from "../use-cases/media";
import { type Fault, checkLibrary } from "./check";

let machine: Machine;

beforeEach(async () => {
  machine = await startMachine("2026-11-25T08:00:00.000Z");
  await loadDemo(machine.context);
  const bell = Float32Array.from({ length: 480 }, (_, n) => Math.sin(n / 9) / 4);
  value(await keepMedia(machine.context, "Bell", writeWav({ left: bell, right: bell, sampleRate: 48_000 })));
  await backUp(machine.context);
});

afterEach(() => machine.close());

const check = (): readonly Fault[] => checkLibrary({ folder: machine.folder }, () => undefined).faults;

/** Spoils something in the file itself, as a fault of the disk or another program would. */
const spoil = (sql: string, ...values: readonly (string | number | Buffer)[]): Promise<unknown> =>
  inTransaction(machine.context, (tx) => tx.raw(sql, [...values]));

/** What is found; then it is mended as it says, and all is as it was. */
async function mended(before: Record<string, readonly string[]>): Promise<readonly string[]> {
  const faults = check();
  const { left } = value(await mendFaults(machine.context, [...faults]));
  expect(left).toEqual([]);
  expect(check()).toEqual([]);
  expect(differences(everythingIn(machine.folder), before)).toEqual([]);
  return faults.map(({ name, what }) => `${name}: ${what}`);
}

describe("a library as it should be", () => {
  it("has no faults, and says how far the look is", () => {
    const heard: number[] = [];
    const { faults, counts } = checkLibrary({ folder: machine.folder }, (done, of) => heard.push(done / of));
    expect(faults).toEqual([]);
    expect(counts.sounds).toBeGreaterThan(80);
    expect(counts.media).toBe(1);
    expect(heard.at(-1)).toBe(1);
    expect(heard).toEqual(heard.toSorted((a, b) => a - b));
  });
});

describe("what is derived", () => {
  it.each([
    [
      "a fingerprint",
      "UPDATE preset_versions SET fingerprint = '2:00' WHERE preset = 'air-only-just' AND version = 1",
      /fingerprint of version 1/,
    ],
    [
      "what it is found by",
      'UPDATE presets SET inside = \'{"names":[],"models":[],"families":[],"makers":[]}\' WHERE id = \'air-only-just\'',
      /found by something else/,
    ],
    ["where it lies", "UPDATE presets SET folder = NULL WHERE id = 'air-only-just'", /elsewhere than its card/],
    ["which strips use what", "DELETE FROM uses WHERE project = 'salt-lanterns'", /other sounds than its strips/],
    [
      "which sounds hold which",
      "DELETE FROM preset_holds WHERE preset IN (SELECT row FROM presets WHERE id = 'choir-in-four')",
      /found by something else/,
    ],
    [
      "the index of words",
      "DELETE FROM preset_search WHERE rowid = (SELECT row FROM presets WHERE id = 'air-only-just')",
      /in the index of words/,
    ],
  ])("is found to be wrong, and made anew: %s", async (_, sql, words) => {
    const before = everythingIn(machine.folder);
    await spoil(sql);
    const told = await mended(before);
    expect(told).toHaveLength(1);
    expect(told[0]).toMatch(words);
  });
});

describe("what cannot be read", () => {
  it("is taken from the newest backup that has the same sound", async () => {
    const before = everythingIn(machine.folder);
    const document = "(SELECT document FROM preset_versions WHERE preset = 'air-only-just' AND version = 1)";
    await spoil(`UPDATE documents SET body = substr(body, 1, 40) WHERE id = ${document}`);
    expect(await mended(before)).toEqual([
      "Air, only just: Version 1 cannot be read: it is no whole document any more.",
    ]);
  });

  it("is taken from a backup where it is a sound file that is another than it says, or is gone", async () => {
    const before = everythingIn(machine.folder);
    await spoil("UPDATE media SET bytes = ?", randomBytes(400));
    expect(await mended(before)).toEqual(["Bell: It is not the sound that it is kept as."]);
  });

  it("stays, and is said so, where no backup has it; nothing is thrown away", async () => {
    await spoil("UPDATE documents SET body = '{}' WHERE id IN (SELECT document FROM projects WHERE id = 'neap-tide')");
    await spoil("UPDATE presets SET card = json_set(card, '$.folder', 'nowhere') WHERE id = 'air-only-just'");
    await spoil("UPDATE projects SET revision = 3 WHERE id = 'salt-lanterns'");
    const faults = check();
    expect(faults.map(({ what }) => what)).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/^It cannot be read: /),
        "A folder that it lies in is not there.",
        "It speaks of 3 changes, and its past has 0.",
      ]),
    );
    const left = faults.filter(({ mend }) => mend === null);
    const before = everythingIn(machine.folder);
    const mend = value(await mendFaults(machine.context, left));
    expect(mend.mended).toBe(0);
    expect(mend.left).toHaveLength(left.length);
    expect(differences(everythingIn(machine.folder), before)).toEqual([]);
  });
});
