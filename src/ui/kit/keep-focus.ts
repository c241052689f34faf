"use client";

import { useLayoutEffect } from "react";
import { takePlace } from "../actions/reached";

const FOCUSABLE =
  "button:not(:disabled), a[href], input:not(:disabled):not([type=hidden]), select:not(:disabled), textarea:not(:disabled), [tabindex]";

/** What the screens stand in. */
const SCREEN = "main";

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

/** Whether it is drawn at all: while a part of the page is on its way, what stood there is kept, and not shown. */
const isShown = (element: Element): boolean => !("checkVisibility" in element) || element.checkVisibility();

const isFree = (element: Element): element is HTMLElement =>
  element instanceof HTMLElement &&
  element.matches(FOCUSABLE) &&
  element.closest("[hidden], [inert]") === null &&
  isShown(element);

const firstFree = (root: Element, left: Element | null): HTMLElement | null =>
  [root, ...root.querySelectorAll(FOCUSABLE)].find(
    (element): element is HTMLElement => element !== left && isFree(element),
  ) ?? null;

/** What stands now in the place of one that is gone, within one that was around it. */
function heirOf(around: Element, place: number, left: Element | null): HTMLElement | null {
  // All of the screen is another: none of its buttons is what the hand was on.
  if (around instanceof HTMLElement && around.matches(SCREEN)) return around;
  const heir = around.children[Math.min(place, around.children.length - 1)];
  return (heir && firstFree(heir, left)) ?? firstFree(around, left);
}

/** What stands now where the path led: the same, else what took its place, else what is nearest around it; not what is being left. */
function standingAt(path: Path, left: Element | null = null): HTMLElement | null {
  const [own, ...around] = path;
  if (!own) return null;
  if (own.element.isConnected && own.element !== left && isFree(own.element)) return own.element;
  for (const [depth, { element }] of around.entries()) {
    const found = element.isConnected ? heirOf(element, path[depth]?.at ?? 0, left) : null;
    if (found) return found;
  }
  return null;
}

/** Gives the focus to what takes the place of something else: it was reached as that was. */
function handOn(from: Element | undefined, to: HTMLElement | null): void {
  if (!to) return;
  takePlace(from, to);
  to.focus({ preventScroll: true });
}

/** Where the hand was before it came to each field. */
const cameFrom = new WeakMap<Element, Path>();

/** A field that is done with gives the hand back to where it was before. */
export function giveBack(field: HTMLElement): void {
  const to = standingAt(cameFrom.get(field) ?? [], field) ?? document.querySelector<HTMLElement>(SCREEN);
  if (to) handOn(field, to);
  else field.blur();
}

/**
 * The focus never falls to the bare page. When what had it goes (a field that was typed in, a sheet, a plugin that was taken
 * out, a button that has nothing more to do), it is given to what took its place, or to where the hand was before.
 */
export function useKeepFocus(): void {
  // With the first drawing, not behind it: a page that has come to life has the focus.
  useLayoutEffect(() => {
    let last: Path = [];
    let under: Path = [];
    const onFocusIn = ({ target, relatedTarget }: FocusEvent) => {
      if (!(target instanceof Element)) return;
      const from = relatedTarget instanceof Element ? pathTo(relatedTarget) : [];
      cameFrom.set(target, from.length > 0 ? from : last);
      last = pathTo(target);
      if (!target.closest(OVER)) under = last;
    };
    const keep = (isDrawn: boolean) => {
      const { activeElement: has } = document;
      if (has && has !== document.body && !has.matches(":disabled") && (!isDrawn || isShown(has))) return;
      handOn(last[0]?.element, standingAt(last) ?? standingAt(under) ?? document.querySelector<HTMLElement>(SCREEN));
    };
    const keepDrawn = () => keep(true);
    // A control that is switched off while it has the focus loses it when the page is next drawn.
    let drawn = 0;
    const soon = () => {
      keep(false);
      cancelAnimationFrame(drawn);
      drawn = requestAnimationFrame(keepDrawn);
    };
    const changes = new MutationObserver(soon);
    changes.observe(document.body, {
      childList: true,
      subtree: true,
      attributes: true,
      attributeFilter: ["disabled", "hidden", "inert"],
    });
    // A press beside everything, as on what lies behind a sheet, takes the focus away without a change of the page.
    const onFocusOut = ({ relatedTarget }: FocusEvent) => {
      if (relatedTarget === null) drawn = requestAnimationFrame(() => document.hasFocus() && keepDrawn());
    };
    window.addEventListener("focusin", onFocusIn);
    window.addEventListener("focusout", onFocusOut);
    keepDrawn();
    return () => {
      changes.disconnect();
      cancelAnimationFrame(drawn);
      window.removeEventListener("focusin", onFocusIn);
      window.removeEventListener("focusout", onFocusOut);
    };
  }, []);
}
