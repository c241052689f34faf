import { mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import type { Browser, Page } from "@playwright/test";
import { spawnServer } from "../../e2e/server";
import { openContext } from "../../src/server/store/open";
import { type Figure, median, ratioOf } from "./figure";
import { MANY, fill } from "./library";

const FEW = 100;
const RUNS = 7;

interface Opened {
  readonly page: Page;
  readonly url: string;
  readonly close: () => Promise<void>;
}

async function serve(browser: Browser, count: number, port: number): Promise<Opened> {
  const folder = mkdtempSync(join(process.cwd(), ".bench-"));
  const context = await openContext(folder);
  await fill(context, count);
  await context.close();
  const { child } = await spawnServer(folder, port);
  const page = await browser.newPage();
  const close = async () => {
    await page.close();
    child.kill("SIGTERM");
    await new Promise((resolve) => child.once("exit", resolve));
    rmSync(folder, { recursive: true, force: true });
  };
  return { page, url: `http://127.0.0.1:${port}`, close };
}

/** Milliseconds from going to the library until its first line is there and the list can have the focus. */
async function openOnce({ page, url }: Opened): Promise<number> {
  const begin = performance.now();
  await page.goto(`${url}/library`);
  await page.getByRole("listbox", { name: "Sounds" }).getByRole("option").first().waitFor();
  await page.getByRole("listbox", { name: "Sounds" }).focus();
  return performance.now() - begin;
}

/** Frames of a scroll through the whole list, from its first line to its last: the share that came later than two frames. */
async function scrollThrough({ page }: Opened): Promise<number> {
  return page.evaluate(async () => {
    const list = document.querySelector("[role=listbox]")?.parentElement;
    if (!list) throw new Error("There is no list.");
    const STEPS = 240;
    const frame = () => new Promise<number>((resolve) => requestAnimationFrame(resolve));
    let [late, before] = [0, await frame()];
    for (let step = 1; step <= STEPS; step++) {
      list.scrollTop = (list.scrollHeight * step) / STEPS;
      const now = await frame();
      if (now - before > 34) late += 1;
      before = now;
    }
    return late / STEPS;
  });
}

/** Some 5,000 of all, which are half an hour apart. */
const FIVE_THOUSAND = "saved:2018-01-01..2018-04-14";
const LETTERS = 24;

/** All of them renamed by a pattern: from a letter that is typed to the first name as it would be, in milliseconds. */
async function typePattern({ page, url }: Opened): Promise<readonly number[]> {
  await page.goto(`${url}/library?only=${encodeURIComponent(FIVE_THOUSAND)}`);
  const list = page.getByRole("listbox", { name: "Sounds" });
  await list.getByRole("option").first().waitFor();
  await list.focus();
  await page.keyboard.press("Control+a");
  await page
    .getByText(/^4,992 /)
    .first()
    .waitFor();
  await page.keyboard.press("r");
  const field = page
    .getByRole("dialog")
    .getByRole("combobox")
    .or(page.getByRole("dialog").getByRole("textbox"))
    .first();
  await field.fill("{name} ");
  await page.waitForTimeout(1000);
  await page.evaluate(() => {
    const told = { letter: 0, times: [] as number[] };
    Object.assign(window, { told });
    document.addEventListener("keydown", ({ timeStamp }) => (told.letter = timeStamp), true);
    new MutationObserver(() => {
      if (told.letter > 0) told.times.push(performance.now() - told.letter);
      told.letter = 0;
    }).observe(document.querySelector("[aria-label='Names before and after'] tr td:last-child")!, {
      subtree: true,
      childList: true,
      characterData: true,
    });
  });
  for (let n = 0; n < LETTERS; n++) {
    await page.keyboard.press("x");
    await page.waitForTimeout(400);
  }
  return page.evaluate(() => (window as unknown as { readonly told: { readonly times: number[] } }).told.times);
}

/** Opening 100,000 presets ÷ opening 100, warm; and how smoothly the long list scrolls. */
export async function openLibrary(browser: Browser): Promise<readonly Figure[]> {
  const many = await serve(browser, MANY, 4791);
  const few = await serve(browser, FEW, 4792);
  try {
    for (const warm of [many, few, many, few]) await openOnce(warm);
    const value = await ratioOf(
      RUNS,
      () => openOnce(many),
      () => openOnce(few),
    );
    const late: number[] = [];
    for (let run = 0; run < 3; run++) late.push(await scrollThrough(many));
    const letters = await typePattern(many);
    return [
      { name: "pattern-5k", value: median(letters), op: "<=", goal: 50, unit: "ms", runs: letters.length },
      { name: "open", value, op: "<=", goal: 1.5, unit: "ratio", runs: RUNS },
      { name: "scroll-100k-late", value: median(late), op: "<=", goal: 0.1, unit: "share of frames", runs: 3 },
    ];
  } finally {
    await many.close();
    await few.close();
  }
}
