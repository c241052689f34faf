import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { INCLUDED } from "@/core/packs/included";
import { emptyCard } from "@/core/presets/preset";
import { value } from "../testing";
import { listCards, patchCards } from "../use-cases/filing/cards";
import { libraryHistory, walkLibrary } from "../use-cases/filing/history";
import { findPresets } from "../use-cases/find-presets";
import { savePresets } from "../use-cases/library";
import type { OpenContext } from "./context";
import { openContext } from "./open";
import { forWindow } from "./window";
import { stopWork, workUnderWay } from "./work";

const HERE = "abcdefgh-1234";
const THERE = "abcdefgh-5678";
/** So many that it takes more than one turn. */
const MANY = 600;

let folder: string;
let context: OpenContext;
let ids: readonly string[];

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-work-"));
  context = await openContext(folder);
  const { content } = INCLUDED.presets[0]!;
  const presets = Array.from({ length: MANY }, (_, n) => ({
    kind: content.kind,
    content,
    card: emptyCard(`Take ${n}`),
  }));
  ids = value(await savePresets(context, { presets })).map(({ id }) => id);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const turn = () => new Promise((resolve) => setImmediate(resolve));
const rateAll = () =>
  forWindow(HERE, () =>
    patchCards(context, { changes: ids.map((id) => ({ id, baseCard: 1, card: { rating: 4 } })), label: "Rate all" }),
  );

/** Waits until work of the window is under way, and a part of it is done. */
async function underWay(window: string): Promise<{ done: number; of: number }> {
  for (;;) {
    const work = forWindow(window, workUnderWay);
    if (work && work.done > 0) return work;
    await turn();
  }
}

describe("long work", () => {
  it("tells the window that asked for it how far it is, and no other", async () => {
    expect(forWindow(HERE, workUnderWay)).toBeNull();
    const rated = rateAll();
    const { done, of } = await underWay(HERE);
    expect(of).toBe(MANY);
    expect(done).toBeLessThanOrEqual(MANY);
    expect(forWindow(THERE, workUnderWay)).toBeNull();
    expect(forWindow(THERE, stopWork)).toBe(false);
    expect(value(await rated)).toHaveLength(MANY);
    expect(forWindow(HERE, workUnderWay)).toBeNull();
    expect((await findPresets(context, { q: "rating:4" })).total).toBe(MANY);
  });

  it("that is stopped has left nothing: no card, no entry of the history, nothing that is found", async () => {
    const before = await libraryHistory(context);
    const rated = rateAll();
    await underWay(HERE);
    expect(forWindow(HERE, stopWork)).toBe(true);
    const outcome = await rated;
    expect(outcome.ok ? "" : outcome.error.message).toBe("It was stopped. Nothing was changed.");
    const cards = await listCards(context, ids);
    expect(cards.every(({ card, cardRevision }) => card.rating === 0 && cardRevision === 1)).toBe(true);
    expect(await libraryHistory(context)).toEqual(before);
    expect((await findPresets(context, { q: "rating:4" })).total).toBe(0);
    // What is begun next is not stopped by that.
    expect(value(await rateAll())).toHaveLength(MANY);
  });

  it("is an undo, too: stopped, all stands as it did, and it can be asked for again", async () => {
    value(await rateAll());
    const undone = forWindow(HERE, () => walkLibrary(context, "undo"));
    await underWay(HERE);
    forWindow(HERE, stopWork);
    expect((await undone).ok).toBe(false);
    expect((await findPresets(context, { q: "rating:4" })).total).toBe(MANY);
    value(await walkLibrary(context, "undo"));
    expect((await findPresets(context, { q: "rating:4" })).total).toBe(0);
  });
});
