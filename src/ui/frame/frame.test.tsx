// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet, engine } from "@/app/testing/engine";
import { press } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo, whereNow } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { getProject } from "@/server/use-cases/projects/read";
import { Frame } from "./frame";
import { useInHand } from "../projects/in-hand";
import { useActions } from "../actions/actions";
import { closeShortcuts } from "./shortcuts";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;

beforeEach(async () => {
  said.length = 0;
  quiet();
  goTo("/projects");
  closeShortcuts();
  await useInHand.persist.rehydrate();
  useInHand.setState({ project: null, strips: [], bench: null, alwaysPlan: false });
  house = await openHouse(loadDemo);
});

afterEach(() => house.close());

const open = () =>
  house.show(
    <Frame theme="day">
      <p>A screen</p>
    </Frame>,
  );
const hold = (hand: Partial<ReturnType<typeof useInHand.getState>>) => act(() => void useInHand.setState(hand));
const field = () => screen.getByRole("combobox", { name: "Find a sound, a strip, an action" });
const list = () => within(screen.getByRole("listbox"));
const items = () =>
  list()
    .getAllByRole("option")
    .map((o) => o.textContent);
/** Opens the list of all actions, and types. */
async function find(words: string): Promise<void> {
  press("k", { ctrlKey: true });
  await screen.findByRole("combobox", { name: "Find a sound, a strip, an action" });
  fireEvent.change(field(), { target: { value: words } });
}
const stripOf = async (project: string, id: string) =>
  value(await getProject(house.context, project)).project.strips.find((s) => s.id === id)!;

describe("the field", () => {
  it("finds what can be done by the beginnings of its words, with its key", async () => {
    open();
    await find("go lib");
    expect(items()).toEqual(["Go to the libraryAlt 1"]);
    press("Enter", {}, field());
    expect(whereNow()).toBe("/library");
  });

  it("keeps an Enter from before the list is here, and lets none of that stroke reach what opens", async () => {
    open();
    press("k", { ctrlKey: true });
    const plain = screen.getByRole("textbox", { name: "Find a sound, a strip, an action" });
    fireEvent.change(plain, { target: { value: "go lib" } });
    // What is left of the stroke would send the form of a sheet that opens within it.
    expect(fireEvent.keyDown(plain, { key: "Enter" })).toBe(false);
    await waitFor(() => expect(whereNow()).toBe("/library"));
  });

  it("lists what does something anew before an undo of the like", async () => {
    const Screen = () => {
      const action = { group: "Filing", run: () => undefined };
      useActions([
        { ...action, id: "undo-filing", title: "Undo: Rename “Rim”", past: true },
        { ...action, id: "rename", title: "Rename by a pattern" },
      ]);
      return <p>A screen</p>;
    };
    house.show(
      <Frame theme="day">
        <Screen />
      </Frame>,
    );
    await find("rename");
    expect(items()).toEqual(["Rename by a pattern", "Undo: Rename “Rim”"]);
    fireEvent.change(field(), { target: { value: "undo" } });
    expect(items()).toEqual(["Undo: Rename “Rim”"]);
  });

  it("does what is entered before the list is here, one after the other", async () => {
    open();
    const pushed = vi.spyOn(window.history, "pushState");
    const plain = () => screen.getByLabelText<HTMLInputElement>("Find a sound, a strip, an action");
    const went: string[] = [];
    for (const words of ["go plugins", "go lib"]) {
      press("k", { ctrlKey: true });
      expect(plain().getAttribute("role")).not.toBe("combobox");
      fireEvent.change(plain(), { target: { value: words } });
      fireEvent.keyDown(plain(), { key: "Enter" });
      went.push(plain().value);
    }
    expect(went).toEqual(["", ""]);
    await waitFor(() => expect(whereNow()).toBe("/library"));
    expect(pushed.mock.calls.map(([, , address]) => address)).toEqual(["/plugins", "/library"]);
    pushed.mockRestore();
  });

  it("does what the words mean where the list marks something else still, or nothing", async () => {
    open();
    for (const mark of ["another", "none"]) {
      goTo("/bench");
      await find("go lib");
      const [marked] = list().getAllByRole("option");
      // As it stands for a moment behind a quick hand: the list is drawn after the words.
      if (mark === "none") marked!.setAttribute("aria-selected", "false");
      else marked!.dataset["value"] = "Go to the plugins";
      press("Enter", {}, field());
      expect(whereNow()).toBe("/library");
    }
    await find("nothing such");
    press("Enter", {}, field());
    expect(field()).toBeTruthy();
  });

  it("finds projects by name and artist", async () => {
    open();
    await find("copper heron");
    await waitFor(() => expect(items()).toContain("Salt LanternsCopper Heron"));
    fireEvent.click(list().getByRole("option", { name: /^Salt Lanterns/ }));
    expect(whereNow()).toBe("/projects/salt-lanterns");
  });

  it("does not open several strips on the bench, where they have no place", async () => {
    goTo("/library");
    open();
    await find("quintet close");
    fireEvent.click(await list().findByRole("option", { name: /^Quintet, close and dry/ }));
    await waitFor(() => expect(said.at(-1)).toMatch(/holds several strips/));
    expect(whereNow()).toBe("/library");
  });

  it("opens a sound on the bench with no project in hand, and applies it with one", async () => {
    open();
    await find("rim and air");
    fireEvent.click(await list().findByRole("option", { name: /^Rim and air/ }));
    expect(whereNow()).toBe("/bench?preset=rim-and-air");
    hold({ project: "salt-lanterns", strips: ["cello"] });
    await screen.findByText(/strip Cello/);
    // Only where the project is on screen a sound is applied; anywhere else its name opens it.
    goTo("/library");
    await find("rim and air");
    await screen.findByText("Open on the bench");
    fireEvent.keyDown(field(), { key: "Escape" });
    goTo("/projects/salt-lanterns");
    await find("rim and air");
    await screen.findByText("Apply to Cello");
    expect(list().getByRole("option", { name: /^Rim and air.*goes onto Cello/ })).toBeTruthy();
    fireEvent.click(list().getByRole("option", { name: /^Rim and air/ }));
    await waitFor(() => expect(said).toEqual(["Applied “Rim and air” to Cello"]));
    expect((await stripOf("salt-lanterns", "cello")).inserts.from?.preset).toBe("rim-and-air");
    press("z", { ctrlKey: true });
    await waitFor(async () => expect((await stripOf("salt-lanterns", "cello")).inserts.nodes).toEqual([]));
  });

  it("finds a strip of the project in hand, and takes it in hand where one is", async () => {
    open();
    hold({ project: "salt-lanterns", strips: [] });
    goTo("/projects/salt-lanterns");
    await find("nyckel");
    fireEvent.click(await list().findByRole("option", { name: /^Nyckelharpa.*strip/ }));
    expect(useInHand.getState().strips).toEqual(["nyckelharpa"]);
    expect(whereNow()).toBe("/projects/salt-lanterns");
    goTo("/bench?project=salt-lanterns&strip=nyckelharpa");
    await find("cello");
    fireEvent.click(await list().findByRole("option", { name: /^Cello.*strip/ }));
    expect(whereNow()).toBe("/bench?project=salt-lanterns&strip=cello");
  });

  it("never offers a sound of the words before for the words that stand there", async () => {
    open();
    await find("rim and air");
    await list().findByRole("option", { name: /^Rim and air/ });
    fireEvent.change(field(), { target: { value: "voice one step" } });
    expect(list().queryByRole("option", { name: /^Rim and air/ })).toBeNull();
    await list().findByRole("option", { name: /^Voice, one step forward/ });
  });

  it("says that nothing matches, and is left by Escape to where the hand was", async () => {
    open();
    await find("zzzz qqqq");
    await screen.findByText(/Nothing matches/);
    press("Escape", {}, field());
    await waitFor(() => expect(screen.queryByRole("listbox")).toBeNull());
  });
});

describe("keys that are the same everywhere", () => {
  it("go from screen to screen, the bench to where it was", () => {
    open();
    press("2", { altKey: true });
    expect(whereNow()).toBe("/bench");
    hold({ bench: "/bench?preset=rim-and-air" });
    press("1", { altKey: true });
    press("2", { altKey: true });
    expect(whereNow()).toBe("/bench?preset=rim-and-air");
    press("3", { altKey: true });
    expect(whereNow()).toBe("/bench?preset=rim-and-air");
    hold({ project: "salt-lanterns" });
    press("3", { altKey: true });
    expect(whereNow()).toBe("/projects/salt-lanterns");
  });

  it("are listed on one sheet", async () => {
    open();
    press("?", { shiftKey: true });
    const sheet = await screen.findByRole("dialog", { name: "Shortcuts" });
    expect(within(sheet).getByText("Go to the library")).toBeTruthy();
    press("1", { altKey: true });
    expect(whereNow()).toBe("/projects");
  });

  it("play and stop, dry and A", async () => {
    open();
    press(" ");
    await waitFor(() => expect(engine.playing).toBe(true));
    press("d");
    expect(engine.side).toBe("dry");
    press("d");
    expect(engine.side).toBe("a");
    press(" ");
    await waitFor(() => expect(engine.playing).toBe(false));
  });

  it("leave letters to a field that is typed in", async () => {
    open();
    await find("");
    press("d", {}, field());
    press(" ", {}, field());
    expect(engine).toMatchObject({ playing: false });
  });
});

describe("what is in hand", () => {
  it("stands on top, with what is chosen of it", async () => {
    open();
    expect(screen.getByText("No project in hand")).toBeTruthy();
    hold({ project: "salt-lanterns" });
    await screen.findByText("Copper Heron · 92 bpm");
    hold({ strips: ["cello", "voice", "gone"] });
    expect(screen.getByText("Copper Heron · 2 strips chosen")).toBeTruthy();
  });
});
