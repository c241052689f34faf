import type { NearCopies } from "@/contracts/library";
import { type Copyable, findNearCopies } from "@/core/library/near-copies";
import type { Context } from "../data/context";
import { everyContent } from "../repositories/preset-lists";
import { findPreset } from "../repositories/presets";
import { readSettings } from "../repositories/settings";

/** Groups that are shown; who merges these asks again. */
const MOST_GROUPS = 100;

/** Presets that are set the same, or nearly, the largest groups first. */
export async function listNearCopies({ db }: Context, within: number): Promise<NearCopies> {
  const presets: Copyable[] = [];
  for await (const preset of everyContent(db)) presets.push(preset);
  const groups: NearCopies["groups"] = [];
  const { apart } = (await readSettings(db)).settings;
  for (const { ids, distance } of findNearCopies(presets, within, apart).slice(0, MOST_GROUPS)) {
    const rows = await Promise.all(ids.map((id) => findPreset(db, id)));
    groups.push({ distance, presets: rows.filter((row) => row !== null) });
  }
  return { groups };
}
