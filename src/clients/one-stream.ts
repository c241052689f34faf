/*
 * One stream of events for all tabs of a browser. A browser keeps six lines to a host, and a stream in each tab would take them
 * all. The tab that holds the lock reads the stream and passes on what it hears; when it is closed, the browser gives the lock to
 * the next one that waits for it.
 */

/** What is heard: a message of the stream, or that something may have been missed. */
export type Heard = { readonly message: string } | { readonly missed: true };

const NAME = "diathesis events";

/** Opens the stream and reports all that it says. Returns how to close it. */
function read(address: string, event: string, onHeard: (heard: Heard) => void, isFirst: boolean): () => void {
  const source = new EventSource(address);
  // What happened while there was no line, as after a sleep, a new start of the server or of another tab, was not told.
  let mayHaveMissed = !isFirst;
  source.addEventListener("open", () => {
    if (mayHaveMissed) onHeard({ missed: true });
    mayHaveMissed = true;
  });
  source.addEventListener(event, (told: MessageEvent<string>) => onHeard({ message: told.data }));
  return () => source.close();
}

/**
 * Hears what a stream of the server tells, in every tab, from one stream. Where a browser has no locks to share, each tab has its
 * own. Returns how to stop.
 */
export function hearOneStream(address: string, event: string, onHeard: (heard: Heard) => void): () => void {
  // Not everywhere that this runs has them.
  const locks = typeof navigator === "undefined" ? undefined : (navigator as { readonly locks?: LockManager }).locks;
  if (!locks || typeof BroadcastChannel === "undefined") return read(address, event, onHeard, true);
  const channel = new BroadcastChannel(NAME);
  channel.onmessage = ({ data }: MessageEvent<Heard>) => onHeard(data);
  const tell = (heard: Heard) => {
    onHeard(heard);
    channel.postMessage(heard);
  };
  const stopped = new AbortController();
  const began = performance.now();
  locks
    .request(NAME, { signal: stopped.signal }, () => {
      // Whoever has waited for the lock takes over from a tab that is gone.
      const hasWaited = performance.now() - began > TAKEN_AT_ONCE;
      const close = read(address, event, tell, !hasWaited);
      return new Promise<void>((resolve) => {
        stopped.signal.addEventListener("abort", () => {
          close();
          resolve();
        });
      });
    })
    .catch(() => undefined);
  return () => {
    stopped.abort();
    channel.close();
  };
}

/** A lock that nobody has is given within this time, in milliseconds. */
const TAKEN_AT_ONCE = 500;
