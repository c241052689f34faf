// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { layOut } from "@/app/testing/furnish";
import { type House, openHouse, presetOf } from "@/app/testing/house";
import { goTo } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import type { PresetRow } from "@/contracts/records";
import { INCLUDED } from "@/core/packs/included";
import { asStrip } from "@/core/presets/as-strip";
import type { Card, Content } from "@/core/presets/preset";
import { value } from "@/server/testing";
import { listBin } from "@/server/use-cases/filing/bin";
import { deletePreset, patchCards } from "@/server/use-cases/filing/cards";
import { listFolders } from "@/server/use-cases/filing/folders";
import { walkLibrary } from "@/server/use-cases/filing/history";
import { findPresets } from "@/server/use-cases/find-presets";
import { getPreset, savePresets } from "@/server/use-cases/library";
import { getSettings } from "@/server/use-cases/settings";
import { useListening } from "../listening/state";
import { BinSheet } from "./bin-sheet";
import { NamingSheet } from "./naming-sheet";
import { NearCopiesSheet } from "./near-copies-sheet";
import { RenameSheet } from "./rename-sheet";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

const [CHAIN, OTHER] = INCLUDED.presets.map((p) => p.content).filter((c) => c.kind === "chain") as [Content, Content];

let house: House;

beforeEach(async () => {
  said.length = 0;
  house = await openHouse();
  layOut({ width: 820, height: 320 });
});

afterEach(() => house.close());

const keep = async (...cards: readonly (Partial<Card> & { readonly content?: Content })[]) =>
  value(
    await savePresets(house.context, { presets: cards.map(({ content = CHAIN, ...card }) => presetOf(content, card)) }),
  );
const names = async () =>
  (await findPresets(house.context, { sort: "name", limit: 500 })).items.map((p) => p.card.name);
const press = (name: RegExp | string) => fireEvent.click(screen.getByRole("button", { name }));
const type = (label: RegExp | string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });

describe("names by a pattern", () => {
  const FOUR = [
    { name: "v1", purpose: "lead voice", origin: { song: "Neap Tide", artist: "Copper Heron" } },
    { name: "v2", purpose: "lead voice", origin: { song: "Salt Lanterns", artist: "Copper Heron" } },
    { name: "v3", purpose: "lead voice", origin: { song: "Neap Tide", artist: "Copper Heron" } },
    { name: "v4", purpose: "", origin: {} },
  ];
  const after = () =>
    within(screen.getByRole("table", { name: "Names before and after" }))
      .getAllByRole("row")
      .map((row) => within(row).getAllByRole("cell").at(-1)!.textContent);

  it("are shown each, numbered where they would meet, and given in one step", async () => {
    const rows = await keep(...FOUR);
    house.show(<RenameSheet presets={rows} />);
    type("Pattern", "{purpose}, {song}");
    await waitFor(() =>
      expect(after()).toEqual([
        "lead voice, Neap Tide",
        "lead voice, Salt Lanterns",
        "lead voice, Neap Tide 2that name is taken",
        "keeps its name: the pattern gives none",
      ]),
    );
    press("Rename 3 of 4");
    await waitFor(async () =>
      expect(await names()).toEqual([
        "lead voice, Neap Tide",
        "lead voice, Neap Tide 2",
        "lead voice, Salt Lanterns",
        "v4",
      ]),
    );
    expect((await getSettings(house.context)).settings.patterns.chain?.[0]).toBe("{purpose}, {song}");
    value(await walkLibrary(house.context, "undo"));
    expect(await names()).toEqual(["v1", "v2", "v3", "v4"]);
  });

  it("make way for a name that is in the library already", async () => {
    await keep({ name: "lead voice", content: OTHER }, { name: "Lead Voice 2", content: OTHER });
    const rows = await keep(FOUR[0]!);
    house.show(<RenameSheet presets={rows} />);
    type("Pattern", "{purpose}");
    await waitFor(() => expect(after()).toEqual(["lead voice 3that name is taken"]));
  });

  it("are a second name beside the first for a device: cut, told apart, found, and taken back", async () => {
    const rows = await keep(...FOUR.slice(0, 3));
    house.show(<RenameSheet presets={rows} />);
    type("Pattern", "{purpose}, {song}");
    type("Gives", "8");
    await waitFor(() => expect(after()).toEqual(["ld vc Np", "ld vc Sl", "ld vc N2"]));
    press("Give a short name to 3 of 3");
    await waitFor(() => expect(said.at(-1)).toBe("Give a short name to 3 sounds"));
    const shorts = async () => (await findPresets(house.context, { sort: "name" })).items.map((p) => p.card.short);
    expect(await shorts()).toEqual(["ld vc Np", "ld vc Sl", "ld vc N2"]);
    expect(await names()).toEqual(["v1", "v2", "v3"]);
    const found = await findPresets(house.context, { q: 'name:"vc sl"' });
    expect(found.items.map((p) => p.card.name)).toEqual(["v2"]);
    value(await walkLibrary(house.context, "undo"));
    expect(await shorts()).toEqual([undefined, undefined, undefined]);
  });

  it("show what a field can be and do while it is typed, and take it by a key", async () => {
    const rows = await keep(...FOUR);
    house.show(<RenameSheet presets={rows} />);
    const field = screen.getByLabelText<HTMLInputElement>("Pattern");
    const typeOn = (text: string) => {
      fireEvent.change(field, { target: { value: text } });
      field.setSelectionRange(text.length, text.length);
      fireEvent.select(field);
    };
    const offered = () =>
      within(screen.getByRole("list", { name: "What can stand here" }))
        .getAllByRole("button")
        .map((button) => button.textContent);
    typeOn("{so");
    expect(offered()).toEqual(["songthe song Neap Tide"]);
    fireEvent.keyDown(field, { key: "Enter" });
    expect(field.value).toBe("{song}");
    typeOn("{song:");
    expect(offered().slice(0, 2)).toEqual(["upperIN CAPITALS NEAP TIDE", "lowerin small letters neap tide"]);
    fireEvent.keyDown(field, { key: "ArrowDown" });
    fireEvent.keyDown(field, { key: "ArrowDown" });
    fireEvent.keyDown(field, { key: "ArrowUp" });
    fireEvent.keyDown(field, { key: "Tab" });
    expect(field.value).toBe("{song:lower}");
    // None of these keys has renamed anything.
    expect(await names()).toEqual(["v1", "v2", "v3", "v4"]);
  });

  it("say which field is none, and count where a number is asked for", async () => {
    const rows = await keep(...FOUR);
    house.show(<RenameSheet presets={rows} />);
    type("Pattern", "{mood} {number:2}");
    expect((await screen.findByRole("status")).textContent).toBe("{mood} is not understood; it stays as it stands.");
    await waitFor(() => expect(after()).toEqual(["{mood} 01", "{mood} 02", "{mood} 03", "{mood} 04"]));
  });

  it("change nothing where they are those that are there", async () => {
    const rows = await keep(...FOUR);
    house.show(<RenameSheet presets={rows} />);
    type("Pattern", "{name}");
    await waitFor(() => expect(screen.getByRole("button", { name: "Rename 0 of 4" })).toHaveProperty("disabled", true));
  });
});

describe("names to mend", () => {
  it("are listed with what is wrong and a proposal, and given as they were ticked and typed", async () => {
    await keep(
      { name: "Preset 3", purpose: "lead voice", origin: { song: "Neap Tide" } },
      { name: "untitled", purpose: "reed" },
      { name: "Nave, far pair", purpose: "room", origin: { artist: "Copper Heron" } },
    );
    house.show(<NamingSheet />);
    const lines = await screen.findAllByLabelText(/^New name of/);
    expect(lines.map((l) => l.getAttribute("aria-label"))).not.toContain("New name of “Nave, far pair”");
    type("New name of “untitled”", "Reed, soft");
    fireEvent.click(screen.getByRole("checkbox", { name: "Rename “Preset 3”" }));
    press(/^Rename 1 of/);
    await waitFor(async () => expect(await names()).toEqual(["Nave, far pair", "Preset 3", "Reed, soft"]));
    await waitFor(() => expect(said.at(-1)).toBe("Rename “untitled”"));
    value(await walkLibrary(house.context, "undo"));
    expect(await names()).toContain("untitled");
  });

  it("say where the name that is typed is another's, in the library or a line away", async () => {
    await keep(
      { name: "Nave, far pair", purpose: "room", origin: { artist: "Copper Heron" } },
      { name: "Preset 3" },
      { name: "untitled", content: OTHER },
    );
    house.show(<NamingSheet />);
    await screen.findAllByLabelText(/^New name of/);
    type("New name of “Preset 3”", "nave, far pair");
    expect(await screen.findByText("Another sound has that name.")).toBeTruthy();
    type("New name of “Preset 3”", "Reed, soft");
    await waitFor(() => expect(screen.queryByText("Another sound has that name.")).toBeNull());
    type("New name of “untitled”", "Reed, soft");
    await waitFor(() => expect(screen.getAllByText("Another sound has that name.")).toHaveLength(2));
  });

  it("are worked through in any number, and heard", async () => {
    await keep(...Array.from({ length: 70 }, (_, n) => ({ name: `Preset ${n + 1}` })));
    house.show(<NamingSheet />);
    await screen.findByText("1 to 50 of 70");
    fireEvent.click(screen.getByLabelText("Hear “Preset 1”"));
    expect(await screen.findByLabelText("Stop")).toBeTruthy();
    expect(useListening.getState().a?.name).toBe("Preset 1");
    const turn = (button: string) => fireEvent.click(screen.getByText(button));
    turn("Next 20");
    await screen.findByText("51 to 70 of 70");
    type("New name of “Preset 70”", "Reed, soft");
    turn("50 before");
    await screen.findByText("1 to 50 of 70");
    // What was typed stays from page to page.
    turn("Next 20");
    await waitFor(() => expect(screen.getByDisplayValue("Reed, soft")).toBeTruthy());
  });

  it("are none where every name tells its sound", async () => {
    await keep({ name: "Nave, far pair", purpose: "room", origin: { artist: "Copper Heron" } });
    house.show(<NamingSheet />);
    expect(await screen.findByText(/There is nothing to mend/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: /^Rename/ })).toBeNull();
  });
});

describe("near copies", () => {
  const group = () => screen.findByRole("group", { name: /^Alike/ });

  it("stand together, the best rated to stay; merged, their tags and versions are with it", async () => {
    const [plain, rated] = (await keep(
      { name: "Rim", tags: ["warm"] },
      { name: "Rim again", tags: ["close"], rating: 4 },
      { name: "Nave", content: OTHER },
    )) as [PresetRow, PresetRow];
    house.show(<NearCopiesSheet chosen={[]} />);
    const radios = within(await group()).getAllByRole("radio");
    expect(radios.map((r) => (r as HTMLInputElement).checked)).toEqual(
      radios.map((r) => r.closest("label")!.textContent.includes("Rim again")),
    );
    press("Merge into “Rim again”");
    await waitFor(async () => expect(await names()).toEqual(["Nave", "Rim again"]));
    const detail = value(await getPreset(house.context, rated.id));
    expect(detail.preset.card.tags.toSorted()).toEqual(["close", "warm"]);
    expect(detail.merged.map((m) => m.id)).toEqual([plain.id]);
    value(await walkLibrary(house.context, "undo"));
    expect(await names()).toEqual(["Nave", "Rim", "Rim again"]);
  });

  it("are looked for in a folder or among those that are chosen, and it is said of how many", async () => {
    const rows = await keep(
      { name: "Rim" },
      { name: "Rim again" },
      { name: "Rim, third" },
      { name: "Nave", content: OTHER },
    );
    const [rim, again, third] = rows as [PresetRow, PresetRow, PresetRow];
    value(
      await patchCards(house.context, {
        changes: [rim, third].map(({ id }) => ({ id, baseCard: 1, card: { rating: 1 } })),
        newFolder: "Voices / Lead",
      }),
    );
    const voices = (await listFolders(house.context)).find(({ name }) => name === "Voices")!;
    goTo(`/library?folder=${voices.id}`);
    house.show(<NearCopiesSheet chosen={[again, rim]} />);
    const names = async () =>
      within(await group())
        .getAllByRole("radio")
        .map((r) => r.closest("label")!.querySelector(".name")!.textContent);
    expect(await screen.findByText("1 group in 2 sounds")).toBeTruthy();
    expect((await names()).toSorted()).toEqual(["Rim", "Rim again"]);
    type("Among", "folder");
    await waitFor(async () => expect((await names()).toSorted()).toEqual(["Rim", "Rim, third"]));
    type("Among", "all");
    expect(await screen.findByText("1 group in 4 sounds")).toBeTruthy();
    goTo("/library");
  });

  it("show tags, rating and uses, every value beside the others, and are heard without leaving", async () => {
    const plugin = INCLUDED.presets.map((p) => p.content).find((c) => c.kind === "plugin");
    if (plugin?.kind !== "plugin") throw new Error("no plugin");
    const { processor } = plugin;
    const [id, now] = Object.entries(processor.values).find(([, v]) => typeof v === "number" && !Number.isInteger(v))!;
    const turned = (by: number): Content => ({
      ...plugin,
      processor: { ...processor, values: { ...processor.values, [id]: Number(now) * by } },
    });
    await keep(
      { name: "Rim", content: plugin, tags: ["warm", "close"], rating: 4 },
      { name: "Rim, up", content: turned(1.004) },
      { name: "Rim, down", content: turned(0.996) },
    );
    house.show(<NearCopiesSheet chosen={[]} />);
    type("Set alike within", "1");
    const rim = within(await group());
    const line = rim.getByText("Rim").closest("div")!;
    expect(line.textContent).toContain("warm, close");
    expect(line.textContent).toContain("4 of 5never used");
    fireEvent.click(rim.getByRole("button", { name: "Values beside each other" }));
    const table = within(rim.getByRole("table"));
    expect(table.getAllByRole("columnheader").map((cell) => cell.textContent)).toEqual([
      "",
      "Rim",
      ...["Rim, up", "Rim, down"].toSorted((a, b) => order(a) - order(b)),
    ]);
    expect(table.getAllByRole("row")).toHaveLength(2);
    fireEvent.click(rim.getByRole("button", { name: "Hear “Rim, up”" }));
    await waitFor(() => expect(useListening.getState()).toMatchObject({ playing: true, side: "b" }));
    const { a, b } = useListening.getState();
    expect([a?.name, b?.name]).toEqual(["Rim", "Rim, up"]);
    fireEvent.click(rim.getByRole("button", { name: "Stop" }));
    await waitFor(() => expect(useListening.getState().playing).toBe(false));

    function order(name: string): number {
      return rim.getAllByRole("radio").findIndex((r) => r.closest("label")!.textContent.startsWith(name));
    }
  });

  it("that play by themselves are heard beside each other at the first press", async () => {
    const instrument = INCLUDED.presets.map((p) => p.content).find((c) => asStrip(c)?.source?.type === "layers")!;
    await keep({ name: "Reed", content: instrument, rating: 5 }, { name: "Reed again", content: instrument });
    house.show(<NearCopiesSheet chosen={[]} />);
    fireEvent.click(within(await group()).getByRole("button", { name: "Hear “Reed again”" }));
    await waitFor(() => expect(useListening.getState()).toMatchObject({ side: "b", b: { name: "Reed again" } }));
  });

  it("that are kept are shown no more, until they are asked for again", async () => {
    await keep({ name: "Rim" }, { name: "Rim again" });
    house.show(<NearCopiesSheet chosen={[]} />);
    await group();
    press("Keep both");
    await waitFor(() => expect(screen.queryByRole("group", { name: /^Alike/ })).toBeNull());
    expect(said.at(-1)).toBe("2 sounds are kept as they are");
    expect((await getSettings(house.context)).settings.apart).toHaveLength(1);
    press("Show again");
    expect(await group()).toBeTruthy();
    expect(await names()).toEqual(["Rim", "Rim again"]);
  });

  it("are looked for within a wider distance", async () => {
    const plugin = INCLUDED.presets.map((p) => p.content).find((c) => c.kind === "plugin");
    if (plugin?.kind !== "plugin") throw new Error("no plugin");
    const { processor } = plugin;
    const [id, now] = Object.entries(processor.values).find(([, v]) => typeof v === "number" && !Number.isInteger(v))!;
    const turned = { ...processor, values: { ...processor.values, [id]: Number(now) * 1.0005 } };
    const near: Content = { ...plugin, processor: turned };
    await keep({ name: "Rim", content: plugin }, { name: "Rim, a hair off", content: near });
    house.show(<NearCopiesSheet chosen={[]} />);
    expect(await screen.findByText(/No two sounds are set so alike/)).toBeTruthy();
    type("Set alike within", "1");
    expect((await group()).textContent).toContain("Rim, a hair off");
  });
});

describe("the bin", () => {
  const fill = async () => {
    const rows = await keep({ name: "Rim" }, { name: "Nave", content: OTHER });
    for (const { id } of rows) value(await deletePreset(house.context, id));
    house.show(<BinSheet />);
    await screen.findByText("Rim");
    return rows;
  };

  it("gives back one, or all", async () => {
    await fill();
    press("Restore Rim");
    await waitFor(async () => expect(await names()).toEqual(["Rim"]));
    expect(said).toContain("Restored “Rim”");
    await waitFor(() => expect(screen.queryByText("Rim")).toBeNull());
    press("Restore Nave");
    await waitFor(async () => expect(await names()).toEqual(["Nave", "Rim"]));
    expect(await screen.findByText(/Nothing is in the bin/)).toBeTruthy();
  });

  it("is emptied only when that is asked twice", async () => {
    await fill();
    press("Empty the bin…");
    expect((await screen.findByRole("alert")).textContent).toBe("2 sounds with all versions will be gone for good.");
    expect(await listBin(house.context)).toHaveLength(2);
    press("Yes, empty it");
    await waitFor(async () => expect(await listBin(house.context)).toEqual([]));
    expect(said).toContain("2 sounds are gone for good");
    expect((await house.context.db("preset_versions").count({ n: "*" }))[0]?.n).toBe(0);
  });
});
