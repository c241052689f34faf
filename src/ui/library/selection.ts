"use client";

import { useEffect, useState } from "react";
import type { PresetRow } from "@/contracts/records";
import { chainOf } from "@/core/presets/preset";
import { hear } from "../listening/listening";

export type Choose = "only" | "also" | "upTo";

/** The chosen line, and what else is chosen beside it. */
export interface Selection {
  readonly chosen: PresetRow | null;
  /** What the next action is for, in the order of the list. */
  readonly all: readonly PresetRow[];
  readonly isChosen: (id: string) => boolean;
  readonly choose: (id: string, how?: Choose) => void;
  readonly move: (by: number, how?: "only" | "upTo") => void;
  readonly chooseAll: () => void;
  /** Back to the one line; false where there is no more than that. */
  readonly letGo: () => boolean;
}

const between = (rows: readonly PresetRow[], a: string, b: string): readonly string[] => {
  const places = [a, b].map((id) => rows.findIndex((row) => row.id === id)).toSorted((x, y) => x - y);
  const [from = 0, to = 0] = places;
  return rows.slice(Math.max(0, from), to + 1).map((row) => row.id);
};

export function useSelection(rows: readonly PresetRow[]): Selection {
  const [id, setId] = useState<string | null>(null);
  const [others, setOthers] = useState<ReadonlySet<string>>(new Set());
  /** From where a stretch of the list is chosen. */
  const [anchor, setAnchor] = useState<string | null>(null);
  const chosen = rows.find((r) => r.id === id) ?? rows[0] ?? null;
  const isChosen = (some: string) => some === chosen?.id || others.has(some);
  const leave = (gone: string) => {
    const kept = [...others, chosen?.id ?? gone].filter((one) => one !== gone);
    setOthers(new Set(kept));
    setId(kept[0] ?? gone);
  };
  const choose: Selection["choose"] = (next, how = "only") => {
    if (how === "also" && isChosen(next) && others.size > 0) return leave(next);
    const current = chosen?.id ?? next;
    if (how === "upTo") setOthers(new Set(between(rows, anchor ?? current, next)));
    else {
      setOthers(new Set(how === "also" ? [...others, current] : []));
      setAnchor(next);
    }
    setId(next);
  };
  const move: Selection["move"] = (by, how = "only") => {
    const at = rows.findIndex((r) => r.id === chosen?.id);
    const next = rows[Math.min(rows.length - 1, Math.max(0, at + by))];
    if (next) choose(next.id, how);
  };
  return {
    chosen,
    all: rows.filter((row) => isChosen(row.id)),
    isChosen,
    choose,
    move,
    chooseAll: () => setOthers(new Set(rows.map((row) => row.id))),
    letGo: () => {
      const had = others.size > 1;
      setOthers(new Set());
      setAnchor(null);
      return had;
    },
  };
}

/** The chosen line is what side A plays. */
export function useHearChosen(chosen: PresetRow | null, tempo: number): void {
  const content = chosen?.content;
  const name = chosen?.card.name;
  useEffect(() => {
    if (content && name !== undefined) hear("a", { name, chain: chainOf(content), tempo });
  }, [content, name, tempo]);
}
