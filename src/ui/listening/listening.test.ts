// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from "vitest";
import { loseDevice, quiet, sendMeters, engine } from "@/app/testing/engine";
import { type Chain, EMPTY_CHAIN } from "@/core/chains/chain";
import { gainOf, decibels } from "@/core/units/quantities";
import * as listening from "./listening";

vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));

const { useListening } = listening;
const START = useListening.getState();

const plugin = (key: string) => ({ type: "processor" as const, key, model: "gain", enabled: true, values: {} });
const chainOf = (...keys: readonly string[]): Chain => ({ nodes: keys.map(plugin), macros: [] });
const soundOf = (chain: Chain, name = "Rim") => ({ name, chain, tempo: 120 });
const now = () => useListening.getState();
/** Past the pause after which what rests is measured. */
const rest = () => vi.advanceTimersByTimeAsync(200);

beforeEach(async () => {
  vi.useFakeTimers();
  Object.defineProperty(navigator, "userActivation", { configurable: true, value: { hasBeenActive: true } });
  listening.hear("a", null);
  listening.hear("b", null);
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
    const leave = listening.onMeters(({ peak }) => peaks.push(peak));
    sendMeters({ peak: 0.5 });
    leave();
    sendMeters({ peak: 0.9 });
    expect(peaks).toEqual([0.5]);
  });
});

describe("the material", () => {
  it("is shown by its peaks", async () => {
    await listening.setMaterial("choir");
    expect(engine.material).toBe("choir");
    expect(now()).toMatchObject({ material: "choir", peaks: [0.5, 1, 0.5], seconds: 3 });
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
    expect(now()).toMatchObject({ peaks: [], seconds: 0 });
    expect(now().trouble).toContain("cannot be read any more");
  });
});

describe("the sides", () => {
  it("are chosen among what is there: B only where it holds a sound", () => {
    listening.hear("a", soundOf(chainOf("x")));
    listening.setSide("b");
    expect([now().side, engine.side]).toEqual(["a", "a"]);
    listening.hear("b", soundOf(EMPTY_CHAIN));
    listening.setSide("b");
    expect([now().side, engine.side]).toEqual(["b", "b"]);
  });

  it("fall back to A when B is taken away", () => {
    listening.hear("b", soundOf(EMPTY_CHAIN));
    listening.setSide("b");
    listening.hear("b", null);
    expect([now().side, engine.side]).toEqual(["a", "a"]);
  });

  it("are both left for the dry material, and come back", () => {
    listening.hear("a", soundOf(chainOf("x")));
    listening.setProcessed(false);
    expect(engine.side).toBe("dry");
    listening.setProcessed(true);
    expect(engine.side).toBe("a");
    listening.setProcessed(false);
    listening.setSide("a");
    expect([engine.side, now().processed]).toEqual(["a", true]);
  });

  it("keep what is heard as B, for comparing with what comes next", () => {
    const sound = soundOf(chainOf("x"), "Rim");
    listening.hear("a", sound);
    listening.keepAsB();
    listening.hear("a", soundOf(chainOf("y"), "Air"));
    expect([now().a?.name, now().b]).toEqual(["Air", sound]);
  });
});

describe("the difference of one plugin", () => {
  it("is the sound less the same without that plugin, and turns to A", () => {
    listening.hear("a", soundOf(chainOf("x", "y")));
    listening.hear("b", soundOf(EMPTY_CHAIN));
    listening.setSide("b");
    listening.setDifference("y");
    expect(engine.side).toBe("a");
    expect(engine.sounds.a?.chain).toHaveLength(2);
    expect(JSON.stringify(engine.sounds.a?.minus)).not.toBe(JSON.stringify(engine.sounds.a?.chain));
    listening.setDifference(null);
    expect(engine.sounds.a?.minus).toBeNull();
  });

  it("of a plugin that is gone is the whole sound", () => {
    listening.hear("a", soundOf(chainOf("x")));
    listening.setDifference("gone");
    expect(engine.sounds.a?.minus).toBeNull();
  });
});

describe("matching", () => {
  const LOUD = { dry: -20, a: -14, b: -26 };
  beforeEach(() =>
    quiet({ loudness: (sound) => (sound === null ? LOUD.dry : sound.chain.length === 1 ? LOUD.a : LOUD.b) }),
  );

  it("brings every voice down to the quietest, once the sound rests", async () => {
    listening.hear("a", soundOf(chainOf("x")));
    listening.hear("b", soundOf(chainOf("x", "y")));
    await rest();
    expect(now().measured.a?.integratedLufs).toBe(-14);
    for (const voice of ["dry", "a", "b"] as const)
      expect(engine.gains[voice]).toBeCloseTo(gainOf(decibels(LOUD.b - LOUD[voice])), 6);
  });

  it("is off and on again by one switch, without measuring anew", async () => {
    listening.hear("a", soundOf(chainOf("x")));
    await rest();
    listening.setMatch(false);
    expect(engine.gains).toEqual({ dry: 1, a: 1, b: 1 });
    listening.setMatch(true);
    expect(engine.gains.a).toBeCloseTo(gainOf(decibels(-6)), 6);
  });

  it("does not measure what is being dragged", async () => {
    listening.hear("a", soundOf(chainOf("x")));
    await rest();
    const before = now().measured;
    listening.hear("a", soundOf(chainOf("x", "y")), true);
    await rest();
    expect(now().measured).toBe(before);
  });

  it("keeps the newest of two rounds that overlap", async () => {
    const slowly = (lufs: number) => new Promise<number>((done) => setTimeout(() => done(lufs), 1000));
    quiet({ loudness: (sound) => (sound?.chain.length === 1 ? slowly(LOUD.a) : LOUD.b) });
    listening.hear("a", soundOf(chainOf("x")));
    await rest();
    listening.hear("a", soundOf(chainOf("x", "y")));
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
    listening.hear("a", soundOf(chainOf("x")));
    await rest();
    expect(now().measured).toEqual({});
    expect(listening.measuredNow(now())).toBeNull();
  });

  it("waits for the first press of the person before it measures", async () => {
    Object.defineProperty(navigator, "userActivation", { configurable: true, value: { hasBeenActive: false } });
    listening.hear("a", soundOf(chainOf("x")));
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
