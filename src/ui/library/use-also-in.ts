"use client";

import type { PresetRow } from "@/contracts/records";
import { alsoIn, foldersOf, outOf } from "@/core/library/filed-in";
import { useFiling } from "./filing";

/** A folder, and how it is told. */
interface Told {
  readonly id: string;
  readonly path: string;
}

/** Lets a folder refer to sounds, which stay where they are; or no more, where all of them lie in it. */
export function useAlsoIn() {
  const { change } = useFiling();
  return (presets: readonly PresetRow[], { id, path }: Told): Promise<void> =>
    presets.every(({ card }) => foldersOf(card).includes(id))
      ? change(presets, ({ card }) => outOf(card, id), { verb: "Take", behind: `out of “${path}”` })
      : change(presets, ({ card }) => alsoIn(card, id), { verb: "File", behind: `also in “${path}”` });
}
