import { asStrip } from "@/core/presets/as-strip";
import { type Content, chainOf } from "@/core/presets/preset";
import { hear } from "./listening";

interface Called {
  readonly name: string;
  readonly tempo: number;
}

/**
 * Puts a preset on one side; what an instrument plays comes with the first that is heard. Gives back what calls it off
 * where it is still on its way.
 */
export function hearPreset(side: "a" | "b", content: Content, { name, tempo }: Called): () => void {
  let wanted = true;
  if (asStrip(content)?.source?.type !== "layers") hear(side, { name, tempo, chain: chainOf(content) });
  else
    void import("./strip-sound").then(
      ({ soundOfContent }) => wanted && hear(side, soundOfContent(content, tempo, name)),
    );
  return () => {
    wanted = false;
  };
}
