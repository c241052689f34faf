"use client";

import { create } from "zustand";
import { cutText } from "@/core/names/cut";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { MediaRow } from "@/contracts/records";
import { formatTime } from "@/core/units/time";
import { errorText } from "../kit/error-text";
import { sayError } from "../kit/say";
import { OWN_MATERIAL } from "@/clients/sound-engine";
import { encodeSound, setMaterial } from "./listening";
import { MATERIAL_NAMES } from "./state";

export interface MaterialName {
  readonly id: string;
  readonly name: string;
}

/** Whether the sheet with the sounds of one's own is open. */
export const useMediaSheet = create<{ readonly open: boolean }>(() => ({ open: false }));

/** The generated pieces, and the person's own. */
export function useMaterials(): readonly MaterialName[] {
  const own = useQuery({ queryKey: KEYS.media, queryFn: api.listMedia }).data?.media ?? [];
  return [...MATERIAL_NAMES, ...own.map(({ hash, name }) => ({ id: OWN_MATERIAL + hash, name }))];
}

/** A file longer than what is kept of one, while it is being chosen which stretch of it that is. */
interface ToCut {
  readonly name: string;
  readonly seconds: number;
  /** Where the stretch begins, in seconds; null where nothing of it is to be kept. */
  readonly answer: (from: number | null) => void;
}

export const useToCut = create<{ readonly toCut: ToCut | null }>(() => ({ toCut: null }));

function askWhere(name: string, seconds: number): Promise<number | null> {
  return new Promise((answer) =>
    useToCut.setState({
      toCut: {
        name,
        seconds,
        answer: (from) => {
          useToCut.setState({ toCut: null });
          answer(from);
        },
      },
    }),
  );
}

/** Decodes a file and keeps it, or the stretch of it that is chosen, by its hash. Says what it could not; null where nothing was kept. */
export function useKeepFile(): (file: File) => Promise<MediaRow | null> {
  const queries = useQueryClient();
  return useCallback(
    async (file) => {
      const { LONGEST, openSound } = await import("./decode");
      const opened = await openSound(file);
      if (!opened.ok) {
        sayError(opened.error);
        return null;
      }
      try {
        const { seconds, cut } = opened.value;
        const name = nameOf(file);
        const from = seconds > LONGEST ? await askWhere(name, seconds) : 0;
        if (from === null) return null;
        const called = from > 0 ? `${cutText(name, 180)}, from ${formatTime(from)}` : name;
        const kept = await api.keepMedia(called, await encodeSound(await cut(from)));
        await queries.invalidateQueries({ queryKey: KEYS.media });
        return kept;
      } catch (error) {
        sayError(errorText(error));
        return null;
      }
    },
    [queries],
  );
}

const nameOf = ({ name }: File): string => cutText(name.replace(/\.[^.]+$/, "").trim(), 200) || "Sound";

/** Keeps a file and listens to it. */
export function useOwnMaterial(): (file: File) => Promise<void> {
  const keep = useKeepFile();
  return useCallback(
    async (file) => {
      const kept = await keep(file);
      if (kept) await setMaterial(OWN_MATERIAL + kept.hash);
    },
    [keep],
  );
}
