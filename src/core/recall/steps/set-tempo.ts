import { z } from "zod";
import { fail, ok } from "../../result";
import { step } from "./base";
import { stepKind } from "./step-kind";

export const SetTempoSchema = z.strictObject(step("setTempo", z.number().min(20).max(400)));
type SetTempo = Readonly<z.infer<typeof SetTempoSchema>>;

/** The tempo of the project, in beats per minute. */
export const SET_TEMPO = stepKind<SetTempo>({
  cell: () => ({ strip: null, part: null }),
  apply: (project, { from, to }) =>
    project.tempo === from ? ok({ ...project, tempo: to }) : fail({ why: "changed", what: "the tempo" }),
  words: ({ from, to }) => `tempo ${from} → ${to} bpm`,
});
