// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from "vitest";
import { loseDevice, quiet, sendMeters, engine } from "@/app/testing/engine";
import type { HeardInstrument } from "@/core/chains/heard-instrument";
import { type Chain, EMPTY_CHAIN } from "@/core/chains/chain";
import { gainOf, decibels } from "@/core/units/quantities";
import * as listening from "./listening";
import { setMatch } from "./measuring";
import { heardPart, measuredNow, onMeters, phraseOf, useListening } from "./state";

vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));

const START = useListening.getState();

const plugin = (key: string) => ({ type: "processor" as const, key, model: "gain", enabled: true, values: {} });
const chainOf = (...keys: readonly string[]): Chain => ({ nodes: keys.map(plugin), macros: [] });
const soundOf = (chain: Chain, name = "Rim") => ({ name, chain, tempo: 120 });
const PLAYED: HeardInstrument = { layers: [], output: null, phrase: { beats: 4, notes: [] } as never };
const now = () => useListening.getState();
/** Past the pause after which what rests is measured. */
const rest = () => vi.advanceTimersByTimeAsync(200);

beforeEach(async () => {
  vi.useFakeTimers();
  Object.defineProperty(navigator, "userActivation", { configurable: true, value: { hasBeenActive: true } });
  listening.hear(null);
  listening.letGoOfB();
  listening.hearBeside(null);
  listening.offerB(null);
  await rest();
  quiet();
  useListening.setState(START, true);
});

describe("playing", () => {
  it("starts the sound, and stops it", async () => {
    await listening.setPlaying(true);
    expect([now().playing, engine.playing]).toEqual([true, true]);
    await listening.setPlaying(false);
    expect([now().playing, engine.playing]).toEqual([false, false]);
  });

  it("says in words that the browser gives none, and plays once it does", async () => {
    quiet({ starts: false });
    await listening.setPlaying(true);
    expect(now().playing).toBe(false);
    expect(now().trouble).toContain("Check its output device");
    quiet();
    await listening.setPlaying(true);
    expect(now()).toMatchObject({ playing: true, trouble: null });
  });

  it("stops when the device goes away, says so, and goes on with the next press", async () => {
    await listening.setPlaying(true);
    loseDevice();
    expect(now()).toMatchObject({ playing: false, trouble: "The output device went away. Press play to go on." });
    await listening.setPlaying(true);
    expect(now()).toMatchObject({ playing: true, trouble: null });
  });

  it("hands meters to who listens, until they leave", async () => {
    await listening.setPlaying(true);
    const peaks: number[] = [];
    const leave = onMeters(({ peak }) => peaks.push(peak));
    sendMeters({ peak: 0.5 });
    leave();
    sendMeters({ peak: 0.9 });
    expect(peaks).toEqual([0.5]);
  });
});

describe("the material", () => {
  it("is shown by its outline", async () => {
    await listening.setMaterial("choir");
    expect(engine.material).toBe("choir");
    expect(now()).toMatchObject({ material: "choir", outline: { high: [0.5, 1, 0.5] }, seconds: 3 });
  });

  it("that comes late does not take the place of one chosen since", async () => {
    const slow = listening.setMaterial("own:slow");
    await listening.setMaterial("choir");
    await vi.advanceTimersByTimeAsync(200);
    await slow;
    expect(now()).toMatchObject({ material: "choir", seconds: 3 });
  });

  it("that is gone is said, and leaves no picture of another", async () => {
    await listening.setMaterial("choir");
    await listening.setMaterial("own:gone");
    expect(now()).toMatchObject({ outline: { high: [], low: [] }, seconds: 0 });
    expect(now().trouble).toContain("cannot be read any more");
  });
});

describe("the sides", () => {
  it("are chosen among what is there: B only where it holds a sound", () => {
    listening.hear(soundOf(chainOf("x")));
    listening.setSide("b");
    expect([now().side, engine.side]).toEqual(["a", "a"]);
    listening.offerB(soundOf(EMPTY_CHAIN));
    listening.setSide("b");
    expect([now().side, engine.side]).toEqual(["b", "b"]);
  });

  it("fall back to A when B is taken away", () => {
    listening.offerB(soundOf(EMPTY_CHAIN));
    listening.setSide("b");
    listening.offerB(null);
    expect([now().side, engine.side]).toEqual(["a", "a"]);
  });

  it("are both left for the dry material, and come back", () => {
    listening.hear(soundOf(chainOf("x")));
    listening.setProcessed(false);
    expect(engine.side).toBe("dry");
    listening.setProcessed(true);
    expect(engine.side).toBe("a");
    listening.setProcessed(false);
    listening.setSide("a");
    expect([engine.side, now().processed]).toEqual(["a", true]);
  });

  it("keep what is heard as B, whatever is opened next, until it is let go", () => {
    const sound = soundOf(chainOf("x"), "Rim");
    listening.offerB(soundOf(chainOf("x"), "Rim, version 1"));
    listening.hear(sound);
    listening.keepAsB();
    listening.hear(soundOf(chainOf("y"), "Air"));
    listening.offerB(soundOf(chainOf("z"), "Air, version 2"));
    expect([now().a?.name, now().b]).toEqual(["Air", sound]);
    listening.letGoOfB();
    expect(now().b?.name).toBe("Air, version 2");
    listening.offerB(null);
    expect(now().b).toBeNull();
  });

  it("put what a sheet compares beside A for as long as it is open, and then what was kept again", () => {
    listening.hear(soundOf(chainOf("x"), "Rim"));
    listening.keepAsB();
    listening.hearBeside(soundOf(chainOf("y"), "Console EQ in its place"));
    expect([now().b?.name, engine.sounds.b?.chain[0]]).toEqual([
      "Console EQ in its place",
      expect.objectContaining({ key: "y" }),
    ]);
    listening.hearBeside(null);
    expect([now().b?.name, engine.sounds.b?.chain[0]]).toEqual(["Rim", expect.objectContaining({ key: "x" })]);
  });

  it("show the phrase of an instrument in place of the material, and the material again after it", async () => {
    await listening.setMaterial("choir");
    listening.hear({ ...soundOf(EMPTY_CHAIN, "Mallets"), instrument: PLAYED });
    await rest();
    await rest();
    expect(phraseOf(now())?.name).toBe("Mallets");
    expect(now().seconds).toBe(9);
    listening.hear(soundOf(chainOf("x")));
    await rest();
    expect([phraseOf(now()), now().seconds]).toEqual([null, 3]);
  });
});

describe("the difference of one plugin", () => {
  it("is the sound less the same without that plugin, and turns to A", () => {
    listening.hear(soundOf(chainOf("x", "y")));
    listening.offerB(soundOf(EMPTY_CHAIN));
    listening.setSide("b");
    listening.setDifference("y");
    expect(engine.side).toBe("a");
    expect(engine.sounds.a?.chain).toHaveLength(2);
    expect(JSON.stringify(engine.sounds.a?.minus)).not.toBe(JSON.stringify(engine.sounds.a?.chain));
    listening.setDifference(null);
    expect(engine.sounds.a?.minus).toBeNull();
  });

  it("is told as long as it lasts, and ends with one press", () => {
    listening.hear(soundOf(chainOf("x", "y")));
    listening.setDifference("y");
    expect(heardPart(now())).toBe("Only what “Gain and polarity” changes");
    listening.hearAll();
    expect([heardPart(now()), engine.sounds.a?.minus]).toEqual([null, null]);
  });

  it("does not go on into a sound that has no such plugin", () => {
    listening.hear(soundOf(chainOf("x", "y")));
    listening.setDifference("y");
    listening.hear(soundOf(chainOf("x")));
    expect([now().difference, heardPart(now()), engine.sounds.a?.minus]).toEqual([null, null, null]);
  });
});

describe("matching", () => {
  const LOUD = { dry: -20, a: -14, b: -26 };
  beforeEach(() =>
    quiet({ loudness: (sound) => (sound === null ? LOUD.dry : sound.chain.length === 1 ? LOUD.a : LOUD.b) }),
  );

  it("brings every voice down to the quietest, once the sound rests", async () => {
    listening.hear(soundOf(chainOf("x")));
    listening.offerB(soundOf(chainOf("x", "y")));
    await rest();
    expect(now().measured.a?.integratedLufs).toBe(-14);
    // What nobody has listened to makes nothing quieter.
    expect(engine.gains.a).toBeCloseTo(gainOf(decibels(LOUD.dry - LOUD.a)), 6);
    listening.setSide("b");
    for (const voice of ["dry", "a", "b"] as const)
      expect(engine.gains[voice]).toBeCloseTo(gainOf(decibels(LOUD.b - LOUD[voice])), 6);
  });

  it("is off and on again by one switch, without measuring anew", async () => {
    listening.hear(soundOf(chainOf("x")));
    await rest();
    setMatch(false);
    expect(engine.gains).toEqual({ dry: 1, a: 1, b: 1 });
    setMatch(true);
    expect(engine.gains.a).toBeCloseTo(gainOf(decibels(-6)), 6);
  });

  it("says of what is measured that it is of a sound that has changed, until it is measured anew", async () => {
    listening.hear(soundOf(chainOf("x")));
    expect(now().stale).toBe(true);
    await rest();
    expect(now().stale).toBe(false);
    listening.hear(soundOf(chainOf("x", "y")), true);
    expect(now().stale).toBe(true);
    listening.hear(null);
    expect(now().measured.a).toBeUndefined();
    await rest();
    expect(now().stale).toBe(false);
  });

  it("is of the stretch that goes round", async () => {
    listening.hear(soundOf(chainOf("x")));
    await rest();
    listening.setStretch({ from: 0.25, to: 0.5 });
    expect(engine.stretch).toEqual({ from: 0.25, to: 0.5 });
    await rest();
    expect(now().measured.a?.integratedLufs).toBe(LOUD.a - 10);
    await listening.setMaterial("choir");
    expect([now().stretch, engine.stretch]).toEqual([null, null]);
  });

  it("does not measure what is being dragged", async () => {
    listening.hear(soundOf(chainOf("x")));
    await rest();
    const before = now().measured;
    listening.hear(soundOf(chainOf("x", "y")), true);
    await rest();
    expect(now().measured).toBe(before);
  });

  it("keeps the newest of two rounds that overlap", async () => {
    const slowly = (lufs: number) => new Promise<number>((done) => setTimeout(() => done(lufs), 1000));
    quiet({ loudness: (sound) => (sound?.chain.length === 1 ? slowly(LOUD.a) : LOUD.b) });
    listening.hear(soundOf(chainOf("x")));
    await rest();
    listening.hear(soundOf(chainOf("x", "y")));
    await rest();
    expect(now().measured.a?.integratedLufs).toBe(LOUD.b);
    await vi.advanceTimersByTimeAsync(1000);
    expect(now().measured.a?.integratedLufs).toBe(LOUD.b);
  });

  it("shows no figures where the material cannot be measured", async () => {
    quiet({
      loudness: () => {
        throw new Error("gone");
      },
    });
    listening.hear(soundOf(chainOf("x")));
    await rest();
    expect(now().measured).toEqual({});
    expect(measuredNow(now())).toBeNull();
  });

  it("waits for the first press of the person before it measures", async () => {
    Object.defineProperty(navigator, "userActivation", { configurable: true, value: { hasBeenActive: false } });
    listening.hear(soundOf(chainOf("x")));
    await rest();
    expect(now().measured).toEqual({});
    window.dispatchEvent(new KeyboardEvent("keydown", { key: "a" }));
    await rest();
    expect(now().measured.a?.integratedLufs).toBe(LOUD.a);
  });
});

describe("keys", () => {
  it("sound until they are let go, and all of them stop at once", () => {
    listening.noteOn(60, 90);
    listening.noteOn(64, 90);
    listening.noteOff(60);
    expect(engine.notes).toEqual([64]);
    listening.allNotesOff();
    expect(engine.notes).toEqual([]);
  });
});
