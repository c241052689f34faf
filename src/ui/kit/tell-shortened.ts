"use client";

import { useEffect } from "react";

/** Whether a text ends in dots for want of room. */
function isShortened(element: Element): element is HTMLElement {
  if (!(element instanceof HTMLElement)) return false;
  const { textOverflow, webkitLineClamp } = getComputedStyle(element);
  if (textOverflow === "ellipsis") return element.scrollWidth > element.clientWidth;
  return webkitLineClamp !== "none" && element.scrollHeight > element.clientHeight;
}

const wordsOf = (element: HTMLElement): string =>
  element instanceof HTMLInputElement ? element.value : (element.textContent ?? "").trim();

/** A text that is shortened for want of room is told in full where the pointer rests on it, unless something else is told there. */
export function useTellShortened(): void {
  useEffect(() => {
    /** Whose words were put there here; they go again when there is room. */
    const told = new WeakSet<Element>();
    const onPointerOver = ({ target }: Event) => {
      for (let e = target instanceof Element ? target : null; e && e !== document.body; e = e.parentElement) {
        if (e.hasAttribute("title") && !told.has(e)) return;
        if (isShortened(e)) {
          told.add(e);
          e.title = wordsOf(e);
          return;
        }
        if (told.delete(e)) e.removeAttribute("title");
      }
    };
    document.addEventListener("pointerover", onPointerOver);
    return () => document.removeEventListener("pointerover", onPointerOver);
  }, []);
}
