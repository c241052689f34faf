import { beforeAll, describe, expect, it } from "vitest";
import { heardProcessor } from "../chains/heard-chain";
import { integratedLoudness } from "../dsp/measure/loudness";
import type { StereoSound } from "../dsp/stereo-sound";
import { getMaterial } from "../materials/material";
import { getModel } from "../processors/models";
import type { Values } from "../units/param-spec";
import { renderChain } from "./render";
import { savedWith, setTo } from "./testing";

/* Automatic make-up, of a compressor and of a drive: speech, drums with a cello, and a choir come out as loud as they went in. */

const RATE = 48_000;
const MATERIALS = ["drum-with-cello", "narrator", "choir"] as const;
/** In LU. */
const WITHIN = 1;
/** Values of `makeupMode`: of compressors, and of what has a drive. */
const AUTOMATIC = 2;
const AS_LOUD = 1;

let sounds: readonly { readonly id: string; readonly sound: StereoSound; readonly before: number }[] = [];

beforeAll(async () => {
  sounds = await Promise.all(
    MATERIALS.map(async (id) => {
      const sound = await getMaterial(id).make(RATE);
      return { id, sound, before: integratedLoudness(sound) };
    }),
  );
});

function holds(id: string, values: Values): void {
  const model = getModel(id);
  for (const { id: material, sound, before } of sounds) {
    const after = integratedLoudness(renderChain([heardProcessor(model, setTo(model, values))], sound));
    const told = `${material} through ${id} ${JSON.stringify(values)}`;
    expect.soft(Math.abs(after - before), told).toBeLessThanOrEqual(WITHIN);
  }
}

describe("as loud as before, within 1 LU", () => {
  it.each([
    ["vca-compressor", [2, 4]],
    ["opto-compressor", [2, 4]],
    ["fet-compressor", [4]],
  ] as const)("through the %s, at thresholds of −12 to −30 dB", (id, ratios) => {
    for (const threshold of [-12, -20, -30])
      for (const ratio of ratios) holds(id, { threshold, ratio, makeupMode: AUTOMATIC });
  });

  it.each([
    ["tape", { bump: 0 }],
    ["tube", {}],
    ["overdrive", { tight: 20, tone: 12_000 }],
    ["amplifier", { cabinet: 0 }],
  ] as const)("through the %s, without its filters, 0 to 15 dB of drive", (id, values) => {
    for (const drive of [0, 6, 12, 15]) holds(id, { ...values, drive, makeupMode: AS_LOUD });
  });

  it("is what a new drive opens with; where a document does not say, half is taken back as before", () => {
    const tube = getModel("tube");
    expect(tube.params.find(({ id }) => id === "makeupMode")).toMatchObject({ default: 1, absent: 0 });
    const [first] = sounds;
    const louder = integratedLoudness(
      renderChain([heardProcessor(tube, savedWith(tube, { drive: 12 }))], first!.sound),
    );
    expect(louder - first!.before).toBeGreaterThan(3);
  });
});
