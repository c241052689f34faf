// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet, engine } from "@/app/testing/engine";
import { drag, layOut } from "@/app/testing/furnish";
import { Keys, press, undo } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo, router, whereNow } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import { layersOf } from "@/core/strips/parts/source";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { getProject } from "@/server/use-cases/projects/read";
import { useSave } from "../save/save";
import { Bench } from "./bench";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;

/** The vibraphone of the demo, with a mist beneath its lower half. */
beforeEach(async () => {
  said.length = 0;
  quiet();
  house = await openHouse(loadDemo);
  layOut({ width: 200, height: 20 });
  goTo("/bench?project=neap-tide&strip=ghost-vibes");
  house.show(
    <>
      <Keys />
      <Bench />
    </>,
  );
  await waitFor(() => expect(layers()).toEqual(["Layer Vibraphone", "Layer Mist"]));
});

afterEach(() => {
  vi.restoreAllMocks();
  return house.close();
});

const shown = () => screen.getByRole("region", { name: "Instrument" });
const layers = () =>
  within(shown())
    .queryAllByRole("button", { name: /^Layer / })
    .map((b) => b.getAttribute("aria-label"));
const openLayer = (name: string) => fireEvent.click(within(shown()).getByRole("button", { name: `Layer ${name}` }));
const stored = async () =>
  layersOf(value(await getProject(house.context, "neap-tide")).project.strips.find((s) => s.id === "ghost-vibes")!);
const heard = () => engine.sounds.a?.instrument?.layers ?? [];

describe("an instrument on the bench", () => {
  it("is heard with all its layers, through the strip's inserts", async () => {
    await waitFor(() => expect(heard()).toHaveLength(2));
    expect(engine.sounds.a?.chain).toHaveLength(2);
  });

  it("is set layer by layer: heard while it is dragged, one step at the end", async () => {
    openLayer("Mist");
    const [first] = await screen.findAllByRole("slider", { name: /Attack/ });
    const before = heard()[1]!;
    drag(first!, [
      [10, 0],
      [60, 0],
      [120, 0],
    ]);
    await waitFor(() => expect(heard()[1]).not.toEqual(before));
    const attack = async () => (await stored())[1]!.instrument.values.attack;
    const was = before.values.attack;
    await waitFor(async () => expect(await attack()).not.toBe(was));
    undo();
    await waitFor(async () => expect(await attack()).toBe(was));
  });

  it("has layers that are named, switched, taken out; an empty name is no name", async () => {
    openLayer("Mist");
    const field = () => screen.getByRole("textbox", { name: "Name of this layer" });
    fireEvent.change(field(), { target: { value: "" } });
    fireEvent.blur(field());
    expect(said).toEqual(["A layer has a name."]);
    expect(field()).toHaveProperty("value", "Mist");
    fireEvent.change(field(), { target: { value: "Undertow" } });
    fireEvent.blur(field());
    await waitFor(() => expect(layers()).toContain("Layer Undertow"));
    fireEvent.click(screen.getByRole("switch", { name: "Undertow" }));
    await waitFor(() => expect(heard()[1]?.enabled).toBe(false));
    fireEvent.click(within(screen.getByRole("region", { name: "Bench" })).getByRole("button", { name: "Take out" }));
    await waitFor(() => expect(layers()).toEqual(["Layer Vibraphone"]));
    for (const then of ["Undertow", "Undertow", "Mist"]) {
      undo();
      await waitFor(() => expect(layers()).toContain(`Layer ${then}`));
    }
  });

  it("gets a layer of any instrument", async () => {
    fireEvent.keyDown(within(shown()).getByRole("button", { name: "Add layer" }), { key: "Enter" });
    const items = (await screen.findAllByRole("menuitem")).map((i) => i.textContent);
    expect(items).toHaveLength(6);
    fireEvent.click(screen.getByRole("menuitem", { name: "Sampler" }));
    await waitFor(() => expect(layers()).toContain("Layer Sampler"));
    expect(screen.getByText(/Nothing is loaded yet/)).toBeTruthy();
  });

  it("answers to a range of keys whose ends never pass each other", async () => {
    openLayer("Vibraphone");
    const end = (name: string) => screen.getByRole<HTMLSelectElement>("combobox", { name: `Keys ${name}` });
    fireEvent.change(end("to"), { target: { value: "40" } });
    await waitFor(async () => expect((await stored())[0]!.keys.high).toBe(40));
    fireEvent.change(end("from"), { target: { value: "64" } });
    await waitFor(async () => expect((await stored())[0]!.keys).toEqual({ low: 64, high: 64 }));
    fireEvent.change(end("to"), { target: { value: "12" } });
    await waitFor(async () => expect((await stored())[0]!.keys).toEqual({ low: 12, high: 12 }));
  });

  it("is saved by itself, and its effects too, which open on the bench by their own address", async () => {
    openLayer("Vibraphone");
    const key = (await stored())[0]!.key;
    fireEvent.click(screen.getByRole("button", { name: "Save this instrument…" }));
    expect(useSave.getState().request).toMatchObject({ layer: key, instrument: true });
    fireEvent.click(screen.getByRole("button", { name: "Save effects…" }));
    expect(useSave.getState().request).toEqual({ project: "neap-tide", strips: ["ghost-vibes"], layer: key });
    fireEvent.click(screen.getByRole("button", { name: "Open on the bench" }));
    expect(whereNow()).toBe(`/bench?project=neap-tide&strip=ghost-vibes&layer=${key}`);
    await waitFor(() => expect(screen.queryByRole("region", { name: "Instrument" })).toBeNull());
    await waitFor(() => expect(heard()).toHaveLength(2));
    expect(engine.sounds.a?.chain).toEqual([]);
    // And there is a way out.
    fireEvent.click(screen.getByRole("button", { name: /Ghost/ }));
    expect(whereNow()).toBe("/bench?project=neap-tide&strip=ghost-vibes");
    await screen.findByRole("region", { name: "Instrument" });
  });

  it("opens the effects of what was begun anew, never a second one, while its own address is still on its way", async () => {
    const late = vi.spyOn(router, "replace").mockImplementation(() => undefined);
    goTo("/bench?new=mallets");
    await waitFor(() => expect(layers()).toEqual(["Layer Mallets"]));
    fireEvent.click(await screen.findByRole("button", { name: "Open on the bench" }));
    const [id] = late.mock.lastCall!;
    expect(`${id}&layer=layer1`).toBe(whereNow());
    expect(whereNow()).toMatch(/^\/bench\?draft=/);
  });
});

describe("the computer's keys", () => {
  const down = (code: string, more = {}) =>
    act(() => void fireEvent.keyDown(document.body, { code, key: code.at(-1)!.toLowerCase(), ...more }));
  const up = (code: string) => act(() => void fireEvent.keyUp(document.body, { code }));

  it("play notes while they are held, by their place, and are letters again after Escape", async () => {
    press("q");
    down("KeyA");
    down("KeyD");
    down("KeyA", { repeat: true });
    expect(engine.notes).toEqual([60, 64]);
    up("KeyA");
    expect(engine.notes).toEqual([64]);
    down("KeyX");
    expect(engine.notes).toEqual([]);
    down("KeyA");
    expect(engine.notes).toEqual([72]);
    act(() => void window.dispatchEvent(new Event("blur")));
    expect(engine.notes).toEqual([]);
    down("Escape", { key: "Escape" });
    down("KeyA");
    expect(engine.notes).toEqual([]);
    await waitFor(() => expect(screen.getByText(/Q turns the letters into keys/)).toBeTruthy());
  });

  it("stay within the keys there are", () => {
    press("q");
    for (let n = 0; n < 9; n++) down("KeyZ");
    down("KeyA");
    expect(engine.notes).toEqual([24]);
    up("KeyA");
    for (let n = 0; n < 9; n++) down("KeyX");
    down("Semicolon");
    expect(engine.notes).toEqual([100]);
  });
});

describe("a MIDI keyboard", () => {
  it("plays, is told by its name, and leaves nothing sounding when it goes away", async () => {
    const input = { name: "Quay keys", onmidimessage: null as ((event: { data: number[] }) => void) | null };
    const access = { inputs: new Map([["one", input]]), onstatechange: null as (() => void) | null };
    Object.defineProperty(navigator, "requestMIDIAccess", { configurable: true, value: () => Promise.resolve(access) });
    // The line looks whether there is MIDI when it is drawn.
    press("q");
    fireEvent.click(await screen.findByRole("button", { name: "Use a MIDI keyboard" }));
    await screen.findByText("MIDI: Quay keys");
    const send = (...data: number[]) => act(() => void input.onmidimessage!({ data }));
    send(0x90, 50, 80);
    send(0x91, 57, 80);
    send(0x90, 50, 0);
    expect(engine.notes).toEqual([57]);
    access.inputs.clear();
    act(() => access.onstatechange!());
    expect(engine.notes).toEqual([]);
    await screen.findByText("No MIDI keyboard is there.");
    Reflect.deleteProperty(navigator, "requestMIDIAccess");
  });
});
