import { type Chain, EMPTY_CHAIN } from "../chains/chain";
import { PART } from "../strips/parts";
import { type PartContext, aimed } from "./plan-aims";
import { cellKey } from "./plan-flow";
import { incoming, planSides } from "./plan-incoming";
import { planInserts } from "./plan-inserts";
import { planItself, planSections } from "./plan-sections";
import type { RecallSource } from "./plan-shape";
import type { Step } from "./steps";

const isFrom = ({ from }: Chain, source: RecallSource): boolean =>
  from !== undefined && from.preset === source.from?.preset;

/** The inserts of one strip, with what is asked of them. */
export function planInsertsPart(context: PartContext): readonly Step[] {
  const { draft, input, request, strip, saved } = context;
  const single = request.source.content.kind === "plugin";
  const chain = incoming(context, saved.inserts ?? EMPTY_CHAIN);
  const slot = "slot" in request.targets ? request.targets.slot : undefined;
  // The whole chain that came from it is taken by the newer one as a whole.
  const isWhole = request.mode === "itself" && isFrom(strip.inserts, request.source);
  const mode = isWhole ? "replace" : request.mode;
  if (mode === "replace" && !single && !slot) draft.replaced.set(cellKey(strip.id, "inserts"), new Set());
  // Of values alone no key comes with them.
  const wanted = mode === "values" ? chain : (aimed(context, "inserts", PART.inserts, chain)?.value ?? chain);
  const planned = () => {
    if (mode === "itself" && !slot) return planItself(context, wanted);
    if (mode === "section" && !single && !slot) return planSections(context, wanted);
    return planInserts({ strip: strip.id, now: strip.inserts, wanted, single, mode, slot, mint: input.mint });
  };
  const { steps, left } = planned();
  for (const text of left) draft.notes.push({ strip: strip.id, text });
  return [...planSides(context), ...steps];
}
