import { presetRef } from "@/core/presets/preset";
import { cutText } from "@/core/names/cut";
import type { QueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import type { PresetRow } from "@/contracts/records";
import { LONGEST_NAME, withoutClashes } from "@/core/names/free";
import { orSay, say } from "../kit/say";
import { binInLine, countSounds, refetchLibrary } from "./filing";

/** What stands behind the name of a copy that is to become something of its own, and of one that is to be turned. */
const COPY = "copy";
const VARIATION = "variation";

/** The name of a copy, without a number yet: a copy of a copy is another copy of the same. */
function copyName(name: string, word: string): string {
  const plain = name.replace(new RegExp(`, ${word}( \\d+)?$`), "");
  return `${cutText(plain, LONGEST_NAME - word.length - 2)}, ${word}`;
}

/** Copies under free names, all or none, one's own whatever they were copied from; each knows its original. */
async function copy(presets: readonly PresetRow[], word: string): Promise<readonly PresetRow[]> {
  const wished = presets.map((preset) => copyName(preset.card.name, word));
  const { taken } = await api.listTaken(wished);
  const names = withoutClashes(
    wished,
    taken.map(({ name }) => name),
  );
  const made = await api.savePresets({
    presets: presets.map((preset, at) => {
      const { kind, content, card } = preset;
      const origin = { ...card.origin, from: presetRef(preset) };
      return { kind, content, card: { ...card, name: names[at] ?? card.name, origin } };
    }),
  });
  return made.presets;
}

/** Copies to be changed, beside what they were copied from. */
export async function duplicate(queries: QueryClient, presets: readonly PresetRow[]): Promise<void> {
  const made = await copy(presets, COPY);
  await refetchLibrary(queries);
  const words = presets.length === 1 ? `a copy of ${countSounds(presets)}` : `copies of ${countSounds(presets)}`;
  const undo = async () => {
    await binInLine(queries, made, `Put ${words} into the bin`);
    await refetchLibrary(queries);
  };
  say(`Made ${words}`, { action: { label: "Undo", onClick: () => orSay(undo()) } });
}

/** One to be turned on the bench; the original stays as it is. */
export async function vary(queries: QueryClient, preset: PresetRow): Promise<PresetRow> {
  const [made] = await copy([preset], VARIATION);
  if (!made) throw new api.InWords("The variation could not be made.");
  await refetchLibrary(queries);
  say(`Made “${made.card.name}”`);
  return made;
}
