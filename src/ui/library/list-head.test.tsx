// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { layOut } from "@/app/testing/furnish";
import { type House, openHouse, presetOf } from "@/app/testing/house";
import { goTo, whereNow } from "@/app/testing/navigation";
import { INCLUDED } from "@/core/packs/included";
import { value } from "@/server/testing";
import { keepMeasured } from "@/server/loudness/keep";
import { measureSome } from "@/server/loudness/measure";
import { savePresets } from "@/server/use-cases/library";
import { getSettings } from "@/server/use-cases/settings";
import { Library } from "./library";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

const [ONE, MANY] = [
  INCLUDED.presets.find(({ content }) => content.kind === "plugin")!.content,
  INCLUDED.presets.find(({ content }) => content.kind === "chain" && content.chain.nodes.length > 1)!.content,
];

let house: House;

beforeEach(async () => {
  house = await openHouse();
  layOut({ width: 900, height: 620 });
  value(
    await savePresets(house.context, {
      presets: [
        presetOf(ONE, { name: "Rim and air", rating: 2, origin: { date: "2021-02-14" } }),
        presetOf(MANY, { name: "Nave, far pair", rating: 5 }),
        presetOf(ONE, { name: "Reed, soft", rating: 0, origin: { date: "2026-11-14" } }),
      ],
      newFolder: "Rooms / Far",
    }),
  );
});

afterEach(() => house.close());

const lines = () => within(screen.getByRole("listbox", { name: "Sounds" })).getAllByRole("option");
const nameOf = (line: Element) => line.querySelector(".name")!.textContent.replace(/^[^:]+: /, "");
const names = () => lines().map(nameOf);
const says = (name: string, words: string) =>
  expect(lines().find((line) => nameOf(line) === name)!.textContent).toContain(words);
const head = () => within(screen.getByRole("group", { name: "Order of the list" }));
const press = (name: string) => fireEvent.click(head().getByRole("button", { name }));
const tick = (name: string) => fireEvent.click(screen.getByRole("checkbox", { name }));

async function open(address: string): Promise<void> {
  goTo(address);
  house.show(<Library />);
  await waitFor(() => expect(lines()).toHaveLength(3));
}

describe("the headings of the list", () => {
  it("put it in order, and back", async () => {
    await open("/library");
    press("Name");
    await waitFor(() => expect(names()).toEqual(["Nave, far pair", "Reed, soft", "Rim and air"]));
    expect(whereNow()).toContain("sort=name");
    press("Name");
    await waitFor(() => expect(whereNow()).not.toContain("sort"));
    expect(head().getByRole("button", { name: "Used" }).getAttribute("aria-pressed")).toBe("true");
  });

  it("say what the list is in order of: the best first where words are looked for", async () => {
    const isUsed = () => head().getByRole("button", { name: "Used" }).getAttribute("aria-pressed");
    await open("/library?q=name:*");
    expect(isUsed()).toBe("true");
    expect(head().queryByText(/best first/)).toBeNull();
    goTo("/library?q=reed");
    await waitFor(() => expect(lines()).toHaveLength(1));
    expect(head().getByText(/best first/)).toBeTruthy();
    expect(isUsed()).toBe("false");
  });

  it("are those that were chosen; what is put away is no order any more", async () => {
    await open("/library");
    press("Columns of the list");
    await screen.findByRole("checkbox", { name: "Rating" });
    tick("Rating");
    tick("Folder");
    await waitFor(() => says("Nave, far pair", "5"));
    says("Nave, far pair", "Rooms / Far");
    press("Rating");
    await waitFor(() => expect(names()).toEqual(["Nave, far pair", "Rim and air", "Reed, soft"]));
    tick("Rating");
    await waitFor(() => expect(head().queryByRole("button", { name: "Rating" })).toBeNull());
    expect(whereNow()).toBe("/library?columns=used%2Cfolder");
  });

  it("say how loud each is, once that is measured", async () => {
    await keepMeasured(house.context, await measureSome({ folder: house.context.folder, rest: 0 }));
    await open("/library?columns=loudness");
    await waitFor(() => expect(head().getByRole("button", { name: "Loudness" })).toBeTruthy());
    says("Rim and air", "−");
    press("Loudness");
    await waitFor(() => expect(nameOf(lines().at(-1)!)).toBe("Nave, far pair"));
    const figures = lines().map((line) => Number(/−\d+\.\d/.exec(line.textContent)![0].replace("−", "-")));
    expect(figures).toHaveLength(3);
    expect(figures).toEqual(figures.toSorted((a, b) => b - a));
  });

  it("stay while one goes elsewhere and comes back, until others are chosen", async () => {
    await open("/library?columns=rating");
    goTo("/library");
    await waitFor(() => expect(head().getByRole("button", { name: "Rating" })).toBeTruthy());
    press("Columns of the list");
    await screen.findByRole("checkbox", { name: "Used" });
    tick("Rating");
    tick("Used");
    await waitFor(() => expect(head().queryByRole("button", { name: "Rating" })).toBeNull());
    goTo("/library");
    await waitFor(() => expect(head().getByRole("button", { name: "Used" })).toBeTruthy());
    expect(head().queryByRole("button", { name: "Rating" })).toBeNull();
  });

  it("are kept with a search, with the order", async () => {
    await open("/library?q=name:*&columns=origin,length&sort=origin");
    expect(names()).toEqual(["Reed, soft", "Rim and air", "Nave, far pair"]);
    fireEvent.click(await screen.findByRole("button", { name: "Keep this" }));
    const field = await screen.findByLabelText("Name of this search");
    fireEvent.change(field, { target: { value: "By day" } });
    fireEvent.blur(field);
    await waitFor(async () =>
      expect((await getSettings(house.context)).settings.searches).toMatchObject([
        { name: "By day", sort: "origin", columns: "origin,length" },
      ]),
    );
    goTo("/library");
    fireEvent.click(await screen.findByRole("button", { name: "By day" }));
    await waitFor(() => expect(whereNow()).toContain("columns=origin%2Clength"));
    expect(whereNow()).toContain("sort=origin");
    await waitFor(() => expect(names()).toEqual(["Reed, soft", "Rim and air", "Nave, far pair"]));
  });
});
