// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type House, openHouse } from "@/app/testing/house";
import { whereNow } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import { thisWindow } from "@/clients/window";
import { windowName } from "@/core/documents/window";
import { loadDemo } from "@/demo/load";
import { forWindow } from "@/server/store/window";
import { value } from "@/server/testing";
import { patchCards } from "@/server/use-cases/filing/cards";
import { makeFolder } from "@/server/use-cases/filing/folders";
import { findPresets } from "@/server/use-cases/find-presets";
import { getPreset } from "@/server/use-cases/library";
import { HistorySheet } from "./history-sheet";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;

beforeEach(async () => {
  said.length = 0;
  house = await openHouse(loadDemo);
});

afterEach(() => house.close());

const own = async () =>
  (await findPresets(house.context, { sort: "name", limit: 500 })).items.filter((p) => p.pack === null);
const rating = async (id: string) => value(await getPreset(house.context, id)).preset.card.rating;
async function rate(id: string, to: number, label = `Rate ${to}`) {
  const { preset } = value(await getPreset(house.context, id));
  const changes = [{ id, baseCard: preset.cardRevision, card: { rating: to } }];
  value(await patchCards(house.context, { changes, label }));
}
const lines = () => within(screen.getByRole("region", { name: "What was done" })).queryAllByRole("listitem");
const lineOf = (words: string) => lines().find((line) => line.textContent.includes(words))!;
const press = (line: HTMLElement, name: RegExp) => fireEvent.click(within(line).getByRole("button", { name }));

describe("the history of the library", () => {
  it("says when, in which window and to what, and leads to the sound", async () => {
    const [a] = await own();
    const other = windowName(new Date("2026-11-01T09:30:00"), "abcd");
    await forWindow(other, () => rate(a!.id, 2, "Rate it"));
    await forWindow(thisWindow(), () => makeFolder(house.context, { name: "Rehearsals", parent: null }));
    house.show(<HistorySheet />);
    await waitFor(() => expect(lineOf("Rehearsals").textContent).toContain("this window"));
    expect(lineOf("Rate it").textContent).toContain("window of 1 Nov 2026, 09:30");
    press(lineOf("Rate it"), new RegExp(`^${a!.card.name}$`));
    expect(whereNow()).toBe(`/library?q=${encodeURIComponent(`name:="${a!.card.name}"`)}`);
  });

  it("takes back one entry among others, and does it again", async () => {
    const [a, b] = await own();
    const before = await rating(a!.id);
    await rate(a!.id, before === 5 ? 4 : 5, "Rate the first");
    await rate(b!.id, 1, "Rate the second");
    house.show(<HistorySheet />);
    await waitFor(() => expect(lineOf("Rate the first")).toBeTruthy());
    press(lineOf("Rate the first"), /^Take back/);
    await waitFor(async () => expect(await rating(a!.id)).toBe(before));
    expect(await rating(b!.id)).toBe(1);
    await waitFor(() => expect(said.at(-1)).toBe("Taken back: Rate the first"));
    const again = () =>
      lines().find((line) => within(line).queryByRole("button", { name: "Do again: Rate the first" }));
    await waitFor(() => expect(again()).toBeTruthy());
    press(again()!, /^Do again/);
    await waitFor(async () => expect(await rating(a!.id)).toBe(before === 5 ? 4 : 5));
  });

  it("leaves what something later stands on, and says what that is", async () => {
    const [a] = await own();
    await rate(a!.id, 2, "Rate low");
    await rate(a!.id, 5, "Rate high");
    house.show(<HistorySheet />);
    await waitFor(() => expect(lineOf("Rate low")).toBeTruthy());
    press(lineOf("Rate low"), /^Take back/);
    expect((await screen.findByRole("alert")).textContent).toContain("“Rate high” last");
    expect(await rating(a!.id)).toBe(5);
  });

  it("is searched, says so where nothing is found, and goes on to what is earlier", async () => {
    const [a] = await own();
    for (let n = 0; n < 70; n++) await rate(a!.id, n % 5, `Rate ${n}`);
    house.show(<HistorySheet />);
    await waitFor(() => expect(lines().length).toBe(60));
    fireEvent.click(screen.getByRole("button", { name: "Earlier" }));
    await waitFor(() => expect(lines().length).toBeGreaterThanOrEqual(70));
    const field = screen.getByLabelText("Find in the history");
    fireEvent.change(field, { target: { value: "rate 61" } });
    await waitFor(() => expect(lines().length).toBe(1));
    fireEvent.change(field, { target: { value: "nothing at all" } });
    await screen.findByText("Nothing that was done says this.");
  });
});
