import { describe, expect, it } from "vitest";
import { INCLUDED } from "../packs/included";
import { emptyCard } from "../presets/preset";
import { fingerprint } from "../presets/fingerprint";
import { parseChange, parsePreset, parseProject } from "./documents";

const CONTENT = INCLUDED.presets[0]!.content;
const AT = "2026-11-02T10:00:00.000Z";

const filed = (more: object = {}) => ({
  diathesis: "preset",
  form: 1,
  id: "p1",
  pack: null,
  card: emptyCard("Mine"),
  filedAt: AT,
  binnedAt: null,
  mergedInto: null,
  usedAt: null,
  versions: [{ version: 1, savedAt: AT, name: null, basedOn: null, content: CONTENT }],
  ...more,
});

const problemOf = (given: unknown) => {
  const parsed = parsePreset(given);
  return parsed.ok ? null : parsed.error;
};

describe("A preset in a file", () => {
  it("is read with what it sounds like, whatever the file says", () => {
    const parsed = parsePreset(filed());
    expect(parsed.ok && parsed.value.versions[0]!.fingerprint).toBe(fingerprint(CONTENT));
  });

  it.each([
    ["a newer form", { form: 2 }, "form", /newer Diathesis/],
    ["an id that is none", { id: "" }, "id", /./],
    ["a field that nobody knows", { extra: 1 }, "extra", /No such field/],
    ["no version", { versions: [] }, "versions", /./],
    [
      "a version that is not the first",
      { versions: [{ ...filed().versions[0], version: 2 }] },
      "versions[0].version",
      /from 1/,
    ],
    [
      "one made of itself",
      { versions: [{ ...filed().versions[0], basedOn: 1 }] },
      "versions[0].version",
      /made of one/,
    ],
    [
      "a newer content",
      { versions: [{ ...filed().versions[0], content: { ...CONTENT, schema: 99 } }] },
      "versions[0].content",
      /schema 99/,
    ],
    [
      "a content that is none",
      { versions: [{ ...filed().versions[0], content: { kind: "plugin", schema: 1, processor: 3 } }] },
      "versions[0].content.processor",
      /./,
    ],
    ["a name that cannot be seen", { card: emptyCard(" ") }, "card.name", /name/],
  ])("is refused with %s", (_, more, path, message) => {
    const problem = problemOf(filed(more));
    expect(problem?.path).toBe(path);
    expect(problem?.message).toMatch(message);
  });

  it("has versions of one kind", () => {
    const chain = INCLUDED.presets.find(({ content }) => content.kind !== CONTENT.kind)!.content;
    const versions = [filed().versions[0], { version: 2, savedAt: AT, name: null, basedOn: null, content: chain }];
    expect(problemOf(filed({ versions }))?.message).toMatch(/one kind/);
  });
});

describe("A project in a file", () => {
  it("is refused with what is wrong in it", () => {
    const outer = { diathesis: "project", form: 1, revision: 0, changedAt: AT, binnedAt: null, draft: null };
    const parsed = parseProject({ ...outer, project: { schema: 1, id: "x", name: "Song" } });
    expect(parsed.ok ? "" : parsed.error.path).toBe("project.artist");
    const newer = parseProject({ ...outer, project: { schema: 7 } });
    expect(newer.ok ? "" : newer.error.message).toMatch(/schema 7/);
  });
});

describe("A change in a file", () => {
  it("is refused where a step is none", () => {
    const change = { n: 1, at: AT, label: "Turn", undoes: null, redoes: null, window: null };
    const parsed = parseChange({ ...change, steps: [{ id: "s", kind: "dance" }] });
    expect(parsed.ok ? "" : parsed.error.path).toMatch(/^steps\[0\]/);
  });
});
