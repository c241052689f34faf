"use client";

import { useState } from "react";
import { type Strip } from "@/core/strips/strip";
import { chooseStrips, useInHand } from "../projects/in-hand";

/** Which rows are chosen, and where the cursor stands: as in any list of files. */
export function useRows(rows: readonly Strip[]) {
  const strips = useInHand((h) => h.strips);
  const chosen = rows.filter((r) => strips.includes(r.id)).map((r) => r.id);
  const [cursor, setCursor] = useState<string | null>(null);
  const [anchor, setAnchor] = useState<string | null>(null);
  const at = Math.max(
    0,
    rows.findIndex((r) => r.id === (cursor ?? chosen[0])),
  );
  const range = (from: string | null, to: string): string[] => {
    const [a, b] = [rows.findIndex((r) => r.id === from), rows.findIndex((r) => r.id === to)];
    return rows.slice(Math.min(a < 0 ? b : a, b), Math.max(a, b) + 1).map((r) => r.id);
  };
  const choose = (id: string, how: "only" | "range" | "toggle" | "point") => {
    setCursor(id);
    if (how === "point") return;
    if (how === "range") return chooseStrips(range(anchor ?? rows[at]?.id ?? null, id));
    setAnchor(id);
    if (how === "only") return chooseStrips([id]);
    chooseStrips(chosen.includes(id) ? chosen.filter((s) => s !== id) : [...chosen, id]);
  };
  const moveTo = (index: number, how: "only" | "range") => {
    const row = rows[Math.min(rows.length - 1, Math.max(0, index))];
    if (row) choose(row.id, how);
  };
  /** Others in hand, the first of them under the cursor: what was made just now. */
  const take = (ids: readonly string[]) => {
    setCursor(ids[0] ?? null);
    setAnchor(ids[0] ?? null);
    chooseStrips(ids);
  };
  return { rows, take, chosen, at, cursor: rows[at] ?? null, choose, moveTo };
}

export type Rows = ReturnType<typeof useRows>;
