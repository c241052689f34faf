import equal from "fast-deep-equal";
import { type Details, describeDetailChange } from "../../projects/details";
import { fail, ok } from "../../result";
import { stepKind } from "./step-kind";

export type SetDetail = {
  [D in keyof Details]: {
    readonly id: string;
    readonly kind: "setDetail";
    readonly detail: D;
    readonly from: Details[D];
    readonly to: Details[D];
  };
}[keyof Details];

/** One thing that is said of the project as a whole: its name, whose it is, its tempo. */
export const SET_DETAIL = stepKind<SetDetail>({
  cell: () => ({ strip: null, part: null }),
  apply: (project, { detail, from, to }) =>
    equal(project[detail], from) ? ok({ ...project, [detail]: to }) : fail({ why: "changed", what: `the ${detail}` }),
  words: ({ detail, from, to }) => describeDetailChange(detail, from, to),
  isOneValue: () => true,
});
