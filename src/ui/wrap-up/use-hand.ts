"use client";

import { useEffect, useState } from "react";
import type { Action } from "../actions/actions";
import type { Row } from "./rows";

/** What is in hand of a list: one line, and what else is chosen with it. */
export interface Hand {
  readonly row: Row | null;
  /** All that is in hand, in the order of the list. */
  readonly all: readonly Row[];
  readonly isIn: (row: Row) => boolean;
  readonly choose: (key: string, how?: "only" | "also" | "upTo") => void;
  readonly actions: readonly Action[];
}

interface Held {
  readonly cursor: string | null;
  /** From where a stretch reaches. */
  readonly anchor: string | null;
  readonly also: ReadonlySet<string>;
}

const NOTHING: ReadonlySet<string> = new Set();

/** Goes through a list, and chooses several of it, by keys and by the mouse. */
export function useHand(rows: readonly Row[], group: string): Hand {
  const [held, setHeld] = useState<Held>({ cursor: null, anchor: null, also: NOTHING });
  const placeOf = (key: string | null) => rows.findIndex((row) => row.key === key);
  const at = Math.max(0, placeOf(held.cursor));
  const row = rows[at] ?? null;
  const isIn = (one: Row) => one === row || held.also.has(one.key);
  const stretch = (to: number) => {
    const anchor = placeOf(held.anchor) >= 0 ? placeOf(held.anchor) : at;
    const [low, high] = anchor < to ? [anchor, to] : [to, anchor];
    setHeld({
      cursor: rows[to]?.key ?? null,
      anchor: rows[anchor]?.key ?? null,
      also: new Set(rows.slice(low, high + 1).map(({ key }) => key)),
    });
  };
  const only = (key: string | null) => setHeld({ cursor: key, anchor: key, also: NOTHING });
  const choose: Hand["choose"] = (key, how = "only") => {
    if (how === "upTo") return stretch(Math.max(0, placeOf(key)));
    if (how === "only") return only(key);
    const others = new Set([...held.also, ...(row ? [row.key] : [])]);
    if (!others.delete(key)) return setHeld({ cursor: key, anchor: key, also: others });
    const [next] = others;
    if (next !== undefined) setHeld({ cursor: next, anchor: next, also: others });
  };
  const within = (to: number) => Math.max(0, Math.min(rows.length - 1, to));
  const move = (to: number) => only(rows[within(to)]?.key ?? null);
  useEffect(() => {
    document.getElementById(`find-${row?.key ?? ""}`)?.scrollIntoView({ block: "nearest" });
  }, [row?.key]);
  return {
    row,
    all: rows.filter(isIn),
    isIn,
    choose,
    actions: [
      ...walking(group, { at, last: rows.length - 1, move, stretch: (to) => stretch(within(to)) }),
      {
        id: "all",
        title: "Choose all that was found",
        group,
        keys: ["Ctrl+A"],
        run: () =>
          setHeld({ cursor: row?.key ?? null, anchor: held.anchor, also: new Set(rows.map(({ key }) => key)) }),
      },
    ],
  };
}

interface Walk {
  readonly at: number;
  readonly last: number;
  readonly move: (to: number) => void;
  readonly stretch: (to: number) => void;
}

function walking(group: string, { at, last, move, stretch }: Walk): readonly Action[] {
  const walk = { group, keyOnly: true } as const;
  return [
    { ...walk, id: "next", title: "Next", keys: ["ArrowDown"], run: () => move(at + 1) },
    { ...walk, id: "before", title: "The one before", keys: ["ArrowUp"], run: () => move(at - 1) },
    { ...walk, id: "first", title: "The first", keys: ["Home"], run: () => move(0) },
    { ...walk, id: "last", title: "The last", keys: ["End"], run: () => move(last) },
    { ...walk, id: "also-next", title: "Choose the next, too", keys: ["Shift+ArrowDown"], run: () => stretch(at + 1) },
    {
      ...walk,
      id: "also-before",
      title: "Choose the one before, too",
      keys: ["Shift+ArrowUp"],
      run: () => stretch(at - 1),
    },
  ];
}
