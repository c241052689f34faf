import { describe, expect, it } from "vitest";
import { INCLUDED } from "../packs/included";
import { type Strip, createStrip } from "../strips/strip";
import { asStrip, beginAs, canBegin } from "./as-strip";

const blank = (kind: Strip["kind"]) => createStrip("s1", kind, { name: "Voice" }, { strip: "main" });
const contentOf = (name: string) => INCLUDED.presets.find((p) => p.card.name === name)!.content;
const KINDS = ["audio", "instrument", "return", "group", "main"] as const;

describe("a strip that begins as a preset", () => {
  it("keeps its own name, kind, id and output, and takes what the preset holds", () => {
    for (const { content } of INCLUDED.presets)
      for (const kind of KINDS) {
        const begun = beginAs(blank(kind), content);
        expect([begun.id, begun.kind, begun.look, begun.routing]).toEqual([
          "s1",
          kind,
          { name: "Voice" },
          { output: { strip: "main" } },
        ]);
        if (!canBegin(content, kind)) expect(begun).toEqual(blank(kind));
        else expect(begun.inserts).toEqual(asStrip(content)!.inserts ?? blank(kind).inserts);
      }
  });
  it("can be of another kind only where there are but effects", () => {
    const kindsFor = (name: string) => KINDS.filter((kind) => canBegin(contentOf(name), kind));
    expect(kindsFor("Return, hall")).toEqual(["return"]);
    expect(kindsFor("Group, glued")).toEqual([...KINDS]);
    expect(kindsFor("Pad, slow light")).toEqual(["instrument"]);
    expect(beginAs(blank("instrument"), contentOf("Pad, slow light")).source).toMatchObject({
      type: "layers",
      layers: [{ instrument: { model: "pad-synth" } }],
    });
  });
});
