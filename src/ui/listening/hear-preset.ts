import { asStrip } from "@/core/presets/as-strip";
import { type Content, chainOf } from "@/core/presets/preset";
import type { Sound } from "./state";

interface Called {
  readonly name: string;
  readonly tempo: number;
}

/**
 * Hands a preset to where it is to be heard; what an instrument plays comes with the first that is heard. Gives back what
 * calls it off where it is still on its way.
 */
export function hearPreset(put: (sound: Sound) => void, content: Content, { name, tempo }: Called): () => void {
  let wanted = true;
  if (asStrip(content)?.source?.type !== "layers") put({ name, tempo, chain: chainOf(content) });
  else void import("./strip-sound").then(({ soundOfContent }) => wanted && put(soundOfContent(content, tempo, name)));
  return () => {
    wanted = false;
  };
}
