import { counted } from "../src/core/names/count";
import { writeFileSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Locator, Page } from "@playwright/test";
import type { Chain } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { hearChain } from "@/core/chains/hear";
import { integratedLoudness } from "@/core/dsp/measure/loudness";
import { renderChain } from "@/core/sound/render";
import { readWav, writeWav } from "@/core/formats/wav/wav";
import { type Content, chainOf, emptyCard } from "@/core/presets/preset";
import { noise } from "@/core/sound/testing";
import { beatsPerMinute } from "@/core/units/quantities";
import { expect, test } from "./server";

const RATE = 48_000;

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const boxesOf = (parts: readonly Locator[]): Promise<readonly Box[]> =>
  Promise.all(parts.map(async (part) => (await part.boundingBox())!));

/** None of the boxes covers another, nor one of those that stand around them. */
function expectApart(boxes: readonly Box[], around: readonly Box[] = []): void {
  for (const [at, a] of boxes.entries())
    for (const b of [...boxes.slice(at + 1), ...around]) {
      const beside = a.x + a.width <= b.x || b.x + b.width <= a.x;
      expect(beside || a.y + a.height <= b.y || b.y + b.height <= a.y).toBe(true);
    }
}

/** A name of a lane that has no room in its line. */
const LONG = "The voice as it came from the ribbon, a hand away, with all of its room and more";
/** While play fades in, the worklet's sound is not yet the chain's. */
const FADE = 600;

async function add(page: Page, family: string, name: string, to = "Add plugin"): Promise<void> {
  await page.getByRole("button", { name: to }).click();
  // A digit behind the name is its key.
  const item = page.getByRole("menuitem", { name: new RegExp(`^${name}( \\d)?$`) });
  // The menu takes the focus when it is there: an arrow pressed before that opens nothing.
  await expect(async () => {
    await page.getByRole("menuitem", { name: family }).press("ArrowRight");
    await expect(item).toBeVisible({ timeout: 700 });
  }).toPass();
  await item.press("Enter");
  await expect(page.getByRole("button", { name: new RegExp(`^${name}`) }).first()).toBeVisible();
}

async function saveAs(page: Page, name: string): Promise<void> {
  await page.getByRole("textbox", { name: "Name", exact: true }).fill(name);
  await page.getByRole("button", { name: /^Save (effect chain|channel strip|plugin preset)$/ }).click();
  await expect(page.getByText(`Saved “${name}”`)).toBeVisible();
}

async function contentOf(page: Page, url: string, name: string): Promise<{ id: string; content: Content }> {
  const answer = await page.request.get(`${url}/api/presets?q=${encodeURIComponent(name)}`);
  const { items } = (await answer.json()) as { items: { id: string; content: Content; card: { name: string } }[] };
  const found = items.find((item) => item.card.name === name);
  if (!found) throw new Error(`${name} was not saved`);
  return found;
}

/** The worklet's render of a chain in the browser, as two lists of samples. */
const inBrowser = (page: Page, chain: ReturnType<typeof hearChain>, loop: ReturnType<typeof noise>) =>
  page.evaluate(
    async ({ left, right, heard, rate }) => {
      const context = new OfflineAudioContext(2, left.length, rate);
      await context.audioWorklet.addModule("/worklets/audition.js");
      const node = new AudioWorkletNode(context, "diathesis-audition", {
        numberOfInputs: 0,
        outputChannelCount: [2],
        processorOptions: { loop: { left: Float32Array.from(left), right: Float32Array.from(right) }, chain: heard },
      });
      node.connect(context.destination);
      const rendered = await context.startRendering();
      return [0, 1].map((channel) => [...rendered.getChannelData(channel)]);
    },
    { left: [...loop.left], right: [...loop.right], heard: chain, rate: RATE },
  );

test("two amplifiers side by side, a section and a macro: built, saved, reloaded, heard as Node renders it", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/bench?new=1`);
  await add(page, "Equalisers", "Parametric EQ");
  await page.keyboard.press("g");
  const section = page.getByRole("textbox", { name: "Name of this section" });
  await section.fill("Front");
  await section.press("Enter");
  await expect(page.getByRole("region", { name: "Section Front" })).toBeVisible();
  await add(page, "Saturation", "Amplifier and cabinet");
  // What was added went into the section: it steps out of it, and lanes are put around it there.
  await page.getByRole("button", { name: "Move later" }).click();
  await page.keyboard.press("p");
  await expect(page.getByRole("group", { name: "Lanes", exact: true })).toBeVisible();
  await add(page, "Saturation", "Amplifier and cabinet", "Add a plugin to lane Lane 2");
  // A macro on the gain of both, learned by touch.
  await page.getByRole("radio", { name: /^Macros/ }).click();
  await page.getByRole("button", { name: "Line", exact: true }).click();
  await page.getByRole("button", { name: "Macro 1: learn" }).click();
  for (const count of [1, 2]) {
    await page
      .getByRole("button", { name: "Amplifier and cabinet", exact: true })
      .nth(count - 1)
      .click();
    await page.getByRole("slider", { name: "Gain", exact: true }).press("ArrowUp");
    await expect(page.getByRole("button", { name: counted(count, "value") })).toBeVisible();
  }
  await page.getByRole("button", { name: "Macro 1: learn" }).click();
  await page.getByRole("slider", { name: "Macro 1", exact: true }).press("End");
  await expect(page.getByRole("slider", { name: "Amplifier and cabinet: Gain" }).first()).toHaveText("48 dB");
  await expect(page.getByRole("slider", { name: "Amplifier and cabinet: Gain" }).nth(1)).toHaveText("48 dB");
  await page.keyboard.press("Control+s");
  await saveAs(page, "Two amplifiers");

  const { id, content } = await contentOf(page, server.url, "Two amplifiers");
  const chain: Chain = chainOf(content);
  expect(chain.nodes.map((n) => n.type)).toEqual(["section", "split"]);
  expect(chain.macros[0]?.axes[0]).toHaveLength(2);
  await page.goto(`${server.url}/bench?preset=${id}`);
  await expect(page.getByRole("region", { name: "Section Front" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Amplifier and cabinet", exact: true })).toHaveCount(2);
  const heard = hearChain(chain, beatsPerMinute(120));
  const loop = noise(0.5, RATE, 5);
  const samples = await inBrowser(page, heard, loop);
  const node = renderChain(heard, loop);
  for (const [channel, expected] of [node.left, node.right].entries()) {
    const worst = expected.reduce(
      (most, x, i) => (i < FADE ? most : Math.max(most, Math.abs(x - samples[channel]![i]!))),
      0,
    );
    expect(20 * Math.log10(worst)).toBeLessThan(-120);
  }
});

test("lanes are dragged into, soloed, copied between windows as text, and come back with undo", async ({
  page,
  server,
  context,
}) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.goto(`${server.url}/bench?project=salt-lanterns&strip=voice`);
  const tiles = page.locator("[role=group][aria-label=Chain] [data-node]");
  await expect(tiles.first()).toBeVisible();
  const before = await tiles.count();
  await tiles.first().click();
  await page.keyboard.press("p");
  await expect(page.getByText("Lane 2", { exact: true })).toBeVisible();
  // The last plugin is dragged into the second lane.
  const last = tiles.last();
  const lane = page.getByRole("button", { name: "Add a plugin to lane Lane 2" });
  const [from, to] = [(await last.boundingBox())!, (await lane.boundingBox())!];
  await page.mouse.move(from.x + 40, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(from.x + 60, from.y + 30, { steps: 4 });
  await page.mouse.move(to.x - 12, to.y + 8, { steps: 12 });
  await page.mouse.up();
  await expect
    .poll(async () => {
      const answer = await page.request.get(`${server.url}/api/projects/salt-lanterns`);
      const { project } = (await answer.json()) as { project: { strips: { id: string; inserts: Chain }[] } };
      const split = project.strips.find((s) => s.id === "voice")?.inserts.nodes[0];
      return split?.type === "split" ? split.lanes.map((l) => l.nodes.length) : [];
    })
    .toEqual([1, 1]);
  await page.getByRole("button", { name: "Hear lane Lane 2 alone" }).click();
  await expect(page.getByRole("button", { name: "Hear lane Lane 2 alone" })).toHaveAttribute("aria-pressed", "true");
  await tiles.nth(1).click();
  await page.keyboard.press("Control+c");
  const text = await page.evaluate(() => navigator.clipboard.readText());
  expect(JSON.parse(text)).toMatchObject({ diathesis: "clipping", version: 1 });
  const other = await context.newPage();
  await other.goto(`${server.url}/bench?project=salt-lanterns&strip=cello`);
  await expect(other.getByRole("heading", { name: "Cello" })).toBeVisible();
  await other.keyboard.press("Control+v");
  await expect(other.locator("[role=group][aria-label=Chain] [data-node]")).toHaveCount(1);
  // Closed with what is shown just then, it leaves nothing behind.
  await other.close();
  await page.bringToFront();
  // What the other window did belongs to the same project: its paste, the drag, the lanes.
  for (const next of [/^Undo: Paste /, /^Undo: Move /, /^Undo: Split into lanes/]) {
    await expect(page.getByRole("button", { name: "Undo" })).toHaveAttribute("title", next);
    await page.keyboard.press("Control+z");
  }
  await expect(tiles).toHaveCount(before);
});

test("a lane is panned or balanced, is so after a reload, and fits a narrow window", async ({ page, server }) => {
  await page.setViewportSize({ width: 1024, height: 800 });
  await page.goto(`${server.url}/bench?project=salt-lanterns&strip=voice`);
  const tiles = page.locator("[role=group][aria-label=Chain] [data-node]");
  await tiles.first().click();
  await page.keyboard.press("p");
  const line = page.getByRole("listitem", { name: "Lane Lane 1" });
  await expect(line.getByRole("slider", { name: "Pan" })).toBeVisible();
  const controls = [
    line.getByRole("slider", { name: "Level" }),
    line.getByRole("slider", { name: "Pan" }),
    line.getByRole("radiogroup"),
  ];
  expectApart(await boxesOf(controls));
  const name = line.getByRole("textbox", { name: "Name of the lane" });
  await name.fill(LONG);
  await name.press("Enter");
  const long = page.getByRole("listitem", { name: `Lane ${LONG}` });
  expectApart(await boxesOf([long.getByRole("textbox"), long.getByRole("switch")]));
  const [save] = await boxesOf([page.getByRole("button", { name: "Save new version" })]);
  const [takeOut] = await boxesOf([page.getByRole("button", { name: "Take out" })]);
  expect(takeOut!.x + takeOut!.width).toBe(save!.x + save!.width);
  await page.keyboard.press("Control+z");
  await line.getByRole("slider", { name: "Pan" }).press("End");
  await line.getByRole("radio", { name: "Balance" }).click();
  await expect(line.getByRole("slider", { name: "Balance" })).toHaveAttribute("aria-valuetext", "R 100");
  await expect(page.getByRole("button", { name: "Undo" })).toHaveAttribute("title", /^Undo: Blend lanes/);
  await page.reload();
  await page.getByRole("button", { name: "Lanes: open and blend" }).click();
  await expect(line.getByRole("radio", { name: "Balance" })).toHaveAttribute("aria-checked", "true");
  await page.keyboard.press("Control+z");
  await expect(line.getByRole("radio", { name: "Pan" })).toHaveAttribute("aria-checked", "true");
  await page.keyboard.press("Control+z");
  await expect(line.getByRole("slider", { name: "Pan" })).toHaveAttribute("aria-valuetext", "C");
});

test("what is done in the moment before a reload is kept, all of it and in its order", async ({ page, server }) => {
  await page.goto(`${server.url}/bench?project=salt-lanterns&strip=strings`);
  const tiles = page.locator("[role=group][aria-label=Chain] [data-node]");
  await tiles.first().click();
  await page.keyboard.press("p");
  const line = page.getByRole("listitem", { name: "Lane Lane 1" });
  await expect(line.getByRole("radio", { name: "Pan" })).toHaveAttribute("aria-checked", "true");
  const words = line.getByRole("radio");
  const [pan, balance] = [await words.nth(0).elementHandle(), await words.nth(1).elementHandle()];
  await page.evaluate(
    async ([one, other]) => {
      for (let n = 0; n < 7; n++) {
        const next = (n % 2 === 0 ? other : one) as HTMLElement;
        next.click();
        // It is shown; nothing more is waited for.
        while (next.ariaChecked !== "true") await new Promise((later) => setTimeout(later));
      }
      window.location.reload();
    },
    [pan, balance],
  );
  await page.waitForLoadState();
  await page.getByRole("button", { name: "Lanes: open and blend" }).click();
  const balanced = line.getByRole("radio", { name: "Balance" });
  await expect(balanced).toHaveAttribute("aria-checked", "true");
  for (const is of ["false", "true", "false", "true", "false", "true", "false"]) {
    await page.keyboard.press("Control+z");
    await expect(balanced).toHaveAttribute("aria-checked", is);
  }
  await expect(page.getByRole("button", { name: "Undo" })).toHaveAttribute("title", /^Undo: Split into lanes/);
});

test("words side by side cover no line beneath them in a narrow window", async ({ page, server }) => {
  await page.setViewportSize({ width: 1024, height: 800 });
  await page.goto(`${server.url}/bench?new=1`);
  const bench = page.getByRole("region", { name: "Bench" });
  for (const model of ["Multiband compressor", "VCA compressor", "Gate"]) {
    await add(page, "Dynamics", model);
    await expect(page.getByRole("textbox", { name: "Name of this plugin" })).toHaveValue(model);
    await expect(bench.getByRole("radiogroup", { name: "Detector", exact: true })).toBeVisible();
    const choices = await bench.getByRole("radiogroup").all();
    const lines = await bench.getByRole("slider").all();
    expectApart(await boxesOf(choices), await boxesOf(lines));
  }
});

test("another equaliser for the same curve says what it misses, and one key takes it back", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/bench?project=salt-lanterns&strip=strings`);
  await page.getByRole("button", { name: "Parametric EQ", exact: true }).click();
  await page.getByRole("button", { name: "Other model" }).click();
  await page.getByRole("menuitem", { name: "Console EQ" }).click();
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByRole("heading", { name: "Console EQ in place of Parametric EQ" })).toBeVisible();
  await expect(sheet.getByText(/^within \d+\.\d\d dB, \d+\.\d\d dB on average$/)).toBeVisible();
  await expect(sheet.getByRole("cell", { name: "fitted" }).first()).toBeVisible();
  await sheet.getByRole("button", { name: "Take Console EQ" }).click();
  await expect(page.getByRole("group", { name: "Response of the equaliser" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Console EQ, new since it was saved" })).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("button", { name: "Parametric EQ", exact: true })).toBeVisible();
});

test("effects inside an instrument are saved, and put into another", async ({ page, server }) => {
  await page.goto(`${server.url}/bench?new=mallets`);
  await page.getByRole("button", { name: "Open on the bench" }).click();
  await expect(page.getByText(/effects inside strip|new · not saved/)).toBeVisible();
  await add(page, "Modulation", "Tremolo");
  await add(page, "Reverbs", "Plate reverb");
  await page.keyboard.press("Control+s");
  await saveAs(page, "Motor and plate");
  const { content } = await contentOf(page, server.url, "Motor and plate");
  expect(content.kind).toBe("chain");
  expect(processorsOf(chainOf(content)).map((p) => p.model)).toEqual(["tremolo", "plate"]);

  await page.goto(`${server.url}/bench?new=electric-piano`);
  await page.getByRole("button", { name: "Open on the bench" }).click();
  await page.getByRole("radio", { name: "Sounds" }).click();
  await page.getByRole("button", { name: /Motor and plate/ }).click();
  await expect(page.getByRole("button", { name: "Tremolo", exact: true })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole("button", { name: "Layer Electric piano" })).toBeVisible();
  await page.reload();
  await expect(page.getByText("Tremolo, Plate reverb").first()).toBeAttached();
});

test("a sound that is dropped on an instrument strip opens in the sampler; what is no sound is refused in words", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/bench?new=sampler`);
  const folder = mkdtempSync(join(tmpdir(), "diathesis-sound-"));
  const file = join(folder, "Rim shot.wav");
  writeFileSync(file, writeWav(noise(0.4, 44_100)));
  const text = join(folder, "Letter.txt.wav");
  writeFileSync(text, "not a sound at all");
  await page.getByRole("heading", { name: "New sampler" }).click();
  await page.getByLabel("Sound for the sampler").setInputFiles(text);
  await expect(page.getByText(/Letter.*is no sound that can be read here/)).toBeVisible();
  await page.getByLabel("Sound for the sampler").setInputFiles(file);
  await expect(page.getByRole("textbox", { name: "Name of this layer" })).toHaveValue("Rim shot");
  await expect(page.getByText("Plays its sound.")).toBeVisible();
  const { media } = (await (await page.request.get(`${server.url}/api/media`)).json()) as {
    media: { hash: string; name: string }[];
  };
  expect(media).toHaveLength(1);
  // The phrase of the sampler stands where the material is on other screens.
  await expect(page.getByText(/^The phrase of/)).toBeVisible();
  await page.goto(`${server.url}/library`);
  await page.getByLabel("A sound of your own").setInputFiles(file);
  await expect(page.getByLabel("Material")).toHaveValue(`own:${media[0]!.hash}`);
});

test("of a long file the half minute is kept that was chosen, and nothing where that is broken off", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library`);
  await expect(page.getByRole("listbox", { name: "Sounds" }).getByRole("option").first()).toBeVisible();
  const rehearsal = noise(40, 48_000);
  const file = { name: "Rehearsal.wav", mimeType: "audio/wav", buffer: Buffer.from(writeWav(rehearsal)) };
  const keptNow = async () =>
    (
      (await (await page.request.get(`${server.url}/api/media`)).json()) as { media: { hash: string; name: string }[] }
    ).media.filter(({ name }) => name.startsWith("Rehearsal"));
  await page.getByLabel("A sound of your own").setInputFiles(file);
  await expect(page.getByRole("dialog")).toContainText("Which 30 s of “Rehearsal”?");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
  expect(await keptNow()).toEqual([]);
  await page.getByLabel("A sound of your own").setInputFiles(file);
  await page.getByLabel("Begins at").fill("0:20");
  await expect(page.getByRole("dialog")).toContainText("begin at 0:10 at the latest");
  await page.getByLabel("Begins at").fill("0:08");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Material").locator("option:checked")).toHaveText("Rehearsal, from 0:08");
  const [kept] = await keptNow();
  const wav = readWav(new Uint8Array(await (await page.request.get(`${server.url}/api/media/${kept?.hash}`)).body()));
  if (!wav.ok) throw new Error(wav.error);
  expect(wav.value.left.length).toBe(30 * 48_000);
  for (const at of [0, 1, 700_000]) expect(wav.value.left[at]).toBeCloseTo(rehearsal.left[8 * 48_000 + at]!, 3);
});

/** Puts a tape beside whatever goes to the loudspeakers. */
const TAPE = `
  window.__tape = [[], []];
  const connect = AudioNode.prototype.connect;
  AudioNode.prototype.connect = function (to, ...rest) {
    if (to === this.context.destination && !(this instanceof ScriptProcessorNode) && this.context instanceof AudioContext) {
      const tap = this.context.createScriptProcessor(4096, 2, 2);
      tap.onaudioprocess = ({ inputBuffer }) => {
        for (const c of [0, 1]) window.__tape[c].push(inputBuffer.getChannelData(c).slice());
      };
      connect.call(this, tap);
      connect.call(tap, this.context.destination);
    }
    return connect.call(this, to, ...rest);
  };
`;

test("A and B are matched within 0.2 LU as they leave for the loudspeakers", async ({ page, server }) => {
  await page.addInitScript(TAPE);
  await page.goto(`${server.url}/bench?project=salt-lanterns&strip=strings`);
  await expect(page.getByRole("button", { name: "Parametric EQ", exact: true })).toBeVisible();
  // B is what stands there, A much louder than it.
  await page.keyboard.press("k");
  await page.getByRole("button", { name: "Parametric EQ", exact: true }).click();
  await page.getByRole("slider", { name: "Output", exact: true }).press("End");
  await expect(page.getByRole("radiogroup", { name: "A or B" }).getByRole("radio", { name: /^B/ })).toBeEnabled();
  // A is measured anew before anything is taped.
  await expect(page.getByRole("button", { name: /Loudness before matching/ })).toContainText(/\+\d\d\.\d\s*LU/);
  await page.waitForTimeout(1000);
  await page.keyboard.press("Space");
  const taped = async (): Promise<number> => {
    await page.waitForTimeout(600);
    await page.evaluate("window.__tape = [[], []]");
    await page.waitForTimeout(9500);
    const [left, right] = await page.evaluate(() =>
      (window as unknown as { __tape: Float32Array[][] }).__tape.map((blocks) => blocks.flatMap((b) => [...b])),
    );
    // One round of the loop: wherever it begins, it is the same sound.
    const round = (samples: number[]) => Float32Array.from(samples.slice(0, 8 * RATE));
    return integratedLoudness({ left: round(left!), right: round(right!), sampleRate: RATE });
  };
  const a = await taped();
  await page.keyboard.press("x");
  const b = await taped();
  expect(a).toBeGreaterThan(-60);
  expect(Math.abs(a - b)).toBeLessThan(0.2);
});

test("the wheel over a row of many plugins goes along it; what is out of sight is counted, and brought into it", async ({
  page,
  server,
}) => {
  const nodes = Array.from({ length: 14 }, (_, n) => ({
    type: "processor" as const,
    key: `gain${n}`,
    model: "gain",
    enabled: true,
    values: {},
  }));
  const content: Content = { kind: "chain", schema: 1, chain: { nodes, macros: [] } };
  const card = emptyCard("Fourteen in a row");
  const made = await page.request.post(`${server.url}/api/presets`, {
    data: { preset: { kind: content.kind, content, card } },
  });
  expect(made.status()).toBeLessThan(300);
  const { id } = await contentOf(page, server.url, "Fourteen in a row");
  await page.goto(`${server.url}/bench?preset=${id}`);
  const row = page.getByRole("group", { name: "Chain" });
  const along = () => row.evaluate((element) => element.scrollLeft);
  const left = () => row.evaluate((element) => element.getBoundingClientRect().left);
  await expect(page.getByRole("button", { name: /^\d+ more plugins after$/ })).toBeVisible();
  expect(await along()).toBe(0);
  const begins = await left();
  await row.hover();
  await page.mouse.wheel(0, 300);
  await expect.poll(along).toBeGreaterThan(100);
  await expect(page.getByRole("button", { name: /^\d+ more plugins? before$/ })).toBeVisible();
  await page.getByRole("button", { name: /^\d+ more plugins? after$/ }).click();
  await expect.poll(along).toBeGreaterThan(400);
  // Nothing was turned by it, and the row stands where it stood: what is pressed stays under the pointer.
  expect(await left()).toBe(begins);
  const drafts = (await (await page.request.get(`${server.url}/api/presets/${id}`)).json()) as { versions: unknown[] };
  expect(drafts.versions).toHaveLength(1);
});

test("the spectrum of what is heard stands behind an equaliser's curve where it is asked for, and moves", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/bench?preset=rim-and-air`);
  const line = page.locator("path[data-spectrum]");
  const asked = page.getByRole("button", { name: "Spectrum", exact: true });
  await expect(asked).toHaveAttribute("aria-pressed", "false");
  await expect(line).toHaveCount(0);
  await asked.click();
  await page.getByRole("button", { name: "Play" }).click();
  const drawn = async () => (await line.getAttribute("d")) ?? "";
  await expect.poll(async () => (await drawn()).length).toBeGreaterThan(200);
  const first = await drawn();
  await expect.poll(drawn).not.toBe(first);
  await asked.click();
  await expect(line).toHaveCount(0);
});
