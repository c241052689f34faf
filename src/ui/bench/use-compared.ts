"use client";

import { useQueries, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { type Chain, EMPTY_CHAIN, type PresetRef, type Processor } from "@/core/chains/chain";
import { type Difference, asInPluginPresets, differencesOf, partnersOf } from "@/core/chains/differences";
import { processorsOf } from "@/core/chains/tree";
import { asStrip } from "@/core/presets/as-strip";
import { contentMeant } from "@/core/presets/meant";
import { type Content, chainOf, withFrom } from "@/core/presets/preset";
import type { Source } from "@/core/strips/parts/source";
import { differencesFrom, referenceOf, soundingChain, unsavedIn } from "@/core/presets/standing";
import type { Strip } from "@/core/strips/strip";

interface Saved {
  readonly chain: Chain;
  /** Of the preset that holds all of it; null where each plugin has its own. */
  readonly content: Content | null;
  /** The newest version of that preset; null where there is none. */
  readonly newest: number | null;
  /** It is not in the library any more, though it can be looked at. */
  readonly isBinned: boolean;
}

export interface Compared {
  readonly reference: PresetRef | null;
  /** As it was saved: as a whole, or, where it never was, each plugin as its own preset has it. */
  readonly saved: Saved | null;
  readonly partners: ReadonlyMap<string, Processor>;
  readonly differences: readonly Difference[];
  /** All that the differences are of: what is on the bench and, of a whole strip, the instruments before it. */
  readonly sounding: Chain;
  /** Of each plugin that is not as it was saved, in how many values; 0 for one that is saved nowhere. */
  readonly changed: ReadonlyMap<string, number>;
}

interface OnBench {
  readonly strip: Strip | null;
  readonly layer: string | null;
  /** As it stands, without what is being dragged. */
  readonly base: Chain;
  readonly chain: Chain;
}

/** What is on the bench beside the preset that it came from. */
export function useCompared({ strip, layer, base, chain }: OnBench): Compared {
  // What is inside an instrument stands for itself; else the instruments are part of what is heard.
  const source: Source = strip && layer === null ? strip.source : NO_SOURCE;
  const reference = referenceOf({ source, inserts: base });
  const whole = useSaved(reference);
  const own = useOwnPresets(soundingChain({ source, inserts: base }));
  const saved = whole ?? partsAsSaved(base, own);
  const sounding = soundingChain({ source, inserts: chain });
  const differences = whole?.content
    ? differencesFrom({ source, inserts: chain }, whole.content)
    : saved
      ? differencesOf(saved.chain, chain)
      : [];
  const partners = new Map<string, Processor>();
  for (const one of saved ? [saved.chain, ...instrumentsIn(saved.content)] : [])
    for (const [key, partner] of partnersOf(one, sounding)) partners.set(key, partner);
  return { reference, saved, partners, differences, sounding, changed: changedIn(sounding, partners, own, saved) };
}

const NO_SOURCE: Source = { type: "bus", channels: "stereo" };

/** The instruments of a preset, as chains. */
function instrumentsIn(content: Content | null): readonly Chain[] {
  const source = content && asStrip(content)?.source;
  return source ? [soundingChain({ source, inserts: EMPTY_CHAIN })] : [];
}

function changedIn(
  sounding: Chain,
  partners: ReadonlyMap<string, Processor>,
  own: OwnPresets,
  saved: Saved | null,
): ReadonlyMap<string, number> {
  const changed = new Map<string, number>();
  if (!saved) return changed;
  for (const processor of processorsOf(sounding)) {
    const asOwn = processor.from ? own(processor.from) : null;
    const partner = saved.content ? (partners.get(processor.key) ?? null) : null;
    const count = unsavedIn(processor, { partner, own: asOwn });
    // A chain that was never saved as a whole has no plugin that is new to it.
    if (count === null ? saved.content !== null : count > 0) changed.set(processor.key, count ?? 0);
  }
  return changed;
}

function useSaved(reference: PresetRef | null): Saved | null {
  const query = useQuery({
    queryKey: KEYS.version(reference?.preset ?? "", reference?.version ?? 0),
    queryFn: () => api.getPreset(reference?.preset ?? "", reference?.version),
    enabled: reference !== null,
  });
  const fetched = reference ? query.data?.preset.content : undefined;
  const newest = query.data ? Math.max(...query.data.versions.map((v) => v.version)) : null;
  const isBinned = query.data ? query.data.place !== "library" : false;
  const { preset, version, name, strip } = reference ?? {};
  return useMemo(() => {
    if (!fetched || preset === undefined || version === undefined || name === undefined) return null;
    const from = { preset, version, name, ...(strip === undefined ? {} : { strip }) };
    const content = contentMeant(fetched, from);
    if (!content) return null;
    return { content, newest, isBinned, chain: asStrip(withFrom(content, from))?.inserts ?? EMPTY_CHAIN };
  }, [fetched, newest, isBinned, preset, version, name, strip]);
}

const processorOf = (content: Content): Processor | null => {
  const [only, ...others] = processorsOf(chainOf(content));
  return only && others.length === 0 ? only : null;
};

/** How the preset of its own has a plugin; null where it has none, and until that has come. */
type OwnPresets = (from: PresetRef) => Processor | null;

function useOwnPresets(chain: Chain): OwnPresets {
  const origins = processorsOf(chain).flatMap((p) => p.from ?? []);
  const found = useQueries({
    queries: origins.map(({ preset, version }) => ({
      queryKey: KEYS.version(preset, version),
      queryFn: () => api.getPreset(preset, version),
    })),
    combine: (answers) => answers.map(({ data }) => data?.preset.content ?? null),
  });
  const names = origins.map(nameOfVersion).join("\n");
  return useMemo(() => {
    const known = names.split("\n");
    return (from) => {
      const content = found[known.indexOf(nameOfVersion(from))];
      return content ? processorOf(content) : null;
    };
  }, [names, found]);
}

/** Each plugin as its own preset has it; null where none has come from one. */
function partsAsSaved(chain: Chain, own: OwnPresets): Saved | null {
  const has = processorsOf(chain).some((p) => p.from && own(p.from) !== null);
  return has ? { content: null, newest: null, isBinned: false, chain: asInPluginPresets(chain, own) } : null;
}

const nameOfVersion = ({ preset, version }: PresetRef): string => `${preset} ${version}`;
