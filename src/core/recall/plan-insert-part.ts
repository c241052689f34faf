import { EMPTY_CHAIN } from "../chains/chain";
import { PART } from "../strips/parts";
import { type PartContext, aimed } from "./plan-aims";
import { cellKey } from "./plan-flow";
import { incoming, planSides } from "./plan-incoming";
import { planInserts } from "./plan-inserts";
import { planSections } from "./plan-sections";
import type { Step } from "./steps";

/** The inserts of one strip, with what is asked of them. */
export function planInsertsPart(context: PartContext): readonly Step[] {
  const { draft, input, request, strip, saved } = context;
  const single = request.source.content.kind === "plugin";
  const chain = incoming(context, saved.inserts ?? EMPTY_CHAIN);
  const slot = "slot" in request.targets ? request.targets.slot : undefined;
  if (request.mode === "replace" && !single && !slot) draft.replaced.set(cellKey(strip.id, "inserts"), new Set());
  const { mode } = request;
  // Of values alone no key comes with them.
  const wanted = mode === "values" ? chain : (aimed(context, "inserts", PART.inserts, chain)?.value ?? chain);
  const planned =
    mode === "section" && !single && !slot
      ? planSections(context, wanted)
      : planInserts({ strip: strip.id, now: strip.inserts, wanted, single, mode, slot, mint: input.mint });
  for (const text of planned.left) draft.notes.push({ strip: strip.id, text });
  return [...planSides(context), ...planned.steps];
}
