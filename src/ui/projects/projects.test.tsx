// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Keys, press } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo, whereNow } from "@/app/testing/navigation";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { getProject, listProjects } from "@/server/use-cases/projects/read";
import { Projects } from "./projects";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;

beforeEach(() => goTo("/projects"));

afterEach(() => house.close());

async function open(fill?: typeof loadDemo): Promise<void> {
  house = await openHouse(fill);
  house.show(
    <>
      <Keys />
      <Projects />
    </>,
  );
  await waitFor(() => expect(screen.queryByText("Opening")).toBeNull());
}

const chosen = () => screen.getByRole("option", { selected: true }).querySelector(".name")!.textContent;
const fill = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
const make = () => fireEvent.click(screen.getByRole("button", { name: "Make project" }));
const faults = async () => (await screen.findAllByRole("alert")).map((a) => a.textContent);

describe("the projects", () => {
  it("are walked by arrows, not past their ends, and opened by Enter", async () => {
    await open(loadDemo);
    await screen.findAllByRole("option");
    const names = screen.getAllByRole("option").map((o) => o.querySelector(".name")!.textContent);
    expect(names.length).toBeGreaterThanOrEqual(8);
    press("ArrowUp");
    expect(chosen()).toBe(names[0]);
    for (let n = 0; n < names.length + 2; n++) press("ArrowDown");
    expect(chosen()).toBe(names.at(-1));
    press("ArrowUp");
    press("Enter");
    expect(whereNow()).toMatch(/^\/projects\/.+/);
    const id = whereNow().split("/").at(-1)!;
    expect(value(await getProject(house.context, id)).project.name).toBe(names.at(-2));
  });

  it("are made with a main output, and opened", async () => {
    await open();
    await screen.findByText("No projects yet");
    press("n", { ctrlKey: true, altKey: true });
    fill("Song", "  Glass Weather ");
    fill("Artist", "Tidal Clocks");
    fill("Tempo", "96.5");
    make();
    make();
    await waitFor(() => expect(whereNow()).toMatch(/^\/projects\/.+/));
    const { project } = value(await getProject(house.context, whereNow().split("/").at(-1)!));
    expect(project).toMatchObject({ name: "Glass Weather", artist: "Tidal Clocks", tempo: 96.5 });
    expect(project.strips.map((s) => s.kind)).toEqual(["main"]);
    expect(await listProjects(house.context)).toHaveLength(1);
  });

  it("need a name and a tempo that can be played, and say which is wanting", async () => {
    await open();
    fireEvent.click(within(screen.getByRole("banner")).getByRole("button", { name: "New project" }));
    fill("Tempo", "4000");
    make();
    expect(await faults()).toEqual(["Give it a name.", "The tempo goes from 20 to 400 bpm."]);
    fill("Song", "x".repeat(201));
    fill("Tempo", "");
    make();
    await waitFor(async () =>
      expect(await faults()).toEqual(["200 letters are the most.", "The tempo goes from 20 to 400 bpm."]),
    );
    expect(house.asked.filter((a) => a.startsWith("POST"))).toEqual([]);
    fireEvent.click(screen.getByRole("button", { name: "Cancel" }));
    expect(screen.queryByRole("dialog")).toBeNull();
  });
});
