"use client";

import { type RefObject, useCallback, useEffect, useRef, useState } from "react";

/** How many plugins of the row stand out of sight on either side. */
export interface Hidden {
  readonly before: number;
  readonly after: number;
}

/** A tile counts as hidden where less of it than this share is seen. */
const SEEN = 0.5;

function hiddenIn(row: HTMLElement): Hidden {
  const { left, right } = row.getBoundingClientRect();
  const middles = [...row.querySelectorAll("[data-tile]")].map((tile) => {
    const box = tile.getBoundingClientRect();
    return box.left + SEEN * box.width;
  });
  return { before: middles.filter((x) => x < left).length, after: middles.filter((x) => x > right).length };
}

/** A row that is wider than its place: scrolled by the wheel too, with what is out of sight on either side. */
export function useRow(shown: unknown): {
  readonly row: RefObject<HTMLDivElement | null>;
  /** null where all of it is in sight. */
  readonly hidden: Hidden | null;
  /** Goes on by what is in sight. */
  readonly turn: (way: 1 | -1) => void;
} {
  const row = useRef<HTMLDivElement>(null);
  const [hidden, setHidden] = useState<Hidden | null>(null);
  const look = useCallback(() => {
    const { current } = row;
    if (!current) return;
    const now = current.scrollWidth > current.clientWidth + 1 ? hiddenIn(current) : null;
    setHidden((was) => (was?.before === now?.before && was?.after === now?.after ? was : now));
  }, []);
  useEffect(look, [look, shown]);
  useEffect(() => {
    const { current } = row;
    if (!current) return;
    const onWheel = (event: WheelEvent) => {
      const { deltaX, deltaY, ctrlKey } = event;
      const before = current.scrollLeft;
      if (ctrlKey || Math.abs(deltaX) > Math.abs(deltaY)) return;
      current.scrollLeft += deltaY;
      // At its end the wheel goes on with what lies around it.
      if (current.scrollLeft !== before) event.preventDefault();
    };
    const sizes = new ResizeObserver(look);
    sizes.observe(current);
    current.addEventListener("wheel", onWheel, { passive: false });
    current.addEventListener("scroll", look);
    return () => {
      sizes.disconnect();
      current.removeEventListener("wheel", onWheel);
      current.removeEventListener("scroll", look);
    };
  }, [look]);
  const turn = (way: 1 | -1) => row.current?.scrollBy({ left: way * 0.8 * row.current.clientWidth });
  return { row, hidden, turn };
}
