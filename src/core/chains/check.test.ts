import { describe, expect, it } from "vitest";
import { WIRED, processor } from "../recall/testing/wired";
import { type Chain, EMPTY_CHAIN, type Processor } from "./chain";
import { beatsPerMinute } from "../units/quantities";
import { type CheckContext, checkChain, latencyOf } from "./check";

const CONTEXT: CheckContext = {
  strip: "audio",
  channels: "stereo",
  sampleRate: 48_000,
  tempo: beatsPerMinute(120),
  peaks: null,
};
const chain = (...nodes: Processor[]): Chain => ({ ...EMPTY_CHAIN, nodes });
const set = (p: Processor, values: Processor["values"]): Processor => ({ ...p, values: { ...p.values, ...values } });
const ids = (c: Chain, context: Partial<CheckContext> = {}) =>
  checkChain(c, { ...CONTEXT, ...context })
    .map((r) => r.id)
    .filter((id) => id !== "latency");

describe("the chain check", () => {
  it("has nothing to say of an ordinary chain", () => {
    expect(ids(chain(processor("eq", "parametric-eq"), processor("c"), processor("room", "room")))).toEqual([]);
  });
  it("sees two amplifiers in a row, and not two side by side", () => {
    const two = chain(processor("a", "amplifier"), processor("eq", "parametric-eq"), processor("b", "amplifier"));
    expect(checkChain(two, CONTEXT)[0]).toMatchObject({
      id: "amplifiers b",
      mend: { kind: "switchOff", node: "b", label: "Switch Amplifier and cabinet off" },
    });
    expect(ids(WIRED)).toEqual([]);
    expect(ids(chain(processor("a", "amplifier"), { ...processor("b", "amplifier"), enabled: false }))).toEqual([]);
  });
  it("sees a mono sound go into stereo width, unless something before makes two sides of it", () => {
    const width = processor("w", "stereo-width");
    expect(ids(chain(width), { channels: "mono" })).toEqual(["mono w"]);
    expect(ids(chain(width))).toEqual([]);
    expect(ids(chain(processor("ch", "chorus"), width), { channels: "mono" })).toEqual([]);
  });
  it("wants a reverb on a return fully wet", () => {
    const room = processor("r", "room");
    expect(checkChain(chain(room), { ...CONTEXT, strip: "return" })[0]).toMatchObject({
      mend: { kind: "set", node: "r", values: { dry: -60 } },
    });
    expect(ids(chain(set(room, { dry: -60 })), { strip: "return" })).toEqual([]);
    expect(ids(chain(room))).toEqual([]);
  });
  it("sees a limiter before something that makes louder, and would limit at the end, too", () => {
    const loud = chain(processor("l", "limiter"), set(processor("g", "gain"), { gain: 4 }), processor("eq", "tilt-eq"));
    expect(checkChain(loud, CONTEXT)[0]).toMatchObject({
      mend: { kind: "limitAt", as: "l", place: { within: null, after: "eq" } },
    });
    expect(ids(chain(processor("l", "limiter"), set(processor("g", "gain"), { gain: -4 })))).toEqual([]);
    // What another limiter catches is limited.
    const caught = chain(
      processor("l", "limiter"),
      set(processor("g", "gain"), { gain: 4 }),
      processor("m", "limiter"),
    );
    expect(ids(caught)).toEqual([]);
  });
  it("sees what is driven over full scale, where it comes from, by how much to turn it down", () => {
    const two = chain(processor("c"), processor("d"));
    const remarks = checkChain(two, { ...CONTEXT, peaks: { inputs: { c: 2, d: 1.5 }, output: 0.9 } });
    expect(remarks.map((r) => r.id)).toEqual(["over behind the material", "over behind c"]);
    expect(remarks[0]?.text).toContain("6.0 dB over");
    expect(remarks[0]?.mend).toMatchObject({ kind: "turnDown", before: "c", dB: -8 });
  });
  it("sees what leaves the chain over full scale", () => {
    const remarks = checkChain(chain(processor("c")), { ...CONTEXT, peaks: { inputs: { c: 0.5 }, output: 4 } });
    expect(remarks[0]).toMatchObject({ id: "over behind c", mend: { kind: "turnDown", before: null, dB: -14 } });
  });
  it("sees a tuner or meter that was left on", () => {
    expect(ids(chain(processor("t", "tuner"), processor("m", "meter")))).toEqual(["on t", "on m"]);
    expect(checkChain(chain(set(processor("t", "tuner"), { mute: 1 })), CONTEXT)[0]?.text).toContain("mutes");
  });
  it("says where a note length is longer than the plugin can make it", () => {
    const echo = set(processor("e", "echo"), {
      left: { note: "1/1", feel: "dotted" },
      right: { note: "1/4", feel: "straight" },
    });
    expect(ids(chain(echo))).toEqual([]);
    const slow = checkChain(chain(echo), { ...CONTEXT, tempo: beatsPerMinute(50) });
    expect(slow.map((remark) => remark.text)).toEqual([
      "Left of Echo: 1/1 dotted is 7.20 s at this tempo, and it stops at 4.00 s.",
    ]);
  });
  it("counts latency along the way, lanes by their slowest", () => {
    expect(latencyOf(WIRED.nodes, CONTEXT)).toBe(25);
    // 48 samples to read between them, and 2 ms ahead; the tape is 25 late.
    expect(latencyOf([processor("l", "limiter"), processor("t", "tape")], CONTEXT)).toBe(48 + 96 + 25);
    expect(latencyOf([processor("l", "limiter")], { ...CONTEXT, sampleRate: 96_000 })).toBe(48 + 192);
    // What is chosen comes to what a model always has.
    expect(latencyOf([{ ...processor("g", "gate"), values: { ahead: 2 } }], CONTEXT)).toBe(96);
    expect(latencyOf([processor("g", "gate")], CONTEXT)).toBe(0);
    expect(checkChain(chain(processor("l", "limiter")), CONTEXT).at(-1)?.text).toContain("3.0 ms");
  });
});
