// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet, engine } from "@/app/testing/engine";
import { layOut } from "@/app/testing/furnish";
import { Keys, press } from "@/app/testing/hands";
import { type House, openHouse, presetOf } from "@/app/testing/house";
import { goTo, whereNow } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import { toneFile } from "@/app/testing/sounds";
import type { Processor } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import type { Content } from "@/core/presets/preset";
import { type Source, layerOf } from "@/core/strips/parts/source";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { savePresets } from "@/server/use-cases/library";
import { keepMedia } from "@/server/use-cases/media";
import { changeProject } from "@/server/use-cases/projects/change";
import { getProject } from "@/server/use-cases/projects/read";
import { undo } from "@/server/use-cases/projects/walk";
import { whenSent } from "../projects/sending";
import { useInHand } from "../projects/in-hand";
import { PlanScreen } from "./plan-screen";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

const ID = "salt-lanterns";
/** A strip preset: inserts, level, pan, look. */
const STRIP = "cello-strip-ferry-light";

let house: House;

beforeEach(async () => {
  said.length = 0;
  quiet();
  await useInHand.persist.rehydrate();
  house = await openHouse(loadDemo);
  layOut({ width: 900, height: 620 });
});

afterEach(() => house.close());

/** The plan of a preset onto strips; of its newest version. */
async function open(preset: string, strips: readonly string[]): Promise<void> {
  goTo(`/projects/${ID}/plan?preset=${preset}${strips.length > 0 ? `&strips=${strips.join(",")}` : ""}`);
  house.show(
    <>
      <Keys />
      <PlanScreen id={ID} />
    </>,
  );
  await screen.findByRole("table", { name: "Changes" });
}

const table = () => screen.getByRole("table", { name: "Changes" });
const row = (name: string) =>
  within(table())
    .getAllByRole("row")
    .find((r) => r.querySelector(".name")?.textContent === name)!;
const applyButton = () => screen.getByRole("button", { name: /^Apply \d+ changes?$/ });
const count = () => Number(/\d+/.exec(applyButton().textContent)![0]);
const sentences = () =>
  within(screen.getByRole("complementary", { name: "Questions and changes" }))
    .queryAllByRole("listitem")
    .map((l) => l.textContent);
const settled = (n: number) =>
  waitFor(() => {
    expect(count()).toBe(n);
    if (n > 0) expect(applyButton()).toHaveProperty("disabled", false);
  });
const tick = (name: string) => fireEvent.click(screen.getByRole("checkbox", { name }));
/** The ledger is there, and the server has answered. */
const applied = async () => {
  await waitFor(() => expect(whereNow()).toBe(`/projects/${ID}`));
  await whenSent(house.queries, ID);
};
const stored = async () => value(await getProject(house.context, ID));
const strip = async (id: string) => (await stored()).project.strips.find((s) => s.id === id)!;

describe("a plan", () => {
  it("shows each change before it is made: in the table, in words, by number; and does just that", async () => {
    await open(STRIP, ["cello"]);
    const n = count();
    expect(n).toBeGreaterThan(2);
    expect(sentences().length).toBeGreaterThanOrEqual(n);
    expect(row("Cello").textContent).toContain("→");
    expect(screen.getByText(new RegExp(`^${n} changes in 1 strip`))).toBeTruthy();
    const before = await stored();
    press("Enter", { ctrlKey: true });
    press("Enter", { ctrlKey: true });
    await applied();
    await waitFor(() => expect(said).toEqual([`Applied “Cello strip, Ferry Light” to Cello: ${n} changes`]));
    const after = await stored();
    expect(after.revision).toBe(before.revision + 1);
    const others = (body: typeof after) => body.project.strips.filter((s) => s.id !== "cello");
    expect(others(after)).toEqual(others(before));
    value(await undo(house.context, ID, after.revision));
    expect((await stored()).project).toEqual(before.project);
  });

  it("leaves off the parts that are switched off, and says that nothing is left where all are", async () => {
    await open(STRIP, ["cello"]);
    const all = count();
    const parts = screen.getByRole("toolbar", { name: "Parts" });
    fireEvent.click(within(parts).getByRole("button", { name: "Inserts" }));
    await waitFor(() => expect(count()).toBeLessThan(all));
    expect(screen.queryByRole("radiogroup", { name: "Inserts" })).not.toBeNull();
    for (const part of within(parts).getAllByRole("button", { pressed: true })) fireEvent.click(part);
    await settled(0);
    expect(screen.getByText(/Nothing would change/)).toBeTruthy();
    expect(applyButton()).toHaveProperty("disabled", true);
    press("Enter", { ctrlKey: true });
    expect((await stored()).revision).toBe(0);
  });

  it("leaves off one cell, and one strip with all of it", async () => {
    await open(STRIP, ["cello", "voice"]);
    const all = count();
    tick("Level of Cello");
    await waitFor(() => expect(count()).toBe(all - 1));
    tick("All of Voice");
    await waitFor(() => expect(count()).toBeLessThan(all - 1));
    await waitFor(() => expect(applyButton()).toHaveProperty("disabled", false));
    const voice = await strip("voice");
    const { level } = await strip("cello");
    fireEvent.click(applyButton());
    await applied();
    expect(await strip("voice")).toEqual(voice);
    expect((await strip("cello")).level).toEqual(level);
    expect(processorsOf((await strip("cello")).inserts).length).toBeGreaterThan(0);
  });

  it("of another preset begins with nothing switched off", async () => {
    await open(STRIP, ["cello"]);
    const all = count();
    tick("Level of Cello");
    await waitFor(() => expect(count()).toBe(all - 1));
    act(() => goTo(`/projects/${ID}/plan?preset=main-strip-tours&strips=cello`));
    await screen.findByRole("heading", { name: "Apply “Main strip, tours”" });
    await waitFor(() =>
      expect(screen.getByRole("checkbox", { name: "Level of Cello" }).getAttribute("aria-checked")).toBe("true"),
    );
  });

  it("puts a plugin behind what is there, before it, or in its place", async () => {
    await open("rim-and-air", ["drum"]);
    const modes = screen.getByRole("radiogroup", { name: "Inserts" });
    const mode = (name: string) => fireEvent.click(within(modes).getByRole("radio", { name }));
    /** What stands behind the word "after", as a screen reader has it. */
    const after = () => row("Drum").textContent.split("after ")[1];
    for (const [name, then] of [
      ["Before", "Parametric EQ, VCA compressor, VCA compressor"],
      ["After", "VCA compressor, Parametric EQ, VCA compressor"],
      ["Replace", "Parametric EQ, VCA compressor"],
    ] as const) {
      mode(name);
      await waitFor(() => expect(after()).toMatch(new RegExp(`^${then}[^,]`)));
    }
    await waitFor(() => expect(applyButton()).toHaveProperty("disabled", false));
    fireEvent.click(applyButton());
    await applied();
    expect(processorsOf((await strip("drum")).inserts).map((p) => p.model)).toEqual([
      "parametric-eq",
      "vca-compressor",
    ]);
  });

  it("is for a new strip where none is named, and says so", async () => {
    await open(STRIP, []);
    expect(screen.getByText(/onto a new strip of Salt Lanterns/)).toBeTruthy();
    expect(within(table()).getByText("new strip")).toBeTruthy();
  });

  it("asks what is taken of an instrument only where one of them has effects inside", async () => {
    const bars = layerOf({ type: "processor", key: "bars", model: "mallets", enabled: true, values: {} });
    const source: Source = { type: "layers", channels: "stereo", layers: [bars] };
    const content: Content = { kind: "strip", schema: 1, strip: { kind: "instrument", source } };
    const [plain] = value(await savePresets(house.context, { presets: [presetOf(content, { name: "Plain bars" })] }));
    const choice = () => screen.queryByLabelText("Instrument");
    await open("quay-vibraphone", []);
    expect(choice()).not.toBeNull();
    cleanup();
    // A strip that plays no instrument takes none of its layers.
    await open("quay-vibraphone", ["harmonium"]);
    expect(choice()).toBeNull();
    cleanup();
    await open(plain!.id, []);
    expect(choice()).toBeNull();
    expect(screen.getByLabelText("Parts").textContent).toContain("Instrument");
  });

  it("shows sends in words, asks once for a bus that is missing, and takes levels alone where that is chosen", async () => {
    const to = (name: string) => ({ external: true as const, kind: "return" as const, name });
    const sends = ["Long echo", "Plate"].map((name, at) => ({
      key: `s${at}`,
      to: to(name),
      tap: "post" as const,
      level: -12,
      pan: 0,
      on: true,
    }));
    const content: Content = { kind: "strip", schema: 1, strip: { kind: "audio", sends } };
    const [preset] = value(await savePresets(house.context, { presets: [presetOf(content, { name: "Far" })] }));
    await open(preset!.id, ["voice", "cello"]);
    expect(within(row("Cello")).getByText(/Long echo −12.0 dB/)).toBeTruthy();
    expect(screen.getAllByText("“Plate” is missing here, and sends would go to it.")).toHaveLength(1);
    fireEvent.click(screen.getByRole("radio", { name: "Make a return called Plate here" }));
    // The bus; of the voice a send less, one set, one more; of the cello one set, one more.
    await settled(6);
    expect(sentences()).toContain("Cello: new send to Plate −12.0 dB.");
    fireEvent.click(applyButton());
    await applied();
    const plate = (await stored()).project.strips.find((s) => s.look.name === "Plate")!;
    expect((await strip("cello")).sends.map(({ to: bus }) => bus)).toContainEqual({ strip: plate.id });
    cleanup();
    await open(preset!.id, ["voice"]);
    tick("Sends of Voice");
    await settled(0);
  });

  it("brings clips only where they are asked for, and tells of them beside the name", async () => {
    const { hash } = value(await keepMedia(house.context, "Foghorn", toneFile(0.2)));
    const held = { level: { fader: -7, mute: false }, media: [{ name: "Foghorn", hash }] };
    const content: Content = { kind: "strip", schema: 1, strip: { kind: "audio", ...held } };
    const [preset] = value(await savePresets(house.context, { presets: [presetOf(content, { name: "Horn" })] }));
    await open(preset!.id, ["cello"]);
    await settled(1);
    expect(screen.queryByRole("checkbox", { name: "Clips of Cello" })).toBeNull();
    fireEvent.click(within(screen.getByLabelText("Parts")).getByText("Clips"));
    await settled(2);
    expect(sentences()).toContain("Cello: clips no clips → Foghorn.");
    expect(row("Cello").textContent).toContain("1 clip");
    fireEvent.click(applyButton());
    await applied();
    expect((await strip("cello")).media).toEqual(held.media);
  });

  it("asks once for a strip that keys plugins and is missing, and leads them to the one that is answered", async () => {
    const key = { external: true as const, kind: "audio" as const, name: "Narrator" };
    const ducked: Processor = {
      type: "processor",
      key: "duck",
      model: "vca-compressor",
      enabled: true,
      values: {},
      keyInput: { strip: key, tap: "post" },
    };
    const content: Content = { kind: "chain", schema: 1, chain: { nodes: [ducked], macros: [] } };
    const [preset] = value(await savePresets(house.context, { presets: [presetOf(content, { name: "Duck" })] }));
    await open(preset!.id, ["cello", "harmonium"]);
    expect(screen.getAllByText("“Narrator” is missing here, and plugins are keyed by it.")).toHaveLength(1);
    const heard = async (id: string) => processorsOf((await strip(id)).inserts)[0]?.keyInput;
    fireEvent.click(screen.getByRole("radio", { name: "Use Voice instead" }));
    await waitFor(() => expect(applyButton()).toHaveProperty("disabled", false));
    fireEvent.click(applyButton());
    await applied();
    expect(await heard("cello")).toEqual({ strip: { strip: "voice" }, tap: "post" });
    expect(await heard("harmonium")).toEqual({ strip: { strip: "voice" }, tap: "post" });
  });

  it("lets what comes be heard as A beside what is there as B", async () => {
    await open(STRIP, ["voice"]);
    press("h");
    await waitFor(() => expect(engine.playing).toBe(true));
    expect(engine.side).toBe("a");
    expect(engine.sounds.b?.chain).toHaveLength(3);
    expect(JSON.stringify(engine.sounds.a)).not.toBe(JSON.stringify(engine.sounds.b));
    expect((await stored()).revision).toBe(0);
  });

  it("is left by Escape, with nothing changed", async () => {
    await open(STRIP, ["cello"]);
    press("Escape");
    expect(whereNow()).toBe(`/projects/${ID}`);
    expect((await stored()).revision).toBe(0);
  });

  it("that another window has overtaken is refused, and planned anew on what is there", async () => {
    await open(STRIP, ["cello"]);
    const cello = await strip("cello");
    value(
      await changeProject(house.context, ID, {
        baseRevision: 0,
        label: "Turn the cello down",
        steps: [
          {
            id: "s1",
            strip: "cello",
            part: "level",
            kind: "setPart",
            from: cello.level,
            to: { ...cello.level, fader: -20 },
          },
        ],
      }),
    );
    fireEvent.click(applyButton());
    await waitFor(() => expect(said).toHaveLength(1));
    expect((await strip("cello")).inserts.nodes).toHaveLength(0);
    await waitFor(() => expect(row("Cello").textContent).toContain("−20"));
    await waitFor(() => expect(applyButton()).toHaveProperty("disabled", false));
    fireEvent.click(applyButton());
    await applied();
    expect((await strip("cello")).inserts.nodes.length).toBeGreaterThan(0);
  });

  it("of a preset that is not there says so", async () => {
    goTo(`/projects/${ID}/plan?preset=nothing-such`);
    house.show(<PlanScreen id={ID} />);
    expect((await screen.findByRole("alert")).textContent).not.toBe("");
  });
});
