import { type HeardChain, heardProcessor } from "../chains/heard-chain";
import type { PhraseNote } from "../chains/heard-instrument";
import { createChainRuntime } from "../sound/chain/chain-runtime";
import { InstrumentRuntime } from "../sound/instrument/instrument-runtime";
import type { StereoSound } from "../dsp/stereo-sound";
import { heardValues } from "../processors/model";
import { getModel } from "../processors/models";
import type { Values } from "../units/param-spec";
import { beatsPerMinute } from "../units/quantities";

interface Player {
  readonly model: string;
  readonly values: Values;
  readonly notes: readonly PhraseNote[];
  readonly room?: readonly [model: string, values: Values];
}

const SECONDS = 8;
const TEMPO = beatsPerMinute(60);
const ALL = { low: 0, high: 127 };

/** A loop of eight seconds that our own instruments play: the second time round, so that nothing is cut at the seam. */
export function played(players: readonly Player[], sampleRate: number): StereoSound {
  const length = SECONDS * sampleRate;
  const [left, right] = [new Float32Array(2 * length), new Float32Array(2 * length)];
  for (const player of players) {
    const [own, other] = [new Float32Array(2 * length), new Float32Array(2 * length)];
    runtimeOf(player, sampleRate).addTo(own, other, 2 * length);
    if (player.room) createChainRuntime(roomOf(player.room), sampleRate).process(own, other, 2 * length);
    for (let i = 0; i < own.length; i++) {
      left[i]! += own[i]!;
      right[i]! += other[i]!;
    }
  }
  const loop = { left: left.slice(length), right: right.slice(length), sampleRate };
  return levelled(loop);
}

function runtimeOf({ model, values, notes }: Player, sampleRate: number): InstrumentRuntime {
  const layer = {
    key: model,
    model,
    enabled: true,
    values: heardValues(getModel(model), values, TEMPO),
    sample: null,
    keys: ALL,
    velocities: ALL,
    effects: [],
  };
  return new InstrumentRuntime(
    { layers: [layer], output: null, phrase: { seconds: SECONDS, notes } },
    new Map(),
    sampleRate,
  );
}

const roomOf = ([model, values]: readonly [string, Values]): HeardChain => [
  heardProcessor(getModel(model), heardValues(getModel(model), values, TEMPO)),
];

/** As loud at its peak as the other materials are. */
const PEAK = 0.5;

function levelled({ left, right, sampleRate }: StereoSound): StereoSound {
  let peak = 1e-9;
  for (let i = 0; i < left.length; i++) peak = Math.max(peak, Math.abs(left[i]!), Math.abs(right[i]!));
  const scaled = (samples: Float32Array) => samples.map((x) => (x * PEAK) / peak);
  return { left: scaled(left), right: scaled(right), sampleRate };
}

/** Notes as [seconds, length, key, velocity]. */
const notes = (...written: readonly (readonly [number, number, number, number])[]): readonly PhraseNote[] =>
  written.map(([at, seconds, note, velocity]) => ({ at, seconds, note, velocity }));

/** A slow tune over open fifths, the motor turning. */
export const vibraphone = (sampleRate: number): StereoSound =>
  played(
    [
      {
        model: "mallets",
        values: { bar: 0, hardness: 40, ring: 5, depth: 45, motor: 5.2 },
        notes: notes(
          [0, 1.6, 50, 84],
          [0, 1.6, 57, 78],
          [0, 0.7, 69, 96],
          [0.75, 0.6, 72, 80],
          [1.5, 1.2, 76, 92],
          [2.75, 0.6, 74, 74],
          [3.25, 0.6, 72, 70],
          [4, 1.6, 53, 84],
          [4, 1.6, 60, 76],
          [4, 1, 69, 94],
          [5, 0.5, 67, 72],
          [5.5, 0.5, 64, 78],
          [6, 1.5, 62, 90],
          [7, 0.8, 65, 70],
        ),
      },
    ],
    sampleRate,
  );

/** Eighths that a filter opens, a note off the beat now and then. */
export const modularBass = (sampleRate: number): StereoSound =>
  played(
    [
      {
        model: "bass-synth",
        values: { wave: 1, cutoff: 260, resonance: 55, sweep: 34, decay: 140, sustain: 20, release: 60, sub: 55 },
        notes: notes(
          ...Array.from({ length: 32 }, (_, n): [number, number, number, number] => {
            const keys = [38, 38, 50, 38, 41, 38, 45, 43];
            return [n * 0.25, n % 5 === 3 ? 0.2 : 0.11, keys[n % 8]! - (n >= 16 ? 4 : 0), 62 + ((n * 37) % 60)];
          }),
        ),
      },
    ],
    sampleRate,
  );

/** Four parts that come and go, far away. */
export const choir = (sampleRate: number): StereoSound =>
  played(
    [
      {
        model: "pad-synth",
        values: { detune: 55, width: 100, cutoff: 950, motion: 45, attack: 420, release: 700, sustain: 90 },
        notes: notes(
          [0, 3.6, 43, 80],
          [0, 3.6, 58, 84],
          [0.1, 3.5, 62, 78],
          [0.15, 1.7, 67, 88],
          [2, 1.6, 70, 84],
          [4, 3.6, 45, 80],
          [4, 3.6, 57, 84],
          [4.1, 3.5, 64, 76],
          [4.1, 1.7, 69, 90],
          [6, 1.6, 67, 80],
        ),
        room: ["room", { decay: 3, size: 150, wet: -4, dry: -3, predelay: 30 }],
      },
    ],
    sampleRate,
  );

/** Reeds that swell, close by, with the thump of the bellows. */
export const harmonium = (sampleRate: number): StereoSound =>
  played(
    [
      {
        model: "pad-synth",
        values: { detune: 12, width: 25, cutoff: 4200, motion: 10, attack: 60, decay: 900, sustain: 75, release: 90 },
        notes: notes(
          [0, 1.9, 50, 84],
          [0, 3.9, 57, 70],
          [0, 1.9, 65, 88],
          [2, 1.9, 48, 80],
          [2, 0.9, 64, 84],
          [3, 0.9, 62, 80],
          [4, 3.9, 46, 84],
          [4, 3.9, 53, 70],
          [4, 1.4, 62, 92],
          [5.5, 0.4, 60, 72],
          [6, 1.9, 58, 88],
        ),
      },
      {
        model: "drum-kit",
        values: { kickTune: 46, kickDecay: 180, kickClick: 8, level: -26 },
        notes: notes([0, 0.1, 36, 60], [2, 0.1, 36, 44], [4, 0.1, 36, 58], [6, 0.1, 36, 46]),
      },
    ],
    sampleRate,
  );
