import type { Page } from "@playwright/test";
import { rowOf } from "./levels";
import { expect, test } from "./server";

/** Projects as wholes: found, filed, thrown away and taken back, one beside another. */

const list = (page: Page) => page.getByRole("listbox", { name: "Projects" });
const named = (page: Page) => list(page).getByRole("option").locator(".name").allTextContents();

test("projects lie in drawers by client and year, are found and put in order", async ({ page, server }) => {
  await page.goto(`${server.url}/projects`);
  await expect(list(page).getByRole("option").first()).toBeVisible();
  await page.getByRole("button", { name: /^Tidal Clocks/ }).click();
  await expect.poll(() => named(page)).toEqual(["Neap Tide", "Ebb Machine"]);
  await page.getByRole("button", { name: /^2025/ }).click();
  await expect.poll(() => named(page)).toEqual(["Ebb Machine"]);
  await page.reload();
  await expect.poll(() => named(page)).toEqual(["Ebb Machine"]);
  await page.getByRole("button", { name: /^All projects/ }).click();
  await page.getByRole("button", { name: "Name", exact: true }).click();
  await expect.poll(async () => (await named(page))[0]).toBe("Choir and brass, starter");
  await page.keyboard.press("f");
  await page.keyboard.type("tour 2026");
  await expect.poll(() => named(page)).toEqual(["The Rope Walk tour", "The Tidemill tour"]);
  await page.keyboard.press("Escape");
  await expect.poll(async () => (await named(page)).length).toBe(9);
  // What is counted comes by itself.
  await expect(list(page).getByRole("option", { name: /Salt Lanterns/ })).toContainText("kB");
});

test("a project goes into the bin, cannot be changed there, and comes out again", async ({ page, server }) => {
  await page.goto(`${server.url}/projects`);
  await expect(list(page).getByRole("option").first()).toBeVisible();
  await page.keyboard.press("Home");
  await page.keyboard.press("Delete");
  await expect(page.getByText("Put “Salt Lanterns” into the bin")).toBeVisible();
  await expect.poll(() => named(page)).not.toContain("Salt Lanterns");
  await page.getByRole("button", { name: /^Bin 1/ }).click();
  await expect.poll(() => named(page)).toEqual(["Salt Lanterns"]);
  await list(page).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText("In the bin since")).toBeVisible();
  await rowOf(page, "Cello").locator(".name").click();
  await page.keyboard.press("m");
  await expect(page.getByText(/is in the bin\. Take it out/)).toBeVisible();
  await page.getByRole("button", { name: "Take out of the bin" }).click();
  await expect(page.getByText("In the bin since")).toBeHidden();
  await rowOf(page, "Cello").locator(".name").click();
  await page.keyboard.press("m");
  await expect(rowOf(page, "Cello")).toContainText("muted");
});

test("two projects stand beside each other, strip by strip, and strips are taken from one to the other", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/projects`);
  await expect(list(page).getByRole("option").first()).toBeVisible();
  await list(page).focus();
  await page.keyboard.press("Home");
  await page.keyboard.press("c");
  await expect(page.getByText("compare with “Salt Lanterns”")).toBeVisible();
  const at = (await named(page)).indexOf("Ferry Light");
  for (let n = 0; n < at; n++) await page.keyboard.press("ArrowDown");
  await page.keyboard.press("c");
  await expect(page.getByRole("heading", { name: "Salt Lanterns beside Ferry Light" })).toBeVisible();
  await page.reload();
  const voice = page.locator("#then-voice");
  await voice.click();
  await page.getByRole("button", { name: "Take 1 strip…" }).click();
  await expect(page).toHaveURL(/projects\/salt-lanterns\/plan\?from=ferry-light/);
  await page.goBack();
  await expect(page.getByRole("heading", { name: "Salt Lanterns beside Ferry Light" })).toBeVisible();
  await page.keyboard.press("t");
  await expect(page.getByRole("heading", { name: "Ferry Light beside Salt Lanterns" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(list(page)).toBeVisible();
});
