/** Work that is done one piece after the other: what comes second begins on what the first has left. */
export function createLine(): <T>(work: () => Promise<T>) => Promise<T> {
  let last: Promise<unknown> = Promise.resolve();
  return (work) => {
    const mine = last.then(work, work);
    last = mine.catch(() => undefined);
    return mine;
  };
}
