import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { INCLUDED } from "@/core/packs/included";
import { type Content, emptyCard } from "@/core/presets/preset";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { value } from "../testing";
import { findPresets } from "../use-cases/find-presets";
import { savePresets, saveVersion } from "../use-cases/library";
import { keepMeasured } from "./keep";
import { measureSome } from "./measure";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-loudness-"));
  context = await openContext(folder);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const included = (name: string): Content => INCLUDED.presets.find(({ card }) => card.name.startsWith(name))!.content;
const save = async (sounds: Readonly<Record<string, string>>) =>
  value(
    await savePresets(context, {
      presets: Object.entries(sounds).map(([name, like]) => {
        const content = included(like);
        return { kind: content.kind, content, card: emptyCard(name) };
      }),
    }),
  );
const measure = () => measureSome({ folder, rest: 0 });
const namesOf = async (asked: Parameters<typeof findPresets>[1]) =>
  (await findPresets(context, asked)).items.map(({ card }) => card.name);

it("measures what is not measured, tells of it, and finds and orders sounds by it", async () => {
  await save({ quiet: "Gain, six down", same: "Parametric EQ, four", twin: "Gain, six down", silent: "Tuner, silent" });
  expect(await namesOf({ q: "loudness:*" })).toEqual([]);
  const told: string[] = [];
  context.events.on("change", ({ records }) => told.push(...records.map(({ id }) => id)));
  const measured = await measure();
  // What sounds the same is measured once.
  expect(measured.map(({ lufs }) => lufs?.toFixed(0) ?? null).toSorted()).toEqual(["-18", "-24", null]);
  await keepMeasured(context, measured);
  expect(new Set(told).size).toBe(4);
  expect(await namesOf({ q: "loudness:-25..-20", sort: "name" })).toEqual(["quiet", "twin"]);
  expect(await namesOf({ q: "loudness:>-20LUFS" })).toEqual(["same"]);
  expect(await namesOf({ q: "-loudness:*" })).toEqual(["silent"]);
  expect((await namesOf({ sort: "loudness" })).map((name) => (name === "twin" ? "quiet" : name))).toEqual([
    "same",
    "quiet",
    "quiet",
    "silent",
  ]);
  const [same] = (await findPresets(context, { q: "name:same" })).items;
  expect(same!.loudness).toBeCloseTo(-18.3, 1);
  expect(await measure()).toEqual([]);
});

it("measures a new version; the figure of the one before goes with it", async () => {
  const [saved] = await save({ sound: "Gain, six down" });
  await keepMeasured(context, await measure());
  value(await saveVersion(context, saved!.id, { content: included("Parametric EQ, four"), baseVersion: 1 }));
  expect(await namesOf({ q: "loudness:*" })).toEqual([]);
  await keepMeasured(context, await measure());
  expect(await namesOf({ q: "loudness:-19..-18" })).toEqual(["sound"]);
});

it("does not fail on one that cannot be read, nor ask for it again", async () => {
  const [broken] = await save({ broken: "Gain, six down", sound: "Parametric EQ, four" });
  const { document } = (await context.db("preset_versions").where({ preset: broken!.id }).first("document"))!;
  await context.writer("documents").where({ id: document }).update({ body: "{" });
  const said = vi.spyOn(console, "error").mockImplementation(() => undefined);
  await keepMeasured(context, await measure());
  expect(said).toHaveBeenCalledOnce();
  expect(await namesOf({ q: "loudness:*" })).toEqual(["sound"]);
  expect(await measure()).toEqual([]);
});
