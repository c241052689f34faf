import { type Page, expect } from "@playwright/test";

/** The row of a strip in the ledger. */
export const rowOf = (page: Page, name: string) => page.getByRole("row", { name: new RegExp(`^${name}`) });

/** Types a level over the one in the cell of a strip, by keys. */
export async function setLevel(page: Page, name: string, level: string): Promise<void> {
  await rowOf(page, name).locator(".name").click();
  await expect(rowOf(page, name)).toHaveAttribute("aria-selected", "true");
  for (let i = 0; i < 6; i++) {
    await page.keyboard.press("ArrowRight");
    const grid = page.getByRole("grid", { name: "Strips" });
    if ((await grid.getAttribute("aria-activedescendant"))?.endsWith("-level")) break;
  }
  await page.keyboard.type(level);
  await page.keyboard.press("Enter");
}
