import { describe, expect, it } from "vitest";
import { hearChain } from "../chains/hear";
import { mapProcessors, processorsOf } from "../chains/tree";
import { integratedLoudness } from "../dsp/measure/loudness";
import { truePeak } from "../dsp/measure/true-peak";
import { drumWithCello } from "../materials/drum-with-cello";
import { chainOf } from "../presets/preset";
import type { Processor } from "../chains/chain";
import { getModel } from "../processors/models";
import { renderChain } from "../sound/render";
import { beatsPerMinute } from "../units/quantities";
import { INCLUDED } from "./included";

/* What compresses or drives in the pack changes the sound, not how loud it is. */

const LOOP = drumWithCello(48_000);
const FOUR_SECONDS = 4 * 48_000;
const SOUND = { ...LOOP, left: LOOP.left.slice(0, FOUR_SECONDS), right: LOOP.right.slice(0, FOUR_SECONDS) };
const TEMPO = beatsPerMinute(96);
/** In LU. */
const WITHIN = 2;

const levels = ({ model, enabled }: Processor): boolean => {
  const { family, holdsLevels, limits } = getModel(model);
  return enabled && (family === "saturation" || (holdsLevels && !limits));
};

const PRESETS = INCLUDED.presets.flatMap(({ card, content }) => {
  const chain = chainOf(content);
  return processorsOf(chain).some(levels) ? [[card.name, chain] as const] : [];
});

describe("what compresses or drives in the pack", () => {
  it("is more than a few", () => expect(PRESETS.length).toBeGreaterThan(15));
  it.each(PRESETS)("leaves a drum with a cello as loud as without it: %s", (_, chain) => {
    const without = mapProcessors(chain, (p) => (levels(p) ? { ...p, enabled: false } : p));
    const sound = renderChain(hearChain(chain, TEMPO), SOUND);
    const before = integratedLoudness(renderChain(hearChain(without, TEMPO), SOUND));
    expect(Math.abs(integratedLoudness(sound) - before)).toBeLessThan(WITHIN);
    expect(truePeak(sound)).toBeLessThan(-1);
  });
});
