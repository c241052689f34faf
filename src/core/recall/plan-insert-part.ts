import { type Chain, EMPTY_CHAIN, cameFrom, isOneSound } from "../chains/chain";
import { PART } from "../strips/parts";
import { type PartContext, aimed } from "./plan-aims";
import { cellKey } from "./plan-flow";
import { incoming, planSides } from "./plan-incoming";
import { type InsertMode, planInserts } from "./plan-inserts";
import { planItself, planSections } from "./plan-sections";
import type { Step } from "./steps";

/** What is wanted: with its keys found here, and still along in the set that it came along in. */
function wantedOf(context: PartContext, mode: InsertMode, isWhole: boolean): Chain {
  const chain = incoming(context, context.saved.inserts ?? EMPTY_CHAIN);
  // Of values alone no key comes with them.
  if (mode === "values") return chain;
  const wanted = aimed(context, "inserts", PART.inserts, chain)?.value ?? chain;
  const { from } = context.strip.inserts;
  return isWhole && from?.along && wanted.from && isOneSound(from, wanted.from)
    ? { ...wanted, from: { along: from.along, ...wanted.from } }
    : wanted;
}

/** The inserts of one strip, with what is asked of them. */
export function planInsertsPart(context: PartContext): readonly Step[] {
  const { draft, input, request, strip } = context;
  const single = request.source.content.kind === "plugin";
  const slot = "slot" in request.targets ? request.targets.slot : undefined;
  // The whole chain that came from it is taken by the newer one as a whole.
  const isWhole = request.mode === "itself" && cameFrom(strip.inserts.from, request.source.from);
  const mode = isWhole ? "replace" : request.mode;
  if (mode === "replace" && !single && !slot) draft.replaced.set(cellKey(strip.id, "inserts"), new Set());
  const wanted = wantedOf(context, mode, isWhole);
  const planned = () => {
    if (mode === "itself" && !slot) return planItself(context, wanted);
    if (mode === "section" && !single && !slot) return planSections(context, wanted);
    return planInserts({ strip: strip.id, now: strip.inserts, wanted, single, mode, slot, mint: input.mint });
  };
  const { steps, left } = planned();
  for (const text of left) draft.notes.push({ strip: strip.id, text });
  return [...planSides(context), ...steps];
}
