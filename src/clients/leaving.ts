/*
 * A page that is left, by a reload or with its window, hears no answer any more. What it has still to say it says now; what it
 * says, then or just before, the browser brings to the server when the page is gone.
 */

/** Browsers refuse what is to outlive a page beyond 64 kB, all together. In bytes, with room for what they count besides. */
const MOST_OUTLIVING = 60_000;

let isLeft = false;
let outliving = 0;
const last = new Set<() => void>();

/** Whether the page is being left. */
export const isLeaving = (): boolean => isLeft;

/** Does work when the page is being left. Returns how to take that back. */
export function onLeaving(work: () => void): () => void {
  last.add(work);
  return () => void last.delete(work);
}

/** Makes a request with a body, which outlives the page unless too much does already. */
export async function fetchOutliving(path: string, init: RequestInit & { readonly body: string }): Promise<Response> {
  const { body } = init;
  // A text has at least as many bytes as letters: of a long one they need not be counted.
  const bytes = body.length > MOST_OUTLIVING ? Infinity : new TextEncoder().encode(body).length;
  if (outliving + bytes > MOST_OUTLIVING) return fetch(path, init);
  outliving += bytes;
  try {
    return await fetch(path, { ...init, keepalive: true });
  } finally {
    outliving -= bytes;
  }
}

if (typeof window !== "undefined") {
  window.addEventListener("pagehide", () => {
    isLeft = true;
    for (const work of last) work();
  });
  // A page may be shown again as it was left.
  window.addEventListener("pageshow", () => {
    isLeft = false;
  });
}
