import equal from "fast-deep-equal";
import { MOST_RELIEFS } from "../../documents/limits";
import { counted } from "../../names/count";
import { type Relief, findRelief, reliefsOf, withRelief } from "../../projects/reliefs";
import { fail, ok } from "../../result";
import { type AnyStep, stepKind } from "./step-kind";

export interface SetRelief extends AnyStep {
  readonly kind: "setRelief";
  /** The key of the relief. */
  readonly relief: string;
  readonly from: Relief | null;
  readonly to: Relief | null;
}

const said = ({ title, plugins }: Relief): string => `${title} (${counted(plugins.length, "plugin")})`;

/** What was relieved is remembered, so that it can be put back; or, once it was, is let go. It changes nothing that is heard. */
export const SET_RELIEF = stepKind<SetRelief>({
  cell: () => ({ strip: null, part: null }),
  apply: (project, { relief, from, to }) => {
    if (!equal(findRelief(project, relief), from)) return fail({ why: "changed", what: "what was relieved" });
    if (to && to.id !== relief) return fail({ why: "mismatch", key: relief, brings: to.id });
    if (!from && to && reliefsOf(project).length >= MOST_RELIEFS) return fail({ why: "tooMany", what: "reliefs" });
    return ok(withRelief(project, relief, to));
  },
  words: ({ from, to }) => {
    if (to) return `remember ${said(to)} to be put back`;
    return from ? `nothing of ${said(from)} is left to be put back` : "nothing changes";
  },
});
