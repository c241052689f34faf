// @vitest-environment jsdom
import { createEvent, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { Folder } from "@/contracts/records";
import { DRAGGED_FOLDER, DRAGGED_SOUNDS } from "./dragged";
import { useLibrarySheet } from "./filing";
import { FolderTree, useOpened } from "./folder-tree";

const FOLDERS: readonly Folder[] = [
  { id: "b", name: "Bowed", parent: null, count: 3 },
  { id: "v", name: "Voices", parent: null, count: 9 },
  { id: "c", name: "Choir", parent: "v", count: 4 },
  { id: "s", name: "Sopranos", parent: "c", count: 1 },
];

const chosen: (string | undefined)[] = [];
const done: string[] = [];

beforeEach(() => {
  chosen.length = 0;
  done.length = 0;
  useOpened.setState({ opened: null });
});

afterEach(() => {
  cleanup();
  useLibrarySheet.setState({ open: null });
});

const show = (at?: string, folders = FOLDERS) =>
  render(
    <FolderTree
      folders={folders}
      chosen={at}
      onChoose={(folder) => chosen.push(folder)}
      onSounds={(folder, also) => done.push(`sounds ${also ? "also " : ""}into ${folder}`)}
      onMove={(folder, parent) => done.push(`${folder} into ${parent}`)}
      onGone={() => undefined}
    />,
  );
const names = () => screen.getAllByRole("treeitem").map((item) => item.getAttribute("aria-label"));
const item = (name: string) => screen.getByRole("treeitem", { name });
const key = (name: string, pressed: string) => fireEvent.keyDown(item(name), { key: pressed });
const focused = () => document.activeElement?.getAttribute("aria-label");

describe("a tree of folders", () => {
  it("is open while it is small, folds up and opens by arrows, and remembers that", () => {
    show();
    expect(names()).toEqual(["Bowed", "Voices", "Choir", "Sopranos"]);
    key("Choir", "ArrowLeft");
    expect(names()).toEqual(["Bowed", "Voices", "Choir"]);
    cleanup();
    show();
    expect(names()).toEqual(["Bowed", "Voices", "Choir"]);
    expect(item("Choir").getAttribute("aria-expanded")).toBe("false");
    key("Choir", "ArrowRight");
    expect(names()).toHaveLength(4);
  });

  it("is walked by keys: one line at a time, into and out of what holds others", () => {
    show("v");
    item("Voices").focus();
    key("Voices", "ArrowDown");
    expect(focused()).toBe("Choir");
    key("Choir", "ArrowRight");
    expect(focused()).toBe("Sopranos");
    key("Sopranos", "ArrowLeft");
    expect(focused()).toBe("Choir");
    key("Choir", "Home");
    expect(focused()).toBe("Bowed");
    key("Bowed", "End");
    expect(focused()).toBe("Sopranos");
    key("Sopranos", "Enter");
    expect(chosen).toEqual(["s"]);
  });

  it("keeps where one stands in sight, though what holds it is folded up", () => {
    show("s");
    key("Voices", "ArrowLeft");
    expect(names()).toContain("Sopranos");
  });

  it("is folded up from the start where it is large", () => {
    const many = Array.from({ length: 60 }, (_, n): Folder => ({ id: `m${n}`, name: `M ${n}`, parent: "v", count: 0 }));
    show(undefined, [...FOLDERS, ...many]);
    expect(names()).toEqual(["Bowed", "Voices"]);
    key("Voices", "ArrowRight");
    expect(names()).toHaveLength(63);
  });

  it("opens the sheets for a folder by keys: renamed, moved, one inside, taken away", () => {
    show();
    const opened = () => useLibrarySheet.getState().open;
    for (const [pressed, sheet] of [
      ["F2", { sheet: "folder", folder: "c" }],
      ["f", { sheet: "moveFolder", folder: "c" }],
      ["n", { sheet: "folder", folder: null, within: "c" }],
      ["Delete", { sheet: "folder", folder: "c" }],
    ] as const) {
      key("Choir", pressed);
      expect(opened(), pressed).toMatchObject(sheet);
    }
  });

  it("takes sounds and other folders that are dropped, but none into itself", () => {
    show();
    const carrying = (type: string) => ({ dataTransfer: { types: [type], setData: () => undefined } });
    // What is dragged has no keys in jsdom.
    const withCtrl = (name: string, type: string) => {
      const dropped = createEvent.drop(item(name), carrying(type));
      Object.defineProperty(dropped, "ctrlKey", { value: true });
      fireEvent(item(name), dropped);
    };
    fireEvent.drop(item("Choir"), carrying(DRAGGED_SOUNDS));
    withCtrl("Choir", DRAGGED_SOUNDS);
    fireEvent.dragStart(item("Choir"), carrying(DRAGGED_FOLDER));
    withCtrl("Bowed", DRAGGED_FOLDER);
    fireEvent.drop(item("Sopranos"), carrying(DRAGGED_FOLDER));
    fireEvent.drop(item("Bowed"), carrying("text/plain"));
    expect(done).toEqual(["sounds into c", "sounds also into c", "c into b"]);
  });
});
