// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet } from "@/app/testing/engine";
import { layOut } from "@/app/testing/furnish";
import { Keys, press } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo, whereNow } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { catalogueOf } from "@/server/use-cases/archive/catalogue";
import { backUp } from "@/server/use-cases/archive/backups";
import { listFiles } from "@/server/use-cases/archive/files";
import { findPresets } from "@/server/use-cases/find-presets";
import { listFolders } from "@/server/use-cases/filing/folders";
import { walkLibrary } from "@/server/use-cases/filing/history";
import { getSettings } from "@/server/use-cases/settings";
import { getPreset, saveVersion } from "@/server/use-cases/library";
import { patchCards } from "@/server/use-cases/filing/cards";
import { deletePreset } from "@/server/use-cases/filing/cards";
import { Archive } from "./archive";
import { BackupAlarm } from "./backup-alarm";
import { Incoming } from "./incoming";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;

beforeEach(async () => {
  said.length = 0;
  quiet();
  house = await openHouse(loadDemo);
  layOut({ width: 1100, height: 620 });
});

afterEach(() => house.close());

async function open(): Promise<void> {
  goTo("/archive");
  house.show(
    <>
      <Keys />
      <Archive />
    </>,
  );
  await screen.findByRole("heading", { name: "Archive" });
}

/** The screen on which what comes in is looked at, wherever the archive's screen led to. */
async function look(): Promise<void> {
  await waitFor(() => expect(whereNow()).toMatch(/^\/archive\/incoming\//));
  const id = whereNow().split("/").at(-1)!;
  house.show(
    <>
      <Keys />
      <Incoming id={id} />
    </>,
  );
  await screen.findByRole("grid", { name: "What is in the file" });
}

const row = (name: RegExp) => screen.getByRole("row", { name });
const rows = () => within(screen.getByRole("grid", { name: "What is in the file" })).getAllByRole("row");
const wordsSaid = () => said.join(" ");

describe("the archive", () => {
  it("says that nothing lies in it, writes the library, and lets go of a file once it is sure", async () => {
    await open();
    expect(screen.getByText("Nothing is archived yet")).toBeTruthy();
    press("a");
    await waitFor(() => expect(wordsSaid()).toMatch(/Wrote Library .*, read back and whole/));
    const line = await screen.findByRole("row", { name: /^Library/ });
    expect(listFiles(house.context)).toHaveLength(1);
    fireEvent.click(within(line).getByRole("button", { name: /^Take .* away$/ }));
    fireEvent.click(within(line).getByRole("button", { name: "Keep it" }));
    fireEvent.click(within(line).getByRole("button", { name: /^Take .* away$/ }));
    fireEvent.click(within(line).getByRole("button", { name: "Take it away for good" }));
    await screen.findByText("Nothing is archived yet");
    expect(listFiles(house.context)).toEqual([]);
  });

  it("writes a part, as it is asked for", async () => {
    await open();
    press("p");
    const sheet = within(await screen.findByRole("dialog", { name: "Archive a part" }));
    fireEvent.click(sheet.getByRole("radio", { name: "a client" }));
    const which = sheet.getByRole<HTMLSelectElement>("combobox");
    await waitFor(() => expect(which.options.length).toBeGreaterThan(1));
    fireEvent.change(which, { target: { value: "Copper Heron" } });
    fireEvent.click(sheet.getByRole("button", { name: "Archive it" }));
    await waitFor(() => expect(wordsSaid()).toMatch(/Wrote what was made for Copper Heron/));
  });

  it("keeps the plan of backups, and says how the last one went", async () => {
    await open();
    expect(screen.getByText("None was made yet.")).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: "every week" }));
    fireEvent.change(screen.getByRole("spinbutton", { name: "months" }), { target: { value: "12" } });
    await waitFor(async () =>
      expect((await getSettings(house.context)).settings.backups).toMatchObject({ every: "week", months: 12 }),
    );
    fireEvent.click(screen.getByRole("button", { name: "Back up now" }));
    await screen.findByText(/^The last one, of .*, is whole\.$/);
  });
});

describe("the check", () => {
  it("says that all is whole; what is not is listed, and mended", async () => {
    await open();
    fireEvent.click(screen.getByRole("button", { name: "Check everything" }));
    await screen.findByText(/^All is as it should be/);
    await house.context.writer("preset_versions").where({ preset: "box-out" }).update({ fingerprint: "2:00" });
    fireEvent.click(screen.getByRole("button", { name: "Check everything" }));
    await screen.findByText(/^1 fault was found/);
    expect(screen.getByText("The fingerprint of version 1 is not that of its sound.")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Mend 1 of 1" }));
    await screen.findByText(/^All is as it should be/);
    expect(wordsSaid()).toMatch(/1 fault is mended/);
  });
});

describe("the catalogue", () => {
  it("that is read back says what it changes, changes it, and is taken back by one undo", async () => {
    await open();
    const { body: text } = catalogueOf(house.context);
    const changed = text.replace(/^air-only-just,"[^"]*",(\w+),[^,]*/m, "air-only-just,Air by table,$1,New / Place");
    const file = new File([changed], "catalogue.csv", { type: "text/csv" });
    fireEvent.change(screen.getByLabelText("A table to read back"), { target: { files: [file] } });
    const sheet = within(await screen.findByRole("dialog", { name: "Read a catalogue" }));
    await sheet.findByText(/^1 of \d+ lines would change a card/);
    expect(sheet.getByRole("list", { name: "What would change" }).textContent).toContain("Air by table");
    fireEvent.click(sheet.getByRole("button", { name: "Change 1 card" }));
    await waitFor(() => expect(wordsSaid()).toMatch(/1 card was changed/));
    const card = async () => value(await getPreset(house.context, "air-only-just")).preset.card;
    expect((await card()).name).toBe("Air by table");
    value(await walkLibrary(house.context, "undo"));
    expect((await card()).name).toBe("Air, only just");
    expect((await listFolders(house.context)).some(({ name }) => name === "Place")).toBe(false);
  });
});

describe("what comes in", () => {
  /** A backup, after which something was changed here. */
  async function changed(): Promise<void> {
    await backUp(house.context);
    const { preset } = value(await getPreset(house.context, "air-only-just"));
    const other = value(await getPreset(house.context, "box-out")).preset.content;
    value(await saveVersion(house.context, preset.id, { baseVersion: preset.version, content: other }));
    const { cardRevision } = value(await getPreset(house.context, "brass-peaks")).preset;
    const card = { name: "Called otherwise" };
    value(await patchCards(house.context, { changes: [{ id: "brass-peaks", baseCard: cardRevision, card }] }));
    value(await deletePreset(house.context, "comp"));
  }

  it("is held against the library; what stands here later is left, or filed as it is there", async () => {
    await changed();
    await open();
    press("Enter");
    await look();
    expect(row(/Air, only just/).textContent).toContain("2 versions there, 3 here");
    expect(row(/Brass peaks/).textContent).toContain("only its card is another");
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Bring in nothing" }).disabled).toBe(true);
    fireEvent.click(within(row(/Brass peaks/)).getByRole("radio", { name: "As it is there" }));
    fireEvent.click(within(row(/^comp/)).getByRole("radio", { name: "Out of the bin" }));
    fireEvent.click(screen.getByRole("button", { name: "Bring in 2" }));
    await screen.findByRole("heading", { name: "2 sounds came in" });
    expect(value(await getPreset(house.context, "brass-peaks")).preset.card.name).toBe("Brass peaks, caught early");
    expect(value(await getPreset(house.context, "comp")).place).toBe("library");
    // Opened anew, it still says what came of it.
    house.show(<Incoming id={whereNow().split("/").at(-1)!} />);
    await waitFor(() => expect(screen.getAllByRole("heading", { name: "2 sounds came in" })).toHaveLength(2));
    fireEvent.click(screen.getAllByRole("button", { name: "Take it back" })[0]!);
    await waitFor(() => expect(wordsSaid()).toMatch(/Taken back/));
    expect(value(await getPreset(house.context, "brass-peaks")).preset.card.name).toBe("Called otherwise");
  });

  it("is narrowed by name and by group, and let go of by Escape", async () => {
    await changed();
    await open();
    press("Enter");
    await look();
    fireEvent.change(screen.getByRole("textbox", { name: "Narrow by name or folder" }), {
      target: { value: "caught early" },
    });
    await waitFor(() => expect(rows()).toHaveLength(1));
    fireEvent.change(screen.getByRole("textbox", { name: "Narrow by name or folder" }), { target: { value: "" } });
    fireEvent.click(screen.getByRole("button", { name: /^Older there/ }));
    await waitFor(() => expect(rows()).toHaveLength(3));
    press("Escape");
    await waitFor(() => expect(whereNow()).toBe("/archive"));
    expect((await findPresets(house.context, { q: "called otherwise" })).total).toBe(1);
  });

  it("that is not on its way any more says so, with the way back", async () => {
    goTo("/archive/incoming/nothing");
    house.show(<Incoming id="nothing" />);
    expect((await screen.findByRole("alert")).textContent).toMatch(/not on its way any more/);
    fireEvent.click(screen.getByRole("button", { name: "To the archive" }));
    expect(whereNow()).toBe("/archive");
  });
});

describe("a backup that failed", () => {
  it("is said wherever one is, until one comes out whole", async () => {
    house.context.backups.last = { at: "2026-11-24T19:00:00.000Z", failed: "The disk is full.", seq: -1 };
    house.show(<BackupAlarm />);
    expect((await screen.findByRole("alert")).textContent).toMatch(/The backup of 24 Nov 2026, .* failed/);
  });
});
