import { expose, transfer } from "comlink";
import { keyMaterials } from "@/core/chains/heard-chain";
import type { HeardSound } from "@/core/sound/heard-sound";
import type { Sample } from "@/core/sound/instrument/voice";
import type { Peaks } from "@/core/sound/peaks";
import type { Measurement } from "@/core/dsp/measure/measure";
import type { StereoSound } from "@/core/dsp/stereo-sound";
import { findMaterial } from "@/core/materials/material";
import { type LoopPicture, pictureOf } from "@/core/materials/outline";
import { type Stretch, cutStretch } from "@/core/materials/stretch";

/** Made or fetched once for each rate and kept: a loop is the same samples each time. */
const loops = new Map<string, Promise<StereoSound>>();
const recordings = new Map<string, Promise<StereoSound>>();

/** What a material of one's own is called: its hash behind this. */
const OWN = "own:";

/** Processors come with the first sound that goes through some. */
const renderer = () => import("@/core/sound/render");

/** Meters come with the first measurement. */
const meters = () => import("@/core/dsp/measure/measure");

/** Files, and other rates, come with the first sound of one's own. */
const wavFormat = () => import("@/core/formats/wav/wav");
const rates = () => import("@/core/dsp/resample");

async function fetchRecording(hash: string): Promise<StereoSound> {
  const response = await fetch(`/api/media/${hash}`);
  const { readWav } = await wavFormat();
  const sound = response.ok ? readWav(new Uint8Array(await response.arrayBuffer())) : null;
  if (!sound?.ok) throw new Error("This sound cannot be read any more.");
  return sound.value;
}

function recordingOf(hash: string): Promise<StereoSound> {
  const known = recordings.get(hash);
  if (known) return known;
  const coming = fetchRecording(hash);
  recordings.set(hash, coming);
  // What did not come may come another time.
  coming.catch(() => recordings.delete(hash));
  return coming;
}

async function makeLoop(material: string, sampleRate: number): Promise<StereoSound> {
  if (material.startsWith(OWN)) {
    const { resample } = await rates();
    return resample(await recordingOf(material.slice(OWN.length)), sampleRate);
  }
  const known = findMaterial(material);
  if (!known) throw new Error("This material is not here.");
  return known.make(sampleRate);
}

function loopOf(material: string, sampleRate: number): Promise<StereoSound> {
  const name = `${material} ${sampleRate}`;
  const known = loops.get(name);
  if (known) return known;
  const coming = makeLoop(material, sampleRate);
  loops.set(name, coming);
  coming.catch(() => loops.delete(name));
  return coming;
}

/** All that a sound needs beside itself: the materials that key it, the recordings that its samplers play. */
async function around(sound: HeardSound, sampleRate: number) {
  const keys = new Map<string, StereoSound>();
  for (const material of keyMaterials(sound.chain))
    keys.set(material, await loopOf(material, sampleRate).catch(() => silence(sampleRate)));
  const samples = new Map<string, Sample>();
  for (const { sample } of sound.instrument?.layers ?? [])
    if (sample !== null) {
      const recording = await recordingOf(sample).catch(() => null);
      if (recording) samples.set(sample, recording);
    }
  // Instruments come with the first of them.
  const play = sound.instrument ? (await import("@/core/sound/instrument/play-phrase")).playPhrase : null;
  return { keys, samples, play };
}

const silence = (sampleRate: number): StereoSound => ({
  left: new Float32Array(sampleRate),
  right: new Float32Array(sampleRate),
  sampleRate,
});

/** What goes round: a material, or a stretch of it. */
interface Round {
  readonly material: string;
  readonly stretch: Stretch | null;
  readonly sampleRate: number;
}

async function measureAnew({ material, stretch, sampleRate }: Round, sound: HeardSound | null): Promise<Measurement> {
  const loop = cutStretch(await loopOf(material, sampleRate), stretch);
  const { measure } = await meters();
  if (!sound) return measure(loop);
  const { renderSound } = await renderer();
  return measure(renderSound(sound, { loop, ...(await around(sound, sampleRate)) }));
}

/** What was measured stays true: A and B are often the same, and one steps back and forth through a list. */
const measured = new Map<string, Measurement>();
const REMEMBERED = 60;

const service = {
  /** The loop itself, to be handed to the audio thread. Rejects where there is none. */
  async makeLoop(material: string, sampleRate: number) {
    const { left, right } = await loopOf(material, sampleRate);
    const copy = { left: left.slice(), right: right.slice() };
    return transfer(copy, [copy.left.buffer, copy.right.buffer]);
  },

  /** A loop as it is drawn, or the phrase of the instrument of a sound. Rejects where there is none. */
  async picture(material: string, sampleRate: number, sound: HeardSound | null): Promise<LoopPicture> {
    if (!sound?.instrument) return pictureOf(await loopOf(material, sampleRate));
    const alone: HeardSound = { chain: [], instrument: sound.instrument };
    const { renderSound } = await renderer();
    return pictureOf(renderSound(alone, { loop: silence(sampleRate), ...(await around(alone, sampleRate)) }));
  },

  /** A recording at its own rate. Rejects where it is gone. */
  async makeSample(hash: string) {
    const { left, right, sampleRate } = await recordingOf(hash);
    const copy = { left: left.slice(), right: right.slice(), sampleRate };
    return transfer(copy, [copy.left.buffer, copy.right.buffer]);
  },

  /** What the loop measures through a sound, its tail come round; null for the loop as it is. */
  async measureLoop(round: Round, sound: HeardSound | null): Promise<Measurement> {
    const asked = JSON.stringify([round, sound]);
    const known = measured.get(asked);
    if (known) return known;
    const found = await measureAnew(round, sound);
    measured.set(asked, found);
    const [oldest] = measured.keys();
    if (measured.size > REMEMBERED && oldest !== undefined) measured.delete(oldest);
    return found;
  },

  /** What of the loop reaches each plugin of a sound, and what leaves it. */
  async peaksOf(round: Round, sound: HeardSound): Promise<Peaks> {
    const loop = cutStretch(await loopOf(round.material, round.sampleRate), round.stretch);
    const { peaksOf } = await import("@/core/sound/peaks");
    return peaksOf(sound, { loop, ...(await around(sound, round.sampleRate)) });
  },

  /** Milliseconds that a second of the loop costs, for each of some sounds: the best of a few goes. */
  async costOf(material: string, sampleRate: number, sounds: readonly HeardSound[]): Promise<readonly number[]> {
    const loop = await loopOf(material, sampleRate);
    const costs: number[] = [];
    const { renderSound } = await renderer();
    for (const sound of sounds) {
      const beside = await around(sound, sampleRate);
      let best = Number.POSITIVE_INFINITY;
      for (let go = 0; go < 3; go++) {
        const begin = performance.now();
        const rendered = renderSound(sound, { loop, ...beside });
        best = Math.min(best, ((performance.now() - begin) * sampleRate) / (2 * rendered.left.length));
      }
      costs.push(best);
    }
    return costs;
  },

  /** A sound as the file that is kept. */
  async encode(left: Float32Array, right: Float32Array, sampleRate: number) {
    const { writeWav24 } = await wavFormat();
    const bytes = Uint8Array.from(writeWav24({ left, right, sampleRate }));
    return transfer(bytes, [bytes.buffer]);
  },
};

export type SoundService = typeof service;

expose(service);
