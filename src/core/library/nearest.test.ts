import { describe, expect, it } from "vitest";
import type { Processor } from "../chains/chain";
import type { Content } from "../presets/preset";
import { CONTENT_SCHEMA } from "../presets/version";
import { defaultValues } from "../processors/model";
import { getModel } from "../processors/models";
import { nearestFirst, nearness } from "./nearest";

const compressor = (threshold: number): Processor => ({
  type: "processor",
  key: "c",
  model: "vca-compressor",
  enabled: true,
  values: { ...defaultValues(getModel("vca-compressor")), threshold },
});
const content = (threshold: number): Content => ({
  kind: "plugin",
  schema: CONTENT_SCHEMA,
  processor: compressor(threshold),
});
const row = (name: string, threshold: number, more: { purpose?: string; measured?: readonly string[] } = {}) => ({
  content: content(threshold),
  measured: more.measured ?? [],
  card: { name, purpose: more.purpose ?? "", tags: [] },
});
const SOUGHT = { place: "Cello, low", content: content(-20), measured: ["dark", "slow"] };
const names = (rows: readonly { readonly card: { readonly name: string } }[]) => rows.map((r) => r.card.name);

describe("the nearest sounds", () => {
  it("are those for the same purpose, before those that are set alike", () => {
    expect(names(nearestFirst([row("A", -20), row("B", -50, { purpose: "for cello" })], SOUGHT))).toEqual(["B", "A"]);
  });

  it("are those that are set most alike, and those of which the same was measured", () => {
    const rows = [row("far", -50), row("near", -22), row("same tags", -50, { measured: ["dark", "slow"] })];
    expect(names(nearestFirst(rows, SOUGHT))).toEqual(["same tags", "near", "far"]);
    expect(nearness(row("x", -20, { measured: ["dark", "slow"], purpose: "cello" }), SOUGHT)).toBe(3);
  });

  it("stay in their order where they are equally near", () => {
    expect(names(nearestFirst([row("1", -30), row("2", -30), row("3", -30)], SOUGHT))).toEqual(["1", "2", "3"]);
  });
});
