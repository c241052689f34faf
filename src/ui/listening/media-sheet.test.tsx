// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type House, openHouse } from "@/app/testing/house";
import { said } from "@/app/testing/said";
import { toneFile } from "@/app/testing/sounds";
import { value } from "@/server/testing";
import { openDraft } from "@/server/use-cases/drafts";
import { allMedia, keepMedia } from "@/server/use-cases/media";
import { OWN_MATERIAL } from "@/clients/sound-engine";
import { useListening } from "./state";
import { MediaSheet } from "./media-sheet";
import { useMediaSheet } from "./materials";

vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;

beforeEach(async () => {
  said.length = 0;
  useMediaSheet.setState({ open: true });
  house = await openHouse();
});

afterEach(() => house.close());

const keep = async (name: string, pitch: number) => value(await keepMedia(house.context, name, toneFile(pitch))).hash;
const names = async () => (await allMedia(house.context)).map((row) => row.name).toSorted();
const press = (name: RegExp) => fireEvent.click(screen.getByRole("button", { name }));

describe("sounds of one's own", () => {
  it("are told with the room they take; what nothing uses can go, asked twice; what is used cannot", async () => {
    const [used, heard] = [await keep("Bell", 0.1), await keep("Hum", 0.2)];
    for (const [n, name] of ["Knock", "Drum", "Rope"].entries()) await keep(name, 0.3 + n / 10);
    value(await openDraft(house.context, { preset: null, instrument: "sampler", sample: used }));
    useListening.setState({ material: OWN_MATERIAL + heard });
    house.show(<MediaSheet />);
    await screen.findByText("5 sounds, 1.9 MB");
    expect(screen.getAllByText(/nothing uses it/)).toHaveLength(3);
    expect(screen.queryByRole("button", { name: /Remove Bell/ })).toBeNull();
    press(/Remove Knock/);
    expect(screen.getByRole("alert").textContent).toContain("“Knock” will be gone for good");
    press(/^Keep$/);
    expect(await names()).toContain("Knock");
    press(/Remove Knock/);
    press(/Yes, remove it/);
    await screen.findByText("4 sounds, 1.5 MB");
    press(/Remove all 2 that nothing uses/);
    press(/Yes, remove them/);
    await waitFor(async () => expect(await names()).toEqual(["Bell", "Hum"]));
    press(/Remove Hum/);
    press(/Yes, remove it/);
    await waitFor(async () => expect(await names()).toEqual(["Bell"]));
    expect(useListening.getState().material).toBe("drum-with-cello");
    expect(said).toEqual(["1 sound is gone for good", "2 sounds are gone for good", "1 sound is gone for good"]);
  });

  it("that are none say what to do, and the sheet closes", async () => {
    house.show(<MediaSheet />);
    await screen.findByText(/There are none yet. Drop a sound/);
    press(/^Close$/);
    expect(useMediaSheet.getState().open).toBe(false);
  });
});
