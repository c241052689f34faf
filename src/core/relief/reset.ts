import { changePart, changeParts } from "../recall/arrange";
import type { Step } from "../recall/steps";
import { PART, PARTS, type PartName } from "../strips/parts";
import { type Strip, createStrip } from "../strips/strip";

/** What can be brought back to how it is on a new strip: all but what a strip is called and where it leads. */
export const RESET_PARTS: readonly PartName[] = PARTS.filter((part) => part !== "look" && part !== "routing");

export interface Reset {
  readonly parts: readonly PartName[];
  /** Whether sends are taken out too, or switched off where they are. */
  readonly sendsOut: boolean;
}

function resetPart(strip: Strip, part: PartName, { sendsOut }: Reset, mint: () => string): readonly Step[] {
  if (PART[part].misfit(strip.kind) !== null) return [];
  if (part === "sends" && !sendsOut)
    return changeParts([strip], "sends", (sends) => sends.map((send) => ({ ...send, on: false })), mint);
  const fresh = createStrip(strip.id, strip.kind, strip.look, null);
  return changePart(strip, part, fresh[part], mint);
}

/** The steps that bring parts of strips back to how they are on new ones. Law: a second time there is nothing to do. */
export const resetStrips = (strips: readonly Strip[], reset: Reset, mint: () => string): readonly Step[] =>
  strips.flatMap((strip) =>
    RESET_PARTS.filter((part) => reset.parts.includes(part)).flatMap((part) => resetPart(strip, part, reset, mint)),
  );
