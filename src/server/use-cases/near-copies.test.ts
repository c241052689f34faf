import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { INCLUDED } from "@/core/packs/included";
import { emptyCard } from "@/core/presets/preset";
import type { FoundCopies } from "../near-copies/search";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { patiently, value } from "../testing";
import { patchCards } from "./filing/cards";
import { listFolders } from "./filing/folders";
import { savePreset } from "./library";
import { listNearCopies } from "./near-copies";

/* How a search that takes long is asked for, with one that goes as far as it is let. */

interface Running {
  readonly within: number;
  readonly signal: AbortSignal;
  readonly progress: (share: number) => void;
  readonly end: (found: FoundCopies) => void;
  readonly among: readonly string[] | null;
  readonly fail: (error: Error) => void;
}

let folder: string;
let context: OpenContext;
let searches: Running[];

beforeEach(async () => {
  searches = [];
  folder = mkdtempSync(join(tmpdir(), "diathesis-near-"));
  context = await openContext(folder, {
    runNearCopies: ({ within, among }, progress, signal) =>
      new Promise((end, fail) => searches.push({ within, among, signal, progress, end, fail })),
  });
});

afterEach(async () => {
  vi.useRealTimers();
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const { content } = INCLUDED.presets[0]!;
const save = async () =>
  value(await savePreset(context, { preset: { kind: content.kind, content, card: emptyCard("Rim") } })).id;

describe("a search for near copies", () => {
  it("tells how far it is while it is asked for, and then what it found, with no more of a group than can be shown", async () => {
    const ids: string[] = [];
    for (let n = 0; n < 25; n++) ids.push(await save());
    expect(await listNearCopies(context, { within: 0.01 })).toEqual({
      progress: 0,
      total: 0,
      compared: 0,
      groups: null,
    });
    searches[0]!.progress(0.4);
    expect((await listNearCopies(context, { within: 0.01 })).progress).toBe(0.4);
    searches[0]!.end({ groups: [{ ids, distance: 0 }], compared: 25 });
    const { total, compared, groups } = await listNearCopies(context, { within: 0.01 });
    expect([total, compared, groups![0]!.count, groups![0]!.copies.length]).toEqual([1, 25, 25, 20]);
    // Whoever wants one of them whole gets it, without another search.
    const [whole] = (await listNearCopies(context, { within: 0.01, whole: ids[3]! })).groups!;
    expect(whole!.copies.map(({ preset }) => preset.id)).toEqual(ids);
    // The same is not searched for again, until something has changed.
    expect(searches).toHaveLength(1);
    await save();
    expect((await listNearCopies(context, { within: 0.01 })).groups).toBeNull();
    expect(searches).toHaveLength(2);
  });

  it("ends when another is asked for, and when nobody asks any more", async () => {
    await listNearCopies(context, { within: 0.01 });
    await listNearCopies(context, { within: 0.1 });
    expect(searches.map((s) => [s.within, s.signal.aborted])).toEqual([
      [0.01, true],
      [0.1, false],
    ]);
    await patiently(() => expect(searches[1]!.signal.aborted).toBe(true));
  });

  it("that is overtaken by a change is asked for anew; that is no breakdown", async () => {
    const early = listNearCopies(context, { within: 0.01 });
    await patiently(() => expect(searches).toHaveLength(1));
    searches[0]!.signal.addEventListener("abort", () => searches[0]!.fail(new Error("aborted")));
    await save();
    const late = listNearCopies(context, { within: 0.01 });
    expect(await early).toEqual({ progress: 0, total: 0, compared: 0, groups: null });
    expect((await late).groups).toBeNull();
    expect(searches).toHaveLength(2);
  });

  it("that breaks down says so, and the next one begins anew", async () => {
    await listNearCopies(context, { within: 0 });
    searches[0]!.fail(new Error("out of memory"));
    await expect(listNearCopies(context, { within: 0 })).rejects.toThrow("out of memory");
    expect((await listNearCopies(context, { within: 0 })).groups).toBeNull();
    expect(searches).toHaveLength(2);
  });

  it("keeps to a folder with all below it, or to those that were chosen", async () => {
    const [inside, deep, beside] = [await save(), await save(), await save()] as const;
    const move = (id: string, newFolder: string) => patchCards(context, { changes: [{ id, baseCard: 1 }], newFolder });
    value(await move(inside, "Voices"));
    value(await move(deep, "Voices / Lead"));
    const voices = (await listFolders(context)).find(({ name }) => name === "Voices")!;
    await listNearCopies(context, { folder: voices.id });
    await listNearCopies(context, { ids: [deep, beside] });
    await listNearCopies(context, {});
    expect(searches.map(({ among }) => among?.toSorted() ?? null)).toEqual([
      [inside, deep].toSorted(),
      [deep, beside].toSorted(),
      null,
    ]);
  });
});
