// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet } from "@/app/testing/engine";
import { type House, openHouse } from "@/app/testing/house";
import { said } from "@/app/testing/said";
import { processorsOf } from "@/core/chains/tree";
import { getModel } from "@/core/processors/models";
import { reliefsOf } from "@/core/projects/reliefs";
import { findBereft, firstHeirs, removeStrips } from "@/core/recall/arrange";
import { pluginsOn } from "@/core/relief/relief";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { changeProject } from "@/server/use-cases/projects/change";
import { getProject } from "@/server/use-cases/projects/read";
import { undo } from "@/server/use-cases/projects/walk";
import { useProjectEditing } from "../projects/editing";
import { PutBackSheet } from "./put-back-sheet";
import { ReliefSheet } from "./relief-sheet";
import { ResetSheet } from "./reset-sheet";

vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

const ID = "salt-lanterns";

let house: House;

beforeEach(async () => {
  said.length = 0;
  quiet();
  house = await openHouse(loadDemo);
});

afterEach(() => house.close());

const stored = async () => value(await getProject(house.context, ID));
const idOf = async (name: string) => (await stored()).project.strips.find(({ look }) => look.name === name)!.id;

type Sheet = typeof ReliefSheet | typeof PutBackSheet | typeof ResetSheet;

const onClose = vi.fn();

function InProject({ sheet: Open, chosen }: { readonly sheet: Sheet; readonly chosen: readonly string[] }) {
  const editing = useProjectEditing(ID);
  return editing.body ? (
    <Open project={editing.body.project} editing={editing} chosen={chosen} onClose={onClose} />
  ) : null;
}

async function open(sheet: Sheet, ...names: readonly string[]): Promise<HTMLElement> {
  const chosen = await Promise.all(names.map(idOf));
  house.show(<InProject sheet={sheet} chosen={chosen} />);
  return screen.findByRole("dialog");
}

/** The compressors of the project that are on. */
const compressing = async () => {
  const { project } = await stored();
  return pluginsOn(
    project,
    project.strips.map(({ id }) => id),
  ).filter(({ processor: { model, enabled } }) => enabled && getModel(model).holdsLevels && !getModel(model).limits);
};

describe("relieving plugins", () => {
  it("switches off what is ticked of a kind, on the chosen strips, as one change that is remembered", async () => {
    const before = await compressing();
    const sheet = await open(ReliefSheet, "Voice", "Harmonium");
    const ticks = within(sheet).getAllByRole("checkbox");
    const mine = before.filter(({ strip }) => ["Voice", "Harmonium"].includes(strip.look.name));
    expect(ticks).toHaveLength(mine.length);
    fireEvent.click(within(sheet).getByRole("checkbox", { name: / of Harmonium$/ }));
    fireEvent.click(within(sheet).getByRole("button", { name: `Switch off ${mine.length - 1} plugins` }));
    await waitFor(async () => expect((await compressing()).length).toBe(before.length - mine.length + 1));
    const { project, history, revision } = await stored();
    expect(reliefsOf(project).map(({ title, how, plugins }) => [title, how, plugins.length])).toEqual([
      ["Compressors", "off", mine.length - 1],
    ]);
    expect(history.undo).toContain("Switch off 2 plugins: Compressors");
    expect(said.at(-1)).toBe("Switched off: 2 plugins");
    value(await undo(house.context, ID, revision));
    expect((await stored()).project).not.toHaveProperty("reliefs");
  });

  it("measures what each costs, tells the dearest first, and how much of the whole it is", async () => {
    const sheet = await open(ReliefSheet);
    fireEvent.click(within(sheet).getByRole("button", { name: "Measure what they cost" }));
    expect(await within(sheet).findByText(/^These cost [\d.]+ of [\d.]+ ms for each second of sound/)).toBeTruthy();
    const costs = within(sheet)
      .getAllByRole("listitem")
      .map(({ textContent }) => Number(/([\d.]+)ms\/s$/.exec(textContent)?.[1]));
    expect(costs).toEqual(costs.toSorted((a, b) => b - a));
  });

  it("says so where nothing stands on the chosen strips", async () => {
    const sheet = await open(ReliefSheet, "Cello");
    fireEvent.click(within(sheet).getByRole("radio", { name: "The 1 chosen strip" }));
    expect(within(sheet).getByText("No plugin stands on these strips")).toBeTruthy();
    expect(within(sheet).getByRole("button", { name: "Switch off 0 plugins" })).toHaveProperty("disabled", true);
  });
});

describe("putting back", () => {
  async function takeOut(): Promise<number> {
    const sheet = await open(ReliefSheet);
    fireEvent.click(within(sheet).getByRole("radio", { name: "Take out" }));
    const some = within(sheet).getAllByRole("checkbox").length;
    fireEvent.click(within(sheet).getByRole("button", { name: `Take out ${some} plugins` }));
    await waitFor(async () => expect(reliefsOf((await stored()).project)).toHaveLength(1));
    return some;
  }

  it("brings back what has its place, says why the rest does not come, and remembers that", async () => {
    const before = (await stored()).project;
    const some = await takeOut();
    const { project, revision } = await stored();
    const gone = await idOf("Harmonium");
    const removed = removeStrips(project, [gone], firstHeirs(findBereft(project, [gone])), house.context.mint);
    if (!removed.ok) throw new Error(removed.error);
    const steps = [...removed.value];
    value(await changeProject(house.context, ID, { baseRevision: revision, label: "Remove Harmonium", steps }));
    house.queries.clear();
    house.show(<InProject sheet={PutBackSheet} chosen={[]} />);
    const sheet = await screen.findByRole("dialog", { name: "Put back" });
    await waitFor(() => expect(within(sheet).getByText("its strip is gone")).toBeTruthy());
    fireEvent.click(within(sheet).getByRole("button", { name: `Put back ${some - 1} plugins` }));
    await waitFor(async () => expect(reliefsOf((await stored()).project)[0]?.plugins).toHaveLength(1));
    const now = (await stored()).project;
    for (const strip of now.strips)
      expect(processorsOf(strip.inserts)).toEqual(
        processorsOf(before.strips.find(({ id }) => id === strip.id)!.inserts),
      );
  });

  it("says so where nothing is relieved", async () => {
    house.show(<InProject sheet={PutBackSheet} chosen={[]} />);
    const sheet = await screen.findByRole("dialog", { name: "Put back" });
    expect(within(sheet).getByText(/^Nothing is relieved in this project/)).toBeTruthy();
    expect(within(sheet).queryByRole("button", { name: /^Put back \d/ })).toBeNull();
  });

  it("is let go of, and nothing is put back", async () => {
    await takeOut();
    house.show(<InProject sheet={PutBackSheet} chosen={[]} />);
    const sheet = await screen.findByRole("dialog", { name: "Put back" });
    fireEvent.click(within(sheet).getByRole("button", { name: "Let go of them" }));
    await waitFor(async () => expect((await stored()).project).not.toHaveProperty("reliefs"));
    expect(await compressing()).toEqual([]);
  });
});

describe("back to empty", () => {
  it("tells what changes, and changes only the chosen parts of the chosen strips", async () => {
    const before = (await stored()).project;
    const sheet = await open(ResetSheet, "Voice");
    for (const part of ["Instrument", "Inserts", "Pan", "Clips", "Level"])
      fireEvent.click(within(within(sheet).getByLabelText("Parts")).getByRole("button", { name: part }));
    fireEvent.click(within(sheet).getByRole("radio", { name: "Switched off" }));
    expect(
      within(sheet)
        .getAllByRole("listitem")
        .every(({ textContent }) => textContent.startsWith("Voice: ")),
    ).toBe(true);
    fireEvent.click(within(sheet).getByRole("button", { name: "Back to empty" }));
    await waitFor(() => expect(said.at(-1)).toBe("Back to empty: Voice"));
    const now = (await stored()).project;
    for (const [at, strip] of now.strips.entries())
      expect(strip).toEqual(
        strip.look.name === "Voice"
          ? { ...before.strips[at], sends: before.strips[at]!.sends.map((send) => ({ ...send, on: false })) }
          : before.strips[at],
      );
  });
});
