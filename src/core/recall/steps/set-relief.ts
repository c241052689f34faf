import { MOST_RELIEFS } from "../../documents/limits";
import { counted } from "../../names/count";
import { type Relief, reliefsOf, withRelief } from "../../projects/reliefs";
import { settingOne } from "./kept-step";
import { type AnyStep, stepKind } from "./step-kind";

export interface SetRelief extends AnyStep {
  readonly kind: "setRelief";
  /** The key of the relief. */
  readonly relief: string;
  readonly from: Relief | null;
  readonly to: Relief | null;
}

const said = ({ title, plugins }: Relief): string => `${title} (${counted(plugins.length, "plugin")})`;

const set = settingOne<Relief>({
  one: "what was relieved",
  all: "reliefs",
  most: MOST_RELIEFS,
  of: reliefsOf,
  set: withRelief,
});

/** What was relieved is remembered, so that it can be put back; or, once it was, is let go. It changes nothing that is heard. */
export const SET_RELIEF = stepKind<SetRelief>({
  cell: () => ({ strip: null, part: null }),
  apply: (project, step) => set(project, step.relief, step),
  words: ({ from, to }) => {
    if (to) return `remember ${said(to)} to be put back`;
    return from ? `nothing of ${said(from)} is left to be put back` : "nothing changes";
  },
});
