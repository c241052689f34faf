// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet } from "@/app/testing/engine";
import { layOut } from "@/app/testing/furnish";
import { Keys, press } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo, whereNow } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import { loadDemo } from "@/demo/load";
import { patiently } from "@/server/testing";
import { beginSweep, changeSweep, tellSweep } from "@/server/use-cases/wrap-up/sweep";
import { Projects } from "../projects/projects";
import { Sweep } from "./sweep";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;

beforeEach(async () => {
  said.length = 0;
  quiet();
  Element.prototype.scrollIntoView = () => Promise.resolve() as never;
  house = await openHouse(loadDemo);
  layOut({ width: 900, height: 620 });
});

afterEach(() => house.close());

const grid = () => screen.getByRole("grid", { name: "What was found" });
const ticked = () =>
  within(grid())
    .getAllByRole("checkbox")
    .filter((box) => box.getAttribute("aria-checked") === "true").length;
const ended = () => patiently(async () => expect((await tellSweep(house.context)).sweep?.isRunning).toBe(false));

function show(): void {
  goTo("/projects/wrap-up");
  house.show(
    <>
      <Keys />
      <Sweep />
    </>,
  );
}

describe("the wrap-up of several projects", () => {
  it("begins from a drawer of the projects", async () => {
    goTo("/projects");
    house.show(
      <>
        <Keys />
        <Projects />
      </>,
    );
    fireEvent.click(await screen.findByRole("button", { name: /Copper Heron/ }));
    await waitFor(() => expect(screen.getAllByRole("option")).toHaveLength(2));
    press("W", { shiftKey: true });
    await waitFor(() => expect(whereNow()).toBe("/projects/wrap-up"));
    expect((await tellSweep(house.context)).sweep).toMatchObject({ called: "Copper Heron", of: 2 });
    await ended();
  });

  it("shows what they have that the library has not, by project; files it, and takes it back", async () => {
    beginSweep(house.context, { projects: ["salt-lanterns", "neap-tide"], called: "Two of them" });
    await ended();
    show();
    await screen.findByRole("heading", { name: "Wrap up Two of them" });
    await waitFor(() => within(grid()).getByRole("rowgroup", { name: "Neap Tide" }));
    expect(within(grid()).getByRole("rowgroup", { name: "Salt Lanterns" })).toBeDefined();
    const count = ticked();
    expect(count).toBeGreaterThan(3);
    press("Enter", { ctrlKey: true });
    await waitFor(() => expect(said.at(-1)).toBe(`Filed ${count} sounds of Two of them`), { timeout: 10_000 });
    await screen.findByRole("button", { name: "File nothing" });
    press("z", { ctrlKey: true });
    await waitFor(() => expect(said.at(-1)).toBe("Taken back: Wrap-up of Two of them"));
    await waitFor(() => expect(ticked()).toBe(count), { timeout: 10_000 });
    press("Escape");
    expect(whereNow()).toBe("/projects");
  });

  it("says where it was stopped, and goes on from there", async () => {
    const { sweep } = beginSweep(house.context, {
      projects: ["salt-lanterns", "neap-tide", "ferry-light", "ebb-machine"],
      called: "All",
    });
    changeSweep(house.context, sweep.id, false);
    await ended();
    show();
    const line = await screen.findByText(/^Stopped after \d of 4 projects/);
    fireEvent.click(within(line).getByRole("button", { name: "Go on" }));
    await screen.findByText(/in 4 projects$/, {}, { timeout: 20_000 });
    expect(screen.queryByText(/^Stopped after/)).toBeNull();
  });

  it("says where to begin where none was begun", async () => {
    show();
    await screen.findByText("No projects are being looked through");
    fireEvent.click(screen.getByRole("button", { name: "All projects" }));
    expect(whereNow()).toBe("/projects");
  });
});
