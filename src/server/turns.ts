/** How long work goes on before others get their turn, in milliseconds. Several such stretches may meet. */
const STRETCH = 4;

/**
 * Long work gives way: awaited between its steps, it lets whatever else waits have a turn once a stretch of time has passed.
 * Without it, work that never waits for anything holds up every other request.
 */
export function takingTurns(): () => Promise<void> {
  let begun = performance.now();
  return async () => {
    if (performance.now() - begun < STRETCH) return;
    await new Promise<void>((resolve) => setImmediate(resolve));
    begun = performance.now();
  };
}
