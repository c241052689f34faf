import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { WrapUp, WrapUpRequest } from "@/contracts/wrap-up";
import type { Processor } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { distanceBetween } from "@/core/library/near-copies";
import { fingerprint } from "@/core/presets/fingerprint";
import { emptyCard } from "@/core/presets/preset";
import { contentMeant } from "@/core/presets/meant";
import { isUnsaved, referenceOf } from "@/core/presets/standing";
import * as gestures from "@/core/recall/gestures";
import { findsIn } from "@/core/wrap-up/finds";
import { NEARLY } from "@/core/wrap-up/standing";
import { loadDemo } from "@/demo/load";
import type { OpenContext } from "../../store/context";
import { openContext } from "../../store/open";
import { refused, value } from "../../testing";
import { findVersion } from "../../repositories/presets";
import { findPresets } from "../find-presets";
import { getPreset } from "../library";
import { listFolders } from "../filing/folders";
import { walkLibrary } from "../filing/history";
import { changeProject } from "../projects/change";
import { getProject } from "../projects/read";
import { undoWrapUp, wrapUp } from "./file";
import { lookThrough } from "./look";

const ID = "salt-lanterns";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-wrap-up-"));
  context = await openContext(folder);
  await loadDemo(context);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const look = async (): Promise<WrapUp> => value(await lookThrough(context, ID));
const stored = async () => value(await getProject(context, ID));
const stripCalled = async (name: string) => (await stored()).project.strips.find(({ look }) => look.name === name)!;
const library = async () =>
  (await findPresets(context, { limit: 500, sort: "name" })).items.map(({ id, version, card }) => [id, version, card]);

/** Turns a value of the first plugin of a strip. */
async function turn(name: string, by: number): Promise<string> {
  const { revision } = await stored();
  const strip = await stripCalled(name);
  const [first] = processorsOf(strip.inserts) as [Processor];
  const [param, from] = Object.entries(first.values).find(([id]) => id.endsWith(".freq"))!;
  const steps = gestures.turn({ strip, mint: context.mint }, first.key, { [param]: (from as number) + by });
  value(await changeProject(context, ID, { baseRevision: revision, label: "Turn", steps: [...steps] }));
  return strip.id;
}

/** Files what is proposed, each under the name of what it is of; what came from a preset as the next version of that. */
const requestFor = ({ revision, finds, cards }: WrapUp, more: Partial<WrapUpRequest> = {}): WrapUpRequest => ({
  baseRevision: revision,
  file: finds
    .filter(({ isProposed }) => isProposed)
    .map(({ key, strip, standing }) => ({
      key,
      as:
        standing.is === "changed"
          ? { preset: standing.preset, baseVersion: standing.newest }
          : { card: { ...emptyCard(`Kept ${key}`), ...cards[strip] } },
    })),
  left: [],
  ...more,
});

describe("what a project has to be kept", () => {
  it("is all that findsIn says, and each stands to the library as it does", async () => {
    await turn("Voice", 0.5);
    const { project } = await stored();
    const { finds, last, cards } = await look();
    expect(last).toBeNull();
    expect(finds.map(({ key }) => key)).toEqual(findsIn(project).map(({ key }) => key));
    const all = new Map(findsIn(project).map((find) => [find.key, find]));
    for (const { key, standing, fingerprint: print, strip } of finds) {
      const find = all.get(key)!;
      expect(print).toBe(fingerprint(find.content));
      expect(cards[strip]?.origin.strip ?? "").toBe(project.strips.find(({ id }) => id === strip)!.look.name);
      if (standing.is === "new") continue;
      const { preset } = value(await getPreset(context, standing.preset));
      expect(standing.name).toBe(preset.card.name);
      if (standing.is === "changed") expect(standing.newest).toBe(preset.version);
    }
    const voice = finds.find(({ key }) => key === "chain voice")!;
    expect(voice.standing.is).toBe("changed");
    expect([voice.isProposed, voice.work.changes]).toEqual([true, 1]);
    expect(finds.filter(({ standing }) => standing.is === "kept").length).toBeGreaterThan(0);
  });

  it("says what is nearly there", async () => {
    const strip = await stripCalled("Voice");
    const preset = value(await getPreset(context, strip.inserts.from!.preset)).preset;
    await turn("Voice", 0.01);
    const { revision } = await stored();
    const now = await stripCalled("Voice");
    const { from: _, ...alone } = now.inserts;
    const steps = [...gestures.replaceInserts({ strip: now, mint: context.mint }, alone)];
    value(await changeProject(context, ID, { baseRevision: revision, label: "Let go", steps }));
    const voice = (await look()).finds.find(({ key }) => key === "chain voice")!;
    expect(voice.nearest?.preset).toBe(preset.id);
    const { content } = findsIn((await stored()).project).find(({ key }) => key === "chain voice")!;
    expect(voice.nearest!.distance).toBeCloseTo(distanceBetween(content, preset.content), 9);
    expect(voice.standing.is).toBe(voice.nearest!.distance <= NEARLY ? "near" : "new");
  });
});

describe("a wrap-up", () => {
  it("files all in one step, has the project go by it, and a second one has nothing to propose", async () => {
    await turn("Voice", 0.5);
    const looked = await look();
    const request = requestFor(looked, { newFolder: "Wrapped / Salt" });
    const { presets, revision, undo } = value(await wrapUp(context, ID, request));
    expect(presets).toHaveLength(request.file.length);
    expect(revision).toBe(looked.revision + 1);
    expect(undo).not.toBeNull();
    const again = await look();
    expect(again.undo).toEqual(undo);
    expect(again.finds.filter(({ isProposed }) => isProposed)).toEqual([]);
    for (const { key } of request.file)
      expect(again.finds.find((find) => find.key === key)?.standing.is, key).toBe("kept");
    const fresh = presets.filter(({ version }) => version === 1);
    const path = (await listFolders(context)).find(({ name }) => name === "Salt")!;
    expect(fresh.every(({ card }) => card.folder === path.id)).toBe(true);
    // The ledger says the same.
    for (const strip of (await stored()).project.strips) {
      const from = referenceOf(strip);
      if (!from || !request.file.some(({ key }) => key === `chain ${strip.id}`)) continue;
      const saved = (await findVersion(context.db, from.preset, from.version))!.content;
      expect(isUnsaved(strip, contentMeant(saved, from)), strip.id).toBe(false);
    }
  });

  it("is taken back in one step, in the library and in the project", async () => {
    await turn("Voice", 0.5);
    const before = { library: await library(), project: (await stored()).project };
    const folders = await listFolders(context);
    const { undo } = value(await wrapUp(context, ID, requestFor(await look(), { newFolder: "Wrapped" })));
    expect(await library()).not.toEqual(before.library);
    value(await undoWrapUp(context, ID, undo!));
    expect(await library()).toEqual(before.library);
    expect((await stored()).project).toEqual(before.project);
    expect(await listFolders(context)).toEqual(folders);
    expect(refused(await undoWrapUp(context, ID, undo!)).code).toBe("refused");
    expect(await look()).toMatchObject({ last: null, undo: null });
    // What was filed is found again by the way forward of the library.
    value(await walkLibrary(context, "redo"));
    expect((await library()).length).toBeGreaterThan(before.library.length);
  });

  it("remembers what was passed over, until it sounds otherwise", async () => {
    await turn("Voice", 0.5);
    const looked = await look();
    const proposed = looked.finds.filter(({ isProposed }) => isProposed);
    const request = { baseRevision: looked.revision, file: [], left: proposed.map((find) => find.fingerprint) };
    expect(value(await wrapUp(context, ID, request))).toMatchObject({ presets: [], undo: null });
    const again = await look();
    expect(again.last).not.toBeNull();
    expect(again.finds.filter(({ isProposed }) => isProposed)).toEqual([]);
    expect(again.finds.filter(({ wasLeft }) => wasLeft).length).toBeGreaterThanOrEqual(proposed.length);
    await turn("Voice", 0.25);
    const later = await look();
    expect(later.finds.filter(({ isProposed }) => isProposed).map(({ key }) => key)).toEqual(["chain voice"]);
  });

  it("that is refused has filed nothing", async () => {
    await turn("Voice", 0.5);
    const before = await library();
    const request = requestFor(await look());
    const asked = async (more: Partial<WrapUpRequest>) => refused(await wrapUp(context, ID, { ...request, ...more }));
    expect(await asked({ baseRevision: 0 })).toMatchObject({ code: "stale" });
    const [first] = request.file;
    const file = [...request.file, { key: "chain nobody", as: { card: emptyCard("Nobody") } }];
    expect(await asked({ file })).toEqual({ code: "refused", path: `file[${request.file.length}].key` });
    const nowhere = { ...emptyCard("Nowhere"), folder: "gone" };
    expect((await asked({ file: [first!, { key: first!.key, as: { card: nowhere } }] })).code).toBe("refused");
    expect(refused(await wrapUp(context, "nowhere", request)).code).toBe("notFound");
    expect(await library()).toEqual(before);
    expect((await look()).last).toBeNull();
  });
});
