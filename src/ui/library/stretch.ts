"use client";

import { useRef, useState } from "react";
import * as api from "@/clients/api";
import type { PresetRow } from "@/contracts/records";
import { orSay } from "../kit/say";
import type { Listing } from "./use-listing";

export type Act = (presets: readonly PresetRow[]) => void;

/** Rows of a stretch of one list that had so many, from its place `low` on, as they were when it was fetched at `at`. */
export interface Kept {
  readonly list: string;
  readonly total: number;
  readonly low: number;
  readonly rows: readonly PresetRow[];
  readonly at: number;
}

/** A stretch that was chosen and is on its way, by its places. */
interface Coming {
  readonly low: number;
  readonly high: number;
}

/** Rows with their cards as the library has them now, without those that are gone. */
async function renew(rows: readonly PresetRow[]): Promise<readonly PresetRow[]> {
  const { cards } = await api.listCards(rows.map(({ id }) => id));
  const now = new Map(cards.map((card) => [card.id, card]));
  return rows.flatMap((row) => {
    const card = now.get(row.id);
    return card ? [{ ...row, ...card }] : [];
  });
}

/**
 * Chooses a stretch from one place of the list to another. It is chosen at once; its rows are fetched where they are not here,
 * and what is to be done with it waits until they have come.
 */
export function useStretch(
  { list, total, updatedAt, at, hold, load }: Listing,
  take: (rows: readonly PresetRow[]) => void,
) {
  const awaited = useRef<Promise<readonly PresetRow[]> | null>(null);
  const [coming, setComing] = useState<Coming | null>(null);
  const [kept, setKept] = useState<Kept | null>(null);
  const [isWaiting, setWaiting] = useState(false);
  const keep = (low: number, rows: readonly PresetRow[]) => {
    setKept({ list, total, low, rows, at: updatedAt });
    take(rows);
  };
  /** Does something with rows that are on their way, where nothing else was chosen meanwhile. */
  const whenCome = (rows: Promise<readonly PresetRow[]>, act: Act) => {
    awaited.current = rows;
    const isAwaited = () => awaited.current === rows;
    return rows
      .then((come) => {
        if (isAwaited()) act(come);
      })
      .finally(() => {
        if (!isAwaited()) return;
        awaited.current = null;
        setComing(null);
      });
  };
  return {
    isWaiting,
    coming,
    // Where some have left the list or come into it, nobody knows which: what is here of those that were chosen, is chosen.
    kept: kept?.list === list && kept.total === total ? kept : null,
    choose: (from: number, to: number) => {
      const [low, high] = from < to ? [from, to] : [to, from];
      const rows = Array.from({ length: high - low + 1 }, (_, n) => at(low + n)).filter((row) => row !== undefined);
      hold([low, high]);
      awaited.current = null;
      setComing(null);
      if (rows.length === high - low + 1) return keep(low, rows);
      setComing({ low, high });
      orSay(whenCome(load(low, high), (come) => keep(low, come)));
    },
    /** Something else was chosen: that is not put away by what comes late. */
    forget: () => {
      awaited.current = null;
      setComing(null);
    },
    /** False where none is on its way: then nothing is done here. */
    withThose: (act: Act): boolean => {
      if (!awaited.current) return false;
      setWaiting(true);
      orSay(awaited.current.then(act).finally(() => setWaiting(false)));
      return true;
    },
    /** Does something with rows of which some may be older than the library, once they are as it has them. */
    renewed: (rows: readonly PresetRow[], act: Act): void => {
      setWaiting(true);
      const work = whenCome(renew(rows), (come) => {
        setKept({ list, total, low: kept?.low ?? 0, rows: come, at: updatedAt });
        act(come);
      });
      orSay(work.finally(() => setWaiting(false)));
    },
  };
}

/** What is chosen of a list, in its order: as the list has it where it is here, else as it was kept. */
export function rowsChosen(
  { here, placeOf }: Listing,
  kept: Kept | null,
  isChosen: (id: string) => boolean,
): readonly PresetRow[] {
  if (!kept) return here.filter(({ id }) => isChosen(id));
  const found = new Map<string, { readonly place: number; readonly row: PresetRow }>();
  for (const [n, row] of kept.rows.entries()) if (isChosen(row.id)) found.set(row.id, { place: kept.low + n, row });
  for (const row of here) if (isChosen(row.id)) found.set(row.id, { place: placeOf(row.id), row });
  return [...found.values()].toSorted((a, b) => a.place - b.place).map(({ row }) => row);
}
