// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet } from "@/app/testing/engine";
import { layOut } from "@/app/testing/furnish";
import { Keys, press, undo as undoKey } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo, whereNow } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import { mixesOf } from "@/core/projects/mixes";
import { changePart } from "@/core/recall/arrange";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { changeProject } from "@/server/use-cases/projects/change";
import { getProject } from "@/server/use-cases/projects/read";
import { undo } from "@/server/use-cases/projects/walk";
import { useListening } from "../listening/state";
import { useInHand } from "../projects/in-hand";
import { Past } from "./past";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

const ID = "salt-lanterns";

let house: House;

beforeEach(async () => {
  said.length = 0;
  quiet();
  Element.prototype.scrollIntoView = () => Promise.resolve() as never;
  useInHand.setState({ project: null, strips: [], alwaysPlan: false });
  await useInHand.persist.rehydrate();
  house = await openHouse(loadDemo);
  layOut({ width: 900, height: 620 });
});

afterEach(() => house.close());

const stored = async () => value(await getProject(house.context, ID));
const strip = async (name: string) => (await stored()).project.strips.find(({ look }) => look.name === name)!;

async function setLevel(name: string, fader: number): Promise<void> {
  const { revision } = await stored();
  const steps = changePart(await strip(name), "level", { fader, mute: false }, house.context.mint);
  value(
    await changeProject(house.context, ID, {
      baseRevision: revision,
      label: `Level: ${fader} dB`,
      steps: [...steps],
    }),
  );
}

async function open(address = ""): Promise<void> {
  goTo(`/projects/${ID}/past${address}`);
  house.show(
    <>
      <Keys />
      <Past id={ID} />
    </>,
  );
  await waitFor(() => expect(moments().length).toBeGreaterThan(0));
  await waitFor(() => expect(rows().length).toBeGreaterThan(0));
}

const list = () => screen.getByRole("listbox", { name: "What was done" });
const moments = () => within(list()).getAllByRole("option");
const moment = (words: RegExp) => moments().find(({ textContent }) => words.test(textContent))!;
const rows = () =>
  within(screen.getByRole("grid", { name: "Strips as they were" }))
    .getAllByRole("row")
    .slice(1);
const row = (name: string) => rows().find(({ textContent }) => textContent.startsWith(name))!;

describe("the past of a project", () => {
  it("is a list of all that was done, down to its beginning, and says what stands", async () => {
    await setLevel("Cello", -7);
    await setLevel("Voice", -8);
    value(await undo(house.context, ID, 2));
    await open();
    expect(moments().map(({ textContent }) => textContent.replace(/^\d\d:\d\d/, ""))).toEqual([
      "Undo: Level: -8 dBVoice: level −8.0 → −1.0 dBnow",
      "Level: -8 dBVoice: level −1.0 → −8.0 dBtaken back",
      "Level: -7 dBCello: level −4.5 → −7.0 dB",
      "Its beginning",
    ]);
  });

  it("shows a moment as it was beside now, cell by cell and value by value, and both are heard", async () => {
    await setLevel("Cello", -7);
    await open();
    list().focus();
    press("ArrowDown", {}, list());
    await waitFor(() => expect(row("Cello").textContent).toContain("−4.5 dB→ −7.0 dB"));
    expect(row("Voice").textContent).not.toContain("→");
    fireEvent.click(row("Cello"));
    const lines = await screen.findByRole("region", { name: "What differs of Cello" });
    expect(within(lines).getByRole("row", { name: /Level/ }).textContent).toBe("Level−4.5 dB−7.0 dB");
    await waitFor(() => {
      expect(useListening.getState().a?.name).toBe("Cello, then");
      expect(useListening.getState().beside?.name).toBe("Cello, now");
    });
    fireEvent.click(screen.getByRole("switch", { name: "Only what differs" }));
    await waitFor(() => expect(rows()).toHaveLength(1));
  });

  it("is narrowed by words, and by the strip in hand", async () => {
    await setLevel("Cello", -7);
    await setLevel("Voice", -8);
    await open();
    const field = screen.getByRole("textbox", { name: "Find in the past" });
    fireEvent.change(field, { target: { value: "level of cello since yesterday" } });
    await waitFor(() => expect(moments()).toHaveLength(1));
    fireEvent.change(field, { target: { value: "nothing of this" } });
    await screen.findByText("Nothing was done that says this");
    fireEvent.change(field, { target: { value: "" } });
    await waitFor(() => expect(moments()).toHaveLength(3));
    fireEvent.change(field, { target: { value: "voice" } });
    act(() => field.focus());
    press("Escape", {}, field);
    await waitFor(() => expect(moments()).toHaveLength(3));
    expect(document.activeElement).toBe(list());
    fireEvent.click(row("Voice"));
    fireEvent.click(await screen.findByRole("switch", { name: "Only of Voice" }));
    await waitFor(() => expect(moments()).toHaveLength(1));
    expect(moment(/-8 dB/)).toBeTruthy();
  });

  it("is returned to by one key, as a change that can be taken back", async () => {
    await setLevel("Cello", -7);
    await setLevel("Voice", -8);
    await open("?at=0");
    await waitFor(() => expect(row("Cello").textContent).toContain("→"));
    press("Enter", { ctrlKey: true });
    press("Enter", { ctrlKey: true });
    await waitFor(async () => expect((await stored()).revision).toBe(3));
    expect((await strip("Cello")).level.fader).toBe(-4.5);
    await waitFor(() => expect(said.at(-1)).toBe("Return to its beginning (Cello and Voice)"));
    await waitFor(() => expect(moment(/Return to its beginning/)).toBeTruthy());
    undoKey();
    await waitFor(async () => expect((await strip("Cello")).level.fader).toBe(-7));
  });

  it("is that of the strip in hand, where that is asked for", async () => {
    await setLevel("Cello", -7);
    await setLevel("Voice", -8);
    const { id } = await strip("Voice");
    useInHand.setState({ project: ID, strips: [id] });
    await open("?of=strip");
    await waitFor(() => expect(moments()).toHaveLength(1));
    expect(moment(/-8 dB/)).toBeTruthy();
    await waitFor(() => expect(window.location.search).toBe("?at=2&of=strip"));
  });

  it("is told in words, to be copied", async () => {
    await setLevel("Cello", -7);
    await open("?at=0");
    await waitFor(() => expect(row("Cello").textContent).toContain("→"));
    const copied: string[] = [];
    Object.assign(navigator, { clipboard: { writeText: (text: string) => Promise.resolve(void copied.push(text)) } });
    fireEvent.click(screen.getByRole("button", { name: "In words…" }));
    const text = await screen.findByRole("textbox", { name: "What was done" });
    expect((text as HTMLTextAreaElement).value).toMatch(/^Salt Lanterns\nFrom: Its beginning\nTo: now\n\nCello: Level/);
    fireEvent.click(screen.getByRole("button", { name: "Copy" }));
    await waitFor(() => expect(said.at(-1)).toBe("Copied"));
    expect(copied).toEqual([(text as HTMLTextAreaElement).value]);
  });

  it("gives strips back through the plan, each to itself", async () => {
    await setLevel("Cello", -7);
    await open("?at=0");
    await waitFor(() => expect(row("Cello").textContent).toContain("→"));
    fireEvent.click(row("Cello"));
    press("Enter", { shiftKey: true });
    const { id } = await strip("Cello");
    await waitFor(() => expect(whereNow()).toBe(`/projects/${ID}/plan?from=${ID}&take=${id}&revision=0&strips=${id}`));
  });

  it("can be held against another moment than now, in the address, too", async () => {
    await setLevel("Cello", -7);
    await setLevel("Cello", -9);
    await open("?at=1");
    await waitFor(() => expect(row("Cello").textContent).toContain("−7.0 dB→ −9.0 dB"));
    press("c");
    act(() => list().focus());
    press("ArrowDown", {}, list());
    await waitFor(() => expect(row("Cello").textContent).toContain("−4.5 dB→ −7.0 dB"));
    await waitFor(() => expect(window.location.search).toBe("?at=0&beside=1"));
  });

  it("is in the address as soon as it is looked at, for who reloads at once, and of quick steps the last", async () => {
    await setLevel("Cello", -7);
    await setLevel("Cello", -9);
    await open();
    await waitFor(() => expect(window.location.search).toBe("?at=2"));
    await new Promise((resolve) => setTimeout(resolve, 200));
    act(() => list().focus());
    press("ArrowDown", {}, list());
    expect(window.location.search).toBe("?at=1");
    press("ArrowDown", {}, list());
    await waitFor(() => expect(window.location.search).toBe("?at=0"));
  });
});

describe("mixes that are kept", () => {
  const kept = () => within(screen.getByRole("region", { name: "Kept mixes" })).getAllByRole("listitem");
  const keep = async (name: string, take = "") => {
    press("K", { shiftKey: true });
    const sheet = await screen.findByRole("dialog", { name: "Keep this mix" });
    fireEvent.change(within(sheet).getByLabelText("Name"), { target: { value: name } });
    fireEvent.change(within(sheet).getByLabelText("Take"), { target: { value: take } });
    fireEvent.click(within(sheet).getByRole("button", { name: "Keep" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  };

  it("are looked at by one key each, and compared with each other", async () => {
    await setLevel("Cello", -7);
    await setLevel("Cello", -20);
    await open("?at=1");
    await keep("Chorus up", "3");
    await waitFor(() => expect(kept()[0]?.textContent).toContain("Chorus up, take 3"));
    expect(said.at(-1)).toBe("Kept this mix as “Chorus up, take 3”");
    fireEvent.click(moment(/Level: -20/));
    await keep("Darker");
    await waitFor(() => expect(kept()).toHaveLength(2));
    press("c");
    press("1");
    await waitFor(() => expect(row("Cello").textContent).toContain("−7.0 dB→ −20.0 dB"));
    expect(screen.getByTitle("“Chorus up, take 3”").parentElement?.textContent).toBe(
      "“Chorus up, take 3”beside“Darker”",
    );
    press("2");
    await waitFor(() => expect(row("Cello").textContent).not.toContain("→"));
  });

  it("get another name, are removed, and both is taken back", async () => {
    await open();
    await keep("Rough");
    await waitFor(() => expect(kept()).toHaveLength(1));
    const choose = async (item: string) => {
      fireEvent.pointerDown(screen.getByRole("button", { name: /^What to do with/ }), { button: 0, ctrlKey: false });
      fireEvent.click(await screen.findByRole("menuitem", { name: item }));
    };
    await choose("Name, take and note…");
    const sheet = await screen.findByRole("dialog", { name: "About this mix" });
    fireEvent.change(within(sheet).getByLabelText("Name"), { target: { value: "For the label" } });
    fireEvent.click(within(sheet).getByRole("button", { name: "Keep" }));
    await waitFor(() => expect(kept()[0]?.textContent).toContain("For the label"));
    await choose("Remove");
    await waitFor(() => expect(screen.queryByRole("region", { name: "Kept mixes" })).toBeNull());
    undoKey();
    await waitFor(() => expect(kept()[0]?.textContent).toContain("For the label"));
    undoKey();
    await waitFor(() => expect(kept()[0]?.textContent).toContain("Rough"));
  });

  it("are told with what was done since the one before", async () => {
    await setLevel("Cello", -7);
    await open();
    press("K", { shiftKey: true });
    const sheet = await screen.findByRole("dialog", { name: "Keep this mix" });
    fireEvent.click(within(sheet).getByRole("button", { name: "Write what was done since its beginning" }));
    const note = within(sheet).getByLabelText<HTMLTextAreaElement>("Note");
    await waitFor(() => expect(note.value).toContain("Cello: Level −4.5 dB → −7.0 dB."));
    fireEvent.click(within(sheet).getByRole("button", { name: "Keep" }));
    await waitFor(() => expect(kept()).toHaveLength(1));
    expect(mixesOf((await stored()).project)[0]).toMatchObject({ n: 1, name: "Mix 1" });
    expect(mixesOf((await stored()).project)[0]?.note).toContain("Cello: Level");
  });
});
