import type { QueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import type { PresetRow } from "@/contracts/records";
import { LONGEST_NAME, withoutClashes } from "@/core/names/pattern";
import { wordsOf } from "@/core/search/words";
import { say } from "../kit/say";
import { countSounds, refetchLibrary } from "./filing";

/** What stands behind the name of a copy that is to become something of its own, and of one that is to be turned. */
const COPY = ", copy";
const VARIATION = ", variation";

/** A copy under a free name, one's own whatever it was copied from; it knows its original. */
async function copy({ id, kind, content, card, version }: PresetRow, behind: string): Promise<PresetRow> {
  const wished = `${card.name.slice(0, LONGEST_NAME - behind.length)}${behind}`;
  const alike = await api.listPresets({ q: wordsOf(wished).join(" "), limit: 500 });
  const [name = wished] = withoutClashes(
    [wished],
    alike.items.map((p) => p.card.name),
  );
  const origin = { ...card.origin, from: { preset: id, version, name: card.name } };
  return (await api.savePreset({ kind, content, card: { ...card, name, origin } })).preset;
}

/** Copies to be changed, beside what they were copied from. */
export async function duplicate(queries: QueryClient, presets: readonly PresetRow[]): Promise<void> {
  for (const preset of presets) await copy(preset, COPY);
  await refetchLibrary(queries);
  say(presets.length === 1 ? `Made a copy of ${countSounds(presets)}` : `Made copies of ${countSounds(presets)}`);
}

/** One to be turned on the bench; the original stays as it is. */
export async function vary(queries: QueryClient, preset: PresetRow): Promise<PresetRow> {
  const made = await copy(preset, VARIATION);
  await refetchLibrary(queries);
  say(`Made “${made.card.name}”`);
  return made;
}
