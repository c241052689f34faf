import equal from "fast-deep-equal";
import { MOST_VIEWS } from "../../documents/limits";
import { type View, viewsOf, withView } from "../../projects/views";
import { settingOne } from "./kept-step";
import { type AnyStep, stepKind } from "./step-kind";

export interface SetView extends AnyStep {
  readonly kind: "setView";
  /** The key of the view. */
  readonly view: string;
  readonly from: View | null;
  readonly to: View | null;
}

function wordsOf(from: View | null, to: View | null): string {
  if (!to) return from ? `remove the view “${from.name}”` : "no view";
  if (!from) return `keep the view “${to.name}”`;
  if (from.name !== to.name) return `the view “${from.name}” → “${to.name}”`;
  return equal({ ...from, digit: to.digit }, to)
    ? `the key of the view “${to.name}” ${from.digit ?? "none"} → ${to.digit ?? "none"}`
    : `what the view “${to.name}” shows`;
}

const set = settingOne<View>({ one: "the view", all: "views", most: MOST_VIEWS, of: viewsOf, set: withView });

/** What the ledger shows, under a name: kept, changed, or let go. It changes nothing that is heard. */
export const VIEW_STEP = stepKind<SetView>({
  cell: () => ({ strip: null, part: null }),
  apply: (project, step) => set(project, step.view, step),
  words: ({ from, to }) => wordsOf(from, to),
  isOneValue: () => true,
});
