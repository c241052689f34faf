import { heardProcessor } from "../../chains/heard-chain";
import { describe, expect, it } from "vitest";
import type { HeardInstrument, HeardLayer, PhraseNote } from "../../chains/heard-instrument";
import { phraseFor } from "../../chains/phrases";
import { designOf } from "../../processors/model";
import { adsr } from "../../processors/instrument/instrument-design";
import { INSTRUMENTS } from "../../processors/instrument/models";
import { getModel } from "../../processors/models";
import type { Values } from "../../units/param-spec";
import { decibelsOf, noise, partialAt, rms, setTo } from "../testing";
import { PitchTracker } from "../../processors/utility/pitch-tracker";
import { beatsPerMinute } from "../../units/quantities";
import { InstrumentRuntime, type Samples } from "./instrument-runtime";
import { EnvelopeGenerator, type Sample, pitchOf } from "./voice";

const RATE = 48_000;
const ALL = { low: 0, high: 127 };

const layer = (model: string, values: Values = {}, more: Partial<HeardLayer> = {}): HeardLayer => ({
  key: model,
  model,
  enabled: true,
  values: setTo(getModel(model), { level: 0, ...values }),
  sample: null,
  keys: ALL,
  velocities: ALL,
  effects: [],
  ...more,
});

const one = (note: number, seconds = 1, velocity = 100): readonly PhraseNote[] => [{ at: 0, seconds, note, velocity }];

interface Played {
  readonly layers: readonly HeardLayer[];
  readonly notes: readonly PhraseNote[];
  readonly seconds: number;
  readonly samples?: Samples;
  readonly output?: number;
  readonly block?: number;
}

function play({ layers, notes, seconds, samples = new Map(), output, block = 4096 }: Played) {
  const instrument: HeardInstrument = { layers, output: output ?? null, phrase: { seconds, notes } };
  const runtime = new InstrumentRuntime(instrument, samples, RATE);
  const [left, right] = [new Float32Array(seconds * RATE), new Float32Array(seconds * RATE)];
  for (let at = 0; at < left.length; at += block) {
    const end = Math.min(left.length, at + block);
    runtime.addTo(left.subarray(at, end), right.subarray(at, end), end - at);
  }
  return { left, right };
}

/** The pitch of a stretch in Hz. */
function pitchIn(samples: Float32Array): number {
  const tracker = new PitchTracker(RATE);
  for (let i = 0; i < samples.length; i++) {
    tracker.hear(samples[i]!);
    if (i % 32 === 0) tracker.work();
  }
  return tracker.pitch;
}

const SAMPLE: Sample = {
  left: Float32Array.from({ length: RATE }, (_, i) => 0.5 * Math.sin((2 * Math.PI * 300 * i) / RATE)),
  right: Float32Array.from({ length: RATE }, (_, i) => 0.5 * Math.sin((2 * Math.PI * 300 * i) / RATE)),
  sampleRate: RATE,
};

describe.each(INSTRUMENTS.map((model) => [model.name, model] as const))("%s", (_, model) => {
  const samples = new Map([["s", SAMPLE]]);
  const own = (more: Partial<HeardLayer> = {}) => layer(model.id, {}, { sample: "s", ...more });
  const phrase = phraseFor(model.id, beatsPerMinute(120));

  it("plays its phrase: heard, finite, below full scale at its starting level, the same in any block", () => {
    const whole = play({ layers: [own({ values: setTo(model, {}) })], notes: phrase.notes, seconds: 2, samples });
    expect(rms(whole.left)).toBeGreaterThan(0.01);
    const most = whole.left.reduce((peak, x) => Math.max(peak, Math.abs(x)), 0);
    expect(most).toBeLessThan(1.2);
    for (const block of [64, 1000])
      expect(
        play({ layers: [own({ values: setTo(model, {}) })], notes: phrase.notes, seconds: 2, samples, block }),
      ).toEqual(whole);
  });

  it("takes two hundred keys at once, and is silent some time after all are let go", () => {
    const runtime = new InstrumentRuntime(
      {
        layers: [own({ values: setTo(model, { release: 20, ring: 0.3, sustain: 50 }) })],
        output: null,
        phrase: { seconds: 0, notes: [] },
      },
      samples,
      RATE,
    );
    for (let n = 0; n < 200; n++) runtime.noteOn(n % 128, 127);
    const [left, right] = [new Float32Array(RATE * 4), new Float32Array(RATE * 4)];
    runtime.addTo(left, right, RATE / 2);
    runtime.allOff();
    runtime.addTo(left.subarray(RATE / 2), right.subarray(RATE / 2), RATE * 3.5);
    expect(left.every(Number.isFinite)).toBe(true);
    // A cymbal rings on; all else is gone.
    expect(rms(left.subarray(-RATE / 2))).toBeLessThan(1e-3);
  });

  it("answers only to its keys and its touch", () => {
    const only = own({ keys: { low: 60, high: 64 }, velocities: { low: 50, high: 90 } });
    const loud = (note: number, velocity: number) =>
      rms(play({ layers: [only], notes: one(note, 0.3, velocity), seconds: 1, samples }).left) > 0;
    expect([loud(59, 70), loud(65, 70), loud(62, 49), loud(62, 91)]).toEqual([false, false, false, false]);
    if (model.id !== "drum-kit") expect(loud(62, 70)).toBe(true);
  });

  it("is drawn from full level down to nothing, within 0 and 1", () => {
    const level = designOf(model, "instrument").envelope(setTo(model, {}), 1);
    for (let t = 0; t < 60; t += 0.05) {
      expect(level(t)).toBeGreaterThanOrEqual(0);
      expect(level(t)).toBeLessThanOrEqual(1);
    }
    expect(level(60)).toBeLessThan(0.01);
  });
});

describe("pitch", () => {
  const cases: readonly (readonly [model: string, note: number, values: Values])[] = [
    ["electric-piano", 57, {}],
    ["bass-synth", 45, { cutoff: 3000, sub: 0 }],
    ["mallets", 69, { hardness: 20 }],
  ];
  for (const [model, note, values] of cases)
    it(`of the ${model} is that of its key within 5 cents`, () => {
      const { left } = play({ layers: [layer(model, values)], notes: one(note), seconds: 1 });
      const cents = 1200 * Math.log2(pitchIn(left.subarray(4800, 40_000)) / pitchOf(note));
      expect(Math.abs(cents)).toBeLessThan(5);
    });
  it("of A4 is 440 Hz", () => {
    expect(pitchOf(69)).toBe(440);
  });
});

describe("the envelope", () => {
  it("goes the way that is drawn, within 1 %", () => {
    for (const shape of [
      { attack: 0.005, decay: 0.2, sustain: 0.6, release: 0.1 },
      { attack: 0.4, decay: 1, sustain: 0.2, release: 0.7 },
    ]) {
      const generator = new EnvelopeGenerator(RATE);
      generator.set(shape);
      generator.start();
      const drawn = adsr(shape, 1);
      for (let i = 0; i < 2 * RATE; i++) {
        if (i === RATE) generator.release();
        const level = generator.next();
        if (i % 997 === 0) expect(Math.abs(level - drawn(i / RATE))).toBeLessThan(0.01);
      }
    }
  });
});

describe("the mallets", () => {
  it("ring in the modes that are drawn, as loud as they are drawn when struck hard", () => {
    const values: Values = { bar: 2, hardness: 100, ring: 12 };
    const { left } = play({ layers: [layer("mallets", values)], notes: one(60, 1, 127), seconds: 1 });
    const early = left.subarray(0, 4800);
    const size = (hz: number) => partialAt(early, hz, { sampleRate: RATE }).size;
    const pitch = pitchOf(60);
    // The higher modes fade a little within the tenth of a second that is looked at.
    for (const { ratio, level } of designOf(getModel("mallets"), "instrument")
      .partials(setTo(getModel("mallets"), values))
      .slice(0, 3))
      expect(Math.abs(decibelsOf(size(pitch * ratio) / size(pitch)) - level)).toBeLessThan(1.5);
  });
});

describe("the drum kit", () => {
  it("sends each drum to its own output", () => {
    const hit = (note: number, output: number) =>
      rms(play({ layers: [layer("drum-kit")], notes: one(note, 0.1), seconds: 1, output }).left) > 0;
    expect([1, 2, 3, 4].map((output) => hit(36, output))).toEqual([true, false, false, false]);
    expect([1, 2, 3, 4].map((output) => hit(42, output))).toEqual([false, false, true, false]);
    expect([1, 2, 3, 4].map((output) => hit(48, output))).toEqual([false, false, false, true]);
  });
});

describe("the sampler", () => {
  const samples = new Map([["s", SAMPLE]]);
  const at = (note: number, values: Values = {}) =>
    pitchIn(
      play({
        layers: [layer("sampler", values, { sample: "s" })],
        notes: one(note),
        seconds: 1,
        samples,
      }).left.subarray(2400, 20_000),
    );
  it("plays its sound at the root key as it is, an octave up at twice the pitch", () => {
    expect(at(60)).toBeCloseTo(300, 0);
    expect(at(72)).toBeCloseTo(600, 0);
    expect(at(60, { tune: 12 })).toBeCloseTo(600, 0);
    expect(at(72, { tracks: 0 })).toBeCloseTo(300, 0);
  });
  it("ends with its sound, or goes round", () => {
    const end = (loop: number) =>
      rms(
        play({
          layers: [layer("sampler", { loop }, { sample: "s" })],
          notes: one(60, 2.5),
          seconds: 3,
          samples,
        }).left.subarray(RATE * 1.5, RATE * 2),
      );
    expect(end(0)).toBe(0);
    expect(end(1)).toBeGreaterThan(0.1);
  });
  it("is silent with nothing loaded", () => {
    expect(rms(play({ layers: [layer("sampler")], notes: one(60), seconds: 1 }).left)).toBe(0);
  });
});

describe("layers", () => {
  it("sound together, each through its own effects", () => {
    const gain = heardProcessor(getModel("gain"), setTo(getModel("gain"), { gain: -12 }));
    const plain = layer("mallets");
    const quiet = layer("mallets", {}, { key: "other", effects: [gain] });
    const size = (layers: HeardLayer[]) => rms(play({ layers, notes: one(60), seconds: 1 }).left);
    expect(decibelsOf(size([quiet]) / size([plain]))).toBeCloseTo(-12, 1);
    expect(decibelsOf(size([plain, quiet]) / size([plain]))).toBeCloseTo(decibelsOf(1 + 10 ** (-12 / 20)), 1);
  });
  it("go on while values change, and are built anew where a layer is another model", () => {
    const instrument = (values: Values, model = "mallets"): HeardInstrument => ({
      layers: [layer(model, values)],
      output: null,
      phrase: { seconds: 1, notes: [] },
    });
    const runtime = new InstrumentRuntime(instrument({}), new Map(), RATE);
    expect(runtime.update(instrument({ hardness: 80 }))).toBe(true);
    expect(runtime.update(instrument({}, "pad-synth"))).toBe(false);
  });

  it("takes a change whole or not at all: where one layer cannot, none does", () => {
    const gain = heardProcessor(getModel("gain"), setTo(getModel("gain"), {}));
    const heard = (level: number, effects: HeardLayer["effects"]): HeardInstrument => ({
      layers: [
        layer("electric-piano", { level }, { key: "one" }),
        layer("electric-piano", { level: -48 }, { key: "two", effects }),
      ],
      output: null,
      phrase: { seconds: 1, notes: one(60) },
    });
    const sound = (change: HeardInstrument | null) => {
      const runtime = new InstrumentRuntime(heard(0, []), new Map(), RATE);
      if (change) expect(runtime.update(change)).toBe(false);
      const [left, right] = [new Float32Array(RATE / 4), new Float32Array(RATE / 4)];
      runtime.addTo(left, right, left.length);
      return left;
    };
    expect(sound(heard(-40, [gain]))).toEqual(sound(null));
  });
});

/** Over a stretch under the window of Blackman and Harris, whose side lobes are 92 dB down. */
const LONG = 8192;
const windowed = (samples: Float32Array): Float32Array =>
  samples.map((x, i) => {
    const turn = (2 * Math.PI * i) / samples.length;
    return x * (0.35875 - 0.48829 * Math.cos(turn) + 0.14128 * Math.cos(2 * turn) - 0.01168 * Math.cos(3 * turn));
  });

describe("what folds back", () => {
  /** The loudest of the partials above the Nyquist frequency, where they fold to, against the note's own, in dB. */
  function foldedBack(model: string, values: Values, note: number): number {
    const { left } = play({ layers: [layer(model, values)], notes: one(note, 2), seconds: 2 });
    const heard = windowed(left.subarray(RATE / 4, RATE / 4 + LONG));
    const size = (freq: number) => partialAt(heard, freq, { sampleRate: RATE }).size;
    const pitch = pitchOf(note);
    const apart = (6 * RATE) / LONG;
    const folded = Array.from({ length: Math.floor((3 * RATE) / pitch) }, (_, n) => ((n + 1) * pitch) % RATE)
      .map((freq) => Math.min(freq, RATE - freq))
      .filter((freq) => freq < 20_000 && Math.abs(freq - pitch * Math.round(freq / pitch)) > apart);
    const own = Math.max(...[1, 2, 3].map((n) => size(n * pitch)));
    return decibelsOf(Math.max(1e-9, ...folded.slice(0, 60).map(size)) / own);
  }

  const BRIGHT: readonly (readonly [model: string, values: Values])[] = [
    ["bass-synth", { wave: 0, sub: 0, cutoff: 12_000, sustain: 100, resonance: 0 }],
    ["bass-synth", { wave: 1, sub: 0, cutoff: 12_000, sustain: 100, resonance: 0 }],
    ["pad-synth", { detune: 0, width: 0, motion: 0, cutoff: 16_000, attack: 1, sustain: 100 }],
    ["electric-piano", { ring: 8 }],
    // Mallets are sines of which each stands below the Nyquist frequency, at no multiples: nothing of them can fold.
  ];
  for (const [model, values] of BRIGHT)
    it(`of the ${model} ${JSON.stringify(values)} stays below −60 dB, over the keyboard`, () => {
      for (let note = 36; note <= 108; note += 4)
        expect(foldedBack(model, values, note), `key ${note}`).toBeLessThan(-60);
    });

  it("of a sample that is turned up by an octave is left out, and the images of one that is turned down", () => {
    const tone = (hz: number): Sample => {
      const left = Float32Array.from({ length: RATE }, (_, i) => 0.5 * Math.sin((2 * Math.PI * hz * i) / RATE));
      return { left, right: left, sampleRate: RATE };
    };
    const read = (hz: number, note: number, at: number) => {
      const { left } = play({
        layers: [layer("sampler", { root: 60, attack: 1 }, { sample: "s" })],
        notes: one(note, 0.4, 127),
        seconds: 1,
        samples: new Map([["s", tone(hz)]]),
      });
      const heard = windowed(left.subarray(4800, 4800 + LONG));
      return decibelsOf((partialAt(heard, at, { sampleRate: RATE }).size + 1e-9) / (0.5 * 0.35875));
    };
    // An octave up, 15 kHz would be 30 and fold to 18; 4 kHz is 8.
    expect(read(15_000, 72, 18_000)).toBeLessThan(-80);
    expect(Math.abs(read(4000, 72, 8000))).toBeLessThan(0.2);
    // A fifth down, at two thirds of its pace, 9 kHz is 6; its first image lies at 32 − 6.
    expect(read(9000, 53, (RATE - 9000) * 2 ** (-7 / 12))).toBeLessThan(-80);
  });
});

describe("voices", () => {
  const largestStep = (samples: Float32Array): number =>
    samples.reduce((largest, x, i) => (i === 0 ? 0 : Math.max(largest, Math.abs(x - samples[i - 1]!))), 0);

  it("that make room for others fade: thirteen low notes make no step that twelve do not", () => {
    const steady = { detune: 0, width: 0, motion: 0, cutoff: 300, attack: 20, sustain: 100 };
    const runtime = new InstrumentRuntime(
      { layers: [layer("pad-synth", steady)], output: null, phrase: { seconds: 0, notes: [] } },
      new Map(),
      RATE,
    );
    const listen = (seconds: number) => {
      const [left, right] = [new Float32Array(seconds * RATE), new Float32Array(seconds * RATE)];
      runtime.addTo(left, right, left.length);
      return left;
    };
    for (let note = 40; note < 52; note++) runtime.noteOn(note, 100);
    listen(0.5);
    const before = largestStep(listen(0.5));
    runtime.noteOn(52, 100);
    const during = largestStep(listen(0.1));
    expect(during).toBeLessThan(1.5 * Math.max(before, largestStep(listen(0.5))));
  });

  it("of a vibraphone take another depth of their motor without a step", () => {
    const bar = (depth: number): HeardInstrument => ({
      layers: [layer("mallets", { bar: 0, ring: 12, depth, hardness: 20 })],
      output: null,
      phrase: { seconds: 0, notes: [] },
    });
    const runtime = new InstrumentRuntime(bar(0), new Map(), RATE);
    runtime.noteOn(48, 100);
    const listen = () => {
      const [left, right] = [new Float32Array(RATE / 4), new Float32Array(RATE / 4)];
      runtime.addTo(left, right, left.length);
      return left;
    };
    listen();
    const before = largestStep(listen());
    runtime.update(bar(100));
    expect(largestStep(listen())).toBeLessThan(1.2 * before);
  });

  it("of a hat choke each other: what rings open is silent when it is closed", () => {
    const hats = (notes: readonly PhraseNote[]) =>
      play({ layers: [layer("drum-kit", { hatDecay: 600 })], notes, seconds: 1 }).left.subarray(
        0.45 * RATE,
        0.6 * RATE,
      );
    const open = rms(hats([...one(46)]));
    const closed = rms(hats([{ at: 0.3, seconds: 0.1, note: 42, velocity: 1 }]));
    const choked = rms(hats([...one(46), { at: 0.3, seconds: 0.1, note: 42, velocity: 1 }]));
    expect(choked).toBeLessThan(0.2 * open);
    expect(choked).toBeCloseTo(closed, 6);
  });

  it("of a sampler loop without a step", () => {
    const low = Float32Array.from({ length: RATE / 2 }, (_, i) => 0.5 * Math.sin((2 * Math.PI * 101.3 * i) / RATE));
    const sample: Sample = { left: low, right: low, sampleRate: RATE };
    const { left } = play({
      layers: [layer("sampler", { root: 60, loop: 1, attack: 5 }, { sample: "s" })],
      notes: one(60, 2.9, 127),
      seconds: 3,
      samples: new Map([["s", sample]]),
    });
    expect(largestStep(left.subarray(RATE / 10, 2.5 * RATE))).toBeLessThan(1.5 * largestStep(low));
  });
});

describe("a phrase that goes round", () => {
  it("plays each of its notes each time, also where its length is no whole number of grid points", () => {
    // 1000 ms and a bit: 48,013 samples.
    const seconds = 48_013 / RATE;
    const instrument: HeardInstrument = {
      layers: [layer("mallets", {})],
      output: null,
      phrase: { seconds, notes: [...one(60, 0.1), { at: 0.5, seconds: 0.1, note: 72, velocity: 100 }] },
    };
    const runtime = new InstrumentRuntime(instrument, new Map(), RATE);
    const [left, right] = [new Float32Array(5 * 48_013), new Float32Array(5 * 48_013)];
    runtime.addTo(left, right, left.length);
    // Right behind each blow there is more than right before it.
    const loud = (from: number) => rms(left.subarray(from, from + 960));
    for (let round = 1; round < 5; round++)
      for (const at of [0, 24_000]) {
        const blow = round * 48_013 + at;
        expect(loud(blow + 64), `${round}, ${at}`).toBeGreaterThan(1.5 * loud(blow - 1024));
      }
  });
});

describe("another rate", () => {
  it("changes no pitch", async () => {
    const { resample } = await import("../../dsp/resample");
    const tone = { left: SAMPLE.left, right: SAMPLE.right, sampleRate: RATE };
    for (const rate of [44_100, 96_000]) {
      const there = resample(tone, rate);
      const { size } = partialAt(there.left, 300, { sampleRate: rate, from: 1000 });
      expect(size).toBeCloseTo(0.5, 2);
    }
    expect(resample(tone, RATE)).toBe(tone);
    // What lies above the lower Nyquist frequency does not fold back.
    const high = noise(0.2, 96_000);
    const whole = resample(
      { ...high, left: Float32Array.from(high.left, (_, i) => Math.sin((2 * Math.PI * 40_000 * i) / 96_000)) },
      RATE,
    );
    expect(rms(whole.left.subarray(500, -500))).toBeLessThan(0.005);
  });
});
