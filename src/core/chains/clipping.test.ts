import { describe, expect, it } from "vitest";
import { WIRED } from "../recall/testing/wired";
import { clip, freshClipping, parseClipping, writeClipping } from "./clipping";
import { keysIn } from "./tree";

describe("a clipping", () => {
  it("holds what was chosen, and of the macros what moves it", () => {
    const { nodes, macros } = clip(WIRED, ["comp", "amp1"]);
    expect(nodes.map((n) => n.key)).toEqual(["comp", "amp1"]);
    expect(macros[0]?.axes[0]).toEqual([WIRED.macros[0]!.axes[0]![0]]);
    expect(clip(WIRED, ["comp"]).macros).toEqual([]);
  });
  it("holds nothing twice where a group and something in it are chosen", () => {
    expect(clip(WIRED, ["pedals", "amp1"]).nodes.map((n) => n.key)).toEqual(["pedals"]);
  });
  it("goes through text and comes back, names and origins included", () => {
    const clipping = clip(WIRED, ["pedals", "comp"]);
    expect(parseClipping(writeClipping(clipping))).toEqual({ ok: true, value: clipping });
  });
  it("gets new keys, macros too", () => {
    let next = 0;
    const fresh = freshClipping(clip(WIRED, ["pedals"]), () => `k${next++}`);
    const keys = fresh.nodes.flatMap(keysIn);
    expect(keys.every((key) => key.startsWith("k"))).toBe(true);
    for (const target of fresh.macros[0]!.axes[0]!) expect(keys).toContain(target.node);
  });
  it("is told from other text, and says where it is broken", () => {
    for (const text of ["hello", "[1]", "42", '{"some":"json"}'])
      expect(parseClipping(text)).toEqual({ ok: false, error: null });
    expect(parseClipping('{"diathesis":"clipping","version":2,"nodes":[],"macros":[]}')).toMatchObject({
      ok: false,
      error: expect.stringContaining("version") as string,
    });
    const out = writeClipping(clip(WIRED, ["comp"])).replace('"ratio":2', '"ratio":2000');
    expect(parseClipping(out)).toMatchObject({ ok: false, error: expect.stringContaining("Ratio") as string });
  });
});
