import { heardProcessor } from "../../chains/heard-chain";
import { describe, expect, it } from "vitest";
import type { HeardInstrument } from "../../chains/heard-instrument";
import { phraseFor } from "../../chains/phrases";
import { getModel } from "../../processors/models";
import { rms, setTo, stereoOf } from "../testing";
import { beatsPerMinute } from "../../units/quantities";
import { createAudition } from "./audition";

const RATE = 48_000;
const TEMPO = beatsPerMinute(120);

const instrument: HeardInstrument = {
  layers: [
    {
      key: "l",
      model: "mallets",
      enabled: true,
      values: setTo(getModel("mallets"), { ring: 0.3, release: 20 }),
      sample: null,
      keys: { low: 0, high: 127 },
      velocities: { low: 0, high: 127 },
      effects: [],
    },
  ],
  output: null,
  phrase: phraseFor("mallets", TEMPO),
};

const gain = (dB: number, enabled = true) => [
  heardProcessor(getModel("gain"), setTo(getModel("gain"), { gain: dB }), { key: "g", enabled }),
];

function start() {
  const audition = createAudition(RATE);
  const tone = stereoOf(RATE, RATE, (i) => 0.25 * Math.sin((2 * Math.PI * 100 * i) / RATE));
  audition.setLoop(tone);
  const listen = (seconds: number) => {
    const [left, right] = [new Float32Array(seconds * RATE), new Float32Array(seconds * RATE)];
    audition.process(left, right);
    return left;
  };
  return { audition, listen };
}

describe("the audition", () => {
  it("plays what one plugin adds: the sound with it less the sound without it", () => {
    const { audition, listen } = start();
    audition.setSound("a", { chain: gain(6), minus: gain(6, false) });
    audition.select("a");
    audition.play(true);
    listen(0.5);
    // 6 dB more, less what was there: 10^(6/20) − 1 of it.
    expect(rms(listen(0.5)) / (0.25 * Math.SQRT1_2)).toBeCloseTo(10 ** (6 / 20) - 1, 3);
  });

  it("plays an instrument in place of the material, its phrase while it plays, its keys also while it does not", () => {
    const { audition, listen } = start();
    audition.setSound("a", { chain: [], instrument });
    audition.select("a");
    expect(rms(listen(0.2))).toBe(0);
    audition.noteOn(60, 100);
    expect(rms(listen(0.3))).toBeGreaterThan(0.01);
    audition.noteOff(60);
    listen(3);
    expect(rms(listen(0.5))).toBeLessThan(1e-4);
    audition.play(true);
    expect(rms(listen(1))).toBeGreaterThan(0.01);
  });

  it("lets no note stick: all are let go at once, also when the sound was changed meanwhile", () => {
    const { audition, listen } = start();
    audition.setSound("a", { chain: [], instrument });
    audition.select("a");
    for (let note = 40; note < 80; note++) audition.noteOn(note, 100);
    listen(0.1);
    audition.setSound("a", { chain: gain(-3), instrument });
    audition.allNotesOff();
    listen(3);
    expect(rms(listen(0.5))).toBeLessThan(1e-4);
  });

  it("keeps still for keys where no instrument is", () => {
    const { audition, listen } = start();
    audition.setSound("a", { chain: gain(0) });
    audition.select("a");
    audition.noteOn(60, 100);
    expect(rms(listen(0.5))).toBe(0);
  });

  it("gives the instrument alone as the dry sound, and goes on while its values change", () => {
    const { audition, listen } = start();
    audition.setSound("a", { chain: gain(-60), instrument });
    audition.select("a");
    audition.play(true);
    const quiet = rms(listen(1));
    audition.select("dry");
    listen(0.1);
    expect(rms(listen(1))).toBeGreaterThan(quiet * 100);
    audition.setSound("a", {
      chain: gain(-60),
      instrument: {
        ...instrument,
        layers: [{ ...instrument.layers[0]!, values: setTo(getModel("mallets"), { hardness: 90 }) }],
      },
    });
    expect(rms(listen(1))).toBeGreaterThan(quiet * 100);
  });

  it("plays at once what was chosen last, also where something was on its way when it was stopped", () => {
    const { audition, listen } = start();
    const hall = heardProcessor(getModel("hall"), setTo(getModel("hall"), { decay: 8 }));
    audition.setSound("a", { chain: [] });
    audition.select("a");
    audition.play(true);
    listen(0.5);
    audition.setSound("a", { chain: [...gain(-20), hall] });
    listen(0.02);
    audition.play(false);
    listen(0.5);
    audition.setSound("a", { chain: gain(-40) });
    audition.play(true);
    listen(0.02);
    expect(rms(listen(0.1))).toBeCloseTo(0.25 * Math.SQRT1_2 * 0.01, 4);
    // One that is on its way when it is stopped is there when it plays on.
    audition.setSound("a", { chain: [...gain(-60), ...gain(20)] });
    audition.setSound("b", { chain: [], instrument });
    listen(0.01);
    audition.play(false);
    listen(0.5);
    audition.select("b");
    audition.play(true);
    expect(rms(listen(1))).toBeGreaterThan(0.01);
  });

  it("tells how like the sides are", () => {
    const { audition, listen } = start();
    audition.play(true);
    listen(0.5);
    expect(audition.readMeters().correlation).toBeCloseTo(1, 6);
    audition.setSound("a", { chain: [{ ...gain(0)[0]!, values: setTo(getModel("gain"), { polarity: 1 }) }] });
    audition.select("a");
    listen(0.5);
    audition.readMeters();
    listen(0.5);
    expect(audition.readMeters().correlation).toBeCloseTo(-1, 6);
  });
});
