// @vitest-environment jsdom
import { act, fireEvent, renderHook, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type House, openHouse, presetOf } from "@/app/testing/house";
import { said } from "@/app/testing/said";
import { getModel } from "@/core/processors/models";
import { MAKERS_START, type Settings, withShortcut, withStartingPoint } from "@/core/settings/settings";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { deletePreset } from "@/server/use-cases/filing/cards";
import { findPresets } from "@/server/use-cases/find-presets";
import { savePresets } from "@/server/use-cases/library";
import { changeSettings, getSettings } from "@/server/use-cases/settings";
import { useActionKeys, useActions } from "../actions/actions";
import { useBenchForShortcuts, useOwnShortcuts } from "../plan/own-shortcuts";
import { useSettings } from "../settings/settings";
import { makersStart, useNewStrip, useStarts } from "../settings/starts";
import { PluginPane } from "./plugin-pane";

const pushed = vi.hoisted(() => [] as string[]);
vi.mock("next/navigation", () => ({ useRouter: () => ({ push: (where: string) => pushed.push(where) }) }));
vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;

beforeEach(async () => {
  said.length = 0;
  pushed.length = 0;
  house = await openHouse(loadDemo);
});

afterEach(async () => {
  useBenchForShortcuts.setState({ bench: null });
  await house.close();
});

const stored = async () => (await getSettings(house.context)).settings;
const setUp = async (make: (settings: Settings) => Settings) => {
  const { revision, settings } = await getSettings(house.context);
  value(await changeSettings(house.context, { baseRevision: revision, settings: make(settings) }));
};
const roomPreset = async () =>
  (await findPresets(house.context, { model: "room", sort: "name" })).items.find((p) => p.kind === "plugin")!;

describe("what a person sets up", () => {
  it("is changed in two windows at once without a loss", async () => {
    const window = () => renderHook(() => useSettings(), { wrapper: house.wrapper }).result;
    const one = window();
    await waitFor(() => expect(house.asked).toContain("GET /api/settings"));
    // Another window, of which this one has not heard.
    await setUp((now) => withShortcut(now, { model: "room" }, "Q R"));
    await act(() => one.current.change((now) => withShortcut(now, { preset: "narrator-close" }, "Q N")));
    expect((await stored()).shortcuts.map((s) => s.keys).toSorted()).toEqual(["Q N", "Q R"]);
  });
});

describe("what is set up twice quickly", () => {
  it("is sent one after the other, each on what the one before has left; what is done already is not sent", async () => {
    const one = renderHook(() => useSettings(), { wrapper: house.wrapper }).result;
    await waitFor(() => expect(house.asked).toContain("GET /api/settings"));
    const room = (keys: string) => one.current.change((now) => withShortcut(now, { model: "room" }, keys));
    await act(() => Promise.all([room("Q R"), room("Q S"), room("Q S")]));
    expect((await stored()).shortcuts.map((s) => s.keys)).toEqual(["Q S"]);
    expect(house.asked.filter((asked) => asked !== "GET /api/settings")).toEqual([
      "PUT /api/settings",
      "PUT /api/settings",
    ]);
    expect((await getSettings(house.context)).revision).toBe(2);
  });
});

describe("a plugin", () => {
  it("opens with what is chosen for everywhere, or for a kind of strip; back at the maker's in one step", async () => {
    const preset = await roomPreset();
    house.show(<PluginPane model={getModel("room")} />);
    const everywhere = await screen.findByLabelText("Opens with, everywhere");
    await waitFor(() => expect(within(everywhere).getAllByRole("option").length).toBeGreaterThan(1));
    fireEvent.change(everywhere, { target: { value: preset.id } });
    await waitFor(async () =>
      expect((await stored()).startingPoints).toEqual([
        { model: "room", strip: null, preset: preset.id, version: null },
      ]),
    );
    const starts = renderHook(() => useStarts("audio"), { wrapper: house.wrapper });
    await waitFor(async () => expect((await starts.result.current("room")).from?.preset).toBe(preset.id));
    await waitFor(() => expect(everywhere).toHaveProperty("value", preset.id));
    fireEvent.change(everywhere, { target: { value: "" } });
    await waitFor(async () => expect((await stored()).startingPoints).toEqual([]));
    await waitFor(async () => expect((await starts.result.current("room")).from).toBeUndefined());
  });

  it("opens with values that were never saved, and as its maker set it where that is chosen for a kind of strip", async () => {
    const values = { decay: 3.3 };
    await setUp((now) =>
      withStartingPoint(
        withStartingPoint(now, { model: "room", strip: null }, { preset: null, version: null, values }),
        { model: "room", strip: "return" },
        MAKERS_START,
      ),
    );
    const opened = async (strip: "audio" | "return") =>
      (await renderHook(() => useStarts(strip), { wrapper: house.wrapper }).result.current("room")).values;
    const makers = makersStart("room").values;
    await waitFor(async () => expect(await opened("audio")).toEqual({ ...makers, decay: 3.3 }));
    expect(await opened("return")).toEqual(makers);
    house.show(<PluginPane model={getModel("room")} />);
    const chosen = async (label: string) =>
      within(await screen.findByLabelText(label)).getByRole("option", { selected: true }).textContent;
    await waitFor(async () => expect(await chosen("Opens with, everywhere")).toBe("a setting of your own"));
    expect(await chosen("Opens with, on return buses")).toBe("the maker’s start");
    expect(await chosen("Opens with, on group buses")).toBe("as everywhere");
  });

  it("whose starting point is gone says so, opens as its maker set it, and lets another be chosen", async () => {
    const preset = await roomPreset();
    await setUp((now) => withStartingPoint(now, { model: "room", strip: null }, { preset: preset.id, version: null }));
    value(await deletePreset(house.context, preset.id));
    const starts = renderHook(() => useStarts(null), { wrapper: house.wrapper });
    await waitFor(async () => {
      const opened = await starts.result.current("room");
      expect(said).not.toEqual([]);
      expect(opened.values).toEqual(makersStart("room").values);
    });
    expect(said[0]).toContain("is not here any more");
    house.show(<PluginPane model={getModel("room")} />);
    expect(await screen.findByRole("option", { name: "a preset that is gone" })).toBeTruthy();
  });

  it("names its starting point also where that stands far down a long list", async () => {
    const { content } = await roomPreset();
    const names = Array.from({ length: 205 }, (_, n) => `Zinc hall ${String(n).padStart(3, "0")}`);
    const rows = value(await savePresets(house.context, { presets: names.map((name) => presetOf(content, { name })) }));
    const preset = rows.at(-1)!.id;
    await setUp((now) => withStartingPoint(now, { model: "room", strip: null }, { preset, version: null }));
    house.show(<PluginPane model={getModel("room")} />);
    const everywhere = await screen.findByLabelText("Opens with, everywhere");
    await waitFor(() =>
      expect(within(everywhere).getByRole("option", { selected: true }).textContent).toBe("Zinc hall 204"),
    );
    expect(await screen.findByText(/^The first 200 of 2\d\d by name/)).toBeTruthy();
  });

  it("shows its sounds in the library", async () => {
    house.show(<PluginPane model={getModel("room")} />);
    fireEvent.click(await screen.findByRole("button", { name: "Show its sounds" }));
    expect(decodeURIComponent(pushed[0]!)).toBe(`/library?only=has:="${getModel("room").name}"`);
  });
});

describe("a new strip", () => {
  it("begins as the preset for its kind, by its own name and where it goes; else blank", async () => {
    const strip = (await findPresets(house.context, { q: "kind:strip", limit: 50 })).items.find(
      (p) => p.content.kind === "strip" && p.content.strip.kind === "audio",
    )!;
    await setUp((now) => withStartingPoint(now, { model: null, strip: "audio" }, { preset: strip.id, version: null }));
    const make = renderHook(() => useNewStrip(), { wrapper: house.wrapper });
    await waitFor(async () => {
      const made = await make.result.current("audio", "Cello", null);
      expect(made.inserts.from?.preset).toBe(strip.id);
      expect([made.look.name, made.routing.output]).toEqual(["Cello", null]);
    });
    expect((await make.result.current("group", "Strings", null)).inserts.nodes).toEqual([]);
  });
});

describe("a shortcut of one's own", () => {
  const keys = () => {
    renderHook(
      () => {
        useActionKeys();
        useActions([]);
        useOwnShortcuts();
      },
      { wrapper: house.wrapper },
    );
  };
  const press = (key: string) => act(() => void fireEvent.keyDown(document.body, { key }));

  it("puts a sound on the bench, and adds a plugin there", async () => {
    await setUp((now) =>
      withShortcut(withShortcut(now, { preset: "narrator-close" }, "Q N"), { model: "room" }, "Q R"),
    );
    const done: string[] = [];
    useBenchForShortcuts.setState({
      bench: { put: (preset) => done.push(preset.id), add: (model) => done.push(model) },
    });
    keys();
    await waitFor(() => expect(house.asked).toContain("GET /api/presets/narrator-close"));
    await waitFor(() => {
      press("q");
      press("n");
      expect(done).toContain("narrator-close");
    });
    press("q");
    press("r");
    expect(done.at(-1)).toBe("room");
  });

  it("says what is missing: no bench for a plugin, no sound any more", async () => {
    await setUp((now) => withShortcut(withShortcut(now, { preset: "gone" }, "Q N"), { model: "room" }, "Q R"));
    keys();
    await waitFor(() => {
      press("q");
      press("r");
      expect(said.some((words) => words.startsWith("Open the bench first"))).toBe(true);
    });
    press("q");
    press("n");
    await waitFor(() => expect(said.at(-1)).toContain("is not here any more"));
  });
});
