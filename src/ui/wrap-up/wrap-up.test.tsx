// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet } from "@/app/testing/engine";
import { layOut } from "@/app/testing/furnish";
import { Keys, press } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo, whereNow } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import { processorsOf } from "@/core/chains/tree";
import { emptyCard } from "@/core/presets/preset";
import { turn } from "@/core/recall/gestures/values";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { findPresets } from "@/server/use-cases/find-presets";
import { changeProject } from "@/server/use-cases/projects/change";
import { getProject } from "@/server/use-cases/projects/read";
import { wrapUp } from "@/server/use-cases/wrap-up/file";
import { useListening } from "../listening/state";
import { WrapUp } from "./wrap-up";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

const ID = "salt-lanterns";

let house: House;

beforeEach(async () => {
  said.length = 0;
  quiet();
  Element.prototype.scrollIntoView = () => Promise.resolve() as never;
  house = await openHouse(loadDemo);
  layOut({ width: 900, height: 620 });
});

afterEach(() => house.close());

const stored = async () => value(await getProject(house.context, ID));
const called = async (name: string) => (await findPresets(house.context, { q: `name:"${name}"`, limit: 9 })).items;

/** The voice is set otherwise than it was saved. */
async function turnVoice(): Promise<void> {
  const { project, revision } = await stored();
  const strip = project.strips.find(({ id }) => id === "voice")!;
  const [first] = processorsOf(strip.inserts);
  const steps = turn({ strip, mint: house.context.mint }, first!.key, { "band1.freq": 123 });
  value(await changeProject(house.context, ID, { baseRevision: revision, label: "Turn", steps: [...steps] }));
}

async function open(): Promise<void> {
  goTo(`/projects/${ID}/wrap-up`);
  house.show(
    <>
      <Keys />
      <WrapUp id={ID} />
    </>,
  );
  await screen.findByRole("heading", { name: "Wrap up Salt Lanterns" });
  await waitFor(() => expect(rows().length).toBeGreaterThan(0));
}

const grid = () => screen.getByRole("grid", { name: "What was found" });
const rows = () => within(grid()).getAllByRole("row");
const ticked = () =>
  within(grid())
    .getAllByRole("checkbox")
    .filter((box) => box.getAttribute("aria-checked") === "true").length;
const pane = () => screen.getByRole("region", { name: /^In hand/ });

describe("a wrap-up", () => {
  it("proposes what the library has not, says how each stands, and has the first in hand to be heard", async () => {
    await turnVoice();
    await open();
    expect(rows().some(({ textContent }) => textContent.includes("changed since version"))).toBe(true);
    expect(rows().some(({ textContent }) => textContent.includes("in the library:"))).toBe(false);
    expect(ticked()).toBeGreaterThan(0);
    await waitFor(() => expect(useListening.getState().a).not.toBeNull());
    expect(rows()[0]!.querySelector("[role=checkbox]")!.getAttribute("aria-checked")).toBe("true");
    const shown = rows().length;
    fireEvent.click(screen.getByRole("switch", { name: /^Plugins of chains/ }));
    expect(rows().length).toBeGreaterThan(shown);
    fireEvent.click(screen.getByRole("switch", { name: /^In the library/ }));
    expect(rows().some(({ textContent }) => textContent.includes("in the library:"))).toBe(true);
  });

  it("files what is ticked in one step, under the names and tags that were set, and takes it back in one", async () => {
    await turnVoice();
    const before = (await stored()).project;
    await open();
    const line = within(grid()).getByRole("rowgroup", { name: "Voice" });
    fireEvent.click(within(line).getByText(/^Chain of/));
    await waitFor(() => expect(pane().textContent).toContain("Chain of"));
    fireEvent.click(within(pane()).getByRole("radio", { name: "a sound of its own" }));
    fireEvent.change(within(pane()).getByRole("textbox", { name: "Name" }), { target: { value: "Voice, wrapped up" } });
    const count = ticked();
    expect(screen.getByRole("button", { name: `File ${count} sounds` })).toBeDefined();
    press("Enter", { ctrlKey: true });
    await waitFor(() => expect(said.at(-1)).toBe(`Filed ${count} sounds of Salt Lanterns`));
    const [kept] = await called("Voice, wrapped up");
    expect(kept?.card.origin).toMatchObject({ song: "Salt Lanterns", strip: "Voice" });
    expect((await stored()).project.strips.find(({ id }) => id === "voice")?.inserts.from?.name).toBe(
      "Voice, wrapped up",
    );
    await waitFor(() => expect(screen.getByRole("button", { name: "File nothing" })).toBeDefined());
    press("z", { ctrlKey: true });
    await waitFor(() => expect(said.at(-1)).toBe("Taken back: Wrap-up of Salt Lanterns"));
    expect((await stored()).project).toEqual(before);
    expect(await called("Voice, wrapped up")).toEqual([]);
  });

  it("leaves out what another window has filed meanwhile, also where it was ticked by hand here", async () => {
    await turnVoice();
    await open();
    const line = () => within(grid()).queryByRole("rowgroup", { name: "Voice" });
    const sends = within(line()!).getByRole("checkbox", { name: "Sends of Voice" });
    fireEvent.click(sends);
    const count = ticked();
    const { revision } = await stored();
    const card = emptyCard("Sends, theirs");
    value(
      await wrapUp(house.context, ID, {
        baseRevision: revision,
        file: [{ key: "sends voice", as: { card } }],
        left: [],
      }),
    );
    await act(() => house.queries.invalidateQueries());
    await waitFor(() => expect(ticked()).toBe(count - 1));
    expect(screen.getByRole("button", { name: `File ${count - 1} sounds` })).toBeDefined();
  });

  it("is walked by keys; what is passed over is not shown again until it is asked for", async () => {
    await open();
    const first = rows()[0]!;
    expect(first.getAttribute("aria-selected")).toBe("true");
    press("ArrowDown");
    expect(rows()[1]!.getAttribute("aria-selected")).toBe("true");
    press("End");
    expect(rows().at(-1)!.getAttribute("aria-selected")).toBe("true");
    press("Home");
    // All that is ticked is left out.
    for (const box of within(grid()).getAllByRole("checkbox", { checked: true })) fireEvent.click(box);
    expect(ticked()).toBe(0);
    press("Enter");
    expect(ticked()).toBe(1);
    press("Enter");
    press("Enter", { ctrlKey: true });
    await screen.findByText("Nothing is left to file");
    expect(said.at(-1)).toBe("Wrapped up Salt Lanterns: nothing was filed");
    fireEvent.click(screen.getByRole("switch", { name: /^Passed over then/ }));
    await waitFor(() => expect(rows().length).toBeGreaterThan(0));
    press("Escape");
    expect(whereNow()).toBe(`/projects/${ID}`);
  });

  it("says which name is taken", async () => {
    await open();
    const [taken] = (await findPresets(house.context, { limit: 1 })).items;
    fireEvent.click(rows().find(({ textContent }) => textContent.includes("not in the library"))!);
    await waitFor(() => expect(within(pane()).getByRole("textbox", { name: "Name" })).toBeDefined());
    fireEvent.change(within(pane()).getByRole("textbox", { name: "Name" }), { target: { value: taken!.card.name } });
    await waitFor(() => expect(pane().textContent).toContain("Another sound has that name."));
    expect(within(pane()).getByRole<HTMLInputElement>("textbox", { name: "Name" }).value).toBe(taken!.card.name);
    // What was set is there again after a look elsewhere.
    fireEvent.click(rows().at(-1)!);
    cleanup();
    await open();
    fireEvent.click(rows().find(({ textContent }) => textContent.includes(`${taken!.card.name} 2`))!);
    expect(pane().textContent).toContain(`It is filed as “${taken!.card.name} 2”.`);
  });

  it("sets folder, tags and purpose of several at once, each keeping what is its own", async () => {
    await turnVoice();
    await open();
    press("ArrowDown", { shiftKey: true });
    await waitFor(() => expect(pane().getAttribute("aria-label")).toBe("In hand: 2"));
    expect(rows().filter((row) => row.getAttribute("aria-selected") === "true")).toHaveLength(2);
    fireEvent.click(within(pane()).getByRole("button", { name: "Tick none" }));
    const before = ticked();
    fireEvent.click(within(pane()).getByRole("button", { name: "Tick 2 finds" }));
    expect(ticked()).toBe(before + 2);
    const own = within(pane()).queryByRole("radio", { name: "sounds of their own" });
    if (own) fireEvent.click(own);
    fireEvent.change(within(pane()).getByRole("combobox", { name: "Folder" }), { target: { value: "percussion" } });
    fireEvent.change(within(pane()).getByRole("combobox", { name: "Tags" }), { target: { value: "wrapped" } });
    fireEvent.change(within(pane()).getByRole("textbox", { name: "For" }), { target: { value: "Both" } });
    const names = rows()
      .slice(0, 2)
      .map((row) => row.querySelector(".name")!.textContent);
    press("Enter", { ctrlKey: true });
    await waitFor(() => expect(said.at(-1)).toMatch(/^Filed \d+ sounds of Salt Lanterns/));
    for (const name of names) {
      const [kept] = await called(name);
      expect(kept?.card, name).toMatchObject({ folder: "percussion", purpose: "Both" });
      expect(kept?.card.tags, name).toContain("wrapped");
      // Those that were proposed for it alone are there still.
      expect(kept!.card.tags.length, name).toBeGreaterThan(1);
    }
  });

  it("keeps a strip with its companions as a set", async () => {
    await open();
    const line = within(grid()).getByRole("rowgroup", { name: "Voice" });
    fireEvent.click(within(line).getByText("Strip"));
    fireEvent.click(await within(pane()).findByRole("checkbox", { name: "Keep Long echo" }));
    expect(within(line).getByText("Set of 2 strips")).toBeDefined();
    fireEvent.change(within(pane()).getByRole("textbox", { name: "Name" }), {
      target: { value: "Voice with its echo" },
    });
    press("Enter", { ctrlKey: true });
    await waitFor(() => expect(said.at(-1)).toMatch(/^Filed/));
    const [kept] = await called("Voice with its echo");
    expect(kept?.content).toMatchObject({ kind: "set", strips: [{ name: "Voice" }, { name: "Long echo" }] });
  });

  it("ticks and lets go of all that is in hand by one key", async () => {
    await open();
    press("a", { ctrlKey: true });
    press("Enter");
    expect(ticked()).toBe(rows().length);
    press("Enter");
    expect(ticked()).toBe(0);
    press("ArrowDown");
    expect(rows().filter((row) => row.getAttribute("aria-selected") === "true")).toHaveLength(1);
  });
});
