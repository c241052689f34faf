// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { quiet } from "@/app/testing/engine";
import { layOut } from "@/app/testing/furnish";
import { Keys, press, undo } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import { toneFile } from "@/app/testing/sounds";
import { OWN_MATERIAL } from "@/clients/sound-engine";
import { findSend } from "@/core/recall/arrange";
import { usualOf } from "@/core/recall/choices";
import { groupOf, withInsideOfFolders } from "@/core/projects/nesting";
import { type Project, getStrip } from "@/core/projects/project";
import { offeredParts } from "@/core/strips/strip";
import { describeSource } from "@/core/strips/parts/source";
import { loadDemo } from "@/demo/load";
import { DEMO_PROJECTS } from "@/demo/projects";
import { value } from "@/server/testing";
import { listRevisions } from "@/server/use-cases/projects/history";
import { getProject, makeProject } from "@/server/use-cases/projects/read";
import { keepMedia } from "@/server/use-cases/media";
import { useListening } from "../listening/state";
import { useInHand } from "../projects/in-hand";
import { closeSave, useSave } from "../save/save";
import { Ledger } from "./ledger";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

/* What a hand does with the strips of a project and in their cells: seen on the screen, kept by the server, taken back by one undo. */

const ID = "salt-lanterns";
let house: House;
let before: Project;

beforeEach(async () => {
  said.length = 0;
  quiet();
  localStorage.clear();
  useInHand.setState({ project: null, strips: [], alwaysPlan: false });
  await useInHand.persist.rehydrate();
  house = await openHouse(loadDemo);
  layOut({ width: 900, height: 900 });
  before = (await stored()).project;
  goTo(`/projects/${ID}`);
  house.show(
    <>
      <Keys />
      <Ledger id={ID} />
    </>,
  );
  await waitFor(() => expect(row("voice")).toBeTruthy());
});
afterEach(() => {
  closeSave();
  return house.close();
});

const stored = async () => value(await getProject(house.context, ID));
const strip = async (id: string) => (await stored()).project.strips.find((s) => s.id === id);
const row = (id: string) => document.getElementById(`strip-${id}`)!;
const cell = (id: string, column: string) => document.getElementById(`strip-${id}-${column}`)!;
const grid = () => screen.getByRole("grid", { name: "Strips" });
const choose = (...ids: readonly string[]) =>
  ids.forEach((id, at) => void fireEvent.click(row(id), { ctrlKey: at > 0 }));
const onGrid = (key: string, held: Partial<KeyboardEventInit> = {}) => press(key, held, grid());
/** One change was made, and one undo takes it back. */
async function isOneChange(): Promise<void> {
  const made = value(await listRevisions(house.context, ID));
  await waitFor(async () => expect((await stored()).project).not.toEqual(before));
  expect(made.length).toBeLessThanOrEqual(1);
  undo();
  await waitFor(async () => expect((await stored()).project).toEqual(before));
}

it("walks from cell to cell, and a number that is typed there is the value", async () => {
  choose("cello");
  for (let n = 0; n < 6; n++) onGrid("ArrowRight");
  expect(grid().getAttribute("aria-activedescendant")).toBe("strip-cello-level");
  onGrid("-");
  const field = within(cell("cello", "level")).getByRole("textbox");
  fireEvent.change(field, { target: { value: "-12.5" } });
  fireEvent.keyDown(field, { key: "Enter" });
  await waitFor(async () => expect((await strip("cello"))?.level.fader).toBe(-12.5));
  expect(cell("cello", "level").textContent).toContain("−12.5");
  await isOneChange();
});

it("sets what is typed on all that are chosen, in one change; what is dragged moves each from where it stands", async () => {
  choose("cello", "harmonium");
  const ruler = cell("cello", "level").querySelector(".touch-none")!;
  fireEvent.pointerDown(ruler, { button: 0, clientX: 450, clientY: 10 });
  fireEvent.pointerMove(ruler, { clientX: 450 - 900 / 7, clientY: 10 });
  // A seventh of 42 dB: shown before it is kept.
  expect(cell("harmonium", "level").textContent).toContain("−12.0");
  expect((await strip("harmonium"))?.level.fader).toBe(-6);
  fireEvent.pointerUp(ruler);
  fireEvent.click(ruler);
  expect(row("harmonium").getAttribute("aria-selected")).toBe("true");
  await waitFor(async () => expect((await strip("harmonium"))?.level.fader).toBe(-12));
  expect((await strip("cello"))?.level.fader).toBe(-10.5);
  await isOneChange();
});

it("gives back what a drag had moved, by Escape", async () => {
  const ruler = cell("voice", "level").querySelector(".touch-none")!;
  fireEvent.pointerDown(ruler, { button: 0, clientX: 450, clientY: 10 });
  fireEvent.pointerMove(ruler, { clientX: 300, clientY: 10 });
  expect(cell("voice", "level").textContent).toContain("−8.0");
  act(() => void fireEvent.keyDown(window, { key: "Escape" }));
  expect(cell("voice", "level").textContent).toContain("−1.0");
  expect((await stored()).project).toEqual(before);
});

it("mutes what is chosen by M, and lets it sound again", async () => {
  choose("voice", "cello");
  press("m");
  await waitFor(async () => expect((await strip("cello"))?.level.mute).toBe(true));
  expect((await strip("voice"))?.level.mute).toBe(true);
  press("m");
  await waitFor(async () => expect((await stored()).project).toEqual(before));
});

it("names and marks a strip in its card", async () => {
  choose("harmonium");
  press("F2");
  const card = await screen.findByRole("dialog", { name: "Strip of Harmonium" });
  const name = within(card).getByRole("textbox", { name: "Name" });
  fireEvent.change(name, { target: { value: "Reed organ" } });
  fireEvent.keyDown(name, { key: "Enter" });
  await waitFor(async () => expect((await strip("harmonium"))?.look.name).toBe("Reed organ"));
  expect((await strip("harmonium"))?.look.icon).toBe("keys");
  await isOneChange();
});

it("groups what is chosen, takes it out of the group and puts it in again", async () => {
  choose("harmonium", "voice");
  press("g", { ctrlKey: true });
  const card = await screen.findByRole("dialog", { name: "Strip of Group" });
  fireEvent.keyDown(card, { key: "Escape" });
  const groupNow = async (id: string) => groupOf((await stored()).project, (await strip(id))!)?.look.name;
  await waitFor(async () => expect(await groupNow("voice")).toBe("Group"));
  choose("voice");
  press("[", { ctrlKey: true });
  await waitFor(async () => expect(await groupNow("voice")).toBeUndefined());
  press("]", { ctrlKey: true });
  await waitFor(async () => expect(await groupNow("voice")).toBe("Group"));
  for (let n = 0; n < 3; n++) undo();
  await waitFor(async () => expect((await stored()).project).toEqual(before));
});

it("puts what is chosen into a folder, folds it up and unfolds it; nothing is heard otherwise", async () => {
  choose("harmonium", "voice");
  press("g", { ctrlKey: true, shiftKey: true });
  const card = await screen.findByRole("dialog", { name: "Strip of Folder" });
  fireEvent.keyDown(card, { key: "Escape" });
  await waitFor(async () => expect((await strip("voice"))?.look.folder).toBeDefined());
  const { strips } = (await stored()).project;
  const folder = strips.find(({ kind }) => kind === "folder")!.id;
  expect(strips.find(({ id }) => id === "voice")?.routing).toEqual(getStrip(before, "voice").routing);
  expect(cell(folder, "source").textContent).toBe("folder of 2");
  expect(cell(folder, "level").textContent).toBe("");
  fireEvent.click(within(row(folder)).getByRole("button", { name: "Fold Folder" }));
  await waitFor(() => expect(row("voice")).toBeNull());
  expect(useInHand.getState().strips).toEqual([folder]);
  onGrid("ArrowRight");
  await waitFor(() => expect(row("voice")).toBeTruthy());
  onGrid("ArrowLeft");
  await waitFor(() => expect(row("voice")).toBeNull());
  // What is folded is written down when it changes, and not at every edit.
  const written = vi.spyOn(Storage.prototype, "setItem");
  const { revision } = await stored();
  press("ArrowDown", { altKey: true });
  await waitFor(async () => expect((await stored()).revision).toBe(revision + 1));
  expect(written.mock.calls.filter(([key]) => key === "diathesis.folds")).toEqual([]);
  written.mockRestore();
  // What is found from elsewhere comes into sight.
  act(() => void useInHand.setState({ strips: ["voice"] }));
  await waitFor(() => expect(row("voice")).toBeTruthy());
  choose(folder);
  onGrid("Delete");
  await waitFor(async () => expect((await strip("voice"))?.look.folder).toBeUndefined());
  for (let n = 0; n < 3; n++) undo();
  await waitFor(async () => expect((await stored()).project).toEqual(before));
});

it("says why a strip cannot be put into a group, and changes nothing", async () => {
  choose("harmonium");
  press("[", { ctrlKey: true });
  await waitFor(() => expect(said.join()).toContain("Harmonium stands in no group and in no folder."));
  expect((await stored()).project).toEqual(before);
});

it("moves strips among those beside them", async () => {
  choose("cello");
  press("ArrowUp", { altKey: true });
  await waitFor(async () => {
    const ids = (await stored()).project.strips.map(({ id }) => id);
    expect(ids.indexOf("cello")).toBeLessThan(ids.indexOf("nyckelharpa"));
  });
  await isOneChange();
});

it("duplicates strips, and has the copies in hand", async () => {
  choose("voice");
  press("d", { ctrlKey: true });
  await waitFor(async () => expect((await stored()).project.strips).toHaveLength(before.strips.length + 1));
  expect(screen.getByRole("row", { selected: true }).textContent).toContain("Voice 2");
  await isOneChange();
});

it("asks where others go that lead to a strip, before it is removed", async () => {
  choose("eighths");
  onGrid("Delete");
  const sheet = await screen.findByRole("dialog", { name: "Remove Eighths" });
  expect(sheet.textContent).toContain("Nyckelharpa, Frame drum rim, Voice send to Eighths");
  fireEvent.change(within(sheet).getByRole("combobox", { name: "Sends to Eighths" }), { target: { value: "echo" } });
  fireEvent.click(within(sheet).getByRole("button", { name: "Remove Eighths" }));
  await waitFor(async () => expect(await strip("eighths")).toBeUndefined());
  const rim = await strip("drum-rim");
  expect(rim?.sends.map(({ to }) => to)).toEqual([{ strip: "echo" }]);
  await isOneChange();
});

it("removes nothing by a press in the library beside", async () => {
  choose("drum-far");
  press("Delete", {}, screen.getByRole("listbox", { name: "Sounds" }));
  press("m");
  await waitFor(async () => expect((await strip("drum-far"))?.level.mute).toBe(true));
  expect((await stored()).project.strips).toHaveLength(before.strips.length);
});

it("removes at once where nothing leads there", async () => {
  choose("drum-far");
  onGrid("Delete");
  await waitFor(async () => expect(await strip("drum-far")).toBeUndefined());
  await isOneChange();
});

it("applies nothing to a strip that was removed before its turn came, and says so", async () => {
  choose("drum-far");
  const sounds = await screen.findByRole("listbox", { name: "Sounds" });
  await waitFor(() => expect(within(sounds).getAllByRole("option").length).toBeGreaterThan(3));
  fireEvent.doubleClick(within(sounds).getAllByRole("option")[0]!);
  onGrid("Delete");
  await waitFor(() => expect(said.join()).toContain("the strip is not here any more"));
  await waitFor(async () => expect(await strip("drum-far")).toBeUndefined());
  await isOneChange();
});

it("sends to a bus from all that are chosen, and sets the send", async () => {
  choose("drum-close", "cello");
  fireEvent.click(within(cell("drum-close", "sends")).getByRole("button", { name: "No sends", hidden: true }));
  const card = await screen.findByRole("dialog", { name: "Sends of Frame drum close" });
  expect(card.textContent).toContain("sets 2 strips");
  fireEvent.click(within(card).getByText("Eighths"));
  await waitFor(async () => expect((await strip("drum-close"))?.sends).toHaveLength(1));
  expect((await strip("cello"))?.sends.map(({ to }) => to)).toEqual([{ strip: "echo" }, { strip: "eighths" }]);
  fireEvent.click(within(card).getByRole("radio", { name: "Before the fader" }));
  await waitFor(async () => expect(findSend((await strip("cello"))!, { to: "eighths" })?.tap).toBe("pre"));
  expect(findSend((await strip("cello"))!, { to: "echo" })?.tap).toBe("post");
});

it("offers no output, send or key that would close a loop", async () => {
  // Strings are keyed by the voice: it can neither be sent to the strings nor go there.
  const routing = within(cell("voice", "routing")).getByRole("button", { hidden: true });
  // The first press chooses the row, as anywhere in it.
  fireEvent.click(routing);
  expect(screen.queryByRole("dialog")).toBeNull();
  fireEvent.click(routing);
  const card = await screen.findByRole("dialog", { name: "To of Voice" });
  expect(
    within(card)
      .getAllByRole("option")
      .map((o) => o.textContent),
  ).toEqual(["Strings", "Drum", "Mainnow", "Nowhere"]);
  fireEvent.keyDown(card, { key: "Escape" });
  choose("strings");
  fireEvent.click(within(cell("strings", "keys")).getByRole("button", { hidden: true }));
  const keys = await screen.findByRole("dialog", { name: "Keyed by of Strings" });
  const heard = within(keys).getByRole("combobox", { name: /hears$/ });
  const offered = within(heard)
    .getAllByRole("option")
    .map((o) => o.textContent);
  expect(offered).toContain("Voice");
  expect(offered).not.toContain("Main");
});

it("says what a project is called, and how fast it goes", async () => {
  fireEvent.click(screen.getByRole("button", { name: /bpm/ }));
  const sheet = await screen.findByRole("dialog", { name: "About this project" });
  fireEvent.change(within(sheet).getByRole("spinbutton", { name: "Tempo, bpm" }), { target: { value: "12" } });
  fireEvent.click(within(sheet).getByRole("button", { name: "Keep" }));
  expect((await within(sheet).findByRole("alert")).textContent).toContain("20 to 400");
  fireEvent.change(within(sheet).getByRole("spinbutton", { name: "Tempo, bpm" }), { target: { value: "96.5" } });
  fireEvent.change(within(sheet).getByRole("textbox", { name: "Client" }), { target: { value: "Lantern Quay" } });
  fireEvent.click(within(sheet).getByRole("button", { name: "Keep" }));
  await waitFor(async () => expect((await stored()).project.tempo).toBe(96.5));
  expect((await stored()).project.client).toBe("Lantern Quay");
  await isOneChange();
});

it("hides, widens and moves columns, and remembers it", async () => {
  const heads = () => screen.getAllByRole("columnheader").map((head) => head.textContent);
  expect(heads()).toContain("Keyed by");
  const menu = async (item: RegExp) => {
    fireEvent.keyDown(screen.getByRole("button", { name: "Columns" }), { key: "Enter" });
    fireEvent.click(await screen.findByRole("menuitem", { name: item }));
  };
  await menu(/^Keyed by\s?shown$/);
  await waitFor(() => expect(heads()).not.toContain("Keyed by"));
  const edge = screen.getByRole("separator", { name: "Width of Level" });
  const width = Number(edge.getAttribute("aria-valuenow"));
  fireEvent.keyDown(edge, { key: "ArrowRight" });
  expect(Number(edge.getAttribute("aria-valuenow"))).toBe(width + 10);
  const kept = JSON.parse(localStorage.getItem("diathesis.ledger") ?? "{}") as { state: Record<string, object> };
  expect(kept.state).toMatchObject({ columnSizing: { level: width + 10 }, columnVisibility: { keys: false } });
  await menu(/^As they were drawn/);
  await waitFor(() => expect(heads()).toContain("Keyed by"));
});

it("receives the outputs of an instrument on strips of their own; a strip receives another, or an input", async () => {
  const [, project] = DEMO_PROJECTS.find(([, { strips }]) => strips.some(({ id }) => id === "quay-kit"))!;
  const bare = project.strips.filter(({ source }) => source.type !== "output");
  const { id: _, schema: __, ...rest } = project;
  const { project: made } = value(
    await makeProject(house.context, { project: { ...rest, name: "Bare", strips: bare } }),
  );
  const now = async () => value(await getProject(house.context, made.id)).project;
  cleanup();
  goTo(`/projects/${made.id}`);
  house.show(
    <>
      <Keys />
      <Ledger id={made.id} />
    </>,
  );
  await waitFor(() => expect(row("quay-kit")).toBeTruthy());
  choose("quay-kit");
  fireEvent.contextMenu(row("quay-kit"));
  fireEvent.click(await screen.findByRole("menuitem", { name: /Receive its outputs/ }));
  await waitFor(async () => expect((await now()).strips).toHaveLength(bare.length + 4));
  const strips = (await now()).strips.filter(({ source }) => source.type === "output");
  expect(strips.map((s) => describeSource(s, { nameOf: () => "Quay kit" }))).toEqual(
    [1, 2, 3, 4].map((n) => `output ${n} of Quay kit`),
  );
  const { id } = strips[0]!;
  choose(id);
  fireEvent.click(within(cell(id, "source")).getByRole("button", { hidden: true }));
  const receives = await screen.findByRole<HTMLSelectElement>("combobox", { name: "Receives" });
  expect(receives.selectedOptions[0]!.textContent).toMatch(/, output 1: kick$/);
  fireEvent.change(receives, { target: { value: "input" } });
  await waitFor(async () => expect((await now()).strips.find((s) => s.id === id)?.source.type).toBe("input"));
  choose("quay-kit");
  fireEvent.contextMenu(row("quay-kit"));
  fireEvent.click(await screen.findByRole("menuitem", { name: /Receive its outputs/ }));
  await waitFor(async () => expect((await now()).strips).toHaveLength(bare.length + 5));
});

it("lays a sound of one's own on a strip, hears it, and takes it off; it is kept with the strip where that is asked for", async () => {
  const { hash } = value(await keepMedia(house.context, "Foghorn", toneFile(0.2)));
  choose("cello");
  fireEvent.click(within(cell("cello", "source")).getByRole("button", { hidden: true }));
  const clips = await screen.findByRole("region", { name: "Clips" });
  fireEvent.change(within(clips).getByRole("combobox", { name: "Add a clip" }), { target: { value: hash } });
  await waitFor(async () => expect((await strip("cello"))?.media).toEqual([{ name: "Foghorn", hash }]));
  await waitFor(() => expect(cell("cello", "source").textContent).toContain("1 clip"));
  fireEvent.click(within(clips).getByRole("button", { name: "Hear Foghorn" }));
  await waitFor(() => expect(useListening.getState().material).toBe(`${OWN_MATERIAL}${hash}`));
  // Kept with a set only where that is asked for.
  const { project } = await stored();
  const cello = getStrip(project, "cello");
  expect(usualOf(offeredParts(cello))).not.toContain("media");
  expect(offeredParts(cello)).toContain("media");
  fireEvent.click(within(clips).getByRole("button", { name: "Take Foghorn off" }));
  await waitFor(async () => expect((await strip("cello"))?.media).toEqual([]));
  fireEvent.keyDown(clips, { key: "Escape" });
  await waitFor(() => expect(screen.queryByRole("region", { name: "Clips" })).toBeNull());
  undo();
  await waitFor(async () => expect((await strip("cello"))?.media).toHaveLength(1));
});

it("saves a folder with what stands in it, as several strips together", async () => {
  choose("harmonium", "voice");
  press("g", { ctrlKey: true, shiftKey: true });
  fireEvent.keyDown(await screen.findByRole("dialog", { name: "Strip of Folder" }), { key: "Escape" });
  await waitFor(async () => expect((await strip("voice"))?.look.folder).toBeDefined());
  press("s", { ctrlKey: true });
  const { project } = await stored();
  const folder = project.strips.find(({ kind }) => kind === "folder")!.id;
  expect(useSave.getState().request).toMatchObject({ project: ID, strips: withInsideOfFolders(project, [folder]) });
  expect(new Set(withInsideOfFolders(project, [folder]))).toEqual(new Set([folder, "harmonium", "voice"]));
});
