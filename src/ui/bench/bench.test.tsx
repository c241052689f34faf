// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet, engine } from "@/app/testing/engine";
import { drag, layOut } from "@/app/testing/furnish";
import { Keys, press, undo } from "@/app/testing/hands";
import { type House, openHouse, presetOf } from "@/app/testing/house";
import { goTo, whereNow } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import type { ChainNode, Macro, Processor } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { parseClipping } from "@/core/chains/clipping";
import { type Content, chainOf } from "@/core/presets/preset";
import { CONTENT_SCHEMA } from "@/core/presets/version";
import { value } from "@/server/testing";
import { getPreset, savePresets, saveVersion } from "@/server/use-cases/library";
import { getSettings } from "@/server/use-cases/settings";
import { useSave } from "../save/save";
import { Bench } from "./bench";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

const plugin = (key: string, model: string, values: Processor["values"] = {}): Processor => ({
  type: "processor",
  key,
  model,
  enabled: true,
  values,
});
const EQ = plugin("eq", "parametric-eq", { "band1.used": 1, "band1.freq": 400, "band1.gain": -3 });
const COMP = plugin("comp", "vca-compressor", { threshold: -20, ratio: 2 });
const PLATE = plugin("plate", "plate", { decay: 2 });

const contentOf = (nodes: readonly ChainNode[], macros: readonly Macro[] = []): Content => ({
  kind: "chain",
  schema: CONTENT_SCHEMA,
  chain: { nodes: [...nodes], macros: [...macros] },
});

let house: House;
let preset: string;

beforeEach(async () => {
  said.length = 0;
  quiet();
  useSave.setState({ request: null });
  house = await openHouse();
  layOut({ width: 200, height: 20 });
});

afterEach(() => house.close());

const chain = () => screen.getByRole("group", { name: "Chain" });
const tiles = () =>
  [...chain().querySelectorAll("button[data-node]")].map((tile) => tile.getAttribute("aria-label")?.split(",")[0]);
const tile = (name: RegExp | string) => within(chain()).getByRole("button", { name });
const click = (name: RegExp | string) => fireEvent.click(screen.getByRole("button", { name }));
const state = () => screen.getByRole("banner").textContent;
const side = () => screen.getByRole("complementary", { name: "Beside the bench" });
const show = (tab: string) => fireEvent.click(within(side()).getByRole("radio", { name: new RegExp(`^${tab}`) }));

/** A sound of the library on the bench. */
async function open(content: Content, tilesThen: number): Promise<void> {
  const [row] = value(await savePresets(house.context, { presets: [presetOf(content, { name: "Rim" })] }));
  preset = row!.id;
  await openAt(`/bench?preset=${preset}`, tilesThen);
}

async function openAt(address: string, tilesThen: number): Promise<void> {
  goTo(address);
  house.show(
    <>
      <Keys />
      <Bench />
    </>,
  );
  await waitFor(() => expect(tiles()).toHaveLength(tilesThen));
}

/** What the audio thread has of A. */
const heard = () => engine.sounds.a?.chain ?? [];
const saved = async (version?: number) =>
  chainOf(value(await getPreset(house.context, preset, version)).preset.content);
const versionNow = async () => value(await getPreset(house.context, preset)).preset.version;

describe("a sound on the bench", () => {
  it("is as it was saved, and is heard", async () => {
    await open(contentOf([EQ, COMP]), 2);
    await waitFor(() => expect(state()).toContain("version 1, nothing changed"));
    expect(tiles()).toEqual(["Parametric EQ", "VCA compressor"]);
    await waitFor(() => expect(heard()).toHaveLength(2));
    await waitFor(() => expect(engine.sounds.b?.chain).toHaveLength(2));
  });

  it("differs by what is turned, said value by value, each put back alone", async () => {
    await open(contentOf([EQ, COMP]), 2);
    await waitFor(() => expect(state()).toContain("nothing changed"));
    const lead = screen.getByRole("slider", { name: /^VCA compressor:/ });
    fireEvent.keyDown(lead, { key: "ArrowUp" });
    await waitFor(() => expect(state()).toContain("1 value differs from version 1"));
    press("o");
    await waitFor(() => expect(state()).toContain("differ from version 1"));
    expect(tile(/^Parametric EQ, off/)).toBeTruthy();
    click("Put back VCA compressor: Threshold");
    await waitFor(() => expect(within(side()).queryByText(/Threshold/)).toBeNull());
    click("Back to saved");
    await waitFor(() => expect(state()).toContain("nothing changed"));
  });

  it("is saved once by three quick presses, and by each press that follows a change", async () => {
    await open(contentOf([COMP]), 1);
    const lead = () => screen.getByRole("slider", { name: /^VCA compressor:/ });
    fireEvent.keyDown(lead(), { key: "ArrowUp" });
    await waitFor(() => expect(state()).toContain("1 value differs"));
    for (let n = 0; n < 3; n++) press("s", { ctrlKey: true });
    await waitFor(() => expect(state()).toContain("version 2, nothing changed"));
    fireEvent.keyDown(lead(), { key: "ArrowUp" });
    press("s", { ctrlKey: true });
    await waitFor(() => expect(state()).toContain("version 3, nothing changed"));
    expect(await versionNow()).toBe(3);
    expect(said.filter((words) => !/^Saved version|is as it was saved/.test(words))).toEqual([]);
  });

  it("of which there is a newer version says so, and takes it value by value, with one undo", async () => {
    const [row] = value(
      await savePresets(house.context, { presets: [presetOf(contentOf([EQ, COMP]), { name: "Rim" })] }),
    );
    preset = row!.id;
    const later = contentOf([EQ, { ...COMP, values: { threshold: -26, ratio: 2 } }]);
    value(await saveVersion(house.context, preset, { baseVersion: 1, content: later }));
    await openAt(`/bench?preset=${preset}&version=1`, 2);
    await waitFor(() => expect(state()).toContain("version 1 of 2, nothing changed"));
    click("Take version 2");
    await waitFor(() => expect(state()).toContain("version 2, nothing changed"));
    expect(screen.getByRole("slider", { name: /^VCA compressor:/ }).getAttribute("aria-valuenow")).toBe("-26");
    undo();
    await waitFor(() => expect(state()).toContain("version 1 of 2, nothing changed"));
  });

  it("of which there is a newer version is saved behind that, once it is said; nothing is sent before", async () => {
    await open(contentOf([EQ, COMP]), 2);
    click("Take out");
    await waitFor(() => expect(state()).toContain("differ"));
    press("s", { ctrlKey: true });
    await waitFor(() => expect(state()).toContain("version 2, nothing changed"));
    undo();
    await waitFor(() => expect(state()).toContain("version 1 of 2"));
    const saves = () => house.asked.filter((asked) => asked.startsWith("PUT")).length;
    expect(saves()).toBe(1);
    press("s", { ctrlKey: true });
    await waitFor(() => expect(said.at(-1)).toContain("has version 2 by now; yours is based on version 1."));
    expect(saves()).toBe(1);
  });

  it("is dragged by its lead value: heard on the way, one step at the end", async () => {
    await open(contentOf([COMP]), 1);
    await waitFor(() => expect(heard()).toHaveLength(1));
    const lead = () => screen.getByRole("slider", { name: /^VCA compressor:/ });
    const at = () => Number(lead().getAttribute("aria-valuenow"));
    drag(lead(), [
      [0, 0],
      [16, 0],
      [32, 0],
    ]);
    expect(at()).toBeGreaterThan(-20);
    await waitFor(() => expect(state()).toContain("1 value differs"));
    undo();
    await waitFor(() => expect(at()).toBe(-20));
    await waitFor(() => expect(screen.getByRole("button", { name: "Undo" })).toHaveProperty("disabled", true));
  });

  it("takes an undo also after a drag that was broken off", async () => {
    await open(contentOf([COMP]), 1);
    const lead = () => screen.getByRole("slider", { name: /^VCA compressor:/ });
    fireEvent.keyDown(lead(), { key: "ArrowUp" });
    const ruler = () => screen.getByRole("slider", { name: "Threshold" });
    await waitFor(() => expect(ruler()).toBeTruthy());
    fireEvent.pointerDown(ruler(), { clientX: 10, button: 0 });
    fireEvent.pointerMove(ruler(), { clientX: 150 });
    fireEvent.pointerCancel(ruler());
    undo();
    await waitFor(() => expect(Number(lead().getAttribute("aria-valuenow"))).toBe(-20));
  });

  it("is saved again by one key, as a version beside the one before", async () => {
    await open(contentOf([COMP]), 1);
    fireEvent.keyDown(screen.getByRole("slider", { name: /^VCA compressor:/ }), { key: "ArrowUp" });
    await waitFor(() => expect(state()).toContain("1 value differs"));
    press("s", { ctrlKey: true });
    await waitFor(() => expect(said.at(-1)).toContain("Saved version 2 of “Rim”. Earlier ones are kept."));
    await waitFor(() => expect(state()).toContain("version 2, nothing changed"));
    expect(processorsOf(await saved(1))[0]?.values.threshold).toBe(-20);
    expect(processorsOf(await saved(2))[0]?.values.threshold).not.toBe(-20);
  });

  it("asks for another name by the other key", async () => {
    await open(contentOf([COMP]), 1);
    press("S", { ctrlKey: true, shiftKey: true });
    expect(useSave.getState().request).toMatchObject({ strips: ["strip"] });
    expect(await versionNow()).toBe(1);
  });
});

describe("plugins", () => {
  it("are added behind the one that is chosen, by a digit, and chosen then", async () => {
    await open(contentOf([EQ, COMP]), 2);
    fireEvent.click(tile("Parametric EQ"));
    press("3");
    await waitFor(() => expect(tiles()).toHaveLength(3));
    expect(tiles()[0]).toBe("Parametric EQ");
    expect(tiles()[2]).toBe("VCA compressor");
    await waitFor(() =>
      expect(chain().querySelector('[aria-pressed="true"]')).toBe(tile(new RegExp(`^${tiles()[1]!}`))),
    );
  });

  it("are moved, doubled and taken out by key; each is one undo", async () => {
    await open(contentOf([EQ, COMP]), 2);
    fireEvent.click(tile("Parametric EQ"));
    press("ArrowRight", { altKey: true });
    await waitFor(() => expect(tiles()).toEqual(["VCA compressor", "Parametric EQ"]));
    press("u");
    await waitFor(() => expect(tiles()).toEqual(["VCA compressor", "Parametric EQ", "Parametric EQ"]));
    press("Delete");
    await waitFor(() => expect(tiles()).toHaveLength(2));
    for (const then of [3, 2]) {
      undo();
      await waitFor(() => expect(tiles()).toHaveLength(then));
    }
    undo();
    await waitFor(() => expect(tiles()).toEqual(["Parametric EQ", "VCA compressor"]));
  });

  it("are walked through by arrows, sections' insides too", async () => {
    const section: ChainNode = { type: "section", key: "s", name: "Post", enabled: true, nodes: [PLATE] };
    await open(contentOf([EQ, section]), 3);
    fireEvent.click(tile("Parametric EQ"));
    press("ArrowRight");
    expect(tile("Section Post").getAttribute("aria-pressed")).toBe("true");
    press("ArrowRight");
    expect(tile("Plate reverb").getAttribute("aria-pressed")).toBe("true");
    press("ArrowRight");
    expect(tile("Plate reverb").getAttribute("aria-pressed")).toBe("true");
  });

  it("are called by the person, and by their model again where that is taken away", async () => {
    await open(contentOf([COMP]), 1);
    const field = () => screen.getByRole("textbox", { name: "Name of this plugin" });
    fireEvent.change(field(), { target: { value: "Wool blanket" } });
    fireEvent.blur(field());
    await waitFor(() => expect(tiles()).toEqual(["Wool blanket"]));
    fireEvent.change(field(), { target: { value: "" } });
    fireEvent.blur(field());
    await waitFor(() => expect(tiles()).toEqual(["VCA compressor"]));
    expect(field()).toHaveProperty("value", "VCA compressor");
  });
});

describe("two plugins of one model", () => {
  it("keep their names apart: what is typed for one does not stand there for the other", async () => {
    await open(contentOf([COMP, { ...COMP, key: "comp2" }]), 2);
    const field = () => screen.getByRole("textbox", { name: "Name of this plugin" });
    fireEvent.change(field(), { target: { value: "Wool blanket" } });
    const [, second] = within(chain()).getAllByRole("button", { name: "VCA compressor" });
    fireEvent.blur(field());
    fireEvent.click(second!);
    await waitFor(() => expect(tiles()).toEqual(["Wool blanket", "VCA compressor"]));
    expect(field()).toHaveProperty("value", "VCA compressor");
    fireEvent.blur(field());
    expect(tiles()).toEqual(["Wool blanket", "VCA compressor"]);
  });
});

describe("groups", () => {
  it("are made of several that are chosen, named, and taken apart again", async () => {
    await open(contentOf([EQ, COMP, PLATE]), 3);
    fireEvent.click(tile("Parametric EQ"));
    fireEvent.click(tile("VCA compressor"), { shiftKey: true });
    press("g");
    await waitFor(() =>
      expect(tiles()).toEqual(["Section Section", "Parametric EQ", "VCA compressor", "Plate reverb"]),
    );
    const field = screen.getByRole("textbox", { name: "Name of this section" });
    fireEvent.change(field, { target: { value: "Front" } });
    fireEvent.blur(field);
    await waitFor(() => expect(tiles()[0]).toBe("Section Front"));
    click("Take the bracket off");
    await waitFor(() => expect(tiles()).toEqual(["Parametric EQ", "VCA compressor", "Plate reverb"]));
  });

  it("that cannot be made say why, and change nothing", async () => {
    const section: ChainNode = { type: "section", key: "s", name: "Post", enabled: true, nodes: [PLATE] };
    await open(contentOf([EQ, section]), 3);
    fireEvent.click(tile("Plate reverb"));
    press("g");
    await waitFor(() => expect(said).toHaveLength(1));
    expect(said[0]).toMatch(/^[A-Z“].*\.$/);
    expect(tiles()).toHaveLength(3);
  });

  it("are lanes that are blended, heard alone, added and removed", async () => {
    await open(contentOf([COMP]), 1);
    press("p");
    await waitFor(() => expect(screen.getByRole("group", { name: "Lanes" })).toBeTruthy());
    const lanes = () => screen.getAllByRole("listitem", { name: /^Lane / });
    const before = lanes().length;
    click("Add a lane");
    await waitFor(() => expect(lanes()).toHaveLength(before + 1));
    fireEvent.keyDown(within(lanes()[0]!).getByRole("slider", { name: "Level" }), { key: "Home" });
    await waitFor(() => expect(within(lanes()[0]!).getByText("−∞")).toBeTruthy());
    const alone = screen.getAllByRole("button", { name: /^Hear lane .* alone$/ })[0]!;
    fireEvent.click(alone);
    expect(alone.getAttribute("aria-pressed")).toBe("true");
    fireEvent.click(within(lanes().at(-1)!).getByRole("button", { name: "Remove" }));
    await waitFor(() => expect(lanes()).toHaveLength(before));
  });

  it("are bands whose crossovers keep their order, however far they are pulled", async () => {
    await open(contentOf([COMP]), 1);
    press("P", { shiftKey: true });
    await waitFor(() => expect(screen.getByRole("group", { name: "Bands" })).toBeTruthy());
    click("Add a band");
    const crossovers = () => screen.getAllByRole("slider", { name: / to / });
    await waitFor(() => expect(crossovers()).toHaveLength(2));
    const at = (n: number) => Number(crossovers()[n]!.getAttribute("aria-valuenow"));
    const second = at(1);
    fireEvent.pointerDown(crossovers()[0]!, { clientX: 10, button: 0 });
    fireEvent.pointerMove(crossovers()[0]!, { clientX: 60 });
    expect(at(0)).toBeCloseTo(20 * 1000 ** 0.3, -1);
    fireEvent.pointerMove(crossovers()[0]!, { clientX: 199 });
    fireEvent.pointerUp(crossovers()[0]!, { clientX: 199 });
    await waitFor(() => expect(at(0)).toBe(second - 1));
    expect(at(1)).toBe(second);
  });
});

describe("copy and paste", () => {
  const transfer = (text = "") => {
    const held = { text };
    return {
      held,
      clipboardData: {
        setData: (_: string, written: string) => void (held.text = written),
        getData: () => held.text,
      },
    };
  };

  it("carry whole plugins as text, with the keys of the system", async () => {
    await open(contentOf([EQ, COMP]), 2);
    fireEvent.click(tile("VCA compressor"));
    const { held, clipboardData } = transfer();
    fireEvent.copy(document.body, { clipboardData });
    expect(said).toEqual(["Copied VCA compressor."]);
    expect(parseClipping(held.text)).toMatchObject({ ok: true, value: { nodes: [{ model: "vca-compressor" }] } });
    fireEvent.paste(document.body, { clipboardData });
    await waitFor(() => expect(tiles()).toEqual(["Parametric EQ", "VCA compressor", "VCA compressor"]));
  });

  it("leave text alone that is none of theirs, and what is typed into a field", async () => {
    await open(contentOf([EQ, COMP]), 2);
    fireEvent.paste(document.body, transfer("some words"));
    screen.getByRole("textbox", { name: "Name of this plugin" }).focus();
    const { held, clipboardData } = transfer();
    fireEvent.copy(document.body, { clipboardData });
    expect(held.text).toBe("");
    expect([tiles().length, said]).toEqual([2, []]);
  });
});

describe("the row of plugins", () => {
  const pressed = () =>
    [...chain().querySelectorAll("button[data-node]")].filter((t) => t.querySelector(".border-live\\!") !== null)
      .length;

  it("is chosen from by Shift and the arrows, back and forth; what is chosen goes at once, and comes back at once", async () => {
    await open(contentOf([EQ, COMP, PLATE]), 3);
    fireEvent.click(tile("Parametric EQ"));
    press("ArrowRight", { shiftKey: true });
    press("ArrowRight", { shiftKey: true });
    expect(pressed()).toBe(3);
    press("ArrowLeft", { shiftKey: true });
    expect(pressed()).toBe(2);
    press("Delete");
    await waitFor(() => expect(tiles()).toEqual(["Plate reverb"]));
    undo();
    await waitFor(() => expect(tiles()).toEqual(["Parametric EQ", "VCA compressor", "Plate reverb"]));
  });

  it("has its actions in a menu on right-click, for what the pointer is on, with their keys", async () => {
    await open(contentOf([EQ, COMP, PLATE]), 3);
    fireEvent.click(tile("Parametric EQ"));
    fireEvent.contextMenu(tile("Plate reverb"));
    const items = (await screen.findAllByRole("menuitem")).map((item) => item.textContent);
    expect(items).toEqual(
      expect.arrayContaining([
        "Switch this plugin on or offO",
        "CopyCtrl C",
        "PasteCtrl V",
        "Split what is chosen into lanesP",
      ]),
    );
    fireEvent.click(screen.getByRole("menuitem", { name: /^Take this plugin out/ }));
    await waitFor(() => expect(tiles()).toEqual(["Parametric EQ", "VCA compressor"]));
  });
});

describe("macros", () => {
  const MACRO: Macro = {
    key: "m",
    name: "Weight",
    style: "line",
    axes: [
      [
        { node: "comp", param: "threshold", from: -20, to: -40, bend: 0 },
        { node: "plate", param: "decay", from: 2, to: 4, bend: 0 },
      ],
    ],
  };
  const item = (name: string) => screen.getByRole("listitem", { name: `Macro ${name}` });

  it("move all their values at once, in one step", async () => {
    await open(contentOf([COMP, PLATE], [MACRO]), 2);
    show("Macros 1");
    fireEvent.keyDown(within(item("Weight")).getByRole("slider", { name: "Weight" }), { key: "End" });
    await waitFor(() => expect(state()).toContain("2 values differ"));
    undo();
    await waitFor(() => expect(state()).toContain("nothing changed"));
  });

  it("are made, learn values by touches until Escape, each from where it stands, and are named", async () => {
    await open(contentOf([COMP, { ...COMP, key: "comp2" }]), 2);
    fireEvent.click(within(chain()).getAllByRole("button", { name: /^VCA compressor/ })[0]!);
    show("Macros");
    click("Line");
    await waitFor(() => expect(item("Macro 1")).toBeTruthy());
    click("Macro 1: learn");
    const touch = (name: string) =>
      fireEvent.pointerDown(screen.getByRole("slider", { name }), { clientX: 10, button: 0 });
    await screen.findByRole("slider", { name: "Ratio" });
    touch("Ratio");
    touch("Threshold");
    fireEvent.click(screen.getByRole("radio", { name: "Automatic" }));
    await waitFor(() => expect(within(item("Macro 1")).getByRole("button", { name: "3 values" })).toBeTruthy());
    touch("Ratio");
    expect(said).toEqual(["Macro 1 moves VCA compressor 1: Ratio already."]);
    said.length = 0;
    expect(screen.getAllByRole("img", { name: "Moved by Macro 1" })).toHaveLength(3);
    press("Escape");
    expect(screen.getByRole("button", { name: "Macro 1: learn" }).getAttribute("aria-pressed")).toBe("false");
    // Two of one model are told apart, and nothing has moved, also where the macro is put where it stands.
    fireEvent.click(within(item("Macro 1")).getByRole("button", { name: "3 values" }));
    expect(within(item("Macro 1")).getByText("VCA compressor 1: Ratio")).toBeTruthy();
    expect(screen.getByRole("textbox", { name: "Ratio from" })).toHaveProperty("value", "2.0:1");
    fireEvent.keyDown(within(item("Macro 1")).getByRole("slider", { name: "Macro 1" }), { key: "Home" });
    expect(state()).toContain("the macros differ");
    const field = () => screen.getByRole("textbox", { name: "Name of the macro" });
    fireEvent.change(field(), { target: { value: "" } });
    fireEvent.blur(field());
    expect(said).toEqual(["A macro has a name."]);
    expect(field()).toHaveProperty("value", "Macro 1");
    fireEvent.change(field(), { target: { value: "Bite" } });
    fireEvent.blur(field());
    await waitFor(() => expect(item("Bite")).toBeTruthy());
  });

  it("say what they lost with a plugin that is taken out", async () => {
    await open(contentOf([COMP, PLATE], [MACRO]), 2);
    fireEvent.click(tile("Plate reverb"));
    press("Delete");
    await waitFor(() => expect(said).toEqual(["Took out Plate reverb. A macro lost a value."]));
  });

  it("switch all plugins of a chain by one", async () => {
    await open(contentOf([COMP, PLATE]), 2);
    show("Macros");
    click("One switch for all");
    await waitFor(() => expect(item("All plugins")).toBeTruthy());
    fireEvent.click(within(item("All plugins")).getByRole("switch", { name: "All plugins" }));
    await waitFor(() => expect(screen.getAllByRole("button", { name: /, off/ })).toHaveLength(2));
  });
});

describe("sounds beside the bench", () => {
  it("fit the plugin that is chosen; one is loaded in its place, and what stands around it stays", async () => {
    const other: Content = {
      kind: "plugin",
      schema: CONTENT_SCHEMA,
      processor: { ...COMP, values: { threshold: -33 } },
    };
    value(await savePresets(house.context, { presets: [presetOf(other, { name: "Deep" })] }));
    await open(contentOf([COMP, PLATE]), 2);
    fireEvent.click(tile("VCA compressor"));
    show("Sounds");
    const list = await screen.findByRole("list", { name: "Sounds for VCA compressor" });
    fireEvent.click(await within(list).findByRole("button", { name: /Deep/ }));
    await waitFor(() =>
      expect(within(list).getByRole("button", { name: /Deep/ }).getAttribute("aria-current")).toBe("true"),
    );
    expect(tiles()).toEqual(["VCA compressor", "Plate reverb"]);
    await waitFor(() => expect(JSON.stringify(heard()[0])).toContain("-33"));
  });
});

describe("a sound in its slot", () => {
  it("goes back to the version that it came from, not to one that was saved since", async () => {
    const deep = (threshold: number): Content => ({
      kind: "plugin",
      schema: CONTENT_SCHEMA,
      processor: { ...COMP, values: { threshold } },
    });
    const [row] = value(await savePresets(house.context, { presets: [presetOf(deep(-33), { name: "Deep" })] }));
    await open(contentOf([COMP, PLATE]), 2);
    fireEvent.click(tile("VCA compressor"));
    show("Sounds");
    const list = await screen.findByRole("list", { name: "Sounds for VCA compressor" });
    fireEvent.click(await within(list).findByRole("button", { name: /Deep/ }));
    const threshold = () =>
      Number(screen.getByRole("slider", { name: /^VCA compressor:/ }).getAttribute("aria-valuenow"));
    await waitFor(() => expect(threshold()).toBe(-33));
    value(await saveVersion(house.context, row!.id, { baseVersion: 1, content: deep(-50) }));
    fireEvent.keyDown(screen.getByRole("slider", { name: /^VCA compressor:/ }), { key: "ArrowUp" });
    await waitFor(() => expect(threshold()).not.toBe(-33));
    fireEvent.click(within(side()).getByRole("button", { name: "Back to saved" }));
    await waitFor(() => expect(threshold()).toBe(-33));
  });
});

describe("going through sounds", () => {
  it("keeps the order that it began with, there and back, and counts none of them as used", async () => {
    const deep = (threshold: number): Content => ({
      kind: "plugin",
      schema: CONTENT_SCHEMA,
      processor: { ...COMP, values: { threshold } },
    });
    value(
      await savePresets(house.context, {
        presets: [-31, -32, -33].map((t) => presetOf(deep(t), { name: `Deep ${-t}` })),
      }),
    );
    await open(contentOf([COMP, PLATE]), 2);
    fireEvent.click(tile("VCA compressor"));
    show("Sounds");
    const list = await screen.findByRole("list", { name: "Sounds for VCA compressor" });
    await waitFor(() => expect(within(list).getAllByRole("button")).toHaveLength(3));
    const names = () =>
      within(list)
        .getAllByRole("button")
        .map((b) => b.querySelector(".name")!.textContent);
    const before = names();
    const now = () => within(list).queryByRole("button", { current: true })?.querySelector(".name")?.textContent;
    const walked: (string | undefined)[] = [];
    for (const key of [".", ".", ".", ",", ","]) {
      const was = now();
      press(key);
      await waitFor(() => expect(now()).not.toBe(was));
      walked.push(now());
    }
    expect(walked).toEqual([before[0], before[1], before[2], before[1], before[0]]);
    expect(names()).toEqual(before);
    // A draft is no use of anything; on a strip what one only passes by is none either.
    expect(house.asked.filter((asked) => asked.includes("/used"))).toEqual([]);
    fireEvent.change(screen.getByRole("textbox", { name: "Find among these sounds" }), { target: { value: "32" } });
    await waitFor(() => expect(names()).toEqual(["Deep 32"]));
  });
});

describe("what a plugin opens with", () => {
  it("is set from the bench, saved or not, for strips of a kind or everywhere, in words that say which", async () => {
    await open(contentOf([COMP]), 1);
    show("Sounds");
    const choose = async (at: number, where: string) => {
      fireEvent.keyDown(await screen.findByRole("button", { name: "Opens with" }), { key: "Enter" });
      fireEvent.click((await screen.findAllByRole("menuitem", { name: new RegExp(`^${where}`) }))[at]!);
    };
    await choose(0, "everywhere");
    await waitFor(() => expect(said).toEqual(["VCA compressor now opens with these values everywhere."]));
    await choose(1, "on return buses");
    await waitFor(() => expect(said.at(-1)).toBe("VCA compressor now opens with the maker’s start on return buses."));
    expect((await getSettings(house.context)).settings.startingPoints).toEqual([
      {
        model: COMP.model,
        strip: null,
        preset: null,
        version: null,
        values: expect.objectContaining(COMP.values) as unknown,
      },
      { model: COMP.model, strip: "return", preset: null, version: null },
    ]);
  });
});

describe("the check", () => {
  it("measures what the chain costs, plugin by plugin, less what nothing costs", async () => {
    await open(contentOf([COMP, PLATE]), 2);
    show("Check");
    click("Measure what it costs");
    const table = await screen.findByRole("table");
    expect(
      within(table)
        .getAllByRole("row")
        .map((r) => r.textContent),
    ).toEqual(["VCA compressor1.0ms/s", "Plate reverb1.0ms/s", "The whole chain2.0ms/s"]);
  });
});

describe("another model", () => {
  it("is heard on B first; leaving it puts back on B what was saved", async () => {
    await open(contentOf([COMP]), 1);
    await waitFor(() => expect(engine.sounds.b?.chain).toHaveLength(1));
    const before = JSON.stringify(engine.sounds.b);
    fireEvent.keyDown(await screen.findByRole("button", { name: "Other model" }), { key: "Enter" });
    fireEvent.click(await screen.findByRole("menuitem", { name: "Opto compressor" }));
    const sheet = await screen.findByRole("dialog");
    expect(within(sheet).getAllByText("carried").length).toBeGreaterThan(0);
    expect(JSON.stringify(engine.sounds.b)).not.toBe(before);
    click("Leave it");
    expect(JSON.stringify(engine.sounds.b)).toBe(before);
    expect(tiles()).toEqual(["VCA compressor"]);
  });
});

describe("what cannot be opened", () => {
  it("says so, with a way on", async () => {
    goTo("/bench?preset=nothing-such");
    house.show(<Bench />);
    expect((await screen.findByRole("alert")).textContent).not.toBe("");
    click("To the library");
  });

  it("is nothing yet, and begins with an instrument or with nothing", async () => {
    goTo("/bench");
    house.show(<Bench />);
    await screen.findByText("Nothing is on the bench");
    click("Start a new sound");
    await waitFor(() => expect(tiles()).toEqual([]));
    expect(screen.getByText("No plugins yet")).toBeTruthy();
  });
});

describe("a new sound", () => {
  const begin = async () => {
    goTo("/bench");
    house.show(
      <>
        <Keys />
        <Bench />
      </>,
    );
    await screen.findByText("Nothing is on the bench");
    click("Start a new sound");
    await waitFor(() => expect(whereNow()).toMatch(/^\/bench\?draft=/));
  };

  it("begins beside one that is not saved, to which the menu leads back", async () => {
    await begin();
    press("1");
    await waitFor(() => expect(tiles()).toEqual(["Parametric EQ"]));
    const first = whereNow();
    press("N", { shiftKey: true });
    await waitFor(() => expect(whereNow()).not.toBe(first));
    await waitFor(() => expect(tiles()).toEqual([]));
    // Nothing was done to this one: a second press begins no third.
    const second = whereNow();
    press("N", { shiftKey: true });
    await waitFor(() => expect(house.asked.filter((asked) => asked.endsWith("/api/drafts"))).toHaveLength(3));
    expect(whereNow()).toBe(second);
    fireEvent.keyDown(screen.getByRole("button", { name: "New" }), { key: "Enter" });
    fireEvent.click(await screen.findByRole("menuitem", { name: /^Parametric EQ/ }));
    await waitFor(() => expect(tiles()).toEqual(["Parametric EQ"]));
    expect(whereNow()).toBe(first);
  });

  it("has the address of what it is saved as, with its history, and loses it when that is taken back", async () => {
    await open(contentOf([COMP]), 1);
    fireEvent.keyDown(screen.getByRole("slider", { name: /^VCA compressor:/ }), { key: "ArrowUp" });
    await waitFor(() => expect(state()).toContain("1 value differs"));
    expect(whereNow()).toBe(`/bench?preset=${preset}`);
    press("s", { ctrlKey: true });
    await waitFor(() => expect(whereNow()).toBe(`/bench?preset=${preset}&version=2`));
    // The address leads to the same draft: what was done before it was saved can be taken back.
    await waitFor(() =>
      expect(screen.getByRole("button", { name: "Undo" })).toHaveProperty(
        "title",
        expect.stringContaining("Save version 2"),
      ),
    );
    undo();
    await waitFor(() => expect(whereNow()).toBe(`/bench?preset=${preset}&version=1`));
    await waitFor(() => expect(state()).toContain("1 value differs from version 1"));
  });
});
