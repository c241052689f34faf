import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { SCREENS } from "@/ui/frame/screens";
import { SIZES, whatIsCut } from "./cut";
import { LOOKED_AT } from "./looks";
import { type Server, expect, test } from "./server";

/** Every screen under the content policy: nothing is blocked, nothing complains, and a screen reader finds its way. */

/** Collects what the page complains of; an expected answer of the server is not a complaint. */
function listen(page: Page): string[] {
  const complaints: string[] = [];
  page.on("console", (message) => {
    if (message.type() === "error" || /policy/i.test(message.text())) complaints.push(message.text());
  });
  page.on("pageerror", (error) => complaints.push(String(error)));
  return complaints;
}

async function open(page: Page, server: Server, theme: string, path: string): Promise<void> {
  await page.context().addCookies([{ name: "theme", value: theme, url: server.url }]);
  await page.emulateMedia({ reducedMotion: "reduce" });
  await page.goto(server.url + path);
}

/** What lies behind an open sheet is looked at by itself, as a screen of its own. */
async function violations(page: Page, rules: readonly string[] | null): Promise<string[]> {
  const axe = new AxeBuilder({ page });
  if (await page.getByRole("dialog").count()) axe.include("[role=dialog]");
  const found = await (rules ? axe.withRules([...rules]) : axe).analyze();
  return found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(" | ")}`);
}

test.describe.configure({ mode: "parallel" });

for (const [name, path, ready] of LOOKED_AT)
  test(`${name}: no complaint, no violation in Day and Lamp, all of it within 1280 × 800`, async ({ page, server }) => {
    const complaints = listen(page);
    await open(page, server, "day", path);
    await ready(page);
    await page.waitForTimeout(300);
    expect(await violations(page, null)).toEqual([]);
    // Roles, names and order are the same in both themes; the contrast is not.
    await page.evaluate(() => (document.documentElement.dataset.theme = "lamp"));
    expect(await violations(page, ["color-contrast"])).toEqual([]);
    const over = await page.evaluate(() => [
      document.documentElement.scrollWidth - innerWidth,
      document.documentElement.scrollHeight - innerHeight,
    ]);
    expect(over).toEqual([0, 0]);
    for (const size of SIZES) {
      await page.setViewportSize(size);
      await page.waitForTimeout(100);
      expect.soft(await whatIsCut(page), `${size.width} × ${size.height}`).toEqual([]);
    }
    expect(complaints.filter((c) => !c.includes("404"))).toEqual([]);
  });

test("every screen is looked at", () => {
  const paths = LOOKED_AT.map(([, path]) => path);
  expect(SCREENS.filter((screen) => !paths.some((path) => path.startsWith(screen.path)))).toEqual([]);
});

test("no name of the demo is cut short in the library, and all works from 1024 wide", async ({ page, server }) => {
  await open(page, server, "day", "/library");
  await expect(page.getByRole("listbox").getByRole("option").first()).toBeVisible();
  const cut = await page.evaluate(() =>
    [...document.querySelectorAll("[role=option] .name")]
      .filter((e) => e.scrollWidth > e.clientWidth)
      .map((e) => e.textContent),
  );
  expect(cut).toEqual([]);
  await page.setViewportSize({ width: 1024, height: 768 });
  await expect(page.getByRole("complementary", { name: "Card" })).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(1024);
});

test("the policy of a page lets in its own scripts by nonce, and no others", async ({ server }) => {
  const answer = await fetch(`${server.url}/library`);
  const policy = answer.headers.get("content-security-policy") ?? "";
  const nonce = /'nonce-([^']+)'/.exec(policy)?.[1];
  expect(policy).toContain("'strict-dynamic'");
  expect(policy).not.toContain("script-src 'self' 'unsafe-inline'");
  const scripts = (await answer.text()).match(/<script[^>]*>/g) ?? [];
  expect(scripts.length).toBeGreaterThan(3);
  for (const script of scripts) expect(script).toContain(`nonce="${nonce}"`);
});
