import type { QueryClient } from "@tanstack/react-query";
import type { PlanRequest } from "@/contracts/projects";
import type { PresetRow } from "@/contracts/records";
import { mayApplyDirectly } from "@/core/recall/plan";
import { beginWith, heldBy } from "@/core/recall/choices";
import type { PartName } from "@/core/strips/parts";
import { say } from "../kit/say";
import { commitTo } from "../projects/editing";
import { planNow } from "./plan-now";

export type Applied = Pick<PresetRow, "id" | "kind" | "version" | "card" | "content">;

interface Asked {
  readonly queries: QueryClient;
  readonly project: string;
  readonly preset: Applied;
  readonly targets: PlanRequest["requests"][number]["targets"];
  /** "to Cello". */
  readonly targetWords: string;
  /** The parts of such a thing that were applied last; none for all. */
  readonly last: readonly PartName[] | undefined;
  /** Only these, where it was let go on a cell. */
  readonly parts?: readonly PartName[] | undefined;
  /** Shows every change first. */
  readonly plan: () => void;
  readonly undo: (revision: number) => Promise<boolean>;
}

/** Applies all of a preset at once where nothing is asked and only the targets change, else by the plan. Rejects with what the server says. */
export async function applyDirectly(asked: Asked): Promise<void> {
  const { queries, project, preset, targets, targetWords, last } = asked;
  const held = heldBy(preset.content);
  const plan = await planNow(queries, project, {
    requests: [
      {
        source: { preset: preset.id, version: preset.version },
        // Where it holds none of them, all of it is taken.
        parts: [...(asked.parts ?? beginWith(held, last))],
        targets,
        mode: preset.kind === "plugin" ? "after" : "replace",
      },
    ],
  });
  if (!mayApplyDirectly(plan)) return asked.plan();
  if (plan.steps.length === 0) return say(`“${preset.card.name}” is there already; nothing would change.`);
  const label = `Apply “${preset.card.name}” ${targetWords}`;
  const done = await commitTo(queries, project, { label, make: () => plan.steps });
  if (done !== null)
    say(label.replace(/^Apply/, "Applied"), { action: { label: "Undo", onClick: () => void asked.undo(done) } });
}
