"use client";

/*
 * What of the library is looked at stands in the address: the sound, which version of it, a comparison. It is written over the
 * entry of the history that the list has, so that going back, reloading and handing the address on bring the same place again.
 */

/** At the least so long between two writings, in milliseconds: browsers take no more than some twenty a second. */
const PAUSE = 150;

type Written = Readonly<Record<string, string | null>>;

let waiting: Written | null = null;
let timer: ReturnType<typeof setTimeout> | null = null;

function put(changes: Written): void {
  if (window.location.pathname !== "/library") return;
  const params = new URLSearchParams(window.location.search);
  // A version is one of its sound.
  if (changes["sound"] !== undefined && changes["sound"] !== params.get("sound")) params.delete("version");
  for (const [name, value] of Object.entries(changes)) {
    if (value === null) params.delete(name);
    else params.set(name, value);
  }
  const address = params.size > 0 ? `/library?${params}` : "/library";
  if (address !== `${window.location.pathname}${window.location.search}`)
    window.history.replaceState(null, "", address);
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
  waiting?.[name] === undefined ? new URLSearchParams(window.location.search).get(name) : waiting[name];

/** The version of a sound that the address asks for; null for the newest. */
export function addressedVersion(id: string): number | null {
  const params = new URLSearchParams(window.location.search);
  const version = Number(params.get("version"));
  return params.get("sound") === id && Number.isInteger(version) && version > 0 ? version : null;
}
