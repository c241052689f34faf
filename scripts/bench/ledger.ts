import { mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import type { Browser, Page } from "@playwright/test";
import { spawnServer } from "../../e2e/server";
import { emptyCard } from "../../src/core/presets/preset";
import { insertProject } from "../../src/server/repositories/projects";
import { openContext } from "../../src/server/store/open";
import { inTransaction } from "../../src/server/store/transaction";
import { savePreset } from "../../src/server/use-cases/library";
import { type Figure, median, ratioOf } from "./figure";
import { projectOf, setOf24 } from "./projects";

const PORT = 4793;
const RUNS = 7;
const URL = `http://127.0.0.1:${PORT}`;

/** Fills a folder with a project of 200 strips, one of 8, and a set of 24; the id of the set. */
async function fill(folder: string): Promise<string> {
  const context = await openContext(folder);
  const at = context.now().toISOString();
  await inTransaction(context, async (tx, note) => {
    for (const project of [projectOf("large", 200), projectOf("small", 8)]) {
      await insertProject(tx, { project, at });
      note({ kind: "project", id: project.id });
    }
  });
  const set = await savePreset(context, { preset: { kind: "set", content: setOf24(), card: emptyCard("Set") } });
  if (!set.ok) throw new Error(set.error.message);
  await context.close();
  return set.value.id;
}

/** Milliseconds from going to a project until its first strip is there. */
async function openOnce(page: Page, project: string): Promise<number> {
  const begin = performance.now();
  await page.goto(`${URL}/projects/${project}`);
  await page.locator("[role=row] .name").first().waitFor();
  return performance.now() - begin;
}

/** Milliseconds from the press on Apply until the changed ledger is drawn. Taken back then, and back to the plan. */
async function applyOnce(page: Page): Promise<number> {
  // A plan that is made anew behind an undo cannot be applied yet.
  const apply = page.getByRole("button", { name: /^Apply [1-9]\d* changes$/, disabled: false });
  await page.waitForLoadState("networkidle");
  await apply.waitFor();
  const took = await apply.evaluate(async (button) => {
    const frame = () => new Promise<number>((resolve) => requestAnimationFrame(resolve));
    const begin = performance.now();
    (button as HTMLButtonElement).click();
    while (
      !document.querySelector("[data-strip] .name, [role=grid] [role=row] .name") ||
      location.pathname !== "/projects/large"
    )
      if (performance.now() - begin < 30_000) await frame();
      else throw new Error("Nothing was applied within half a minute");
    // That frame, and the one in which it is seen.
    await frame();
    return performance.now() - begin;
  });
  const project = (await (await fetch(`${URL}/api/projects/large`)).json()) as { revision: number };
  await fetch(`${URL}/api/projects/large/undo`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ baseRevision: project.revision }),
  });
  await page.goBack();
  return took;
}

/** A project of 200 strips opened ÷ one of 8; a plan of 24 strips onto the 200 applied, and the ledger drawn. */
export async function largeLedger(browser: Browser): Promise<readonly Figure[]> {
  const folder = mkdtempSync(join(process.cwd(), ".bench-"));
  const set = await fill(folder);
  const { child } = await spawnServer(folder, PORT);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    for (const warm of ["large", "small", "large", "small"]) await openOnce(page, warm);
    const opened = await ratioOf(
      RUNS,
      () => openOnce(page, "large"),
      () => openOnce(page, "small"),
    );
    await page.goto(`${URL}/projects/large/plan?preset=${set}&version=1`);
    for (let warm = 0; warm < 2; warm++) await applyOnce(page);
    const applied: number[] = [];
    for (let run = 0; run < RUNS; run++) applied.push(await applyOnce(page));
    return [
      { name: "open-200", value: opened, op: "<=", goal: 1.5, unit: "ratio", runs: RUNS },
      { name: "apply-200", value: median(applied), op: "<=", goal: 100, unit: "ms", runs: RUNS },
    ];
  } finally {
    child.kill("SIGTERM");
    await new Promise((resolve) => child.once("exit", resolve));
    rmSync(folder, { recursive: true, force: true });
  }
}
