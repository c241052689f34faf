import { execFile, execFileSync } from "node:child_process";
import { existsSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { type Server, expect, test } from "./server";

/** The library goes out into a file, and comes in from one: by hand, between two machines, and by command. */

interface Preset {
  readonly id: string;
  readonly version: number;
  readonly cardRevision: number;
  readonly content: { readonly kind: string };
  readonly card: { readonly name: string };
}

const asking =
  ({ url }: Server) =>
  async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const answer = await fetch(url + path, {
      method,
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { "Content-Type": "application/json" } }),
    });
    const told = (await answer.json()) as T & { error?: { message: string } };
    if (!answer.ok) throw new Error(told.error?.message);
    return told;
  };

/** All that a library shows of itself: sounds with their versions, folders, projects with how far they went. */
async function contentsOf(server: Server): Promise<unknown> {
  const ask = asking(server);
  const { items } = await ask<{ items: Preset[] }>("GET", "/api/presets?sort=name&limit=500");
  const sounds = items.map(({ id, version, card, content }) => ({ id, version, card, content }));
  const { folders } = await ask<{ folders: object[] }>("GET", "/api/folders");
  const { projects } = await ask<{ projects: { id: string }[] }>("GET", "/api/projects");
  const byId = (list: readonly { readonly id: string }[]) => list.toSorted((a, b) => (a.id < b.id ? -1 : 1));
  return { sounds: byId(sounds), folders, projects: byId(projects) };
}

const bringIn = (page: Page) => page.getByRole("button", { name: /^(Bring in \d|Restore everything)/ });

/** Chooses a file on the archive's screen, and waits until it is held against the library. */
async function choose(page: Page, { url }: Server, file: string): Promise<void> {
  await page.goto(`${url}/archive`);
  await page.getByLabel("A file to bring in").setInputFiles(file);
  await expect(page.getByRole("grid", { name: "What is in the file" })).toBeVisible();
}

let folder: string;

test.beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-files-"));
});
test.afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Archives all of a library by its screen, and saves the file elsewhere. */
async function archive(page: Page, { url }: Server, as: string): Promise<string> {
  await page.goto(`${url}/archive`);
  await page.getByRole("button", { name: "Archive the library" }).click();
  const wrote = page.getByText(/^Wrote .*, read back and whole/);
  const [, name = ""] = /^Wrote (.*\.zip),/.exec(await wrote.innerText()) ?? [];
  const download = page.waitForEvent("download");
  // The one just written, whichever the list has first until it is told anew.
  await page.getByRole("link", { name: `Save ${name} elsewhere` }).click();
  const file = join(folder, as);
  await (await download).saveAs(file);
  // Another program is content with it, too.
  execFileSync("unzip", ["-tq", file]);
  return file;
}

test("a library is archived, restored on an empty machine, and is the same; once more, nothing is left to bring in", async ({
  page,
  server,
  emptyServer,
}) => {
  const file = await archive(page, server, "studio.zip");
  await choose(page, emptyServer, file);
  await expect(page.getByText("This library is empty")).toBeVisible();
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("heading", { name: /sounds and 9 projects came in/ })).toBeVisible();
  expect(await contentsOf(emptyServer)).toEqual(await contentsOf(server));
  await choose(page, emptyServer, file);
  await expect(page.getByRole("button", { name: "Bring in nothing" })).toBeDisabled();
});

test("two machines diverge and meet again: what was changed on both stands beside each other, and is taken back by one undo", async ({
  page,
  server,
  emptyServer,
}) => {
  const machines = [server, emptyServer] as const;
  for (const [at, machine] of machines.entries()) {
    const ask = asking(machine);
    const { preset } = await ask<{ preset: Preset }>("GET", "/api/presets/air-only-just");
    const content = structuredClone(preset.content) as unknown as { processor: { values: Record<string, number> } };
    content.processor.values["band1.gain"] = 4 + at;
    await ask("PUT", `/api/presets/${preset.id}/content`, { baseVersion: preset.version, content });
    const { project, revision } = await ask<{ project: { tempo: number }; revision: number }>(
      "GET",
      "/api/projects/neap-tide",
    );
    const step = { id: `t${at}`, kind: "setDetail", detail: "tempo", from: project.tempo, to: 100 + at };
    await ask("POST", "/api/projects/neap-tide/changes", { baseRevision: revision, label: "Tempo", steps: [step] });
  }
  const files = [await archive(page, server, "a.zip"), await archive(page, emptyServer, "b.zip")] as const;
  const before = await contentsOf(server);
  await choose(page, server, files[1]);
  const forked = page.getByRole("button", { name: /^Changed on both/ });
  await expect(forked).toContainText("2");
  await forked.click();
  await expect(page.getByRole("row", { name: /Air, only just/ })).toContainText("3 versions there, 3 here");
  await bringIn(page).click();
  await expect(page.getByRole("heading", { name: "1 sound and 1 project came in" })).toBeVisible();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByText("Taken back", { exact: false })).toBeVisible();
  expect(await contentsOf(server)).toEqual(before);

  // What was taken back lies in the bin: it comes out of there where that is asked for.
  await choose(page, server, files[1]);
  await page
    .getByRole("row", { name: /^Neap Tide/ })
    .getByRole("radio", { name: "Out of the bin" })
    .click();
  await bringIn(page).click();
  await expect(page.getByRole("heading", { name: "1 sound and 1 project came in" })).toBeVisible();
  await choose(page, emptyServer, files[0]);
  await bringIn(page).click();
  await expect(page.getByRole("heading", { name: /came in/ })).toBeVisible();
  expect(await contentsOf(emptyServer)).toEqual(await contentsOf(server));
  // Looked at once more, nothing of it is left to bring in.
  await choose(page, server, files[1]);
  await expect(page.getByRole("button", { name: "Bring in nothing" })).toBeDisabled();
  await page.goto(`${server.url}/library?q=${encodeURIComponent('name:="Air, only just"')}`);
  await page.getByRole("option", { name: /Air, only just/ }).click();
  await expect(page.getByText("made of 2")).toBeVisible();
});

test("a document is dropped on the window, or pasted, wherever one is; what is no document is said so", async ({
  page,
  server,
}) => {
  const text = await (await fetch(`${server.url}/api/presets/rim-and-air/document`)).text();
  const other = text.replace(/"id": "[^"]+"/, '"id": "dropped"').replace(/"name": "[^"]+"/, '"name": "Dropped in"');
  await page.goto(`${server.url}/plugins`);
  await expect(page.getByRole("heading", { level: 1 }).first()).toBeVisible();
  await page.evaluate((given) => {
    const data = new DataTransfer();
    data.items.add(new File([given], "one.json", { type: "application/json" }));
    document.body.dispatchEvent(new DragEvent("drop", { dataTransfer: data, bubbles: true, cancelable: true }));
  }, other);
  await expect(page.getByRole("row", { name: /Dropped in/ })).toBeVisible();
  await page.getByRole("button", { name: "Leave it" }).click();
  await expect(page.getByRole("heading", { name: "Archive", exact: true })).toBeVisible();
  await page.evaluate((given) => {
    const data = new DataTransfer();
    data.setData("text/plain", given);
    document.body.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  }, other);
  await expect(page.getByRole("row", { name: /Dropped in/ })).toBeVisible();
  await bringIn(page).click();
  await expect(page.getByRole("heading", { name: "1 sound came in" })).toBeVisible();
  const bad = join(folder, "bad.zip");
  writeFileSync(bad, "PK no archive");
  await page.goto(`${server.url}/archive`);
  await page.getByLabel("A file to bring in").setInputFiles(bad);
  await expect(page.getByText("This is no archive, or it is cut short")).toBeVisible();
});

interface Ended {
  readonly code: number | null;
  readonly said: string;
}

const archiving = (data: string, ...args: readonly string[]): Promise<Ended> =>
  new Promise((resolve) => {
    const env = { ...process.env, NODE_ENV: "production" as const, DIATHESIS_DATA: data };
    const child = execFile(process.execPath, [".build/archive.mjs", ...args], { env }, (_, out, err) =>
      resolve({ code: child.exitCode, said: out + err }),
    );
  });

test("by command: written while it serves, checked, and brought in; each end has its code", async ({ server }) => {
  const [file, part] = [join(folder, "cli.zip"), join(folder, "part.zip")];
  expect(await archiving(server.folder, "write", file)).toMatchObject({
    code: 0,
    said: expect.stringMatching(/read back and whole/),
  });
  expect(await archiving(server.folder, "write", file)).toMatchObject({
    code: 1,
    said: expect.stringMatching(/already; it stays/),
  });
  const written = await archiving(server.folder, "write", part, "--project", "Salt Lanterns");
  expect(written).toMatchObject({ code: 0, said: expect.stringMatching(/1 project/) });
  expect(await archiving(server.folder, "check", file)).toMatchObject({
    code: 0,
    said: expect.stringMatching(/is whole/),
  });
  expect(await archiving(server.folder, "check", join(folder, "none.zip"))).toMatchObject({ code: 1 });
  expect(await archiving(server.folder, "dance", file)).toMatchObject({
    code: 2,
    said: expect.stringMatching(/write FILE/),
  });
  expect(await archiving(server.folder, "bring", file)).toMatchObject({
    code: 1,
    said: expect.stringMatching(/archive screen/),
  });
  const data = join(folder, "new");
  expect(await archiving(data, "bring", part)).toMatchObject({
    code: 0,
    said: expect.stringMatching(/1 project came in/),
  });
  expect(existsSync(join(data, "diathesis.db"))).toBe(true);
});
