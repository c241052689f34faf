import type { Page } from "@playwright/test";
import type { Chain, Processor } from "@/core/chains/chain";
import { completeProcessor } from "@/core/chains/complete";
import type { Content, PresetKind } from "@/core/presets/preset";
import { CONTENT_SCHEMA } from "@/core/presets/version";
import type { Project } from "@/core/projects/project";
import { layerOf } from "@/core/strips/parts/source";
import { type Strip, createStrip } from "@/core/strips/strip";
import { SIZES, whatIsCut } from "./cut";
import { type Server, expect, test } from "./server";

/** Names of 80 letters on everything that has one: nothing is cut by them, nor pushed out of reach. */

const WORDS = "of the nyckelharpa through the old plate at the far end of the chapel, softly and slow";

/** "Strip of the nyckelharpa …", 80 letters. */
const long = (what: string): string => `${what} ${WORDS}`.slice(0, 80);

const plugin = (key: string, model: string, values: Processor["values"] = {}): Processor => ({
  ...completeProcessor({ type: "processor", key, model, enabled: true, values }),
  label: long(model),
});

const CHAIN: Chain = {
  nodes: [
    { type: "section", key: "section", name: long("Section"), enabled: true, nodes: [plugin("eq", "parametric-eq")] },
    {
      type: "split",
      key: "split",
      by: { way: "copy" },
      lanes: ["one", "two"].map((key) => ({
        key,
        name: long(`Lane ${key}`),
        enabled: true,
        level: 0,
        pan: 0,
        nodes: [plugin(`${key}-comp`, "vca-compressor")],
      })),
    },
    plugin("plate", "plate"),
  ],
  macros: [
    {
      key: "macro",
      name: long("Macro"),
      style: "line",
      axes: [[{ node: "plate", param: "decay", from: 1, to: 4, bend: 0 }]],
    },
  ],
};

const instrument = (): Strip["source"] => ({
  type: "layers",
  channels: "stereo",
  layers: [{ ...layerOf(plugin("play", "mallets")), name: long("Layer") }],
});

interface Made {
  readonly preset: string;
  readonly other: string;
  readonly project: string;
}

async function furnish(server: Server): Promise<Made> {
  const post = async <T>(path: string, body: unknown): Promise<T> => {
    const answer = await fetch(`${server.url}${path}`, {
      method: "POST",
      headers: { "Content-Type": "application/json", Origin: server.url },
      body: JSON.stringify(body),
    });
    expect(answer.status, `${path} ${await answer.clone().text()}`).toBeLessThan(300);
    return (await answer.json()) as T;
  };
  const folder = async (parent: string | null) =>
    (await post<{ folder: { id: string } }>("/api/folders", { name: long("Folder"), parent })).folder.id;
  const home = await folder(await folder(null));
  const save = async (kind: PresetKind, content: Content, name: string) =>
    (
      await post<{ preset: { id: string; version: number } }>("/api/presets", {
        preset: {
          kind,
          content,
          card: {
            name: long(name),
            folder: home,
            tags: [long("tag").slice(0, 60), long("other tag").slice(0, 60)],
            purpose: long("purpose"),
            rating: 4,
            notes: long("Notes"),
            origin: Object.fromEntries(
              ["artist", "client", "song", "project", "strip", "instrument", "performer"].map((key) => [
                key,
                long(key),
              ]),
            ),
          },
        },
      })
    ).preset;
  const chain = await save("chain", { kind: "chain", schema: CONTENT_SCHEMA, chain: CHAIN }, "Chain");
  const strip = await save(
    "strip",
    {
      kind: "strip",
      schema: CONTENT_SCHEMA,
      strip: { kind: "instrument", source: instrument(), inserts: CHAIN, look: { name: long("Look") } },
    },
    "Strip",
  );
  const from = { preset: chain.id, version: chain.version, name: long("Chain") };
  const made = (id: string, kind: Strip["kind"], to: string | null): Strip => ({
    ...createStrip(id, kind, { name: long(id) }, to === null ? { hardware: long("Out") } : { strip: to }),
    inserts: { ...CHAIN, from },
  });
  const project: Omit<Project, "schema" | "id"> = {
    name: long("Project"),
    artist: long("artist"),
    client: long("client"),
    song: long("song"),
    tempo: 92.375,
    meter: { beats: 4, unit: 4 },
    key: "D minor",
    sampleRate: 48_000,
    strips: [
      made("Voice", "audio", "Strings"),
      { ...made("Keys", "instrument", "Strings"), source: instrument() },
      made("Strings", "group", "Main"),
      made("Room", "return", "Main"),
      made("Main", "main", null),
    ],
  };
  const body = await post<{ project: { id: string } }>("/api/projects", { project });
  return { preset: chain.id, other: strip.id, project: body.project.id };
}

type Opened = (page: Page) => Promise<void>;

const LOOKS: readonly [name: string, address: (made: Made) => string, ready: Opened][] = [
  [
    "library",
    () => "/library?q=nyckelharpa",
    async (page) => page.getByRole("option", { name: /Chain of the/ }).click(),
  ],
  [
    "card to be changed",
    () => "/library?q=nyckelharpa",
    async (page) => {
      await page.getByRole("option", { name: /Strip of the/ }).click();
      await page.keyboard.press("e");
      await expect(page.getByRole("dialog")).toBeVisible();
    },
  ],
  [
    "folder",
    () => "/library",
    async (page) => {
      await page.getByRole("button", { name: "New folder" }).click();
      await expect(page.getByRole("dialog")).toBeVisible();
    },
  ],
  [
    "two compared",
    () => "/library?q=nyckelharpa",
    async (page) => {
      await page.getByRole("option", { name: /Chain of the/ }).click();
      await page.keyboard.press("Shift+ArrowDown");
      await page.keyboard.press("c");
      await expect(page.getByRole("dialog")).toBeVisible();
    },
  ],
  [
    "projects",
    () => "/projects",
    async (page) => expect(page.getByRole("option", { name: /Project of/ })).toBeVisible(),
  ],
  [
    "ledger",
    ({ project }) => `/projects/${project}`,
    async (page) => page.getByRole("row", { name: /Voice of/ }).click(),
  ],
  [
    "save sheet of several strips",
    ({ project }) => `/projects/${project}`,
    async (page) => {
      await page.getByRole("row", { name: /Voice of/ }).click();
      await page.keyboard.press("Shift+ArrowDown");
      await page.keyboard.press("Control+s");
      await expect(page.getByRole("dialog")).toBeVisible();
    },
  ],
  [
    "save sheet",
    ({ project }) => `/bench?project=${project}&strip=Voice`,
    async (page) => {
      await page.getByRole("button", { name: "Save as…" }).click();
      await expect(page.getByRole("dialog")).toBeVisible();
    },
  ],
  [
    "plan",
    ({ project, other }) => `/projects/${project}/plan?preset=${other}&strips=Keys,Voice`,
    async (page) => expect(page.getByText("In words")).toBeVisible(),
  ],
  [
    "bench, plugin",
    ({ preset }) => `/bench?preset=${preset}`,
    async (page) => page.locator("[data-node=plate]").click(),
  ],
  [
    "bench, lanes and macros",
    ({ preset }) => `/bench?preset=${preset}`,
    async (page) => {
      await page.locator("[data-node=split]").click();
      await page.getByRole("radio", { name: /^Macros/ }).click();
      await page.getByRole("button", { name: "1 value" }).click();
    },
  ],
  [
    "bench, section and sounds",
    ({ preset }) => `/bench?preset=${preset}`,
    async (page) => {
      await page.locator("[data-node=section]").click();
      await page.getByRole("radio", { name: "Sounds" }).click();
      await expect(page.getByRole("list", { name: /^Sounds for/ })).toBeVisible();
    },
  ],
  [
    "bench, what a plugin opens with",
    ({ preset }) => `/bench?preset=${preset}`,
    async (page) => {
      await page.locator("[data-node=plate]").click();
      await page.getByRole("radio", { name: "Sounds" }).click();
      await page.getByRole("button", { name: "Opens with" }).click();
      await expect(page.getByRole("menuitem").first()).toBeVisible();
    },
  ],
  [
    "bench, a menu in the chain",
    ({ preset }) => `/bench?preset=${preset}`,
    async (page) => {
      await page.locator("[data-node=plate]").click({ button: "right" });
      await expect(page.getByRole("menuitem").first()).toBeVisible();
    },
  ],
  [
    "bench, effects inside a layer",
    ({ project }) => `/bench?project=${project}&strip=Keys`,
    async (page) => page.locator("[data-node=layer1]").click(),
  ],
  [
    "bench, check",
    ({ project }) => `/bench?project=${project}&strip=Voice`,
    async (page) => page.getByRole("radio", { name: /^Check/ }).click(),
  ],
  [
    "the field",
    ({ project }) => `/projects/${project}`,
    async (page) => {
      await page.getByRole("row", { name: /Voice of/ }).click();
      await page.keyboard.press("Control+k");
      await page.keyboard.type("nyckelharpa");
      await expect(page.getByRole("option", { name: /Chain of/ }).first()).toBeVisible();
    },
  ],
];

test("names of 80 letters cut nothing and push nothing out of reach, on any screen and at any size", async ({
  page,
  server,
}) => {
  test.setTimeout(720_000);
  const made = await furnish(server);
  for (const [name, address, ready] of LOOKS) {
    await page.setViewportSize(SIZES[0]);
    await page.goto(server.url + address(made));
    await ready(page);
    await page.waitForTimeout(400);
    for (const size of SIZES) {
      await page.setViewportSize(size);
      await page.waitForTimeout(100);
      expect.soft(await whatIsCut(page), `${name}, ${size.width} × ${size.height}`).toEqual([]);
    }
  }
});
