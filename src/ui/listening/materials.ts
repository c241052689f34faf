"use client";

import { create } from "zustand";
import { cutText } from "@/core/names/cut";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { MediaRow } from "@/contracts/records";
import { formatNumber } from "@/core/units/format";
import { errorText } from "../kit/error-text";
import { say, sayError } from "../kit/say";
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

/** Decodes a file and keeps it by its hash. Says what it did, and what it could not; null where nothing was kept. */
export function useKeepFile(): (file: File) => Promise<MediaRow | null> {
  const queries = useQueryClient();
  return useCallback(
    async (file) => {
      const { decodeSound } = await import("./decode");
      const decoded = await decodeSound(file);
      if (!decoded.ok) {
        sayError(decoded.error);
        return null;
      }
      try {
        const { sound, cutFrom } = decoded.value;
        const kept = await api.keepMedia(nameOf(file), await encodeSound(sound));
        await queries.invalidateQueries({ queryKey: KEYS.media });
        if (cutFrom !== null)
          say(
            `“${kept.name}” is ${formatNumber(cutFrom / 60, 0)} min long; its first ${formatNumber(kept.seconds, 0)} s are kept.`,
          );
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
