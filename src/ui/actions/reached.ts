/**
 * How each control came by the focus. On one that the pointer pressed Space plays on, as everywhere; one that was reached
 * by Tab or an arrow is pressed by Space, as people who work without a pointer need it.
 */
const pointed = new WeakSet<Element>();

type Input = "pointer" | "walk" | "key";

const WALKS = /^(Tab|Arrow|Home|End|Page)/;

/** Watches both kinds of input; answers with the way to stop. */
export function watchReach(): () => void {
  let last: Input = "key";
  /** Where the hand was before it opened a list of choices with the pointer. */
  let before: Element | null = null;
  const onPointerDown = ({ target }: PointerEvent) => {
    last = "pointer";
    before = document.activeElement;
    const control = target instanceof Element ? target.closest(CONTROL) : null;
    if (control) pointed.add(control);
  };
  const onKeyDown = ({ key }: KeyboardEvent) => {
    if (key !== " ") last = WALKS.test(key) ? "walk" : "key";
  };
  const onFocusIn = ({ target }: FocusEvent) => {
    if (!(target instanceof Element)) return;
    if (last === "pointer") pointed.add(target);
    if (last === "walk") pointed.delete(target);
  };
  const onChange = ({ target }: Event) => {
    if (
      target instanceof HTMLSelectElement &&
      pointed.has(target) &&
      before instanceof HTMLElement &&
      before !== target
    )
      before.focus({ preventScroll: true });
  };
  const options = { capture: true } as const;
  window.addEventListener("pointerdown", onPointerDown, options);
  window.addEventListener("keydown", onKeyDown, options);
  window.addEventListener("focusin", onFocusIn, options);
  window.addEventListener("change", onChange);
  return () => {
    window.removeEventListener("pointerdown", onPointerDown, options);
    window.removeEventListener("keydown", onKeyDown, options);
    window.removeEventListener("focusin", onFocusIn, options);
    window.removeEventListener("change", onChange);
  };
}

const CONTROL = "button, a, summary, select, [role=switch], [role=checkbox], [role=radio], [role=tab]";

/** What takes the place of another is reached as that was. */
export function takePlace(of: Element | undefined, heir: Element): void {
  if (of && pointed.has(of)) pointed.add(heir);
}

export const isPointed = (control: Element): boolean => pointed.has(control);
