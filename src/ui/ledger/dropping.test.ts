import { describe, expect, it } from "vitest";
import type { Content } from "@/core/presets/preset";
import { saveChain, saveStrip } from "@/core/presets/save";
import { groupOf } from "@/core/projects/nesting";
import { getStrip } from "@/core/projects/project";
import { processorsOf } from "@/core/chains/tree";
import { applySteps } from "@/core/recall/apply";
import { moveStrips } from "@/core/recall/arrange";
import { counter } from "@/core/recall/testing/generators";
import { DEMO_PROJECTS } from "@/demo/projects";
import { type Under, dropWords, isLit, rowDrop, soundDrop } from "./dropping";

const PROJECT = DEMO_PROJECTS[0]![1];
const under = (strip: string, more: Partial<Under> = {}): Under => ({
  strip,
  column: null,
  at: 0.5,
  tile: null,
  ...more,
});

const VOICE = getStrip(PROJECT, "voice");
const STRIP: Content = saveStrip(PROJECT, VOICE, ["inserts", "sends", "level"]);
const CHAIN: Content = saveChain(VOICE.inserts);
const PLUGIN: Content = { kind: "plugin", schema: 1, processor: processorsOf(VOICE.inserts)[0]! };
const tiles = processorsOf(VOICE.inserts).map(({ key }) => key);

describe("a sound that is dragged over the rows", () => {
  it("is for all that it holds on a strip's name, and for one part on its cell, where it holds that", () => {
    const name = soundDrop(PROJECT, [], under("cello", { column: "look" }), STRIP);
    expect(name).toEqual({ onto: "strips", strips: ["cello"], parts: ["inserts", "sends", "level"] });
    expect(isLit(name, "cello", "sends")).toBe(true);
    expect(isLit(name, "cello", "pan")).toBe(false);
    expect(isLit(name, "voice", "sends")).toBe(false);
    const level = soundDrop(PROJECT, [], under("cello", { column: "level" }), STRIP);
    expect(level).toMatchObject({ parts: ["level"] });
    expect(dropWords(PROJECT, level!, ["inserts", "sends", "level"])).toBe("to the level of Cello");
    expect(soundDrop(PROJECT, [], under("cello", { column: "pan" }), STRIP)).toBeNull();
    expect(soundDrop(PROJECT, [], under("cello", { column: "level" }), CHAIN)).toBeNull();
  });

  it("is for all that are chosen over one of them, and for that alone over another", () => {
    const chosen = ["cello", "voice"];
    expect(soundDrop(PROJECT, chosen, under("voice"), STRIP)).toMatchObject({ strips: chosen });
    expect(soundDrop(PROJECT, chosen, under("harmonium"), STRIP)).toMatchObject({ strips: ["harmonium"] });
  });

  it("takes the place of a plugin on its tile, goes between tiles at their edges, and makes a strip between rows", () => {
    const at = (across: number, content: Content, n = 1) =>
      soundDrop(PROJECT, [], under("voice", { column: "inserts", tile: { key: tiles[n]!, across } }), content);
    expect(at(0.5, PLUGIN)).toEqual({ onto: "slot", strip: "voice", slot: { on: tiles[1] } });
    expect(at(0.1, PLUGIN)).toEqual({ onto: "slot", strip: "voice", slot: { after: tiles[0] } });
    expect(at(0.1, PLUGIN, 0)).toEqual({ onto: "slot", strip: "voice", slot: { after: null } });
    expect(at(0.9, CHAIN)).toEqual({ onto: "slot", strip: "voice", slot: { after: tiles[1] } });
    expect(at(0.5, CHAIN)).toMatchObject({ onto: "strips", parts: ["inserts"] });
    expect(at(0.9, STRIP)).toMatchObject({ onto: "strips", parts: ["inserts"] });
    expect(soundDrop(PROJECT, [], under("voice", { at: 0.05 }), CHAIN)).toMatchObject({
      onto: "between",
      below: false,
    });
    expect(soundDrop(PROJECT, [], under("voice", { at: 0.95 }), CHAIN)).toMatchObject({ onto: "between", below: true });
  });
});

describe("rows that are dragged among rows", () => {
  const moved = (ids: readonly string[], over: Under) => {
    const drop = rowDrop(PROJECT, ids, over);
    const steps = drop && moveStrips(PROJECT, ids, drop.place, counter());
    const after = steps?.ok ? applySteps(PROJECT, steps.value) : null;
    if (!after?.ok) throw new Error("It cannot be moved there");
    return after.value;
  };
  const order = (ids: readonly string[], over: Under) => moved(ids, over).strips.map(({ id }) => id);

  it("come to stand before or behind a row, in the group in which that stands", () => {
    const behind = order(["voice"], under("cello", { at: 0.9 }));
    expect(behind.indexOf("voice")).toBe(behind.indexOf("cello") + 1);
    const project = moved(["voice"], under("cello", { at: 0.9 }));
    expect(groupOf(project, getStrip(project, "voice"))?.id).toBe("strings");
    const before = order(["voice"], under("cello", { at: 0.1 }));
    expect(before.indexOf("voice")).toBe(before.indexOf("cello") - 1);
    const out = moved(["cello"], under("harmonium", { at: 0.1 }));
    expect(groupOf(out, getStrip(out, "cello"))).toBeNull();
  });

  it("go into a group in the middle of its row, and below it as the first of its members", () => {
    const inside = moved(["voice"], under("drum", { at: 0.5 }));
    expect(groupOf(inside, getStrip(inside, "voice"))?.id).toBe("drum");
    const first = order(["voice"], under("drum", { at: 0.9 }));
    expect(first.indexOf("voice")).toBe(first.indexOf("drum-close") - 1);
  });

  it("go nowhere over themselves", () => {
    expect(rowDrop(PROJECT, ["voice", "cello"], under("cello"))).toBeNull();
  });
});
