"use client";

import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { Processor } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { beginAs } from "@/core/presets/as-strip";
import { type Content, chainOf, withFrom, presetRef } from "@/core/presets/preset";
import { completeValues, defaultValues } from "@/core/processors/model";
import { getModel } from "@/core/processors/models";
import { startingPointFor } from "@/core/settings/settings";
import { type Strip, createStrip } from "@/core/strips/strip";
import type { Output } from "@/core/strips/parts/routing";
import type { StripKind } from "@/core/documents/strip-kinds";
import { sayError } from "../kit/say";
import { STRIP_WORDS } from "../kit/strip-words";
import { mintKey } from "../kit/mint";
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
  });
  if (detail.place !== "library") throw new Error("It is in the bin.");
  return detail.preset;
}

const onlyPlugin = (content: Content): Processor | null => {
  const [only, ...others] = processorsOf(chainOf(content));
  return only && others.length === 0 ? only : null;
};

/** How a plugin opens on a strip of a kind: at the person's starting point, else as its maker set it. */
export function useStarts(strip: StripKind | null) {
  const queries = useQueryClient();
  const { settled } = useSettings();
  return async (model: string): Promise<Processor> => {
    const fresh = makersStart(model);
    const point = startingPointFor(await settled(), model, strip);
    if (!point) return fresh;
    if (point.preset === null)
      return { ...fresh, values: completeValues(getModel(model), point.values ?? fresh.values) };
    try {
      const row = await contentOf(queries, point.preset, point.version);
      const plugin = onlyPlugin(row.content);
      if (plugin?.model !== model) return fresh;
      return { ...plugin, key: fresh.key, from: presetRef(row) };
    } catch {
      sayError(`The starting point of ${getModel(model).name} is not here any more; it opened as its maker set it.`);
      return fresh;
    }
  };
}

/** A new strip of a kind: as the person's starting point for that kind has it, else with nothing set. */
export function useNewStrip() {
  const queries = useQueryClient();
  const { settled } = useSettings();
  return async (kind: StripKind, name: string, output: Output): Promise<Strip> => {
    const blank = createStrip(mintKey(), kind, { name }, output);
    const point = startingPointFor(await settled(), null, kind);
    if (!point?.preset) return blank;
    try {
      const row = await contentOf(queries, point.preset, point.version);
      return beginAs(blank, withFrom(row.content, presetRef(row)));
    } catch {
      sayError(`The starting point of new ${STRIP_WORDS[kind]} is not here any more; the strip is blank.`);
      return blank;
    }
  };
}
