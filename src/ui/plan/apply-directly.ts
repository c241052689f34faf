import type { QueryClient } from "@tanstack/react-query";
import type { PlanRequest } from "@/contracts/projects";
import type { PresetRow } from "@/contracts/records";
import { mayApplyDirectly } from "@/core/recall/plan";
import { PARTS } from "@/core/strips/parts";
import { say } from "../kit/say";
import { commitTo } from "../projects/editing";
import { planNow } from "./plan-now";

interface Asked {
  readonly queries: QueryClient;
  readonly project: string;
  readonly preset: Pick<PresetRow, "id" | "kind" | "version" | "card">;
  readonly targets: PlanRequest["requests"][number]["targets"];
  /** "to Cello". */
  readonly targetWords: string;
  /** Shows every change first. */
  readonly plan: () => void;
  readonly undo: (revision: number) => Promise<boolean>;
}

/** Applies all of a preset at once where nothing is asked and only the targets change, else by the plan. Rejects with what the server says. */
export async function applyDirectly(asked: Asked): Promise<void> {
  const { queries, project, preset, targets, targetWords } = asked;
  const plan = await planNow(queries, project, {
    requests: [
      {
        source: { preset: preset.id, version: preset.version },
        parts: [...PARTS],
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
