import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type HeardChain, heardProcessor } from "../../src/core/chains/heard-chain";
import { createChainRuntime } from "../../src/core/sound/chain/chain-runtime";
import { integratedLoudness } from "../../src/core/dsp/measure/loudness";
import { truePeak } from "../../src/core/dsp/measure/true-peak";
import type { StereoSound } from "../../src/core/dsp/stereo-sound";
import { writeWav } from "../../src/core/formats/wav/wav";
import { resample } from "../../src/core/dsp/resample";
import { drumWithCello } from "../../src/core/materials/drum-with-cello";
import { findSpec } from "../../src/core/processors/model";
import { EFFECTS, getModel } from "../../src/core/processors/models";
import type { Values } from "../../src/core/units/param-spec";
import { noise, setTo, sine } from "../../src/core/sound/testing";
import { type Figure, median } from "./figure";

const RATE = 48_000;
const BLOCK = 128;

/** Settings that ring for as long as they can, where the ends of the ranges do not. */
const LONGEST: Readonly<Record<string, Values>> = {
  "parametric-eq": {
    "band1.used": 1,
    "band1.freq": 20,
    "band1.q": 18,
    "band1.slope": 48,
    "band3.used": 1,
    "band3.gain": 24,
    "band3.q": 18,
    "band4.used": 1,
    "band4.gain": -24,
  },
  "multitap-delay": { "tap1.time": 4000, "tap2.on": 1, "tap2.time": 11, feedback: 95, damping: 200 },
  echo: { left: 4000, right: 11, feedback: 95, damping: 500 },
};
const RINGING: Values = { decay: 20, feedback: 90, release: 2000 };

/** Every processor at its longest: silence after sound must cost no more than sound. */
const WORST: readonly [model: string, values: Values][] = EFFECTS.map((model) => [
  model.id,
  {
    ...Object.fromEntries(Object.entries(RINGING).filter(([id]) => findSpec(model, id))),
    ...LONGEST[model.id],
  },
]);

/** Seconds of noise, then of silence, as often as that. */
const SOUNDING = 3;
const TAIL = 20;
const ROUNDS = 4;
/** A machine that is busy with something else gets more of them, before a model is said to be over. */
const MOST_ROUNDS = 16;
const TAIL_GOAL = 1.2;

/** Time of the slowest second of silence after sound ÷ the median second of noise, for the worst processor. */
export function silentTail(): Figure {
  const ratios = WORST.map(([model, values]) => {
    const chain: HeardChain = [heardProcessor(getModel(model), setTo(getModel(model), values))];
    const runtime = createChainRuntime(chain, RATE);
    // Nothing is allocated while it is timed: a collection would be taken for a slow second.
    const [left, right] = [new Float32Array(RATE), new Float32Array(RATE)];
    const blocks = Array.from({ length: RATE / BLOCK }, (_, n) =>
      [left, right].map((s) => s.subarray(n * BLOCK, (n + 1) * BLOCK)),
    );
    const second = (sound: StereoSound): number => {
      left.set(sound.left);
      right.set(sound.right);
      const begin = performance.now();
      for (const [l, r] of blocks) runtime.process(l!, r!, BLOCK);
      return performance.now() - begin;
    };
    const loud = noise(1, RATE);
    const silent: StereoSound = { left: new Float32Array(RATE), right: new Float32Array(RATE), sampleRate: RATE };
    const round = () => ({
      sounding: Array.from({ length: SOUNDING }, () => second(loud)),
      tail: Array.from({ length: TAIL }, () => second(silent)),
    });
    // The first lets the compiler meet both, so that what is timed is the processor.
    round();
    const rounds = Array.from({ length: ROUNDS }, round);
    // What the machine takes of a second it does not take each time: of the same second in all rounds the fastest counts.
    const fastest = (of: (r: ReturnType<typeof round>) => readonly number[]) =>
      of(rounds[0]!).map((_, at) => Math.min(...rounds.map((r) => of(r)[at]!)));
    const ratio = () => Math.max(...fastest((r) => r.tail)) / median(fastest((r) => r.sounding));
    while (ratio() > TAIL_GOAL && rounds.length < MOST_ROUNDS) rounds.push(round());
    return { model, ratio: ratio(), rounds: rounds.length };
  });
  const worst = ratios.reduce((a, b) => (b.ratio > a.ratio ? b : a));
  const over = ratios
    .filter(({ ratio }) => ratio > TAIL_GOAL)
    .map(({ model, ratio }) => `${model} ${ratio.toFixed(2)}`);
  const note = over.length > 0 ? over.join(", ") : `worst: ${worst.model}`;
  return {
    name: "silent-tail",
    value: worst.ratio,
    op: "<=",
    goal: TAIL_GOAL,
    unit: "ratio",
    runs: worst.rounds,
    note,
  };
}

function independent(sound: StereoSound): { loudness: number; peak: number } | null {
  const folder = mkdtempSync(join(tmpdir(), "diathesis-bench-"));
  try {
    const file = join(folder, "x.wav");
    writeFileSync(file, writeWav(sound));
    const text = execFileSync(
      "ffmpeg",
      ["-hide_banner", "-nostats", "-i", file, "-af", "ebur128=peak=true:framelog=quiet", "-f", "null", "-"],
      { encoding: "utf8", stdio: ["ignore", "pipe", "pipe"] },
    );
    return read(text);
  } catch (error) {
    return read(String((error as { stderr?: string }).stderr ?? ""));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const PRECISE = ["-v", "error", "-f", "null", "-"];

function read(text: string): { loudness: number; peak: number } | null {
  const loudness = /I:\s+(-?[\d.]+) LUFS/.exec(text)?.[1];
  const peak = /Peak:\s+(-?[\d.]+) dBFS/.exec(text)?.[1];
  return loudness && peak ? { loudness: Number(loudness), peak: Number(peak) } : null;
}

/** Per-frame metadata carries three decimals; the summary only one. */
function preciseMeter(sound: StereoSound): { loudness: number; peak: number } | null {
  const folder = mkdtempSync(join(tmpdir(), "diathesis-bench-"));
  try {
    const file = join(folder, "x.wav");
    writeFileSync(file, writeWav(sound));
    const meter = (key: string) =>
      execFileSync(
        "ffmpeg",
        [
          ...PRECISE.slice(0, 2),
          "-i",
          file,
          "-af",
          `ebur128=peak=true:metadata=1,ametadata=print:key=${key}:file=-`,
          ...PRECISE.slice(2),
        ],
        { encoding: "utf8", maxBuffer: 1 << 28 },
      );
    const values = (text: string) => [...text.matchAll(/=(-?[\d.]+)\s*$/gm)].map((m) => Number(m[1]));
    const loudness = values(meter("lavfi.r128.I")).at(-1);
    const peaks = ["lavfi.r128.true_peaks_ch0", "lavfi.r128.true_peaks_ch1"].flatMap((key) => values(meter(key)));
    return loudness === undefined || peaks.length === 0
      ? independent(sound)
      : { loudness, peak: 20 * Math.log10(Math.max(...peaks)) };
  } catch {
    return null;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A drum that is silent between its strokes: what the gate is for. */
function gatedDrums(): StereoSound {
  const { left, right, sampleRate } = drumWithCello(RATE);
  const gate = (samples: Float32Array) => samples.map((x, i) => (i % 36_000 < 9000 ? x : 0));
  return { left: gate(left), right: gate(right), sampleRate };
}

/** The furthest that our meters are from an independent one. */
export function agreement(): readonly Figure[] {
  // Noise of half the rate: what reaches the Nyquist frequency the other meter's own filter takes away.
  const sounds = [resample(noise(10, RATE / 2), RATE), sine(997, 0.4, 10, RATE), drumWithCello(RATE), gatedDrums()];
  const readings = sounds.map((sound) => ({ sound, other: preciseMeter(sound) }));
  const note = readings.some((r) => r.other === null) ? "no independent meter here: apt-get install ffmpeg" : undefined;
  const worst = (far: (r: (typeof readings)[number]) => number) => (note ? null : Math.max(...readings.map(far)));
  const shared = { op: "<=", runs: sounds.length, ...(note ? { note } : {}) } as const;
  return [
    {
      name: "loudness-agrees",
      value: worst(({ sound, other }) => Math.abs(integratedLoudness(sound) - other!.loudness)),
      goal: 0.05,
      unit: "LU",
      ...shared,
    },
    {
      name: "peak-agrees",
      value: worst(({ sound, other }) => Math.abs(truePeak(sound) - other!.peak)),
      goal: 0.2,
      unit: "dB",
      ...shared,
    },
  ];
}
