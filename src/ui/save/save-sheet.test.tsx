// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type House, openHouse } from "@/app/testing/house";
import { said } from "@/app/testing/said";
import { KEYS } from "@/clients/events";
import { INCLUDED } from "@/core/packs/included";
import type { Content } from "@/core/presets/preset";
import { changePart } from "@/core/recall/arrange";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { listFolders } from "@/server/use-cases/filing/folders";
import { libraryHistory } from "@/server/use-cases/filing/history";
import { findPresets } from "@/server/use-cases/find-presets";
import { openDraft } from "@/server/use-cases/drafts";
import { installPack } from "@/server/use-cases/packs";
import { getPreset } from "@/server/use-cases/library";
import { changeProject } from "@/server/use-cases/projects/change";
import { getProject } from "@/server/use-cases/projects/read";
import { undo } from "@/server/use-cases/projects/walk";
import { getUses } from "@/server/use-cases/uses";
import { SaveSheet } from "./save-sheet";

vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;

beforeEach(async () => {
  said.length = 0;
  house = await openHouse(loadDemo);
});

afterEach(() => house.close());

const PROJECT = "ferry-light";
const stripNamed = async (name: string) =>
  value(await getProject(house.context, PROJECT)).project.strips.find((s) => s.look.name === name)!;
const open = async (...names: readonly string[]) => {
  const strips = await Promise.all(names.map(async (name) => (await stripNamed(name)).id));
  house.show(<SaveSheet request={{ project: PROJECT, strips }} />);
  await screen.findByRole("heading", { name: names.length === 1 ? `Save ${names[0]}` : `Save ${names.length} strips` });
};
const field = (label: string) => screen.getByLabelText<HTMLInputElement>(label, { exact: true });
const type = (label: string, text: string) => fireEvent.change(field(label), { target: { value: text } });
const press = (name: RegExp | string) => fireEvent.click(screen.getByRole("button", { name }));
const find = async (q: string) => (await findPresets(house.context, { q })).items;
const filled = () => waitFor(() => expect(field("Folder").value).not.toBe(""));

describe("saving what is in a strip", () => {
  it("proposes a name, a folder and who played, from the project and from how the like was filed", async () => {
    await open("Cello");
    await filled();
    expect(field("Name").value).toContain("Cello");
    const folders = await listFolders(house.context);
    expect(folders.find((f) => f.id === field("Folder").value)?.name).toBe("Bowed");
    expect(screen.getByRole("button", { name: "Remove Oskar Vane" })).toBeTruthy();
  });

  it("is filed as proposed, also by a hand that saves before that is known", async () => {
    const { fetch } = globalThis;
    let letCome = () => {};
    const gate = new Promise<void>((resolve) => (letCome = resolve));
    const late = vi.spyOn(globalThis, "fetch").mockImplementation(async (asked, ...rest) => {
      if (typeof asked === "string" && asked.includes("/api/presets?")) await gate;
      return fetch(asked, ...rest);
    });
    await open("Cello");
    type("Name", "Cello, at once");
    expect(field("Folder").value).toBe("");
    press("Save effect chain");
    letCome();
    await waitFor(() => expect(said).toEqual(["Saved “Cello, at once”"]));
    const folders = await listFolders(house.context);
    const [preset] = await find('name:"Cello, at once"');
    expect(folders.find((f) => f.id === preset?.card.folder)?.name).toBe("Bowed");
    expect(preset?.card.origin.performer).toBe("Oskar Vane");
    late.mockRestore();
  });

  it("is saved as it stands where nothing can be looked up", async () => {
    const { fetch } = globalThis;
    const broken = vi.spyOn(globalThis, "fetch").mockImplementation((asked, ...rest) => {
      if (typeof asked === "string" && asked.includes("/api/presets?")) return Promise.reject(new Error("gone"));
      return fetch(asked, ...rest);
    });
    await open("Cello");
    type("Name", "Cello, as it stands");
    press("Save effect chain");
    await waitFor(() => expect(said).toEqual(["Saved “Cello, as it stands”"]));
    broken.mockRestore();
  });

  it("keeps what is switched on, and the project goes by its name; undo lets go of that", async () => {
    const before = value(await getProject(house.context, PROJECT)).project;
    await open("Cello");
    await filled();
    fireEvent.click(screen.getByRole("checkbox", { name: /^Level/ }));
    type("Name", "Cello on the ferry");
    press("Save channel strip");
    await waitFor(() => expect(said).toContain("Saved “Cello on the ferry”"));
    const [preset] = await find('name:"Cello on the ferry"');
    expect(preset).toMatchObject({ kind: "strip", version: 1 });
    if (preset?.content.kind !== "strip") throw new Error("no strip");
    // An input belongs to the kind of strip.
    expect(Object.keys(preset.content.strip).toSorted()).toEqual(["inserts", "kind", "level", "source"]);
    const strip = await stripNamed("Cello");
    expect(strip.inserts.from).toMatchObject({ preset: preset.id, version: 1, name: "Cello on the ferry" });
    // Values, routing and the rest of the project are as they were.
    expect({ ...strip, inserts: strip.inserts.nodes }).toEqual({
      ...before.strips.find((s) => s.id === strip.id),
      inserts: strip.inserts.nodes,
    });
    const { revision } = value(await getProject(house.context, PROJECT));
    value(await undo(house.context, PROJECT, revision));
    expect(value(await getProject(house.context, PROJECT)).project).toEqual(before);
  });

  it("saves nothing while every part is switched off", async () => {
    await open("Cello");
    const on = screen.getAllByRole("checkbox").filter((box) => box.getAttribute("aria-checked") === "true");
    for (const box of on) fireEvent.click(box);
    await waitFor(() => expect(screen.getByRole("button", { name: "Save nothing" })).toHaveProperty("disabled", true));
  });

  it("asks where a name is taken: the next version of that, or another name", async () => {
    await open("Cello");
    type("Name", "Cello, wood and rosin");
    expect((await screen.findByRole("status")).textContent).toContain("“Cello, wood and rosin” is there already.");
    expect(screen.getByRole("button", { name: "Save effect chain" })).toHaveProperty("disabled", true);
    const [taken] = await find('name:"Cello, wood and rosin"');
    press(`Save as version ${taken!.version + 1}`);
    await waitFor(() =>
      expect(said.at(-1)).toContain(`Saved version ${taken!.version + 1} of “Cello, wood and rosin”`),
    );
    const { versions } = value(await getPreset(house.context, taken!.id));
    expect(versions).toHaveLength(taken!.version + 1);
  });

  it("saves once, however often it is pressed", async () => {
    await open("Cello");
    type("Name", "Cello, wood and rosin");
    await screen.findByRole("status");
    const [taken] = await find('name:"Cello, wood and rosin"');
    for (let n = 0; n < 2; n++) press(`Save as version ${taken!.version + 1}`);
    await waitFor(() => expect(said.at(-1)).toContain(`Saved version ${taken!.version + 1}`));
    expect(house.asked.filter((asked) => asked.startsWith("PUT"))).toHaveLength(1);
    type("Name", "Cello on the ferry");
    await waitFor(() => expect(screen.queryByRole("status")).toBeNull());
    for (let n = 0; n < 2; n++) press("Save effect chain");
    await waitFor(() => expect(said.at(-1)).toBe("Saved “Cello on the ferry”"));
    expect(house.asked.filter((asked) => asked === "POST /api/presets/batch")).toHaveLength(1);
  });

  it("says where a name is too long, and asks nobody who has it", async () => {
    await open("Cello");
    await filled();
    const asked = () => house.asked.filter((one) => one.endsWith("/api/names")).length;
    await waitFor(() => expect(asked()).toBeGreaterThan(0));
    const before = asked();
    type("Name", "x".repeat(201));
    press(/^Save (effect chain|channel strip)/);
    expect(await screen.findByText("A name has 200 letters at the most.")).toBeTruthy();
    expect(asked()).toBe(before);
  });

  it("keeps a strip of a pack that is changed on the bench as a strip, with all that it was", async () => {
    await installPack(house.context, INCLUDED);
    const some = (await findPresets(house.context, { q: "pack:included", kind: "strip", limit: 1 })).items[0]!;
    const draft = value(await openDraft(house.context, { preset: some.id, tempo: 120 }));
    const [strip] = draft.project.strips;
    const level = { ...strip!.level, fader: -4.5 };
    const turned = {
      id: "a",
      kind: "setPart",
      part: "level",
      strip: strip!.id,
      from: strip!.level,
      to: level,
    } as const;
    const { project, revision } = draft;
    value(await changeProject(house.context, project.id, { baseRevision: revision, label: "Level", steps: [turned] }));
    house.show(<SaveSheet request={{ project: draft.project.id, strips: [strip!.id] }} />);
    await screen.findByRole("button", { name: "Save channel strip" });
    type("Name", "Voice, as I begin");
    press("Save channel strip");
    await waitFor(() => expect(said.at(-1)).toBe("Saved “Voice, as I begin”"));
    const [mine] = await find('name:"Voice, as I begin"');
    const parts = (content: Content) => (content.kind === "strip" ? Object.keys(content.strip).toSorted() : []);
    expect(parts(mine!.content)).toEqual([...parts(some.content), "level"].toSorted());
    expect(mine!.content).toMatchObject({ strip: { level } });
  });

  it("tells of a name of a pack that it is to be another", async () => {
    const packed = value(await getPreset(house.context, "narrator-close")).preset;
    await house.context.writer("presets").where({ id: packed.id }).update({ pack: "Included" });
    await open("Cello");
    type("Name", packed.card.name);
    expect((await screen.findByRole("status")).textContent).toContain("comes with the pack Included");
    expect(screen.queryByRole("button", { name: /^Save as version/ })).toBeNull();
  });

  it("offers what other cards say, each word by itself", async () => {
    await open("Cello");
    await filled();
    const tags = screen.getByRole("combobox", { name: "Tags" });
    fireEvent.focus(tags);
    fireEvent.change(tags, { target: { value: "WAR" } });
    fireEvent.keyDown(tags, { key: "ArrowDown" });
    expect(await screen.findByRole("option", { name: "warm" })).toBeTruthy();
    fireEvent.change(tags, { target: { value: "WARM, on the ferry" } });
    type("Name", "Cello on the ferry");
    press(/^Save effect chain/);
    await waitFor(() => expect(said).toContain("Saved “Cello on the ferry”"));
    const [preset] = await find('name:"Cello on the ferry"');
    expect(preset!.card.tags).toEqual(expect.arrayContaining(["warm", "on the ferry"]));
    expect(preset!.card.tags).not.toContain("WARM");
  });

  it("makes the folder with it, and none for what is refused", async () => {
    await open("Cello");
    await filled();
    fireEvent.change(field("Folder"), { target: { value: "+" } });
    press(/^Save effect chain/);
    expect(await screen.findByText("Name the new folder.")).toBeTruthy();
    type("Name of the new folder", "On the ferry");
    type("Tags", "x".repeat(61));
    press(/^Save effect chain/);
    expect(await screen.findByText("A tag has 60 letters at the most.")).toBeTruthy();
    expect((await listFolders(house.context)).some((f) => f.name === "On the ferry")).toBe(false);
    type("Tags", "ferry, cold");
    type("Name", "Cello on the ferry");
    press(/^Save effect chain/);
    await waitFor(() => expect(said).toContain("Saved “Cello on the ferry”"));
    const [preset] = await find('name:"Cello on the ferry"');
    const folder = (await listFolders(house.context)).find((f) => f.name === "On the ferry");
    expect(preset!.card).toMatchObject({ folder: folder?.id, tags: ["dark", "gentle", "ferry", "cold"] });
    expect((await libraryHistory(house.context)).undo).toBeNull();
  });

  it("refuses a name that hides something, and keeps what was typed", async () => {
    await open("Cello");
    await filled();
    type("Name", "Cello\u202eyrref");
    press(/^Save effect chain/);
    await waitFor(() => expect(screen.getByRole("alert").textContent).toMatch(/hidden|turn/i));
    expect(field("Name").value).toBe("Cello\u202eyrref");
    expect(said).toEqual([]);
  });
});

describe("saving several strips", () => {
  it("gives each a preset with a name by the pattern, numbered where two would meet", async () => {
    await open("Nyckelharpa", "Cello");
    type("Pattern", "{song}, take");
    const table = screen.getByRole("table");
    await waitFor(() => expect(table.textContent).toContain("Ferry Light, take 2"));
    expect(screen.getByRole("status").textContent).toBe("One name is taken; it is numbered.");
    press("Save 2 presets");
    await waitFor(() => expect(said).toContain("Saved 2 presets"));
    const names = (await find("ferry light take")).map((p) => p.card.name);
    expect(names).toEqual(expect.arrayContaining(["Ferry Light, take", "Ferry Light, take 2"]));
    for (const name of ["Nyckelharpa", "Cello"])
      expect((await stripNamed(name)).inserts.from?.name).toMatch(/^Ferry Light, take/);
  });

  it("leaves out a strip that is switched off, and each part by itself", async () => {
    await open("Nyckelharpa", "Cello");
    const row = screen.getByRole("row", { name: /Nyckelharpa/ });
    for (const box of within(row).getAllByRole("checkbox"))
      if (box.getAttribute("aria-checked") === "true") fireEvent.click(box);
    await screen.findByRole("button", { name: "Save 1 preset" });
    fireEvent.click(screen.getByRole("checkbox", { name: "Pan of Cello" }));
    type("Pattern", "{strip} alone");
    press("Save 1 preset");
    await waitFor(() => expect(said).toContain("Saved “Cello alone”"));
    const [preset] = await find('name:"Cello alone"');
    if (preset?.content.kind !== "strip") throw new Error("no strip");
    expect(Object.keys(preset.content.strip).toSorted()).toEqual(["inserts", "kind", "pan", "source"]);
    expect(await find('name:"Nyckelharpa alone"')).toEqual([]);
  });

  it("writes what is typed on each card, and leaves what is not to each", async () => {
    await open("Nyckelharpa", "Cello");
    await waitFor(() => expect(screen.getByRole("table").textContent).toContain("as “"));
    await screen.findByRole("button", { name: "Remove Bowed" });
    press("Remove Bowed");
    type("For", "the crossing");
    type("Pattern", "{strip}, crossing");
    press("Save 2 presets");
    await waitFor(() => expect(said).toContain("Saved 2 presets"));
    const cards = (await find("crossing")).map((p) => p.card);
    expect(cards.map((c) => c.purpose)).toEqual(["the crossing", "the crossing"]);
    expect(cards.find((c) => c.name.startsWith("Cello"))?.origin.performer).toBe("Oskar Vane");
  });
});

describe("strips that are saved as one", () => {
  it("go by the set from then on, each as its strip of it; what has an origin keeps that", async () => {
    await open("Voice", "Main");
    fireEvent.click(screen.getByRole("radio", { name: "Together, as a strip set" }));
    type("Name", "Voice and main");
    press("Save strip set");
    await waitFor(() => expect(said).toContain("Saved “Voice and main”"));
    const [preset] = await find('name:"Voice and main"');
    const { uses } = value(await getUses(house.context, preset!.id));
    for (const name of ["Voice", "Main"]) {
      const { id, inserts } = await stripNamed(name);
      expect(inserts.from).toMatchObject({ along: { preset: preset!.id, version: 1, strip: id } });
      expect(uses.find((one) => one.strip === id)).toMatchObject({ of: [id], version: 1, differs: 0 });
    }
  });

  it("are offered as the next version of the set that they are strips of", async () => {
    const together = () => fireEvent.click(screen.getByRole("radio", { name: "Together, as a strip set" }));
    await open("Voice", "Main");
    together();
    type("Name", "Voice and main");
    press("Save strip set");
    await waitFor(() => expect(said).toContain("Saved “Voice and main”"));
    cleanup();
    // What was proposed the first time is let go of once that sheet is gone.
    const proposals = () => house.queries.getQueryCache().findAll({ queryKey: [...KEYS.presets, "proposals"] });
    await waitFor(() => expect(proposals()).toEqual([]));
    const { level, id: voice } = await stripNamed("Voice");
    const to = { ...level, fader: level.fader - 1 };
    const softer = { id: "a", kind: "setPart", part: "level", strip: voice, from: level, to } as const;
    const { revision: baseRevision } = value(await getProject(house.context, PROJECT));
    value(await changeProject(house.context, PROJECT, { baseRevision, label: "Level", steps: [softer] }));
    await house.queries.invalidateQueries();
    await open("Voice", "Main");
    together();
    fireEvent.click(await screen.findByRole("button", { name: "Version 2 of “Voice and main”" }));
    await waitFor(() => expect(said.at(-1)).toContain("Saved version 2 of “Voice and main”"));
    const { id, inserts } = await stripNamed("Voice");
    expect(inserts.from?.along).toMatchObject({ version: 2, strip: id });
  });
});

describe("a proposed name", () => {
  it("stands selected until a letter is typed, also when it is proposed anew: the letter takes its place", async () => {
    await open("Cello");
    const name = field("Name");
    expect(document.activeElement).toBe(name);
    const selected = () => name.value.slice(name.selectionStart ?? 0, name.selectionEnd ?? 0);
    await filled();
    expect(name.value).not.toBe("");
    expect(selected()).toBe(name.value);
    // Another pattern proposes another name.
    type("Pattern", "{song}, {strip}");
    await waitFor(() => expect(name.value).toBe("Ferry Light, Cello"));
    expect(selected()).toBe("Ferry Light, Cello");
    type("Name", "C");
    type("Pattern", "{strip}");
    expect(name.value).toBe("C");
  });
});

describe("saving what strips were once", () => {
  it("keeps that moment as a whole mix, and what is there now goes on by what it was loaded from", async () => {
    const { project } = value(await getProject(house.context, PROJECT));
    const cello = await stripNamed("Cello");
    const steps = changePart(cello, "level", { fader: -31, mute: false }, house.context.mint);
    value(await changeProject(house.context, PROJECT, { baseRevision: 0, label: "Level", steps: [...steps] }));
    const strips = project.strips.map(({ id }) => id);
    const request = { project: PROJECT, strips, revision: 0, as: "mix" as const, name: "Ferry Light, Rough" };
    house.show(<SaveSheet request={request} />);
    await screen.findByRole("heading", { name: `Save ${strips.length} strips` });
    await waitFor(() => expect(field("Name").value).toBe("Ferry Light, Rough"));
    press(/^Save whole mix/);
    await waitFor(() => expect(said).toContain("Saved “Ferry Light, Rough”"));
    const [preset] = await find('name:"Ferry Light, Rough"');
    if (preset?.content.kind !== "mix") throw new Error("no mix");
    const kept = preset.content.strips.find((strip) => strip.look?.name === "Cello");
    expect(kept?.level).toEqual(cello.level);
    const now = value(await getProject(house.context, PROJECT));
    expect(now.revision).toBe(1);
    expect((await stripNamed("Cello")).level.fader).toBe(-31);
  });
});
