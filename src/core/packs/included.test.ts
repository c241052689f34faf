import { describe, expect, it } from "vitest";
import { processorsOf } from "../chains/tree";
import { fingerprint } from "../presets/fingerprint";
import { chainOf } from "../presets/preset";
import { completeContent, findContentProblem } from "../presets/whole";
import { CardSchema, ContentSchema } from "../presets/schema";
import { defaultValues } from "../processors/model";
import { MODELS } from "../processors/models";
import { INCLUDED } from "./included";

const { presets } = INCLUDED;

describe("the pack that comes with Diathesis", () => {
  it("holds a start for every model, which is not merely the maker's", () => {
    for (const model of MODELS) {
      const starts = presets.flatMap(({ content }) =>
        content.kind === "plugin" && content.processor.model === model.id ? [content.processor] : [],
      );
      expect(starts, model.id).toHaveLength(1);
      expect(starts[0]!.values, model.id).not.toEqual(defaultValues(model));
    }
  });
  it("holds only what the library takes, complete and within its ranges", () => {
    for (const { id, card, content } of presets) {
      expect(ContentSchema.safeParse(content).error, id).toBeUndefined();
      expect(CardSchema.safeParse(card).error, id).toBeUndefined();
      expect(findContentProblem(content), id).toBeNull();
      expect(completeContent(content), id).toEqual(content);
    }
  });
  it("has no two of a name, an id or a sound", () => {
    for (const of of [
      presets.map((p) => p.id),
      presets.map((p) => p.card.name.toLowerCase()),
      presets.map((p) => fingerprint(p.content)),
    ])
      expect(new Set(of).size).toBe(of.length);
  });
  it("puts nothing dry onto a return", () => {
    const returns = presets.filter(({ content }) => content.kind === "strip" && content.strip.kind === "return");
    expect(returns.length).toBeGreaterThan(3);
    for (const { id, content } of returns) {
      const dry = processorsOf(chainOf(content)).flatMap(({ values }) => values.dry ?? []);
      expect(dry, id).toEqual([-60]);
    }
  });
  it("names nobody's scenario: no artist, client, song or project", () => {
    for (const { card } of presets) expect(card.origin).toEqual({});
  });
});
