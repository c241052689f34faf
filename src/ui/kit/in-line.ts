import { onLeaving } from "@/clients/leaving";

interface How {
  /** Whether it is begun at once when the page is left: for work that can stand without what is before it, and does the same. */
  readonly standsAlone?: boolean;
}

type Line = <T>(work: () => Promise<T>, how?: How) => Promise<T>;

/** Work that is done one piece after the other: what comes second begins on what the first has left. */
export function createLine(): Line {
  let last: Promise<unknown> = Promise.resolve();
  return <T>(work: () => Promise<T>, { standsAlone = false }: How = {}) => {
    let begun: Promise<T> | null = null;
    const begin = () => (begun ??= work());
    const stay = standsAlone ? onLeaving(() => void begin()) : null;
    const mine = last.then(() => {
      stay?.();
      return begin();
    });
    last = mine.catch(() => undefined);
    return mine;
  };
}
