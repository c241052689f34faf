"use client";

import { useEffect } from "react";

const FOCUSABLE =
  "button:not(:disabled), a[href], input:not(:disabled):not([type=hidden]), select:not(:disabled), textarea:not(:disabled), [tabindex]";

/** What lies over the screen, and goes again. */
const OVER = "[role=dialog], [role=menu]";

/** An element with those around it, from the inside out, each with its place among its brothers. */
type Path = readonly { readonly element: Element; readonly at: number }[];

function pathTo(element: Element): Path {
  const path: { element: Element; at: number }[] = [];
  for (let e: Element | null = element; e && e !== document.body; e = e.parentElement)
    path.push({ element: e, at: e.parentElement ? [...e.parentElement.children].indexOf(e) : 0 });
  return path;
}

const isFree = (element: Element): element is HTMLElement =>
  element instanceof HTMLElement && element.matches(FOCUSABLE) && element.closest("[hidden], [inert]") === null;

const firstFree = (root: Element): HTMLElement | null =>
  isFree(root) ? root : ([...root.querySelectorAll(FOCUSABLE)].find(isFree) ?? null);

/** What stands now where the path led: the same, else what took its place, else what is nearest around it. */
function standingAt(path: Path): HTMLElement | null {
  const [own] = path;
  if (own?.element.isConnected && isFree(own.element)) return own.element;
  for (const [depth, { element }] of path.entries()) {
    if (depth === 0 || !element.isConnected) continue;
    const place = path[depth - 1]?.at ?? 0;
    const heir = element.children[Math.min(place, element.children.length - 1)];
    const found = (heir && firstFree(heir)) ?? firstFree(element);
    if (found) return found;
  }
  return null;
}

/** Where the hand was before it came to each field. */
const cameFrom = new WeakMap<Element, Path>();

/** A field that is done with gives the hand back to where it was before. */
export function giveBack(field: HTMLElement): void {
  const to = standingAt(cameFrom.get(field) ?? []) ?? document.querySelector("main");
  if (to) to.focus({ preventScroll: true });
  else field.blur();
}

/**
 * The focus never falls to the bare page. When what had it goes (a field that was typed in, a sheet, a plugin that was taken
 * out, a button that has nothing more to do), it is given to what took its place, or to where the hand was before.
 */
export function useKeepFocus(): void {
  useEffect(() => {
    const ground = document.querySelector("main");
    let last: Path = [];
    let under: Path = [];
    const onFocusIn = ({ target, relatedTarget }: FocusEvent) => {
      if (!(target instanceof Element)) return;
      const from = relatedTarget instanceof Element ? pathTo(relatedTarget) : [];
      cameFrom.set(target, from.length > 0 ? from : last);
      last = pathTo(target);
      if (!target.closest(OVER)) under = last;
    };
    const keep = () => {
      const { activeElement: has } = document;
      if (has && has !== document.body && !has.matches(":disabled")) return;
      (standingAt(last) ?? standingAt(under) ?? ground)?.focus({ preventScroll: true });
    };
    // A control that is switched off while it has the focus loses it when the page is next drawn.
    let drawn = 0;
    const soon = () => {
      keep();
      cancelAnimationFrame(drawn);
      drawn = requestAnimationFrame(keep);
    };
    const changes = new MutationObserver(soon);
    changes.observe(document.body, {
      childList: true,
      subtree: true,
      attributes: true,
      attributeFilter: ["disabled", "hidden", "inert"],
    });
    window.addEventListener("focusin", onFocusIn);
    keep();
    return () => {
      changes.disconnect();
      cancelAnimationFrame(drawn);
      window.removeEventListener("focusin", onFocusIn);
    };
  }, []);
}
