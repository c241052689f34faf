// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet } from "@/app/testing/engine";
import { layOut } from "@/app/testing/furnish";
import { Keys, press } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo } from "@/app/testing/navigation";
import { pressSaid, said } from "@/app/testing/said";
import { viewsOf } from "@/core/projects/views";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { setBinned } from "@/server/use-cases/projects/bin";
import { getProject } from "@/server/use-cases/projects/read";
import { chooseStrips, useInHand } from "../../projects/in-hand";
import { Ledger } from "../ledger";
import { columnsOf, layoutOf } from "./layout";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../../kit/say", () => import("@/app/testing/said"));

const ID = "salt-lanterns";

let house: House;

beforeEach(async () => {
  said.length = 0;
  localStorage.clear();
  quiet();
  useInHand.setState({ project: null, strips: [], alwaysPlan: false });
  await useInHand.persist.rehydrate();
  house = await openHouse(loadDemo);
  layOut({ width: 600, height: 620 });
});

afterEach(() => {
  // What is shown is remembered by the browser: each begins with all of it.
  press("0");
  return house.close();
});

async function open(): Promise<void> {
  goTo(`/projects/${ID}`);
  house.show(
    <>
      <Keys />
      <Ledger id={ID} />
    </>,
  );
  await waitFor(() => expect(names().length).toBeGreaterThan(0));
}

const grid = () => screen.getByRole("grid", { name: "Strips" });
const rows = () => within(grid()).getAllByRole("row").slice(1);
const nameOf = (one: Element) => one.querySelector(".name")!.textContent;
const names = () => rows().map(nameOf);
const click = (name: string) =>
  fireEvent.click(
    rows()
      .find((one) => nameOf(one) === name)!
      .querySelector(".name")!,
  );
const stored = async () => value(await getProject(house.context, ID));
const views = async () => viewsOf((await stored()).project).map(({ name, digit }) => [name, digit]);

async function keep(name: string, digit?: string): Promise<void> {
  press("v");
  const sheet = within(await screen.findByRole("dialog", { name: "Keep this view" }));
  fireEvent.change(sheet.getByRole("textbox", { name: "Name" }), { target: { value: name } });
  if (digit !== undefined) fireEvent.change(sheet.getByRole("combobox", { name: "Key" }), { target: { value: digit } });
  fireEvent.click(sheet.getByRole("button", { name: "Keep" }));
  await waitFor(async () => expect((await views()).map(([called]) => called)).toContain(name));
}

const choose = async (item: RegExp) => {
  fireEvent.keyDown(screen.getByRole("button", { name: "What is shown" }), { key: "Enter" });
  fireEvent.click(await screen.findByRole("menuitem", { name: item }));
};

describe("what the ledger shows", () => {
  it("is hidden strip by strip, with what stands in a group, and said; nothing hidden stays chosen", async () => {
    await open();
    const all = names();
    expect(screen.queryByRole("button", { name: /^Show all/ })).toBeNull();
    click("Strings");
    press("h");
    await waitFor(() => expect(names()).toEqual(all.slice(3)));
    expect(screen.getByText("9 of 12 strips")).toBeTruthy();
    expect(screen.getByText("without Strings")).toBeTruthy();
    expect(useInHand.getState().strips).toEqual([]);
    fireEvent.click(screen.getByRole("button", { name: /^Show all/ }));
    expect(names()).toEqual(all);
  });

  it("is hidden by kind, and stands in another order, in which no row is moved", async () => {
    await open();
    await choose(/^Returns/);
    await waitFor(() => expect(names()).not.toContain("Long echo"));
    await choose(/^By name/);
    const flat = names().filter((name) => ["Drum", "Harmonium", "Main", "Strings", "Voice"].includes(name));
    expect(flat).toEqual(["Drum", "Harmonium", "Main", "Strings", "Voice"]);
    expect(screen.getByText("without returns · by name")).toBeTruthy();
    const { revision } = await stored();
    click("Voice");
    press("ArrowUp", { altKey: true });
    expect(said.at(-1)).toContain("Rows stand by name.");
    expect((await stored()).revision).toBe(revision);
  });

  it("is moved past what is hidden", async () => {
    await open();
    click("Harmonium");
    press("h");
    click("Drum");
    press("ArrowUp", { altKey: true });
    await waitFor(() => expect(names()[0]).toBe("Drum"));
  });

  it("is what is looked for, while it is; Escape leaves that", async () => {
    await open();
    const all = names();
    click("Cello");
    press("f");
    const field = screen.getByRole("textbox", { name: "Find strips" });
    fireEvent.change(field, { target: { value: "frame drum" } });
    await waitFor(() => expect(names()).toEqual(["Frame drum close", "Frame drum rim", "Frame drum far"]));
    expect(useInHand.getState().strips).toEqual([]);
    press("Escape", {}, field);
    expect(names()).toEqual(all);
  });
});

describe("views", () => {
  it("are kept under a name and a digit, which is taken from the one that had it", async () => {
    await open();
    click("Drum");
    press("h", { shiftKey: true });
    await keep("Only drums");
    press("0");
    await keep("All of it", "1");
    expect(await views()).toEqual([
      ["All of it", 1],
      ["Only drums", null],
    ]);
    expect(said).toEqual(["Kept the view “Only drums”", "Kept the view “All of it”"]);
    pressSaid();
    await waitFor(async () => expect(await views()).toEqual([["Only drums", 1]]));
    press("1");
    await waitFor(() => expect(names()).toHaveLength(4));
  });

  it("are told to be changed, and keep the changes or are removed, each with its undo", async () => {
    await open();
    click("Drum");
    press("h", { shiftKey: true });
    await keep("Only drums");
    await choose(/^Group buses/);
    await waitFor(() => expect(screen.getByText("changed")).toBeTruthy());
    await choose(/^Keep the changes in/);
    await waitFor(async () => expect(viewsOf((await stored()).project)[0]?.kinds).toEqual(["group"]));
    await waitFor(() => expect(screen.queryByText("changed")).toBeNull());
    await choose(/^Remove “Only drums”/);
    await waitFor(async () => expect(await views()).toEqual([]));
    pressSaid();
    await waitFor(async () => expect(await views()).toEqual([["Only drums", 1]]));
  });

  it("show what comes in hand, whatever hides it", async () => {
    await open();
    click("Drum");
    press("h", { shiftKey: true });
    await waitFor(() => expect(names()).toHaveLength(4));
    chooseStrips(["cello"]);
    await waitFor(() => expect(names()).toContain("Cello"));
  });

  it("need a name", async () => {
    await open();
    press("v");
    const sheet = within(await screen.findByRole("dialog", { name: "Keep this view" }));
    fireEvent.change(sheet.getByRole("textbox", { name: "Name" }), { target: { value: "  " } });
    fireEvent.click(sheet.getByRole("button", { name: "Keep" }));
    expect((await sheet.findByRole("alert")).textContent).toBe("Give it a name.");
    expect(await views()).toEqual([]);
  });

  it("cannot be kept of a project in the bin: it says so, and how it comes out", async () => {
    value(await setBinned(house.context, ID, true));
    await open();
    expect(screen.getByText(/^In the bin since/)).toBeTruthy();
    press("v");
    fireEvent.click(
      within(await screen.findByRole("dialog", { name: "Keep this view" })).getByRole("button", { name: "Keep" }),
    );
    await waitFor(() => expect(said.at(-1)).toContain("is in the bin"));
    fireEvent.click(screen.getByRole("button", { name: "Take out of the bin" }));
    await waitFor(() => expect(screen.queryByText(/^In the bin since/)).toBeNull());
  });

  it("keep columns with their order and widths, and pass over those that are not known", () => {
    const columns = [{ id: "look", width: 240 }, { id: "sends" }, { id: "level", width: 90 }];
    expect(columnsOf(layoutOf(columns))).toEqual(columns);
    const foreign = [{ id: "level" }, { id: "weather" }, { id: "look" }];
    expect(columnsOf(layoutOf(foreign))).toEqual([{ id: "look" }, { id: "level" }]);
  });
});
