"use client";

/*
 * What of the library is looked at stands in the address: the sound, which version of it, a comparison. It is written over the
 * entry of the history that the list has, so that going back, reloading and handing the address on bring the same place again.
 */

/** At the least so long between two writings, in milliseconds: browsers take no more than some twenty a second. */
const PAUSE = 150;

const LIBRARY = "/library";

type Written = Readonly<Record<string, string | null>>;

let waiting: Written | null = null;
let timer: ReturnType<typeof setTimeout> | null = null;

/**
 * What was written here, of which the screen has not been told yet, the newest last; and what it was told last. The router tells of
 * one writing after the other, and writes each anew while it does, also over a later one: what stands in the window's own address
 * may be older than what was written.
 */
const unseen: string[] = [];
let seen: string | null = null;

/** What the address says by now, a screen is told of it later. */
export const searchNow = (): URLSearchParams => new URLSearchParams(unseen.at(-1) ?? window.location.search);

/** Puts something else behind the path of the library; `remember`: going back brings what stood there. */
export function writeSearch(params: URLSearchParams, remember: boolean): void {
  const search = params.toString();
  const address = search === "" ? LIBRARY : `${LIBRARY}?${search}`;
  unseen.push(search);
  if (remember) window.history.pushState(null, "", address);
  else window.history.replaceState(null, "", address);
}

/** Whether what a screen is told is only what was written here, and maybe older than the newest. What comes from elsewhere is not. */
export function isEcho(told: string): boolean {
  if (told === seen) return unseen.length > 0;
  seen = told;
  const at = unseen.lastIndexOf(told);
  unseen.splice(0, at < 0 ? unseen.length : at + 1);
  return at >= 0;
}

/** Nothing that was written here is awaited any more: the screen is left, or another entry of the history is gone to. */
export function forgetWritten(): void {
  unseen.length = 0;
  seen = null;
}

function put(changes: Written): void {
  if (window.location.pathname !== LIBRARY) return;
  const before = searchNow();
  const params = new URLSearchParams(before);
  // A version is one of its sound.
  if (changes["sound"] !== undefined && changes["sound"] !== params.get("sound")) params.delete("version");
  for (const [name, value] of Object.entries(changes)) {
    if (value === null) params.delete(name);
    else params.set(name, value);
  }
  if (params.toString() !== before.toString()) writeSearch(params, false);
}

/** Writes what is still to be written: before another screen is opened. */
export function flushAddress(): void {
  if (timer !== null) clearTimeout(timer);
  timer = null;
  if (waiting) put(waiting);
  waiting = null;
}

/** Writes into the address what is looked at by now, null takes it out; of quick movements the last. */
export function writeAddress(changes: Written): void {
  waiting = { ...waiting, ...changes };
  if (timer !== null) return;
  flushAddress();
  timer = setTimeout(() => {
    timer = null;
    if (waiting) writeAddress(waiting);
  }, PAUSE);
}

/** What the address says of something, with what is about to be written there. A screen is told of its address later than this. */
export const addressed = (name: string): string | null =>
  waiting?.[name] === undefined ? searchNow().get(name) : waiting[name];

/** The version of a sound that the address asks for; null for the newest. */
export function addressedVersion(id: string): number | null {
  const params = searchNow();
  const version = Number(params.get("version"));
  return params.get("sound") === id && Number.isInteger(version) && version > 0 ? version : null;
}
