// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { engine, quiet, sendMeters } from "@/app/testing/engine";
import { drag, furnish, layOut } from "@/app/testing/furnish";
import type { Chain } from "@/core/chains/chain";
import { hear, keepAsB, offerB, setDifference, setMaterial } from "./listening";
import { ListeningBar } from "./listening-bar";
import { onMeters, useListening } from "./state";

vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("@/clients/api", () => ({ listMedia: () => Promise.resolve({ media: [] }) }));

const START = useListening.getState();
const plugin = (key: string) => ({ type: "processor" as const, key, model: "gain", enabled: true, values: {} });
const soundOf = (name: string, ...keys: readonly string[]) => ({
  name,
  tempo: 120,
  chain: { nodes: keys.map(plugin), macros: [] } satisfies Chain,
});

beforeEach(async () => {
  furnish();
  layOut({ width: 200, height: 40 });
  useListening.setState(START, true);
  // The loudspeakers have been asked for their meters once.
  onMeters(() => undefined);
  await setMaterial("choir");
  quiet();
  render(
    <QueryClientProvider client={new QueryClient()}>
      <ListeningBar />
    </QueryClientProvider>,
  );
});

afterEach(cleanup);

const loop = () => screen.getByRole("slider", { name: "Place in the loop" });
const side = (name: "A" | "B") =>
  within(screen.getByRole("radiogroup", { name: "A or B" })).getByRole("radio", { name: new RegExp(`^${name}`) });

describe("the picture of the loop", () => {
  it("is one outline, closed around both sides of the middle", () => {
    const [path] = loop().querySelectorAll("path[style*=fill]");
    expect(path?.getAttribute("d")).toMatch(/^M[^MZ]*Z$/);
  });

  it("is clicked to go there", () => {
    drag(loop(), [
      [50, 20],
      [51, 20],
    ]);
    expect([engine.sought, engine.stretch]).toEqual([[0.25], null]);
  });

  it("lets the stretch that is dragged go round, from either end, and all of it after a double-click", () => {
    drag(loop(), [
      [150, 20],
      [100, 20],
      [50, 20],
    ]);
    expect(engine.stretch).toEqual({ from: 0.25, to: 0.75 });
    expect(screen.getByText(/loops 1\.5 s/)).toBeTruthy();
    fireEvent.doubleClick(loop());
    expect(engine.stretch).toBeNull();
  });

  it("lets nothing go round where Escape breaks off the drag, and Escape afterwards all of it again", () => {
    fireEvent.pointerDown(loop(), { clientX: 20, button: 0 });
    fireEvent.pointerMove(loop(), { clientX: 90 });
    fireEvent.keyDown(loop(), { key: "Escape" });
    fireEvent.pointerMove(loop(), { clientX: 120 });
    fireEvent.pointerUp(loop());
    expect([engine.stretch, engine.sought, loop().querySelector("[data-stretch]")]).toEqual([null, [], null]);
    drag(loop(), [
      [20, 20],
      [90, 20],
    ]);
    expect(engine.stretch).not.toBeNull();
    fireEvent.keyDown(loop(), { key: "Escape" });
    expect(engine.stretch).toBeNull();
  });

  it("is walked by arrow keys, and says where it is", () => {
    act(() => sendMeters({ progress: 0.5 }));
    expect(loop().getAttribute("aria-valuetext")).toBe("1.5 of 3 seconds");
    fireEvent.keyDown(loop(), { key: "ArrowRight" });
    fireEvent.keyDown(loop(), { key: "Home" });
    expect(engine.sought).toEqual([0.5 + 1 / 32, 0]);
  });
});

describe("the bar", () => {
  it("names what A and B are, and lets go of what was kept as B", () => {
    act(() => {
      hear(soundOf("Rim", "x"));
      keepAsB();
      hear(soundOf("Air", "y"));
      offerB(soundOf("Air, version 2", "z"));
    });
    expect([side("A").textContent, side("B").textContent]).toEqual(["AAir", "BRim"]);
    fireEvent.click(screen.getByRole("button", { name: "Let go of B" }));
    expect(side("B").textContent).toBe("BAir, version 2");
    expect(screen.queryByRole("button", { name: "Let go of B" })).toBeNull();
  });

  it("says that only what one plugin changes is heard, with one press to leave that", () => {
    act(() => {
      hear(soundOf("Rim", "x", "y"));
      setDifference("y");
    });
    fireEvent.click(screen.getByRole("button", { name: /Only what “Gain and polarity” changes/ }));
    expect(useListening.getState().difference).toBeNull();
    expect(screen.getByText("loops 3.0 s, through 2 plugins")).toBeTruthy();
  });

  it("says whose phrase is heard in place of the material", () => {
    act(() => hear({ ...soundOf("Mallets"), instrument: { layers: [], output: null, phrase: {} as never } }));
    expect(screen.getByTitle("The phrase of Mallets")).toBeTruthy();
    expect(screen.queryByLabelText("Material")).toBeNull();
  });
});

describe("one of two", () => {
  const path = (name: string) => screen.getByRole("radio", { name });
  const heard = () => ["Dry", "Processed"].filter((name) => path(name).getAttribute("aria-checked") === "true");

  it("is pressed, or walked to by an arrow, and the hand goes with it", () => {
    expect(heard()).toEqual(["Processed"]);
    fireEvent.click(path("Dry"));
    expect([heard(), useListening.getState().processed]).toEqual([["Dry"], false]);
    fireEvent.keyDown(path("Dry"), { key: "ArrowRight" });
    expect([heard(), useListening.getState().processed]).toEqual([["Processed"], true]);
    expect(document.activeElement).toBe(path("Processed"));
  });

  it("stays where there is no other yet", () => {
    act(() => hear(soundOf("Reed", "a")));
    side("A").focus();
    fireEvent.keyDown(side("A"), { key: "ArrowDown" });
    expect([useListening.getState().side, document.activeElement]).toEqual(["a", side("A")]);
  });
});
