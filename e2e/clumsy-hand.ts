import type { Browser, Page, Request } from "@playwright/test";
import canonicalize from "canonicalize";
import { type Random, seededRandom } from "@/core/random";

/*
 * A hand that presses, clicks, drags, goes back and reloads at random, quickly and without waiting. After each movement nothing may
 * have gone wrong; when everything is undone at the end, all is as it was.
 */

const KEYS = [
  ..."abcdefghiklmnopqrtuvwxyz".split(""),
  ..."0123456789".split(""),
  ...[",", ".", "/", "?", "[", "]", " "],
  ...["Escape", "Enter", "Tab", "Delete", "Backspace", "Home", "End", "PageDown", "PageUp"],
  ...["ArrowUp", "ArrowDown", "ArrowLeft", "ArrowRight"],
  ...["Shift+Tab", "Shift+Enter", "Shift+ArrowDown", "Shift+ArrowRight", "Shift+ArrowLeft", "Shift+n", "Shift+p"],
  ...["Alt+1", "Alt+2", "Alt+3", "Alt+4", "Alt+5", "Alt+ArrowLeft", "Alt+ArrowRight", "Alt+ArrowDown"],
  ...["Control+a", "Control+k", "Control+s", "Control+Shift+s", "Control+Enter", "Control+Alt+n"],
  ...["Control+c", "Control+x", "Control+v", "Control+z", "Control+z", "Control+Shift+z", "Control+y"],
];

const ADDRESSES = [
  "/library",
  "/bench",
  "/projects/salt-lanterns/wrap-up",
  "/archive",
  "/bench?new=1",
  "/bench?preset=rim-and-air",
  "/bench?preset=narrator-close",
  "/bench?project=salt-lanterns&strip=voice",
  "/projects",
  "/projects/salt-lanterns",
  "/projects/salt-lanterns/past",
  "/projects/salt-lanterns/beside?with=ferry-light",
  "/projects/neap-tide",
  "/projects/salt-lanterns/plan?preset=rim-and-air&strips=voice",
  "/plugins",
];

const TYPED = ["rim", "-6", "90 Hz", "1/8", "Chapel", "tag:warm", "…", "Zu später Stunde", "12:1", ""];

/** What cannot be taken back is asked about first, and is left alone: it is what undo is not promised for. */
const FOR_GOOD = /empty|for good|remove the|take (.* )?away|restore/i;

interface Target {
  readonly x: number;
  readonly y: number;
  readonly what: string;
  readonly isSelect: boolean;
}

/** Something that can be pressed and is in sight and uncovered, by chance. */
function findTarget(page: Page, share: number): Promise<Target | null> {
  return page.evaluate(
    ({ at, forGood }) => {
      const all = document.querySelectorAll<HTMLElement | SVGElement>(
        "button, a[href], select, textarea, input:not([type=file]), [role=option], [role=row], [role=slider], [role=switch], [role=checkbox], [role=radio], [role=menuitem], [data-node]",
      );
      const found: { x: number; y: number; what: string; isSelect: boolean }[] = [];
      for (const element of all) {
        if (element.matches(":disabled, [aria-disabled=true], [data-disabled]")) continue;
        const { left, top, width, height } = element.getBoundingClientRect();
        const [x, y] = [left + width / 2, top + height / 2];
        if (width < 3 || height < 3 || x < 0 || y < 0 || x > innerWidth || y > innerHeight) continue;
        const hit = document.elementFromPoint(x, y);
        if (!hit || !(element.contains(hit) || hit.contains(element))) continue;
        const what = (element.getAttribute("aria-label") ?? element.textContent ?? "").trim().slice(0, 60);
        if (new RegExp(forGood, "i").test(what)) continue;
        found.push({
          x,
          y,
          what: `${element.getAttribute("role") ?? element.tagName} “${what}”`,
          isSelect: element.tagName === "SELECT",
        });
      }
      return found[Math.floor(at * found.length)] ?? null;
    },
    { at: share, forGood: FOR_GOOD.source },
  );
}

/** How long a page may take until it is there after it was loaded, on a machine that has other work, in ms. */
const LOADING = 20_000;
/** How long the focus may be on its way from what is gone to what stands there now, in ms. */
const ON_ITS_WAY = 400;
/** How long a page that was loaded just now may take from its first part that lives to the last, in ms in which it has nothing to do. */
const COMING_TO_LIFE = 3000;

/** Whether a Tab went out of the page by its end, to the browser's own keys, as it should: the next one comes in again. */
async function wentOut(page: Page, movement: string, isQuiet: () => boolean): Promise<boolean> {
  const way = /^press ((?:Shift\+)?Tab)/.exec(movement)?.[1];
  if (way === undefined) return false;
  await page.keyboard.press(way);
  return !(await staysBare(page, isQuiet));
}

/**
 * Whether the focus is on the bare page and stays there, though the page has nothing to do and waits for nothing. Of a page that was
 * loaded just now only once it has come to life: until then it takes no key either.
 */
async function staysBare(page: Page, isQuiet: () => boolean): Promise<boolean> {
  const look = () =>
    page.evaluate(async () => {
      const { activeElement } = document;
      const bare =
        activeElement === null || activeElement === document.body || activeElement === document.documentElement;
      const isAlive = Object.keys(document.querySelector("main") ?? {}).some((key) => key.startsWith("__reactFiber"));
      const isIdle =
        bare &&
        (await new Promise<boolean>((resolve) =>
          requestIdleCallback(({ didTimeout }) => resolve(!didTimeout), { timeout: 250 }),
        ));
      return { bare, isAlive, isIdle, age: performance.now() };
    });
  const began = Date.now();
  let [isNew, idle] = [false, 0];
  for (let then = began; ; await page.waitForTimeout(50)) {
    const { bare, isAlive, isIdle, age } = await look();
    if (!bare) return false;
    const now = Date.now();
    const isWaiting = !isIdle || !isQuiet();
    if (!isAlive && age < LOADING) [idle, isNew] = [0, true];
    // A machine that has other work draws a moment out: it counts as no more than it was meant to be.
    else if (!isWaiting || now - began > LOADING) idle += Math.min(now - then, 100);
    then = now;
    if (idle > (isNew ? COMING_TO_LIFE : ON_ITS_WAY)) return true;
  }
}

interface Watch {
  /** What has gone wrong since it was asked last. */
  readonly faults: () => readonly string[];
  /** Whether the page waits for no answer. */
  readonly isQuiet: () => boolean;
}

function watch(page: Page): Watch {
  let faults: string[] = [];
  const asked = new Set<Request>();
  // A stream of events is never answered to its end.
  page.on("request", (request) => {
    if (request.isNavigationRequest()) asked.clear();
    if (request.resourceType() !== "eventsource") asked.add(request);
  });
  page.on("requestfinished", (request) => asked.delete(request));
  page.on("requestfailed", (request) => asked.delete(request));
  page.on("console", (message) => {
    // What the server refused is told with its reason below.
    if (message.type() === "error" && !message.text().startsWith("Failed to load resource"))
      faults.push(`console: ${message.text()}`);
  });
  page.on("pageerror", (error) => faults.push(`thrown: ${error.message}`));
  page.on("response", (response) => {
    if (response.status() < 400) return;
    // The Undo of an old message says so where something later stands on its change: that is an answer, not a fault.
    const isOld = response.url().endsWith("/undo") && /"(revision|n)":/.test(response.request().postData() ?? "");
    if (response.status() === 422 && isOld) return;
    const request = `${response.request().method()} ${response.url()} ${response.request().postData()?.slice(0, 300) ?? ""}`;
    void response.text().then(
      (text) => faults.push(`${response.status()} ${request}\n      ${text.slice(0, 300)}`),
      () => faults.push(`${response.status()} ${request}`),
    );
  });
  page.on("download", (download) => void download.cancel().catch(() => undefined));
  // A chooser that nobody answers would stand there for ever.
  page.on("filechooser", () => undefined);
  return {
    faults: () => {
      const since = faults;
      faults = [];
      return since;
    },
    isQuiet: () => asked.size === 0,
  };
}

type Movement = (page: Page, chance: Random) => Promise<string>;

const pick = <T>(all: readonly T[], chance: Random): T => all[Math.floor(chance() * all.length)]!;

const press: Movement = async (page, chance) => {
  const key = pick(KEYS, chance);
  const times = chance() < 0.15 ? 2 + Math.floor(chance() * 3) : 1;
  for (let n = 0; n < times; n++) await page.keyboard.press(key);
  return `press ${key}${times > 1 ? ` ${times} times` : ""}`;
};

const click =
  (how: "once" | "twice" | "right" | "held"): Movement =>
  async (page, chance) => {
    const target = await findTarget(page, chance());
    if (!target) return "nothing to click";
    const { x, y, what, isSelect } = target;
    // The list of a select is drawn by the system: no pointer of a page reaches it.
    if (isSelect) {
      await page.keyboard.press("ArrowDown");
      return "press ArrowDown";
    }
    const held = how === "held" ? pick(["Shift", "Control"], chance) : null;
    if (held) await page.keyboard.down(held);
    await page.mouse.click(x, y, { button: how === "right" ? "right" : "left", clickCount: how === "twice" ? 2 : 1 });
    if (held) await page.keyboard.up(held);
    return `click ${how} ${what}`;
  };

const drag: Movement = async (page, chance) => {
  const [from, to] = [await findTarget(page, chance()), await findTarget(page, chance())];
  if (!from || !to || from.isSelect) return "nothing to drag";
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  const near = chance() < 0.5;
  const [x, y] = near ? [from.x + 80 * (chance() - 0.5), from.y + 40 * (chance() - 0.5)] : [to.x, to.y];
  await page.mouse.move((from.x + x) / 2, (from.y + y) / 2);
  await page.mouse.move(x, y, { steps: 2 });
  const escaped = chance() < 0.3;
  if (escaped) await page.keyboard.press("Escape");
  await page.mouse.up();
  return `drag ${from.what} to ${near ? "beside" : to.what}${escaped ? ", with Escape" : ""}`;
};

const wheel: Movement = async (page, chance) => {
  const target = await findTarget(page, chance());
  if (!target) return "nothing under the wheel";
  await page.mouse.move(target.x, target.y);
  await page.mouse.wheel(0, chance() < 0.5 ? 120 : -120);
  return `wheel over ${target.what}`;
};

const type: Movement = async (page, chance) => {
  const words = pick(TYPED, chance);
  await page.keyboard.type(words);
  if (chance() < 0.5) await page.keyboard.press("Enter");
  return `type “${words}”`;
};

const away: Movement = async (page, chance) => {
  const way = chance();
  if (way < 0.4) {
    const { origin } = new URL(page.url());
    // The page may be gone before it has answered.
    await page.evaluate(() => history.back()).catch(() => undefined);
    await page.waitForTimeout(50);
    // Before the first page there is none of ours.
    if (!page.url().startsWith(origin)) await page.goto(`${origin}/library`, { waitUntil: "domcontentloaded" });
    return "Back";
  }
  if (way < 0.5) {
    await page.evaluate(() => history.forward());
    return "Forward";
  }
  if (way < 0.7) {
    await page.reload({ waitUntil: "domcontentloaded" });
    return "reload";
  }
  const address = pick(ADDRESSES, chance);
  await page.goto(new URL(address, page.url()).href, { waitUntil: "domcontentloaded" });
  return `go to ${address}`;
};

const MOVEMENTS: readonly (readonly [Movement, number])[] = [
  [press, 40],
  [click("once"), 28],
  [click("twice"), 5],
  [click("right"), 3],
  [click("held"), 3],
  [drag, 8],
  [wheel, 3],
  [type, 5],
  [away, 5],
];
const WEIGHT = MOVEMENTS.reduce((sum, [, weight]) => sum + weight, 0);

function chosen(chance: Random): Movement {
  let left = chance() * WEIGHT;
  return MOVEMENTS.find(([, weight]) => (left -= weight) < 0)?.[0] ?? press;
}

interface Asked {
  readonly url: string;
}

async function ask<T>({ url }: Asked, method: string, path: string, body?: unknown): Promise<T> {
  const response = await fetch(`${url}${path}`, {
    method,
    headers: { "Content-Type": "application/json", Origin: url },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
  return (await response.json()) as T;
}

interface Body {
  readonly project: { readonly id: string };
  readonly revision: number;
  readonly history: { readonly undo: string | null };
}
interface Row {
  readonly id: string;
  readonly card: unknown;
}

/** What is promised to be as it was: the projects, a draft, and how the library is filed. */
interface Folder {
  readonly id: string;
  readonly name: string;
  readonly parent: string | null;
}

interface State {
  readonly projects: readonly unknown[];
  readonly folders: readonly Folder[];
  readonly cards: readonly Pick<Row, "id" | "card">[];
}

/** What there is, or, with what there was before, what has become of that: a sound that is saved stays, and the folder made for it. */
async function stateOf(server: Asked, ids: readonly string[], before: State | null = null): Promise<State> {
  const projects = [];
  for (const id of ids) projects.push((await ask<Body>(server, "GET", `/api/projects/${id}`)).project);
  const presets: Row[] = [];
  for (let offset = 0; ; ) {
    const { items } = await ask<{ items: Row[] }>(server, "GET", `/api/presets?sort=name&limit=200&offset=${offset}`);
    presets.push(...items);
    if (items.length < 200) break;
    offset += items.length;
  }
  const { folders } = await ask<{ folders: (Folder & { count: number })[] }>(server, "GET", "/api/folders");
  const was = (list: readonly { readonly id: string }[], id: string) => list.some((one) => one.id === id);
  const kept = presets.filter(({ id }) => before === null || was(before.cards, id));
  const filed = folders.filter(({ id, count }) => before === null || count === 0 || was(before.folders, id));
  return {
    projects,
    folders: filed.map(({ count: _, ...folder }) => folder),
    cards: kept.map(({ id, card }) => ({ id, card })).toSorted((a, b) => a.id.localeCompare(b.id)),
  };
}

/** What was thrown away is taken out of the bin first: there nothing is undone. */
async function undoAll(server: Asked, projects: readonly string[]): Promise<void> {
  const { projects: binned } = await ask<{ projects: { id: string }[] }>(server, "GET", "/api/projects?binned=true");
  for (const { id } of binned) await ask(server, "POST", `/api/projects/${id}/bin`, { binned: false });
  for (const id of projects)
    for (;;) {
      const { history, revision } = await ask<Body>(server, "GET", `/api/projects/${id}`);
      if (history.undo === null) break;
      await ask(server, "POST", `/api/projects/${id}/undo`, { baseRevision: revision });
    }
  for (;;) {
    const { history } = await ask<{ history: { undo: string | null } }>(server, "GET", "/api/library/history");
    if (history.undo === null) break;
    await ask(server, "POST", "/api/library/undo", {});
  }
}

export interface Clumsy {
  readonly seed: number;
  readonly actions: number;
}

/** Resolves when nothing went wrong; rejects with the seed, what was done before it, and what it was. */
export async function beClumsy(browser: Browser, server: Asked, clumsy: Clumsy): Promise<void> {
  const draft = (await ask<Body>(server, "POST", "/api/drafts", { preset: "rim-and-air" })).project.id;
  const listed = await ask<{ projects: { id: string }[] }>(server, "GET", "/api/projects");
  const projects = [...listed.projects.map(({ id }) => id), draft];
  // A project that another hand has made may have something to be taken back.
  await undoAll(server, projects);
  const first = await stateOf(server, projects);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  try {
    await context.grantPermissions(["clipboard-read", "clipboard-write"], { origin: server.url });
    // The browser's own menu is none of ours, and would take the keys.
    await context.addInitScript(() => window.addEventListener("contextmenu", (event) => event.preventDefault()));
    await beClumsyOn(await context.newPage(), server, clumsy);
  } finally {
    // A page that stays would have its say on whatever is served next at the same address.
    await context.close();
  }
  await undoAll(server, projects);
  const last = await stateOf(server, projects, first);
  for (const part of ["projects", "cards", "folders"] as const) {
    const [before, after] = [canonicalize(first[part]), canonicalize(last[part])];
    if (before !== after)
      complain(
        `Seed ${clumsy.seed}: everything undone, the ${part} are not as they were:\n${unlike(before ?? "", after ?? "")}`,
      );
  }
}

/** With SURVEY=1 it goes on, and prints all that it finds. */
function complain(fault: string): void {
  if (!process.env.SURVEY) throw new Error(fault);
  console.log(`FAULT ${fault}`);
}

async function beClumsyOn(page: Page, server: Asked, { seed, actions }: Clumsy): Promise<void> {
  const chance = seededRandom(seed);
  const watched = watch(page);
  const done: string[] = [];
  const fail = (fault: string): void =>
    complain(`Seed ${seed}, movement ${done.length} at ${page.url()}: ${fault}\n${done.slice(-25).join("\n")}`);
  await page.goto(`${server.url}/library`);
  await page.waitForLoadState("networkidle");
  for (let n = 0; n < actions; n++) {
    try {
      done.push(await chosen(chance)(page, chance));
      // A moment, as between two quick presses.
      if (chance() < 0.1) await page.waitForTimeout(100);
      const isOurs = () => page.url().startsWith(server.url);
      const isBare = isOurs() && (await staysBare(page, watched.isQuiet));
      if (!isOurs()) {
        // Behind the first page there is none of ours; it may have come up while the focus was looked for.
        await page.goto(`${server.url}/library`, { waitUntil: "domcontentloaded" });
      } else if (isBare && !(await wentOut(page, done.at(-1) ?? "", watched.isQuiet))) {
        fail("the focus is on the bare page");
        await page.evaluate(() => document.querySelector("main")?.focus());
      }
    } catch (error) {
      // The page went away while it was looked at.
      if (!/Execution context was destroyed|navigat|interrupted/i.test(String(error))) throw error;
      await page.waitForLoadState("domcontentloaded");
    }
    for (const fault of watched.faults()) fail(fault);
  }
  await page.waitForTimeout(1500);
  await page.waitForLoadState("networkidle");
  for (const fault of watched.faults()) fail(fault);
}

/** Where two texts begin to differ. */
function unlike(before: string, after: string): string {
  const at = [...before].findIndex((letter, n) => letter !== after[n]);
  const around = (text: string) => text.slice(Math.max(0, at - 80), at + 160);
  return `${around(before)}\n${around(after)}`;
}
