// @vitest-environment jsdom
import { act, renderHook, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type House, openHouse, presetOf } from "@/app/testing/house";
import { said } from "@/app/testing/said";
import { INCLUDED } from "@/core/packs/included";
import { value } from "@/server/testing";
import { patchCards } from "@/server/use-cases/filing/cards";
import { makeFolder } from "@/server/use-cases/filing/folders";
import { getPreset, savePresets } from "@/server/use-cases/library";
import { useQuery } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { useFiling } from "./filing";
import { touch } from "../actions/last-touched";
import { useLibraryHistory } from "./use-library-history";

vi.mock("../kit/say", () => import("@/app/testing/said"));

const CONTENT = INCLUDED.presets.find((p) => p.content.kind === "plugin")!.content;

let house: House;

beforeEach(async () => {
  said.length = 0;
  touch("library");
  house = await openHouse();
});

afterEach(() => house.close());

/** One sound, rated so many times, each a step of its own. */
async function rate(times: number) {
  const [row] = value(await savePresets(house.context, { presets: [presetOf(CONTENT, { name: "Rim" })] }));
  for (let n = 0; n < times; n++) {
    const changes = [{ id: row!.id, baseCard: row!.cardRevision + n, card: { rating: n + 1 } }];
    value(await patchCards(house.context, { changes, label: `Rate ${n + 1}` }));
  }
}

const open = () => {
  const hook = renderHook(useLibraryHistory, { wrapper: house.wrapper });
  const now = (id: string) => hook.result.current.find((a) => a.id === `${id}-filing`)!;
  return { now, press: (id: string) => act(() => now(id).run()) };
};

describe("undo and redo of the filing", () => {
  it("are told with the words of what they are for", async () => {
    await rate(2);
    const { now } = open();
    await waitFor(() => expect(now("undo").title).toBe("Undo: Rate 2"));
    expect(now("redo")).toMatchObject({ enabled: false, keys: [] });
  });

  it("are done also before it is known what there is", async () => {
    await rate(1);
    const { now, press } = open();
    expect(now("undo")).toMatchObject({ title: "Undo in the library", enabled: true, keys: ["Ctrl+Z"] });
    press("undo");
    await waitFor(() => expect(said).toEqual(["Taken back: Rate 1"]));
    await waitFor(() => expect(now("redo").title).toBe("Redo: Rate 1"));
    press("redo");
    await waitFor(() => expect(said.at(-1)).toBe("Done again: Rate 1"));
  });

  it("take back the first change of all while it is under way, before the history tells of it", async () => {
    const [row] = value(await savePresets(house.context, { presets: [presetOf(CONTENT, { name: "Rim" })] }));
    const hook = renderHook(() => ({ actions: useLibraryHistory(), filing: useFiling() }), { wrapper: house.wrapper });
    const undo = () => hook.result.current.actions.find(({ id }) => id === "undo-filing")!;
    await waitFor(() => expect(undo().enabled).toBe(false));
    let changed: Promise<void> = Promise.resolve();
    act(() => {
      changed = hook.result.current.filing.change([row!], () => ({ rating: 4 }), "Rate");
    });
    expect(undo()).toMatchObject({ enabled: true, keys: ["Ctrl+Z"] });
    act(() => undo().run());
    await act(() => changed);
    await waitFor(() => expect(said.at(-1)).toBe("Taken back: Rate “Rim”"));
    expect(value(await getPreset(house.context, row!.id)).preset.card.rating).toBe(0);
  });

  it("say so where there is nothing, asked before that was known; then the keys are free", async () => {
    const { now, press } = open();
    press("redo");
    await waitFor(() => expect(said).toEqual(["There is nothing to redo."]));
    await waitFor(() => expect(now("redo")).toMatchObject({ enabled: false, keys: [] }));
  });

  it("leave what is done next without a conflict, whatever older lists still say", async () => {
    await rate(2);
    const asked = { queryKey: KEYS.presets, queryFn: () => api.listPresets({ limit: 10 }) };
    const hook = renderHook(() => ({ list: useQuery(asked).data, filing: useFiling() }), { wrapper: house.wrapper });
    await waitFor(() => expect(hook.result.current.list).toBeTruthy());
    const list = hook.result.current.list!;
    // A list that nobody looks at any more stays as it was, and is kept for a while.
    house.queries.setQueryData([...KEYS.presets, "another"], list);
    const { press } = open();
    press("undo");
    await act(() => hook.result.current.filing.change([list.items[0]!], () => ({ name: "Otherwise" }), "Rename"));
    expect(house.asked.filter((one) => one.startsWith("PATCH"))).toHaveLength(1);
  });

  it("each say their own step, however quick they come", async () => {
    await rate(3);
    const { now, press } = open();
    await waitFor(() => expect(now("undo").title).toBe("Undo: Rate 3"));
    for (let n = 0; n < 3; n++) press("undo");
    await waitFor(() => expect(said).toHaveLength(3));
    expect(said.toSorted()).toEqual(["Taken back: Rate 1", "Taken back: Rate 2", "Taken back: Rate 3"]);
  });

  it("say what they pass over, and the next press goes on", async () => {
    await rate(1);
    const nave = value(await makeFolder(house.context, { name: "Nave", parent: null }));
    value(await savePresets(house.context, { presets: [presetOf(CONTENT, { name: "In it", folder: nave.id })] }));
    const { now, press } = open();
    await waitFor(() => expect(now("undo").title).toBe("Undo: Make folder “Nave”"));
    press("undo");
    await waitFor(() =>
      expect(said).toEqual(["Passed over: Make folder “Nave”. “Nave” holds something by now; it stays."]),
    );
    await waitFor(() => expect(now("undo").title).toBe("Undo: Rate 1"));
    press("undo");
    await waitFor(() => expect(said.at(-1)).toBe("Taken back: Rate 1"));
  });

  it("leave their keys to a project that was touched last", async () => {
    await rate(1);
    touch("project");
    const { now } = open();
    expect(now("undo")).toMatchObject({ enabled: true, keys: [] });
    await waitFor(() => expect(now("undo").title).toBe("Undo: Rate 1"));
    expect(now("undo").keys).toEqual([]);
  });
});
