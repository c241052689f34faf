import type { Page } from "@playwright/test";

/** Sizes at which all must be in reach: as it is drawn, a small laptop, and 1280 × 800 made half as large again. */
export const SIZES = [
  { width: 1280, height: 800 },
  { width: 1024, height: 700 },
  { width: 853, height: 533 },
] as const;

/**
 * What is cut or out of reach now, in words: a control of which a part lies outside of what clips it and cannot be scrolled to; a
 * text that ends without a sign, or with one and without all of it being told.
 */
export function whatIsCut(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    interface Edge {
      readonly left: number;
      readonly top: number;
      readonly right: number;
      readonly bottom: number;
    }
    const SLACK = 1.5;
    const isShown = (element: Element) => {
      const { width, height } = element.getBoundingClientRect();
      return width > 1 && height > 1 && element.checkVisibility({ opacityProperty: true, visibilityProperty: true });
    };
    /** Which side of a box is lost, walking outwards through all that clips it; null where it can be brought into sight. */
    const lostSide = (box: Edge, from: Element): { readonly by: Element; readonly side: string } | null => {
      let { left, top, right, bottom } = box;
      let fixed = false;
      for (
        let around: Element | null = from;
        around && around !== document.documentElement;
        around = around.parentElement
      ) {
        const style = getComputedStyle(around);
        if (around !== from || style.overflowX !== "visible") {
          const own = around.getBoundingClientRect();
          const scrolls = { x: /auto|scroll/.test(style.overflowX), y: /auto|scroll/.test(style.overflowY) };
          if (!scrolls.x && style.overflowX !== "visible" && (left < own.left - SLACK || right > own.right + SLACK))
            return { by: around, side: left < own.left - SLACK ? "left" : "right" };
          if (!scrolls.y && style.overflowY !== "visible" && (top < own.top - SLACK || bottom > own.bottom + SLACK))
            return { by: around, side: top < own.top - SLACK ? "top" : "bottom" };
          // It can be scrolled to: from here on it stands where its container does.
          if (scrolls.x) [left, right] = [Math.max(left, own.left), Math.min(right, own.right)];
          if (scrolls.y) [top, bottom] = [Math.max(top, own.top), Math.min(bottom, own.bottom)];
          if ((scrolls.x && left > right) || (scrolls.y && top > bottom)) ({ left, top, right, bottom } = own);
        }
        if (style.position === "fixed") {
          fixed = true;
          break;
        }
      }
      const root = document.documentElement;
      const [width, height] = fixed ? [innerWidth, innerHeight] : [root.scrollWidth, root.scrollHeight];
      const [x, y] = fixed ? [0, 0] : [scrollX, scrollY];
      if (left + x < -SLACK || right + x > width + SLACK)
        return { by: root, side: right + x > width ? "right" : "left" };
      if (top + y < -SLACK || bottom + y > height + SLACK)
        return { by: root, side: bottom + y > height ? "bottom" : "top" };
      return null;
    };
    const words = (element: Element) =>
      `${element.tagName.toLowerCase()} “${(element.getAttribute("aria-label") ?? element.textContent ?? "").trim().slice(0, 50)}”`;
    const found: string[] = [];
    const open = document.querySelector("[role=dialog], [role=menu]");
    const root = open ?? document.body;
    for (const control of root.querySelectorAll(
      "button, a[href], input:not([type=file]), select, textarea, [role=slider], [role=switch], [role=checkbox], [role=menuitem]",
    )) {
      // A handle on a plot reaches a little beyond what is seen of it.
      if (!isShown(control) || control.closest("svg")) continue;
      const lost = lostSide(control.getBoundingClientRect(), control);
      if (lost)
        found.push(
          `${words(control)} loses its ${lost.side} to ${lost.by.tagName.toLowerCase()}.${String(lost.by.className).slice(0, 60)}`,
        );
    }
    // A name in a field ends in dots where there is no room for it.
    for (const field of root.querySelectorAll("input"))
      if (isShown(field) && field !== document.activeElement && field.scrollWidth > field.clientWidth + 1)
        if (getComputedStyle(field).textOverflow !== "ellipsis")
          found.push(`the field “${field.value.slice(0, 50)}” is cut without a sign`);
    const texts = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
    while (texts.nextNode()) {
      const text = texts.currentNode as Text;
      const holder = text.parentElement;
      if (!holder || text.data.trim() === "" || !isShown(holder) || holder.closest("svg, option, .sr-only")) continue;
      const range = document.createRange();
      range.selectNodeContents(text);
      const lost = lostSide(range.getBoundingClientRect(), holder);
      if (!lost) continue;
      // What is shortened is told where the pointer rests.
      holder.dispatchEvent(new PointerEvent("pointerover", { bubbles: true }));
      const style = getComputedStyle(lost.by);
      const isSigned = style.textOverflow === "ellipsis" || style.webkitLineClamp !== "none";
      const all = text.data.trim();
      const told = [...document.querySelectorAll("[title]")].some((e) => {
        const title = e.getAttribute("title") ?? "";
        // A name is told where a sentence around it is shortened.
        return e.contains(holder) && title !== "" && (title.includes(all) || all.includes(title));
      });
      const isNamed =
        holder
          .closest("button, [role=option], [role=row], a")
          ?.getAttribute("aria-label")
          ?.includes(text.data.trim()) ?? false;
      if (!isSigned) found.push(`the text “${text.data.trim().slice(0, 60)}” loses its ${lost.side}`);
      else if (!told && !isNamed)
        found.push(`the text “${text.data.trim().slice(0, 60)}” is shortened, and told nowhere`);
    }
    return [...new Set(found)];
  });
}
