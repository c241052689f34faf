import type { z } from "zod";
import { fail, ok } from "../../result";
import { stepKind } from "./step-kind";
import type { SetTempoSchema } from "./schemas";

type SetTempo = Readonly<z.infer<typeof SetTempoSchema>>;

/** The tempo of the project, in beats per minute. */
export const SET_TEMPO = stepKind<SetTempo>({
  cell: () => ({ strip: null, part: null }),
  apply: (project, { from, to }) =>
    project.tempo === from ? ok({ ...project, tempo: to }) : fail({ why: "changed", what: "the tempo" }),
  words: ({ from, to }) => `tempo ${from} → ${to} bpm`,
});
