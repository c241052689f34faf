// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type House, openHouse, presetOf } from "@/app/testing/house";
import { said } from "@/app/testing/said";
import type { PresetRow } from "@/contracts/records";
import { INCLUDED } from "@/core/packs/included";
import type { Content } from "@/core/presets/preset";
import { value } from "@/server/testing";
import { getPreset, savePreset, saveVersion } from "@/server/use-cases/library";
import { CompareSheet } from "./compare-sheet";

const heard = vi.hoisted(() => new Map<string, string | null>());
vi.mock("../kit/say", () => import("@/app/testing/said"));
vi.mock("../listening/listening", () => ({
  hear: (sound: { name: string } | null) => heard.set("a", sound?.name ?? null),
  hearBeside: (sound: { name: string } | null) => heard.set("b", sound?.name ?? null),
  setPlaying: () => Promise.resolve(),
  setSide: () => undefined,
}));
vi.mock("../listening/state", () => ({ useListening: () => ({ playing: false, side: "a", processed: true }) }));

const PLUGIN = INCLUDED.presets.map((p) => p.content).find((c) => c.kind === "plugin" && c.processor.model === "room")!;
if (PLUGIN.kind !== "plugin") throw new Error("no plugin");

const turned = (values: Record<string, number>): Content => ({
  ...PLUGIN,
  processor: { ...PLUGIN.processor, values: { ...PLUGIN.processor.values, ...values } },
});

let house: House;

beforeEach(async () => {
  said.length = 0;
  heard.clear();
  house = await openHouse();
});

afterEach(() => house.close());

const save = async (name: string, ...versions: readonly Content[]): Promise<PresetRow> => {
  let row = value(await savePreset(house.context, { preset: presetOf(versions[0]!, { name }) }));
  for (const content of versions.slice(1))
    row = value(await saveVersion(house.context, row.id, { baseVersion: row.version, content }));
  return row;
};
const lines = () =>
  within(screen.getByRole("region", { name: "What differs" }))
    .queryAllByRole("row")
    .map((row) => [...row.children].map((cell) => cell.textContent));
const show = (left: PresetRow, leftVersion: number, right: PresetRow, rightVersion: number) =>
  house.show(
    <CompareSheet left={{ preset: left, version: leftVersion }} right={{ preset: right, version: rightVersion }} />,
  );

describe("two versions of a set", () => {
  const strip = (id: string, name: string, room: Content, fader: number) =>
    room.kind === "plugin"
      ? {
          id,
          name,
          kind: "audio" as const,
          inserts: { nodes: [room.processor], macros: [] },
          level: { fader, mute: false },
        }
      : null!;
  const set = (...strips: readonly ReturnType<typeof strip>[]): Content => ({
    kind: "set",
    schema: 1,
    strips: [...strips],
  });

  it("differ strip by strip, also where they were saved under other keys and one is new", async () => {
    const first = set(strip("a", "Kick", turned({ decay: 1 }), -3), strip("b", "Snare", turned({ decay: 1 }), -3));
    const second = set(
      strip("x", "Snare", turned({ decay: 2 }), -3),
      strip("y", "Kick", turned({ decay: 1 }), -6),
      strip("z", "Hat", turned({}), 0),
    );
    const row = await save("Kit", first, second);
    show(row, 1, row, 2);
    await waitFor(() => expect(lines()).toHaveLength(3));
    const [kick, snare, hat] = lines() as [string[], string[], string[]];
    expect([kick[0], kick[1], kick[2]]).toEqual(["Kick: Level", "−3.0 dB", "−6.0 dB"]);
    expect(snare[0]).toMatch(/^Snare: .*decay/i);
    expect(hat).toEqual(["Hat", "not in it", "in it"]);
    expect(screen.getByText("differs by 1 value and 1 part of the strips and 1 strip")).toBeTruthy();
  });
});

describe("two versions beside each other", () => {
  it("differ by just the values that were turned, each with what it was and what it is, and are heard as A and B", async () => {
    const row = await save("Room", turned({ decay: 1, wet: -12 }), turned({ decay: 2, wet: -12 }));
    show(row, 1, row, 2);
    await waitFor(() => expect(lines()).toHaveLength(1));
    const [[what, from, to]] = lines() as [[string, string, string]];
    expect(what).toMatch(/decay/i);
    expect([from, to].map((text) => Number.parseFloat(text))).toEqual([1, 2]);
    expect([heard.get("a"), heard.get("b")]).toEqual(["Room, version 1", "Room, version 2"]);
  });

  it("of which the earlier is made the newest: a new version, and nothing is lost", async () => {
    const row = await save("Room", turned({ decay: 1 }), turned({ decay: 2 }));
    show(row, 1, row, 2);
    const restore = await screen.findByRole("button", { name: /Make version 1 the newest/ });
    // Not before what would be the newest is here.
    await waitFor(() => expect(restore).toHaveProperty("disabled", false));
    fireEvent.click(restore);
    await waitFor(() => expect(said).toContain("Version 1 of “Room” is the newest again"));
    const { preset, versions } = value(await getPreset(house.context, row.id));
    expect([preset.version, versions.length]).toEqual([3, 3]);
    expect(preset.content).toEqual(value(await getPreset(house.context, row.id, 1)).preset.content);
  });

  it("can be chosen anew on either side", async () => {
    const row = await save("Room", turned({ decay: 2 }), turned({ decay: 1 }), turned({ decay: 2 }));
    show(row, 2, row, 3);
    await waitFor(() => expect(lines()).toHaveLength(1));
    const [left] = await screen.findAllByRole<HTMLSelectElement>("combobox");
    await waitFor(() => expect(within(left!).getAllByRole("option")).toHaveLength(3));
    fireEvent.change(left!, { target: { value: "1" } });
    expect(await screen.findByText("Both are set the same.")).toBeTruthy();
    expect(screen.getByText("no value differs")).toBeTruthy();
  });
});

describe("two strips beside each other", () => {
  const strip = (parts: object): Content => ({ kind: "strip", schema: 1, strip: { kind: "audio", ...parts } });

  it("tell part by part what each holds, in words", async () => {
    const one = await save(
      "One",
      strip({
        level: { fader: -3, mute: false },
        routing: { output: { external: true, kind: "group", name: "Strings" } },
        look: { name: "Cello", colour: "ochre" },
      }),
    );
    const other = await save(
      "Other",
      strip({
        level: { fader: -6, mute: true },
        routing: { output: { hardware: "Out 3–4" } },
        pan: { pan: -30, width: 100 },
        look: { name: "Cello", colour: "madder" },
      }),
    );
    show(one, 1, other, 1);
    await waitFor(() =>
      expect(lines()).toEqual([
        ["Level", "−3.0 dB", "−6.0 dB, muted"],
        ["Pan", "not held", "L 30"],
        ["Output", "Strings", "Out 3–4"],
        ["Look", "Cello, ochre", "Cello, madder"],
      ]),
    );
    expect(screen.getByText("differs by 4 parts of the strip")).toBeTruthy();
    expect(screen.getByRole("heading", { name: "Two sounds beside each other" })).toBeTruthy();
    expect(screen.queryByRole("button", { name: /the newest/ })).toBeNull();
  });
});
