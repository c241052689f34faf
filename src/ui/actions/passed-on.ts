const PASSED = new WeakSet<Event>();

/** A key that something on screen would take, and that is none of its: with Ctrl or Alt it is the screen's. */
export function passOn(event: { readonly nativeEvent: Event; readonly preventDefault: () => void }): void {
  PASSED.add(event.nativeEvent);
  event.preventDefault();
}

/** Whether somebody has done with an event what there was to do. */
export const isDone = (event: Event): boolean => event.defaultPrevented && !PASSED.has(event);
