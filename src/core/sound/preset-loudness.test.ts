import { describe, expect, it } from "vitest";
import { EMPTY_CHAIN } from "../chains/chain";
import { integratedLoudness } from "../dsp/measure/loudness";
import { getMaterial } from "../materials/material";
import { INCLUDED } from "../packs/included";
import { type Content, chainOf } from "../presets/preset";
import { CONTENT_SCHEMA } from "../presets/version";
import { MEASURED_ON, loudnessOf } from "./preset-loudness";

const included = (name: string): Content => INCLUDED.presets.find(({ card }) => card.name.startsWith(name))!.content;
const measured = (content: Content) => loudnessOf(content, () => Promise.resolve(null));
const NOTHING: Content = { kind: "chain", schema: CONTENT_SCHEMA, chain: EMPTY_CHAIN };

describe("the loudness of a preset", () => {
  it("is that of the material where nothing is done to it", async () => {
    const dry = integratedLoudness(await getMaterial(MEASURED_ON.material).make(MEASURED_ON.sampleRate));
    expect(await measured(NOTHING)).toBeCloseTo(dry, 6);
  });

  it("follows a gain dB for LU, as a plugin, in a chain and in a strip", async () => {
    const dry = (await measured(NOTHING))!;
    const plugin = included("Gain, six down");
    const chain: Content = { kind: "chain", schema: CONTENT_SCHEMA, chain: chainOf(plugin) };
    const strip: Content = { kind: "strip", schema: CONTENT_SCHEMA, strip: { kind: "audio", inserts: chain.chain } };
    for (const content of [plugin, chain, strip]) expect(await measured(content)).toBeCloseTo(dry - 6, 1);
  });

  it("is that of its phrase where an instrument plays it", async () => {
    const piano = INCLUDED.presets.find(
      ({ content }) => content.kind === "plugin" && content.processor.model === "electric-piano",
    )!;
    const dry = (await measured(NOTHING))!;
    const played = (await measured(piano.content))!;
    expect(played).toBeGreaterThan(-60);
    expect(Math.abs(played - dry)).toBeGreaterThan(0.1);
  });

  it("is none of silence, nor of several strips", async () => {
    expect(await measured(included("Tuner, silent"))).toBeNull();
    const set: Content = { kind: "set", schema: CONTENT_SCHEMA, strips: [] };
    expect(await measured(set)).toBeNull();
  });
});
