"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import equal from "fast-deep-equal";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { SettingsBody } from "@/contracts/server";
import { NO_SETTINGS, type Settings } from "@/core/settings/settings";
import { createLine } from "../kit/in-line";

/** Changes of what is set up from this window, one after the other. */
const inSettingsLine = createLine();

/** What the person has set up, and the way to change it: what another window set up meanwhile is kept. */
export function useSettings() {
  const queries = useQueryClient();
  const asked = { queryKey: KEYS.settings, queryFn: api.getSettings };
  const body = useQuery(asked).data;
  /** What is set up, also where that is still on its way. */
  const settled = async (): Promise<Settings> => (await queries.ensureQueryData(asked)).settings;
  const change = (make: (settings: Settings) => Settings): Promise<void> =>
    inSettingsLine(async () => {
      let base = queries.getQueryData<SettingsBody>(KEYS.settings) ?? (await api.getSettings());
      for (let attempt = 0; ; attempt++) {
        const made = make(base.settings);
        // Of two quick presses the second may find that it is done.
        if (equal(made, base.settings)) return;
        try {
          queries.setQueryData(KEYS.settings, await api.changeSettings(base.revision, made));
          return;
        } catch (error) {
          const isStale = error instanceof api.ApiFailure && error.error.code === "stale";
          if (!isStale || attempt > 2) throw error;
          base = await api.getSettings();
        }
      }
    });
  return { settings: body?.settings ?? NO_SETTINGS, settled, change };
}
