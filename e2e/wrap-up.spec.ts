import type { Page } from "@playwright/test";
import { expect, test } from "./server";

/** The end of a project: what is worth keeping of it is filed in one step. */

const finds = (page: Page) => page.getByRole("grid", { name: "What was found" });
const file = (page: Page, count: number) => page.getByRole("button", { name: `File ${count} sounds` });

test("a project is wrapped up by keys, its sounds are found, a second time nothing is proposed, and one undo takes it back", async ({
  page,
  server,
}) => {
  const projectOf = async () => {
    const { project } = (await (await fetch(`${server.url}/api/projects/salt-lanterns`)).json()) as {
      project: unknown;
    };
    return project;
  };
  const before = await projectOf();
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await expect(page.getByRole("grid", { name: "Strips" })).toBeFocused();
  await page.keyboard.press("w");
  await expect(page.getByRole("heading", { name: "Wrap up Salt Lanterns" })).toBeVisible();
  await expect(finds(page).getByRole("checkbox", { checked: true })).toHaveCount(3);
  await expect(file(page, 3)).toBeEnabled();
  // The set of the drums, too, under a name of its own.
  const set = finds(page).getByRole("row", { name: /Set of 4 strips/ });
  await set.getByText("Set of 4 strips").click();
  await page
    .getByRole("region", { name: /^In hand/ })
    .getByRole("textbox", { name: "Name" })
    .fill("Salt drums, all");
  await expect(set.getByRole("checkbox")).toBeChecked();
  await page.keyboard.press("Control+Enter");
  await expect(page.getByText("Filed 4 sounds of Salt Lanterns")).toBeVisible();
  await expect(page.getByRole("button", { name: "File nothing" })).toBeVisible();
  await page.reload();
  await expect(page.getByText("wrapped up last")).toBeVisible();
  await expect(finds(page).getByRole("checkbox", { checked: true })).toHaveCount(0);
  await page.goto(`${server.url}/library?q=${encodeURIComponent("salt drums")}`);
  await expect(page.getByRole("listbox", { name: "Sounds" }).getByRole("option")).toHaveCount(1);
  expect(await projectOf()).not.toEqual(before);
  await page.goto(`${server.url}/projects/salt-lanterns/wrap-up`);
  await page.getByRole("switch", { name: /^Passed over then/ }).click();
  await finds(page).getByRole("checkbox").first().click();
  await page.getByRole("button", { name: "File 1 sound" }).click();
  const said = page.getByText("Filed 1 sound of Salt Lanterns");
  await expect(said).toBeVisible();
  await page.getByRole("button", { name: "Undo", exact: true }).last().click();
  await expect(page.getByText("Taken back: Filed 1 sound of Salt Lanterns")).toBeVisible();
});

test("all projects are wrapped up together: what was found is adjusted at once, filed once, and taken back from all", async ({
  page,
  server,
}) => {
  const projects = async () => {
    const { projects: rows } = (await (await fetch(`${server.url}/api/projects`)).json()) as {
      projects: { id: string }[];
    };
    const bodies = await Promise.all(
      rows.map(
        async ({ id }) => (await (await fetch(`${server.url}/api/projects/${id}`)).json()) as { project: unknown },
      ),
    );
    return Object.fromEntries(bodies.map(({ project }, at) => [rows[at]!.id, project]));
  };
  const before = await projects();
  await page.goto(`${server.url}/projects`);
  await expect(page.getByRole("option", { name: /Salt Lanterns/ })).toBeVisible();
  await page.keyboard.press("Shift+W");
  await expect(page.getByRole("heading", { name: "Wrap up all projects" })).toBeVisible();
  await expect(page.getByText("in 9 projects")).toBeVisible();
  // A reload finds it as it was.
  await page.reload();
  await expect(page.getByText("in 9 projects")).toBeVisible();
  const ticked = finds(page).getByRole("checkbox", { checked: true });
  const count = await ticked.count();
  expect(count).toBeGreaterThan(9);
  await page.keyboard.press("Control+a");
  const pane = page.getByRole("region", { name: /^In hand/ });
  await pane.getByRole("button", { name: "Tick none" }).click();
  await expect(ticked).toHaveCount(0);
  await finds(page).getByRole("row").first().click();
  await page.keyboard.press("Shift+ArrowDown");
  await pane.getByRole("textbox", { name: "For" }).fill("Swept together");
  await expect(ticked).toHaveCount(2);
  await page.getByRole("button", { name: "File 2 sounds" }).click();
  await expect(page.getByText("Filed 2 sounds of all projects")).toBeVisible();
  await page.getByRole("button", { name: "Undo", exact: true }).last().click();
  await expect(page.getByText("Taken back: Filed 2 sounds of all projects")).toBeVisible();
  expect(await projects()).toEqual(before);
});
