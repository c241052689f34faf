import { QueryClient } from "@tanstack/react-query";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { KEYS, followChanges } from "./events";

/** The line to the server, told what to say. */
class Line extends EventTarget {
  static newest: Line;
  isClosed = false;
  constructor(readonly address: string) {
    super();
    Line.newest = this;
  }
  close() {
    this.isClosed = true;
  }
  open() {
    this.dispatchEvent(new Event("open"));
  }
  tell(...records: readonly { kind: string; id: string; revision?: number }[]) {
    this.dispatchEvent(new MessageEvent("change", { data: JSON.stringify({ seq: 1, records }) }));
  }
}

let queries: QueryClient;

const KEPT = {
  presets: KEYS.presets,
  rim: KEYS.preset("rim"),
  rimVersion: KEYS.version("rim", 2),
  air: KEYS.preset("air"),
  folders: KEYS.folders,
  bin: KEYS.bin,
  history: KEYS.libraryHistory,
  settings: KEYS.settings,
  media: KEYS.media,
  projects: KEYS.projects,
  mine: KEYS.project("mine"),
  other: KEYS.project("other"),
  shown: KEYS.project("shown"),
  revisions: [...KEYS.project("shown"), "revisions"],
};

beforeEach(() => {
  vi.stubGlobal("EventSource", Line);
  queries = new QueryClient();
  for (const key of Object.values(KEPT)) queries.setQueryData(key, "as it was");
});

/** Which of what is kept will be fetched anew. */
const stale = () =>
  Object.entries(KEPT).flatMap(([name, key]) => (queries.getQueryState(key)?.isInvalidated ? name : []));
/** Of one project something is on its way from here; of another the seventh revision is shown. */
const follow = () =>
  followChanges(queries, (project, revision) => project === "mine" || (project === "shown" && revision <= 7));

describe("news of changes", () => {
  it("of a preset concern it, its versions, every list and the bin, and no other preset", () => {
    follow();
    Line.newest.tell({ kind: "preset", id: "rim" });
    expect(stale()).toEqual(["presets", "rim", "rimVersion", "folders", "bin", "history"]);
  });

  it("of a project concern it and the list of projects, but not one whose changes are on their way from here", () => {
    follow();
    Line.newest.tell({ kind: "project", id: "other" }, { kind: "project", id: "mine" });
    expect(stale()).toEqual(["projects", "other"]);
  });

  it.each([
    [7, ["projects", "revisions"]],
    [8, ["projects", "shown", "revisions"]],
    [undefined, ["projects", "shown", "revisions"]],
  ])("of revision %s of a project that is shown concern what is not known of it", (revision, then) => {
    follow();
    Line.newest.tell({ kind: "project", id: "shown", ...(revision === undefined ? {} : { revision }) });
    expect(stale()).toEqual(then);
  });

  it.each([
    ["settings", ["settings"]],
    ["media", ["media"]],
    ["folder", ["folders", "bin", "history"]],
  ])("of %s concern just that", (kind, then) => {
    follow();
    Line.newest.tell({ kind, id: "" });
    expect(stale()).toEqual(then);
  });

  it("that were missed while the line was down are fetched when it is up again", () => {
    follow();
    Line.newest.open();
    expect(stale()).toEqual([]);
    Line.newest.open();
    expect(stale()).toEqual(Object.keys(KEPT).filter((name) => name !== "mine"));
  });

  it("end when they are not followed any more", () => {
    const stop = follow();
    expect(Line.newest.address).toBe("/api/events");
    stop();
    expect(Line.newest.isClosed).toBe(true);
  });
});
