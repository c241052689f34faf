import { describe, expect, it } from "vitest";
import { type ListedEntry, type Manifest, checkList, checkManifest, whyNotRead } from "./manifest";

const entry = (path: string, more: Partial<ListedEntry> = {}): ListedEntry => ({
  path,
  bytes: 10,
  packedBytes: 10,
  isLink: false,
  isLocked: false,
  ...more,
});

const why = (...entries: readonly ListedEntry[]): string => {
  const checked = checkList(entries);
  return checked.ok ? "" : checked.error;
};

describe("What an archive lists", () => {
  it("is read where every path is one of ours", () => {
    expect(why(entry("manifest.json"), entry("READ ME.txt"), entry("projects/001-Ölmühle.json"))).toBe("");
  });

  it.each([
    ["../x", /leads out/],
    ["presets/../../x", /leads out/],
    ["/etc/passwd", /absolute/],
    ["C:/x", /absolute/],
    ["a\\b", /backslash/],
    ["presets//x", /signs/],
    ["presets/.hidden", /signs/],
    ["a\u0000b", /signs/],
  ])("%j is not touched", (path, message) => {
    expect(why(entry("manifest.json"), entry(path))).toMatch(message);
    expect(why(entry(path))).toContain(path);
  });

  it("has each file once, also where only capitals differ", () => {
    expect(why(entry("a.json"), entry("a.json"))).toMatch(/twice/);
    expect(why(entry("presets/a.json"), entry("Presets/A.json"))).toMatch(/capitals/);
  });

  it("has no links, no locks and nothing that would fill the disk", () => {
    expect(why(entry("a.json", { isLink: true }))).toMatch(/link/);
    expect(why(entry("a.json", { isLocked: true }))).toMatch(/password/);
    expect(why(entry("a.json", { bytes: 2 ** 31, packedBytes: 2 ** 21 }))).toMatch(/far more room/);
    expect(why(entry("a.json", { bytes: 900_000, packedBytes: 100 }))).toBe("");
  });
});

describe("A manifest", () => {
  const sha256 = "0".repeat(64);
  const manifest = (...paths: readonly string[]): Manifest => ({
    diathesis: "archive",
    form: 1,
    madeAt: "2026-11-02T10:00:00.000Z",
    madeBy: "Diathesis",
    scope: { kind: "all" },
    counts: { presets: 0, versions: 0, folders: 0, projects: 0, drafts: 0, media: 0 },
    entries: paths.map((path) => ({ path, bytes: 10, sha256 })),
  });
  const problem = (...args: Parameters<typeof checkManifest>): string => {
    const checked = checkManifest(...args);
    return checked.ok ? "" : checked.error;
  };

  it("names what is there, and nothing else", () => {
    const there = [entry("manifest.json"), entry("a.json")];
    expect(problem(manifest("a.json"), there)).toBe("");
    expect(problem(manifest("a.json", "b.json"), there)).toMatch(/“b.json” is missing/);
    expect(problem(manifest(), there)).toMatch(/does not know/);
    expect(problem(manifest("a.json", "a.json"), there)).toMatch(/twice/);
    expect(problem(manifest("a.json"), [entry("a.json", { bytes: 11 })])).toMatch(/11 bytes/);
  });

  it("of a newer form is not read", () => {
    expect(whyNotRead({ form: 2 })).toMatch(/newer/);
    expect(whyNotRead({ form: 1 })).toBeNull();
  });
});
