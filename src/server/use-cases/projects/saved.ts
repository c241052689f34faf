import { contentMeant } from "@/core/presets/meant";
import type { Content } from "@/core/presets/preset";
import { referenceOf } from "@/core/presets/standing";
import type { Strip } from "@/core/strips/strip";
import type { Executor } from "../../data/executor";
import { findVersion } from "../../repositories/presets";

export type ReadSaved = (preset: string, version: number) => Promise<Content | null>;

/** Reads what versions of presets hold, each once. What is gone, or cannot be read, holds nothing. */
export function readingSaved(db: Executor): ReadSaved {
  const known = new Map<string, Content | null>();
  return async (preset, version) => {
    const name = `${preset} ${version}`;
    if (!known.has(name)) {
      const found = await findVersion(db, preset, version).catch(() => null);
      known.set(name, found?.content ?? null);
    }
    return known.get(name) ?? null;
  };
}

/** What the preset holds that a strip's sound came from, of what it meant. */
export async function meantBy(strip: Strip, saved: ReadSaved): Promise<Content | null> {
  const reference = referenceOf(strip);
  const content = reference && (await saved(reference.preset, reference.version));
  return reference && content ? contentMeant(content, reference) : null;
}
