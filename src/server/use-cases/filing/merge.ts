import equal from "fast-deep-equal";
import type { PresetRow } from "@/contracts/records";
import { type LibraryStep, fieldsOf } from "@/core/library/step";
import { MOST_NOTES, MOST_TAGS } from "@/core/documents/limits";
import type { Context } from "../../store/context";
import type { Executor } from "../../data/executor";
import { type Outcome, refuse } from "../../failure";
import { listMerged } from "../../repositories/preset-lists";
import { type FiledCard, findPreset } from "../../repositories/presets";
import { type Filed, fileAndTell } from "./entry";
import { checkHost, presetOf } from "./steps";

/** What the card of the one that stays says of all of them: refused where it would be more than a card holds. */
function unitedCard(kept: FiledCard, gone: readonly FiledCard[]) {
  const all = [kept, ...gone];
  const tags = [...new Set(all.flatMap((p) => p.card.tags))];
  if (tags.length > MOST_TAGS)
    refuse("refused", `Together they have ${tags.length} tags; a sound has ${MOST_TAGS} at the most.`, {
      path: "others",
    });
  const notes = [...new Set(all.map((p) => p.card.notes).filter((n) => n !== ""))].join("\n");
  if (notes.length > MOST_NOTES)
    refuse("refused", `Their notes together are longer than ${MOST_NOTES} letters. Shorten some first.`, {
      path: "others",
    });
  return { tags, notes, rating: Math.max(...all.map((p) => p.card.rating)) };
}

async function mergeSteps(tx: Executor, keep: string, others: readonly string[]): Promise<Filed> {
  const kept = await presetOf(tx, keep);
  checkHost(kept);
  const gone: FiledCard[] = [];
  for (const id of new Set(others)) gone.push(await presetOf(tx, id));
  const to = unitedCard(kept, gone);
  const from = fieldsOf(kept.card, ["tags", "notes", "rating"]);
  const steps: LibraryStep[] = equal(from, to) ? [] : [{ kind: "card", preset: keep, from, to }];
  for (const { id } of gone) {
    // What was put into one of them before goes along: nothing is put into what is put into something itself.
    for (const inner of await listMerged(tx, id)) steps.push({ kind: "merge", preset: inner.id, from: id, to: keep });
    steps.push({ kind: "merge", preset: id, from: null, to: keep });
  }
  return { label: `Merge ${gone.length} into “${kept.card.name}”`, steps };
}

/**
 * Puts near copies into one of them. Their tags and notes come to it, the best rating stands, and their versions and uses are
 * found with it; they themselves are listed no more.
 */
export const mergePresets = (
  context: Context,
  { keep, others }: { keep: string; others: readonly string[] },
): Promise<Outcome<PresetRow>> =>
  fileAndTell(
    context,
    (tx) => mergeSteps(tx, keep, others),
    async (tx) => (await findPreset(tx, keep)) ?? refuse("notFound", `There is no preset “${keep}” here.`),
  );
