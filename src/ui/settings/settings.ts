"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { NO_SETTINGS, type Settings } from "@/core/settings/settings";

/** What the person has set up, and the way to change it: what another window set up meanwhile is kept. */
export function useSettings() {
  const queries = useQueryClient();
  const asked = { queryKey: KEYS.settings, queryFn: api.getSettings };
  const body = useQuery(asked).data;
  /** What is set up, also where that is still on its way. */
  const settled = async (): Promise<Settings> => (await queries.ensureQueryData(asked)).settings;
  const change = async (make: (settings: Settings) => Settings): Promise<void> => {
    let base = body ?? (await api.getSettings());
    for (let attempt = 0; ; attempt++) {
      try {
        queries.setQueryData(KEYS.settings, await api.changeSettings(base.revision, make(base.settings)));
        return;
      } catch (error) {
        const isStale = error instanceof api.ApiFailure && error.error.code === "stale";
        if (!isStale || attempt > 2) throw error;
        base = await api.getSettings();
      }
    }
  };
  return { settings: body?.settings ?? NO_SETTINGS, settled, change };
}
