"use client";

import { useSearchParams } from "next/navigation";
import { useEffect, useState } from "react";

/** Until so long nothing else was looked at, in milliseconds, the address stays as it is: browsers take no more than some a second. */
const PAUSE = 150;

const numberIn = (words: URLSearchParams, name: string): number | null => {
  const written = words.get(name);
  return written !== null && /^\d{1,9}$/.test(written) ? Number(written) : null;
};

/**
 * The moment of a project that is looked at, and the one that it is compared with, by the changes that they come after; they stand
 * in the address, as does whether only what concerned the strip in hand is listed. Without a moment there it is the newest, and stays that one while other windows go on.
 */
export function useLookedAt(project: string, revision: number) {
  const words = useSearchParams();
  const [at, look] = useState(() => Math.min(numberIn(words, "at") ?? revision, revision));
  const [beside, compareWith] = useState(() => {
    const asked = numberIn(words, "beside");
    return asked !== null && asked <= revision ? asked : null;
  });
  const [ofStrip, narrowToStrip] = useState(() => words.get("of") === "strip");
  useEffect(() => {
    const timer = setTimeout(() => {
      const path = `/projects/${project}/past`;
      if (window.location.pathname !== path) return;
      const address = new URLSearchParams([
        ["at", String(at)],
        ...(beside === null ? [] : [["beside", String(beside)]]),
        ...(ofStrip ? [["of", "strip"]] : []),
      ]);
      window.history.replaceState(null, "", `${path}?${address}`);
    }, PAUSE);
    return () => clearTimeout(timer);
  }, [project, at, beside, ofStrip]);
  return { at, beside, look, compareWith, ofStrip, narrowToStrip };
}

export type LookedAt = ReturnType<typeof useLookedAt>;
