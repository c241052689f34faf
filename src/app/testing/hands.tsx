import { act, fireEvent } from "@testing-library/react";
import { useActionKeys } from "@/ui/actions/actions";

/** Takes the keys that a screen offers, as the frame does around every screen. */
export function Keys() {
  useActionKeys();
  return null;
}

/** One press of a key, on the page unless something has the focus. */
export const press = (key: string, held: Partial<KeyboardEventInit> = {}, on: Element = document.body): void =>
  act(() => void fireEvent.keyDown(on, { key, ...held }));

export const undo = (): void => press("z", { ctrlKey: true });
