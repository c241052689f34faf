import equal from "fast-deep-equal";
import type { PresetRow } from "@/contracts/records";
import { type LibraryStep, fieldsOf } from "@/core/library/step";
import { ok } from "@/core/result";
import type { Context } from "../../data/context";
import { type Outcome, failure } from "../../failure";
import * as presets from "../../repositories/presets";
import { file } from "./entry";
import { presetOf, refuse } from "./steps";

/**
 * Puts near copies into one of them. Their tags and notes come to it, the best rating stands, and their versions and uses are
 * found with it; they themselves are listed no more.
 */
export async function mergePresets(
  context: Context,
  { keep, others }: { keep: string; others: readonly string[] },
): Promise<Outcome<PresetRow>> {
  const filed = await file(context, async (tx) => {
    const kept = await presetOf(tx, keep);
    const gone: presets.FiledPreset[] = [];
    for (const id of new Set(others)) {
      const preset = await presetOf(tx, id);
      if (id === keep || preset.binned || preset.kind !== kept.kind)
        refuse(`“${preset.card.name}” cannot be put into “${kept.card.name}”.`, "others");
      gone.push(preset);
    }
    const all = [kept, ...gone];
    const to = {
      tags: [...new Set(all.flatMap((p) => p.card.tags))],
      rating: Math.max(...all.map((p) => p.card.rating)),
      notes: [...new Set(all.map((p) => p.card.notes).filter((n) => n !== ""))].join("\n").slice(0, 10_000),
    };
    const from = fieldsOf(kept.card, ["tags", "rating", "notes"]);
    return {
      label: `Merge ${gone.length} into “${kept.card.name}”`,
      steps: [
        ...(equal(from, to) ? [] : [{ kind: "card", preset: keep, from, to } as const]),
        ...gone.map((p): LibraryStep => ({ kind: "merge", preset: p.id, from: null, to: keep })),
      ],
    };
  });
  if (!filed.ok) return filed;
  const preset = await presets.findPreset(context.db, keep);
  return preset ? ok(preset) : failure("notFound", `There is no preset “${keep}” here.`);
}
