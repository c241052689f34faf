// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet, engine } from "@/app/testing/engine";
import { layOut } from "@/app/testing/furnish";
import { Keys, press } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo, whereNow } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import type { Processor } from "@/core/chains/chain";
import { chainOf } from "@/core/presets/preset";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { getPreset, saveVersion } from "@/server/use-cases/library";
import { listRevisions } from "@/server/use-cases/projects/history";
import { getProject } from "@/server/use-cases/projects/read";
import { useEnabledActions } from "../actions/actions";
import { useInHand } from "../projects/in-hand";
import { useSave } from "../save/save";
import { Ledger } from "./ledger";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;

beforeEach(async () => {
  said.length = 0;
  quiet();
  useSave.setState({ request: null });
  useInHand.setState({ project: null, strips: [], alwaysPlan: false });
  await useInHand.persist.rehydrate();
  house = await openHouse(loadDemo);
  layOut({ width: 600, height: 620 });
});

afterEach(() => house.close());

/** An action that the field would list, as a button. */
function Offered({ id }: { readonly id: string }) {
  const action = useEnabledActions().find((a) => a.id === id);
  return action ? (
    <button type="button" onClick={action.run}>
      {action.title}
    </button>
  ) : null;
}

async function open(id = "salt-lanterns"): Promise<void> {
  goTo(`/projects/${id}`);
  house.show(
    <>
      <Keys />
      <Ledger id={id} />
    </>,
  );
  await waitFor(() => expect(rows().length).toBeGreaterThan(0));
}

const grid = () => screen.getByRole("grid", { name: "Strips" });
const rows = () => within(grid()).getAllByRole("row").slice(1);
const row = (name: string) => rows().find((r) => nameOf(r) === name)!;
const nameOf = (one: Element) => one.querySelector(".name")!.textContent;
const names = () => rows().map(nameOf);
const chosen = () =>
  rows()
    .filter((r) => r.getAttribute("aria-selected") === "true")
    .map(nameOf);
const stored = async (id = "salt-lanterns") => value(await getProject(house.context, id));
const field = () => screen.getByRole("textbox", { name: "Find a sound to apply" });
function type(words: string) {
  act(() => field().focus());
  fireEvent.change(field(), { target: { value: words } });
}

describe("the ledger", () => {
  it("shows strips in their groups, with what they play, hold and differ by", async () => {
    await open();
    expect(names().slice(0, 3)).toEqual(["Strings", "Nyckelharpa", "Cello"]);
    expect(names().at(-1)).toBe("Main");
    expect(row("Strings").textContent).toContain("group of 2");
    expect(row("Cello").textContent).toContain("no plugins");
    await waitFor(() => expect(row("Strings").textContent).toContain("under a voice · version 1 of 2"));
    expect(row("Nyckelharpa").textContent).toContain("L 12");
    await waitFor(() => expect(screen.getAllByText(/differs by/).length).toBeGreaterThan(0));
  });

  it("says which version of how many a strip is on", async () => {
    const { project } = await stored();
    const { from } = project.strips.find((s) => s.id === "voice")!.inserts;
    const { preset } = value(await getPreset(house.context, from!.preset));
    const content = structuredClone(preset.content);
    ((chainOf(content).nodes[0] as Processor).values as Record<string, number>)["band1.freq"] = 123;
    value(await saveVersion(house.context, preset.id, { baseVersion: preset.version, content }));
    await open();
    await waitFor(() =>
      expect(row("Voice").textContent).toContain(`version ${from!.version} of ${preset.version + 1}`),
    );
  });

  it("takes the newest version onto what is chosen by one action, value by value, and back by one undo", async () => {
    const before = (await stored()).project.strips.find((s) => s.id === "voice")!;
    const { preset, version } = before.inserts.from!;
    const saved = value(await getPreset(house.context, preset)).preset;
    const content = structuredClone(saved.content);
    const eq = chainOf(content).nodes[0] as Processor;
    (eq.values as Record<string, number>)["band1.freq"] = 123;
    value(await saveVersion(house.context, preset, { baseVersion: saved.version, content }));
    goTo("/projects/salt-lanterns");
    house.show(
      <>
        <Keys />
        <Offered id="take-newest" />
        <Ledger id="salt-lanterns" />
      </>,
    );
    await waitFor(() => expect(row("Voice").textContent).toContain(`version ${version} of ${saved.version + 1}`));
    fireEvent.click(row("Voice"));
    fireEvent.click(await screen.findByRole("button", { name: "Take the newest version on 1 strip" }));
    await waitFor(async () =>
      expect((await stored()).project.strips.find((s) => s.id === "voice")!.inserts.from?.version).toBe(
        saved.version + 1,
      ),
    );
    const steps = value(await listRevisions(house.context, "salt-lanterns"))[0]?.steps ?? [];
    expect(steps.map((step) => step.kind).toSorted()).toEqual(expect.arrayContaining(["setFrom", "setValue"]));
    expect(steps.some((step) => step.kind === "placeNode")).toBe(false);
    press("z", { ctrlKey: true });
    await waitFor(async () =>
      expect((await stored()).project.strips.find((s) => s.id === "voice")!.inserts).toEqual(before.inserts),
    );
  });

  it("is of no project that is not there, and says so", async () => {
    house.show(<Ledger id="nothing-such" />);
    expect((await screen.findByRole("alert")).textContent).toContain("not");
  });

  it("is walked and chosen in as any list: alone, as a stretch, one by one, all, none", async () => {
    await open();
    fireEvent.click(row("Nyckelharpa"));
    expect(chosen()).toEqual(["Nyckelharpa"]);
    press("ArrowDown");
    expect(chosen()).toEqual(["Cello"]);
    press("ArrowDown", { shiftKey: true });
    press("ArrowDown", { shiftKey: true });
    expect(chosen()).toEqual(["Cello", "Harmonium", "Drum"]);
    press("ArrowUp", { shiftKey: true });
    expect(chosen()).toEqual(["Cello", "Harmonium"]);
    fireEvent.click(row("Voice"), { ctrlKey: true });
    expect(chosen()).toEqual(["Cello", "Harmonium", "Voice"]);
    press(" ", { ctrlKey: true });
    expect(chosen()).toEqual(["Cello", "Harmonium"]);
    press("a", { ctrlKey: true });
    expect(chosen()).toHaveLength(rows().length);
    press("Escape");
    expect(chosen()).toEqual([]);
    expect(screen.getByText(/None chosen: a sound makes a new strip/)).toBeTruthy();
  });

  it("stops at its ends", async () => {
    await open();
    fireEvent.click(row("Strings"));
    press("ArrowUp");
    expect(chosen()).toEqual(["Strings"]);
    fireEvent.click(row("Main"));
    press("ArrowDown");
    expect(chosen()).toEqual(["Main"]);
  });

  it("lets the strip in hand be heard, an instrument with its phrase", async () => {
    await open("neap-tide");
    fireEvent.click(row("Patch bass"));
    await waitFor(() => expect(engine.sounds.a).toMatchObject({ chain: { length: 2 }, instrument: null }));
    fireEvent.click(row("Ghost vibraphone"));
    await waitFor(() => expect(engine.sounds.a?.instrument?.layers.length).toBeGreaterThan(0));
    expect(engine.sounds.a?.chain).toHaveLength(2);
  });

  it("opens the strip in hand on the bench, and the sheet for all that are chosen", async () => {
    await open();
    fireEvent.click(row("Cello"));
    fireEvent.click(row("Voice"), { ctrlKey: true });
    press("s", { ctrlKey: true });
    expect(useSave.getState().request).toEqual({ project: "salt-lanterns", strips: ["cello", "voice"] });
    press("b");
    expect(whereNow()).toBe("/bench?project=salt-lanterns&strip=voice");
  });

  it("has a new strip in hand at once; the answer, when it comes, moves no hand that has gone on", async () => {
    await open();
    const { fetch } = globalThis;
    let letGo: () => void = () => undefined;
    const held = new Promise<void>((resolve) => (letGo = resolve));
    globalThis.fetch = async (input, init) => {
      if (init?.method === "POST") await held;
      return fetch(input, init);
    };
    const before = names().length;
    press("N", { shiftKey: true });
    await waitFor(() => expect(names().length).toBe(before + 1));
    await waitFor(() => expect(chosen()).toEqual([expect.stringMatching(/^Audio/)]));
    press("Home", {}, grid());
    const [first] = names();
    await waitFor(() => expect(chosen()).toEqual([first]));
    letGo();
    await waitFor(async () => expect((await stored()).project.strips.length).toBe(before + 1));
    await waitFor(() => expect(house.queries.isFetching()).toBe(0));
    globalThis.fetch = fetch;
    expect(chosen()).toEqual([first]);
  });

  it("gets new strips below the one in hand, before the main output, each with a name of its own", async () => {
    await open();
    fireEvent.click(row("Cello"));
    press("N", { shiftKey: true });
    await waitFor(() => expect(chosen()).toEqual(["Audio strip"]));
    const { project } = await stored();
    const at = (name: string) => project.strips.findIndex((s) => s.look.name === name);
    expect(at("Audio strip")).toBe(at("Cello") + 1);
    fireEvent.click(row("Main"));
    press("N", { shiftKey: true });
    await waitFor(() => expect(chosen()).toEqual(["Audio strip 2"]));
    expect((await stored()).project.strips.at(-1)?.kind).toBe("main");
    press("z", { ctrlKey: true });
    await waitFor(() => expect(names()).not.toContain("Audio strip 2"));
    press("y", { ctrlKey: true });
    await waitFor(() => expect(names()).toContain("Audio strip 2"));
  });
});

describe("three quick presses for a strip", () => {
  it("are three strips one below the other, numbered in that order", async () => {
    await open();
    fireEvent.click(row("Cello"));
    for (let n = 0; n < 3; n++) press("N", { shiftKey: true });
    await waitFor(() => expect(chosen()).toEqual(["Audio strip 3"]));
    const now = (await stored()).project.strips.map((s) => s.look.name);
    expect(now.slice(now.indexOf("Cello") + 1, now.indexOf("Cello") + 4)).toEqual([
      "Audio strip",
      "Audio strip 2",
      "Audio strip 3",
    ]);
  });
});

describe("the library beside", () => {
  it("applies what is typed and entered at once, though the list is still on its way", async () => {
    await open();
    fireEvent.click(row("Cello"));
    press("a");
    expect(document.activeElement).toBe(field());
    type("voice, one step");
    fireEvent.keyDown(field(), { key: "Enter" });
    await waitFor(() => expect(said.at(-1)).toBe("Applied “Voice, one step forward” to Cello"));
    const cello = (await stored()).project.strips.find((s) => s.id === "cello")!;
    expect(cello.inserts.from?.name).toBe("Voice, one step forward");
    await waitFor(() => expect(row("Cello").textContent).toContain("Voice, one step forward"));
    press("z", { ctrlKey: true });
    await waitFor(() => expect(row("Cello").textContent).toContain("no plugins"));
  });

  it("applies once though Enter is pressed twice, and says that the second would change nothing", async () => {
    await open();
    fireEvent.click(row("Cello"));
    type("voice, one step");
    for (const _ of [1, 2]) fireEvent.keyDown(field(), { key: "Enter" });
    await waitFor(() => expect(said).toHaveLength(2));
    expect(said[0]).toBe("Applied “Voice, one step forward” to Cello");
    expect(said[1]).toContain("nothing would change");
    expect((await stored()).revision).toBe(1);
  });

  it("says where nothing would change, and changes nothing", async () => {
    await open();
    fireEvent.click(row("Cello"));
    for (const end of ["to Cello", "nothing would change"]) {
      type("voice, one step");
      fireEvent.keyDown(field(), { key: "Enter" });
      await waitFor(() => expect(said.at(-1)).toContain(end));
    }
    expect((await stored()).revision).toBe(1);
  });

  it("shows the plan first with Shift, for all strips that are chosen", async () => {
    await open();
    fireEvent.click(row("Cello"));
    fireEvent.click(row("Voice"), { ctrlKey: true });
    type("rim and air");
    fireEvent.keyDown(field(), { key: "Enter", shiftKey: true });
    await waitFor(() => expect(whereNow()).toContain("/projects/salt-lanterns/plan"));
    expect(whereNow()).toContain("preset=rim-and-air");
    expect(decodeURIComponent(whereNow())).toContain("strips=cello,voice");
    expect((await stored()).revision).toBe(0);
  });

  it("makes a strip of its own where none is chosen", async () => {
    await open();
    const before = names();
    press("Escape");
    type("rim and air");
    fireEvent.keyDown(field(), { key: "Enter" });
    await waitFor(() => expect(said.at(-1)).toBe("Applied “Rim and air” to a new strip of Salt Lanterns"));
    await waitFor(() => expect(rows()).toHaveLength(before.length + 1));
    expect(row("Rim and air").textContent).toContain("Rim and air");
    expect(names().at(-1)).toBe("Main");
  });

  it("is left by Escape, back to the strips", async () => {
    await open();
    press("a");
    type("rim");
    fireEvent.keyDown(field(), { key: "Escape" });
    expect(document.activeElement).toBe(grid());
    expect(field()).toHaveProperty("value", "");
  });
});
