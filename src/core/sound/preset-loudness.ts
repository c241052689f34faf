import { EMPTY_CHAIN } from "../chains/chain";
import { hearChain } from "../chains/hear";
import { keyMaterials } from "../chains/heard-chain";
import { integratedLoudness } from "../dsp/measure/loudness";
import type { StereoSound } from "../dsp/stereo-sound";
import { findMaterial, getMaterial } from "../materials/material";
import { asStrip } from "../presets/as-strip";
import { type Content, chainOf, isStrips } from "../presets/preset";
import { hearInstrument } from "../strips/hear-instrument";
import { beatsPerMinute } from "../units/quantities";
import type { HeardSound } from "./heard-sound";
import { playPhrase } from "./instrument/play-phrase";
import type { Sample } from "./instrument/voice";
import { renderSound } from "./render";

/** What sounds are measured on, each the same way, so that their figures can be held beside each other. */
export const MEASURED_ON = { material: "drum-with-cello", tempo: beatsPerMinute(120), sampleRate: 48_000 } as const;

const loops = new Map<string, Promise<StereoSound>>();

function loopOf(id: string): Promise<StereoSound> {
  const known = loops.get(id) ?? getMaterial(id).make(MEASURED_ON.sampleRate);
  loops.set(id, known);
  return known;
}

/** One sound by itself: an instrument with its phrase, effects on the material; null for what is several. */
function heardOf(content: Content): HeardSound | null {
  if (isStrips(content)) return null;
  const { source, inserts = EMPTY_CHAIN } = asStrip(content) ?? { inserts: chainOf(content) };
  return {
    chain: hearChain(inserts, MEASURED_ON.tempo),
    instrument: source ? hearInstrument(source, MEASURED_ON.tempo) : null,
  };
}

/**
 * The integrated loudness of a preset in LUFS (ITU-R BS.1770-4), over the second pass of the material or of its instrument's phrase, as
 * the listening bar measures it; null for silence, and for what is several sounds. `sampleOf`: the recording that has a hash.
 */
export async function loudnessOf(
  content: Content,
  sampleOf: (hash: string) => Promise<Sample | null>,
): Promise<number | null> {
  const heard = heardOf(content);
  if (!heard) return null;
  const keys = new Map<string, StereoSound>();
  for (const material of keyMaterials(heard.chain))
    if (findMaterial(material)) keys.set(material, await loopOf(material));
  const samples = new Map<string, Sample>();
  for (const { sample } of heard.instrument?.layers ?? []) {
    const recording = sample === null ? null : await sampleOf(sample);
    if (sample !== null && recording) samples.set(sample, recording);
  }
  const loop = await loopOf(MEASURED_ON.material);
  const lufs = integratedLoudness(renderSound(heard, { loop, samples, keys, play: playPhrase }));
  return Number.isFinite(lufs) ? lufs : null;
}
