import { describe, expect, it } from "vitest";
import { renumberVersions } from "./renumber";

const NUMBERS = new Map([["p", new Map([[3, 4]])]]);

describe("New numbers of versions", () => {
  it("go wherever a version is mentioned, and nowhere else", () => {
    const document = {
      nodes: [
        { key: "a", values: { version: 3 }, from: { preset: "p", version: 3, name: "P" } },
        { key: "b", from: { preset: "p", version: 2, name: "P" } },
        { key: "c", from: { preset: "q", version: 3, name: "Q", along: { preset: "p", version: 3, name: "P" } } },
      ],
    };
    expect(renumberVersions(document, NUMBERS)).toEqual({
      nodes: [
        { key: "a", values: { version: 3 }, from: { preset: "p", version: 4, name: "P" } },
        { key: "b", from: { preset: "p", version: 2, name: "P" } },
        { key: "c", from: { preset: "q", version: 3, name: "Q", along: { preset: "p", version: 4, name: "P" } } },
      ],
    });
  });

  it("leave what mentions none the same object", () => {
    const document = { a: [{ from: { preset: "q", version: 3 } }], b: 3 };
    expect(renumberVersions(document, NUMBERS)).toBe(document);
    expect(renumberVersions(document, new Map())).toBe(document);
  });

  it("are also those of the version that one was made of, in the library's log", () => {
    const step = { kind: "version", preset: "p", version: 5, from: null, to: 3 };
    expect(renumberVersions(step, NUMBERS)).toEqual({ ...step, to: 4 });
    const bin = { kind: "bin", preset: "p", from: 3, to: 3 };
    expect(renumberVersions(bin, NUMBERS)).toBe(bin);
  });
});
