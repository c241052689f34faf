// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { quiet } from "@/app/testing/engine";
import { layOut } from "@/app/testing/furnish";
import { Keys } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import * as api from "@/clients/api";
import { isStrips } from "@/core/presets/preset";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { getPreset } from "@/server/use-cases/library";
import { listRevisions } from "@/server/use-cases/projects/history";
import { getProject } from "@/server/use-cases/projects/read";
import { SaveSheet } from "../save/save-sheet";
import { PlanScreen } from "./plan-screen";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

/* Several strips together: kept by the sheet, planned onto another project, applied as one change. */

let house: House;
beforeEach(async () => {
  said.length = 0;
  quiet();
  house = await openHouse(loadDemo);
  layOut({ width: 1280, height: 800 });
});
afterEach(() => house.close());

const DRUMS = ["drum", "drum-close", "drum-rim", "drum-far"];

/** Keeps the frame drum of a project with its group, and the return that it sends to; the id of the preset. */
async function keepDrums(): Promise<string> {
  goTo("/projects/salt-lanterns");
  house.show(<SaveSheet request={{ project: "salt-lanterns", strips: DRUMS }} />);
  fireEvent.click(await screen.findByRole("radio", { name: "Together, as a strip set" }));
  expect(screen.queryByRole("radio", { name: "As a whole mix" })).toBeNull();
  const along = await screen.findByRole("checkbox", { name: "Keep Eighths" });
  expect(along.closest("li")?.textContent).toContain("Frame drum rim sends to it");
  const drawn = await screen.findByRole("img", { name: /Frame drum rim sends to Eighths/ });
  expect(drawn.getAttribute("aria-label")).toMatch(/by name only: .*Eighths/);
  fireEvent.click(along);
  await waitFor(() =>
    expect(screen.getByRole("img", { name: /sends to Eighths; .*by name only: Main$/ })).toBeDefined(),
  );
  const name = screen.getByRole("textbox", { name: "Name" });
  fireEvent.change(name, { target: { value: "Frame drum, all of it" } });
  const [save] = await screen.findAllByRole("button", { name: "Save strip set" });
  fireEvent.click(save!);
  await waitFor(() => expect(said.join()).toContain("Saved “Frame drum, all of it”"));
  const { items } = await api.listPresets({ q: '"all of it"' });
  return items[0]!.id;
}

it("keeps strips with what belongs to them, and what leads from one to another", async () => {
  const { preset } = value(await getPreset(house.context, await keepDrums()));
  const { content } = preset;
  if (!isStrips(content)) throw new Error(content.kind);
  expect(content.strips.map(({ id }) => id)).toEqual([...DRUMS, "eighths"]);
  const [group, close, rim] = content.strips;
  expect(group?.routing?.output).toEqual({ external: true, kind: "main", name: "Main" });
  expect(close?.routing?.output).toEqual({ strip: "drum" });
  expect(rim?.sends?.map(({ to }) => to)).toEqual([{ strip: "eighths" }]);
});

it("shows which strip goes where, lets it be changed, and applies all as one change", async () => {
  const id = await keepDrums();
  goTo(`/projects/ferry-light/plan?preset=${id}&version=1`);
  house.show(
    <>
      <Keys />
      <PlanScreen id="ferry-light" />
    </>,
  );
  const where = await screen.findByRole("region", { name: "Which strip goes where" });
  const of = (name: string) => within(where).getByRole<HTMLSelectElement>("combobox", { name: `Where ${name} goes` });
  expect(of("Drum").value).toBe("strip:drum");
  expect(of("Frame drum close").value).toBe("strip:drum-close");
  expect(of("Eighths").value).toBe("new");
  // Let go on another they exchange where they go.
  const item = (name: string) => of(name).closest("li")!;
  const dataTransfer = { setData: vi.fn(), effectAllowed: "" };
  const drag = (name: string, onto: Element) => {
    fireEvent.dragStart(item(name), { dataTransfer });
    fireEvent.dragOver(onto, { dataTransfer });
    fireEvent.drop(onto, { dataTransfer });
  };
  const went = of("Frame drum rim").value;
  drag("Frame drum rim", item("Frame drum close"));
  await waitFor(() => expect(of("Frame drum rim").value).toBe("strip:drum-close"));
  expect(of("Frame drum close").value).toBe(went);
  const ticks = within(screen.getByRole("table", { name: "Changes" })).getAllByRole("checkbox", {
    name: "All of Frame drum close",
  });
  drag("Frame drum close", ticks.at(-1)!.closest("[role=row]")!);
  await waitFor(() => expect(of("Frame drum close").value).toBe("strip:drum-close"));
  // A bus takes the place of none but a bus.
  drag("Eighths", item("Frame drum rim"));
  expect(of("Eighths").value).toBe("new");
  fireEvent.change(of("Eighths"), { target: { value: "strip:answer" } });
  fireEvent.change(of("Frame drum far"), { target: { value: "out" } });
  await waitFor(() => expect(of("Eighths").value).toBe("strip:answer"));
  const changes = screen.getByRole("table", { name: "Changes" });
  await waitFor(() => expect(within(changes).queryByRole("row", { name: /Frame drum far/ })).toBeNull());
  const before = value(await getProject(house.context, "ferry-light")).project;
  const apply = await screen.findByRole("button", { name: /^Apply \d+ changes$/ });
  await waitFor(() => expect(apply).toHaveProperty("disabled", false));
  fireEvent.click(apply);
  await waitFor(async () =>
    expect(value(await listRevisions(house.context, "ferry-light"))[0]?.label).toContain("Frame drum, all of it"),
  );
  const after = value(await getProject(house.context, "ferry-light")).project;
  expect(after.strips).toHaveLength(before.strips.length + 1);
  const rim = after.strips.find(({ look }) => look.name === "Frame drum rim");
  expect(rim?.sends.map(({ to }) => to)).toEqual([{ strip: "answer" }]);
  expect(rim?.routing.output).toEqual({ strip: "drum" });
});

it("leaves out a new strip that is switched off, and takes it in again", async () => {
  const id = await keepDrums();
  goTo(`/projects/ferry-light/plan?preset=${id}&version=1`);
  house.show(<PlanScreen id="ferry-light" />);
  const tick = () => screen.getByRole("checkbox", { name: "All of Frame drum far" });
  await waitFor(() => expect(tick()).toBeTruthy());
  fireEvent.click(tick());
  await waitFor(() => expect(screen.getByText("not made")).toBeTruthy());
  fireEvent.click(tick());
  await waitFor(() => expect(screen.queryByText("not made")).toBeNull());
});

it("has no place on the bench, and says what to do instead", async () => {
  const id = await keepDrums();
  await expect(api.openDraft({ preset: id })).rejects.toThrow(
    "“Frame drum, all of it” holds several strips. Apply it to a project, and open one of them there.",
  );
});
