import type { PresetRow } from "@/contracts/records";
import type { Action } from "../actions/actions";
import type { Recall } from "./recall";

interface Offered {
  readonly group: string;
  /** Whether a sound is chosen, or will be. */
  readonly has: boolean;
  readonly withChosen: (act: (preset: PresetRow) => void) => void;
}

/** To apply the chosen sound, at once or after a look at the plan: the same keys wherever sounds are listed. */
export const recallActions = (recall: Recall, { group, has, withChosen }: Offered): readonly Action[] => [
  {
    id: "apply",
    title: `Apply ${recall.targetWords ?? "to a project"}`,
    group,
    keys: ["Enter"],
    enabled: has,
    run: () => withChosen(recall.apply),
  },
  {
    id: "plan",
    title: "Show the plan before applying",
    group,
    keys: ["Shift+Enter"],
    enabled: has && recall.targetWords !== null,
    run: () => withChosen(recall.plan),
  },
];
