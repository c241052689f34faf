"use client";

import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { type Processor, processorsOf } from "@/core/chains/chain";
import { type Content, chainOf } from "@/core/presets/preset";
import { defaultValues } from "@/core/processors/model";
import { getModel } from "@/core/processors/models";
import { startingPointFor } from "@/core/settings/settings";
import type { StripKind } from "@/core/strips/strip";
import { sayError } from "./kit/say";
import { mintKey } from "./projects/mint";
import { useSettings } from "./settings";

/** As the maker set it. */
export const makersStart = (model: string): Processor => ({
  type: "processor",
  key: mintKey(),
  model,
  enabled: true,
  values: { ...defaultValues(getModel(model)) },
});

async function contentOf(queries: QueryClient, preset: string, version: number | null) {
  const detail = await queries.fetchQuery({
    queryKey: version === null ? [...KEYS.preset(preset), "detail"] : KEYS.version(preset, version),
    queryFn: () => api.getPreset(preset, version ?? undefined),
    retry: false,
  });
  return detail.preset;
}

const onlyPlugin = (content: Content): Processor | null => {
  const [only, ...others] = processorsOf(chainOf(content));
  return only && others.length === 0 ? only : null;
};

/** How a plugin opens on a strip of a kind: at the person's starting point, else as its maker set it. */
export function useStarts(strip: StripKind | null) {
  const queries = useQueryClient();
  const { settings } = useSettings();
  return async (model: string): Promise<Processor> => {
    const fresh = makersStart(model);
    const point = startingPointFor(settings, model, strip);
    if (!point) return fresh;
    try {
      const { id, card, version, content } = await contentOf(queries, point.preset, point.version);
      const plugin = onlyPlugin(content);
      if (plugin?.model !== model) return fresh;
      return { ...plugin, key: fresh.key, from: { preset: id, version, name: card.name } };
    } catch {
      sayError(`The starting point of ${getModel(model).name} is not here any more; it opened as its maker set it.`);
      return fresh;
    }
  };
}
