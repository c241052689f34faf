import type { Page } from "@playwright/test";
import { type Server, expect, test } from "./server";

/** Sounds onto the strips of projects: a kit, parts of other projects' strips, versions, starters, whole mixes. */

interface Strip {
  readonly id: string;
  readonly kind: string;
  readonly look: { readonly name: string };
  readonly sends: readonly { readonly to: { readonly strip: string }; readonly level: number }[];
  readonly inserts: { readonly from?: { readonly version: number }; readonly nodes: readonly object[] };
  readonly level: { readonly fader: number; readonly mute: boolean };
  readonly pan: object;
  readonly routing: { readonly output: { readonly strip: string } };
}
interface Project {
  readonly id: string;
  readonly strips: readonly Strip[];
}
interface Body {
  readonly project: Project;
  readonly revision: number;
}

async function ask<T>({ url }: Server, method: string, path: string, body?: unknown): Promise<T> {
  const response = await fetch(`${url}${path}`, {
    method,
    headers: { "Content-Type": "application/json", Origin: url },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
  return (await response.json()) as T;
}
const projectOf = async (server: Server, id: string): Promise<Project> =>
  (await ask<Body>(server, "GET", `/api/projects/${id}`)).project;
const named = ({ strips }: Project, name: string): Strip => {
  const found = strips.find(({ look }) => look.name === name);
  if (!found) throw new Error(`No strip is called ${name}: ${strips.map(({ look }) => look.name).join(", ")}`);
  return found;
};

const LOOKS: readonly (readonly [id: string, kind: string, name: string, to: string | null])[] = [
  ["kit", "group", "Kit", "main"],
  ["kick-in", "audio", "Kick in", "kit"],
  ["kick-out", "audio", "Kick out", "kit"],
  ["snare-top", "audio", "Snare top", "kit"],
  ["snare-bot", "audio", "Snare bottom", "kit"],
  ["hat", "audio", "Hi-hat", "kit"],
  ["tom", "audio", "Floor tom", "kit"],
  ["oh-l", "audio", "Overhead left", "kit"],
  ["oh-r", "audio", "Overhead right", "kit"],
  ["plate", "return", "Plate", "main"],
  ["room", "return", "Room", "main"],
  ["main", "main", "Main", null],
];
/** The same drums in another order, with their names shortened, and two strips that are none. */
const ALIKE: typeof LOOKS = [
  ["a", "audio", "OH R", "drums"],
  ["b", "audio", "OH L", "drums"],
  ["c", "audio", "SN Btm", "drums"],
  ["d", "audio", "Bass DI", "main"],
  ["e", "audio", "KD out", "drums"],
  ["f", "audio", "HH", "drums"],
  ["g", "audio", "Flr Tom", "drums"],
  ["h", "audio", "SN Top", "drums"],
  ["i", "audio", "KD in", "drums"],
  ["j", "audio", "Lead vox", "main"],
  ["drums", "group", "Drums", "main"],
  ["main", "main", "Main", null],
];

/** A compressor, keyed by another strip where one is named. */
const compressor = (strip?: string) => ({
  type: "processor",
  key: "comp",
  model: "vca-compressor",
  enabled: true,
  values: { threshold: -18, ratio: 3 },
  ...(strip === undefined ? {} : { keyInput: { strip: { strip }, tap: "pre" } }),
});

const strip = ([id, kind, name, to]: (typeof LOOKS)[number], at: number, more: object = {}) => ({
  id,
  kind,
  source:
    kind === "audio"
      ? { type: "input", channels: "mono", input: `In ${at + 1}`, gain: 0, inverted: false }
      : { type: "bus", channels: "stereo" },
  inserts: { nodes: kind === "audio" ? [compressor()] : [], macros: [] },
  sends: [],
  level: { fader: -at / 2, mute: false },
  pan: { pan: 0, width: 100 },
  routing: { output: to === null ? { hardware: "Out 1–2" } : { strip: to } },
  look: { name },
  media: [],
  ...more,
});

async function make(server: Server, name: string, strips: readonly object[]): Promise<string> {
  const words = { name, artist: "Copper Heron", client: "Copper Heron", song: name, key: "" };
  const rest = { tempo: 100, meter: { beats: 4, unit: 4 }, sampleRate: 48_000, strips };
  return (await ask<Body>(server, "POST", "/api/projects", { project: { ...words, ...rest } })).project.id;
}

const kitStrips = () =>
  LOOKS.map((line, at) => {
    const send = (to: string, level: number) => ({
      key: `s-${to}`,
      to: { strip: to },
      tap: "post",
      level,
      pan: 0,
      on: true,
    });
    if (line[0] === "snare-top") return strip(line, at, { sends: [send("plate", -9), send("room", -15)] });
    if (line[0] === "tom") return strip(line, at, { sends: [send("room", -12)] });
    if (line[0] === "kick-out") return strip(line, at, { inserts: { nodes: [compressor("kick-in")], macros: [] } });
    return strip(line, at);
  });

const rows = (page: Page) => page.getByRole("grid", { name: "Strips" });
const apply = (page: Page) => page.getByRole("button", { name: /^Apply \d+ changes?$/ });

async function applied(page: Page): Promise<void> {
  await expect(apply(page)).toBeEnabled();
  await page.keyboard.press("Control+Enter");
  await expect(rows(page)).toBeVisible();
}

async function keepAll(page: Page, name: string, as: string): Promise<void> {
  await rows(page).focus();
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Control+s");
  const sheet = page.getByRole("dialog");
  await sheet.getByRole("radio", { name: as }).click();
  await sheet.getByRole("textbox", { name: "Name", exact: true }).fill(name);
  await sheet.getByRole("button", { name: /^Save/ }).last().click();
  await expect(sheet).toBeHidden();
}

const idOf = async (server: Server, name: string): Promise<string> => {
  const { items } = await ask<{ items: { id: string }[] }>(
    server,
    "GET",
    `/api/presets?q=${encodeURIComponent(`name:"${name}"`)}`,
  );
  return items[0]!.id;
};

test("a kit with its group, its returns and what keys it, onto projects that have none of it, all of it, and only its sends", async ({
  page,
  server,
}) => {
  test.setTimeout(360_000);
  const from = await make(server, "Kit as it was", kitStrips());
  await page.goto(`${server.url}/projects/${from}`);
  await keepAll(page, "Eight drums", "Together, as a strip set");
  const preset = await idOf(server, "Eight drums");

  await test.step("onto a blank project", async () => {
    const blank = await make(server, "Blank", [strip(LOOKS.at(-1)!, 0)]);
    await page.goto(`${server.url}/projects/${blank}/plan?preset=${preset}&version=1`);
    await applied(page);
    const project = await projectOf(server, blank);
    expect(project.strips).toHaveLength(LOOKS.length);
    const snare = named(project, "Snare top");
    expect(snare.sends.map(({ to, level }) => [to.strip, level])).toEqual([
      [named(project, "Plate").id, -9],
      [named(project, "Room").id, -15],
    ]);
    expect(snare.routing.output.strip).toBe(named(project, "Kit").id);
    expect(named(project, "Kick out").inserts.nodes[0]).toMatchObject({
      keyInput: { strip: { strip: named(project, "Kick in").id } },
    });
  });

  await test.step("onto the same drums under other names", async () => {
    const alike = await make(
      server,
      "Under other names",
      ALIKE.map((line, at) => strip(line, at, { inserts: { nodes: [], macros: [] } })),
    );
    await page.goto(`${server.url}/projects/${alike}/plan?preset=${preset}&version=1`);
    const onto = (name: string) => page.getByRole("combobox", { name: `Where ${name} goes`, exact: true });
    await expect(onto("Kick in")).toHaveValue("strip:i");
    const wanted = {
      "Kick in": "KD in",
      "Kick out": "KD out",
      "Snare top": "SN Top",
      "Snare bottom": "SN Btm",
      "Hi-hat": "HH",
      "Floor tom": "Flr Tom",
      "Overhead left": "OH L",
      "Overhead right": "OH R",
      Kit: "Drums",
    };
    const before = await projectOf(server, alike);
    for (const [name, here] of Object.entries(wanted))
      await expect(onto(name)).toHaveValue(`strip:${named(before, here).id}`);
    // Names stay as they are called here.
    await page.getByRole("button", { name: "Look", exact: true }).click();
    await applied(page);
    const after = await projectOf(server, alike);
    expect(after.strips).toHaveLength(ALIKE.length + 2);
    for (const here of Object.values(wanted))
      if (here !== "Drums") expect(named(after, here).inserts.nodes).toHaveLength(1);
    for (const other of ["Bass DI", "Lead vox"]) expect(named(after, other)).toEqual(named(before, other));
    await page.keyboard.press("Control+z");
    await expect.poll(() => projectOf(server, alike)).toEqual(before);
  });

  await test.step("only its sends to another", async () => {
    const other = await make(
      server,
      "Only sends",
      kitStrips().map((one) => ({ ...one, sends: [], level: { fader: -20, mute: false } })),
    );
    await page.goto(`${server.url}/projects/${other}/plan?preset=${preset}&version=1`);
    await page.getByRole("button", { name: /^Choice of parts/ }).click();
    await page.getByRole("menuitem", { name: "Sends only" }).click();
    await expect(page.getByRole("button", { name: "Apply 3 changes" })).toBeEnabled();
    await page.getByRole("checkbox", { name: "Send to Room of Snare top" }).click();
    await expect(page.getByRole("button", { name: "Apply 2 changes" })).toBeEnabled();
    await applied(page);
    const project = await projectOf(server, other);
    expect(named(project, "Snare top").sends.map(({ to }) => to.strip)).toEqual(["plate"]);
    expect(named(project, "Floor tom").sends.map(({ to }) => to.strip)).toEqual(["room"]);
    for (const { level, kind } of project.strips) if (kind !== "main") expect(level.fader).toBe(-20);
  });
});

test("only level and pan of another project's strip", async ({ page, server }) => {
  const before = await projectOf(server, "salt-lanterns");
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await page.locator("#strip-cello .name").click();
  await page.getByRole("radio", { name: "Strips of projects" }).click();
  const field = page.getByRole("textbox", { name: "Find a strip of any project" });
  await field.fill("cello ferry");
  await expect(page.getByRole("listbox", { name: "Strips" }).getByRole("option")).toHaveCount(1);
  await field.press("Enter");
  await page.getByRole("button", { name: /^Choice of parts/ }).click();
  await page.getByRole("menuitem", { name: "Level and pan" }).click();
  await expect(page.getByRole("button", { name: "Apply 2 changes" })).toBeEnabled();
  await applied(page);
  const [after, ferry] = [await projectOf(server, "salt-lanterns"), await projectOf(server, "ferry-light")];
  const { level, pan } = named(ferry, "Cello");
  expect(named(after, "Cello")).toEqual({ ...named(before, "Cello"), level, pan });
  await page.keyboard.press("Control+z");
  await expect.poll(() => projectOf(server, "salt-lanterns")).toEqual(before);
});

test("a sound that is let go on a cell sets that alone, as it says before", async ({ page, server }) => {
  const before = await projectOf(server, "salt-lanterns");
  const { items } = await ask<{ items: { content: { strip: { level: Strip["level"] } } }[] }>(
    server,
    "GET",
    `/api/presets?${new URLSearchParams({ q: "room pair far" })}`,
  );
  const { level } = items[0]!.content.strip;
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await page.locator("#strip-cello .name").click();
  const field = page.getByRole("textbox", { name: "Find a sound to apply" });
  await field.fill("room pair far");
  const sound = page.getByRole("listbox", { name: "Sounds" }).getByRole("option");
  await expect(sound).toHaveCount(1);
  const [from, to] = [await sound.boundingBox(), await page.locator("#strip-voice-level").boundingBox()];
  await page.mouse.move(from!.x + 30, from!.y + 10);
  await page.mouse.down();
  const [x, y] = [to!.x + to!.width / 2, to!.y + to!.height / 2];
  // The browser begins a drag by the first movements, and tells where it is by those behind them.
  await page.mouse.move(x, y, { steps: 4 });
  await page.mouse.move(x + 2, y, { steps: 2 });
  await expect(page.getByText("Drop applies “Room pair, far” to the level of Voice")).toBeVisible();
  await page.mouse.up();
  await expect
    .poll(async () => named(await projectOf(server, "salt-lanterns"), "Voice"))
    .toEqual({ ...named(before, "Voice"), level });
  await page.keyboard.press("Control+z");
  await expect.poll(() => projectOf(server, "salt-lanterns")).toEqual(before);
});

test("a new version to strips of three projects, and all of that taken back at once", async ({ page, server }) => {
  test.setTimeout(360_000);
  const chain = { nodes: [compressor()], macros: [] };
  const card = { name: "Rope and tar", folder: null, tags: [], purpose: "", rating: 0, notes: "", origin: {} };
  const content = { kind: "chain", schema: 1, chain };
  const { preset } = await ask<{ preset: { id: string } }>(server, "POST", "/api/presets", {
    preset: { kind: "chain", content, card },
  });
  const from = { preset: preset.id, version: 1, name: "Rope and tar" };
  const ids: string[] = [];
  for (const name of ["One", "Two", "Three"]) {
    const rope = strip(["rope", "audio", "Rope", "main"], 0, { inserts: { ...chain, from } });
    ids.push(await make(server, name, [rope, strip(LOOKS.at(-1)!, 1)]));
  }
  const newer = { ...content, chain: { ...chain, nodes: [{ ...compressor(), values: { threshold: -25, ratio: 3 } }] } };
  await ask(server, "PUT", `/api/presets/${preset.id}/content`, { baseVersion: 1, content: newer });
  const before = await Promise.all(ids.map((id) => projectOf(server, id)));
  const versions = async () =>
    (await Promise.all(ids.map((id) => projectOf(server, id)))).map((p) => named(p, "Rope").inserts.from?.version);

  await page.goto(`${server.url}/library?q=${encodeURIComponent("rope and tar")}`);
  await page.getByRole("button", { name: "Bring version 2 to 3 strips…" }).click();
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByText("version 1 of 2")).toHaveCount(3);
  // One project after the other is planned.
  const changes = sheet.getByText("What would change here, value by value");
  await expect(changes).toHaveCount(3);
  await changes.first().click();
  await expect(sheet.getByText(/Threshold −18.0 dB → −25.0 dB/).first()).toBeVisible();
  await sheet.getByRole("button", { name: "Bring version 2 to 3 strips" }).click();
  await expect.poll(versions).toEqual([2, 2, 2]);
  await page.getByRole("button", { name: "Undo", exact: true }).last().click();
  await expect.poll(() => Promise.all(ids.map((id) => projectOf(server, id)))).toEqual(before);
});

test("a project of twelve strips from nothing, by keyboard alone", async ({ page, server }) => {
  test.setTimeout(360_000);
  await page.goto(`${server.url}/projects`);
  await expect(page.getByRole("listbox", { name: "Projects" })).toBeFocused();
  await page.keyboard.press("Control+Alt+n");
  await page.keyboard.type("Twelve by hand");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Twelve by hand", level: 1 })).toBeVisible();
  const id = page.url().split("/").at(-1)!;
  const count = async () => (await projectOf(server, id)).strips.length;
  for (let n = 0; n < 9; n++) await page.keyboard.press("Shift+N");
  await expect.poll(count).toBe(10);
  for (const [kind, then] of [
    ["return", 11],
    ["group", 12],
  ] as const) {
    await page.keyboard.press("Control+k");
    await page.keyboard.type(`add ${kind}`);
    await page.keyboard.press("Enter");
    await expect.poll(count).toBe(then);
  }
  await page.keyboard.press("Home");
  await page.keyboard.press("F2");
  const name = page.getByRole("dialog").getByRole("textbox", { name: "Name", exact: true });
  await name.fill("Nave pair");
  await page.keyboard.press("Enter");
  await expect
    .poll(async () => (await projectOf(server, id)).strips.map(({ look }) => look.name))
    .toContain("Nave pair");
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Control+g");
  await page.keyboard.press("Enter");
  await expect.poll(count).toBe(13);
  const project = await projectOf(server, id);
  const group = named(project, "Nave pair").routing.output.strip;
  expect(project.strips.filter(({ routing }) => routing.output?.strip === group)).toHaveLength(2);
});

test("a project cleaned down to a starter, and one begun from it", async ({ page, server }) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  const before = await projectOf(server, "salt-lanterns");
  await expect(rows(page)).toBeFocused();
  await page.keyboard.press("Control+k");
  await page.keyboard.type("project starter");
  await page.keyboard.press("Enter");
  const sheet = page.getByRole("dialog");
  await sheet.getByRole("textbox", { name: "Name" }).fill("Quartet, starter");
  await sheet.getByRole("checkbox", { name: "Harmonium" }).click();
  await sheet.getByRole("button", { name: "Level", exact: true }).click();
  await sheet.getByRole("button", { name: "Keep 11 strips" }).click();
  await expect(sheet).toBeHidden();
  expect(await projectOf(server, "salt-lanterns")).toEqual(before);
  await page.goto(`${server.url}/projects`);
  await page.getByRole("button", { name: "New project" }).click();
  await sheet.getByRole("textbox", { name: "Song" }).fill("Tar and Feather");
  await sheet.getByRole("combobox", { name: "Begin" }).selectOption({ label: "Quartet, starter" });
  await sheet.getByRole("button", { name: "Make project" }).click();
  await expect(page.getByRole("heading", { name: "Tar and Feather", level: 1 })).toBeVisible();
  const made = await projectOf(server, page.url().split("/").at(-1)!);
  expect(made.strips.map(({ look }) => look.name)).toEqual(
    before.strips.map(({ look }) => look.name).filter((name) => name !== "Harmonium"),
  );
  expect(named(made, "Voice").inserts).toEqual(named(before, "Voice").inserts);
  expect(made.strips.every(({ level }) => level.fader === 0)).toBe(true);
});

test("a whole mix kept, and its returns alone put into another project", async ({ page, server }) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await keepAll(page, "Salt Lanterns, the mix", "As a whole mix");
  const preset = await idOf(server, "Salt Lanterns, the mix");
  const before = await projectOf(server, "tidemill-tour");
  await page.goto(`${server.url}/projects/tidemill-tour/plan?preset=${preset}&version=1`);
  const wanted = new Set(["Eighths", "Long echo"]);
  for (const { look } of (await projectOf(server, "salt-lanterns")).strips)
    await page
      .getByRole("combobox", { name: `Where ${look.name} goes`, exact: true })
      .selectOption(wanted.has(look.name) ? "new" : "out");
  await applied(page);
  const after = await projectOf(server, "tidemill-tour");
  expect(after.strips.length).toBe(before.strips.length + 2);
  for (const name of wanted) expect(named(after, name).kind).toBe("return");
  for (const one of before.strips) expect(after.strips).toContainEqual(one);
});
