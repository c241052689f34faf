import type { z } from "zod";
import { MOST_SENDS } from "../../documents/limits";
import { findStrip } from "../../projects/project";
import { ok } from "../../result";
import { type Send, describeSend, nameOfTarget } from "../../strips/parts/sends";
import { type ListOf, type Placed, placeIn } from "./list";
import type { PlaceSendSchema } from "./schemas";
import { changeStrip, stepKind, surroundingsOf } from "./step-kind";

type PlaceSend = Readonly<z.infer<typeof PlaceSendSchema>>;
type To = PlaceSend["to"];

const SENDS: ListOf<Send> = {
  what: "send",
  by: "key",
  most: MOST_SENDS,
  idOf: ({ key }) => key,
  nameOf: () => "the send",
};

const placed = (to: To): Placed<Send> | null => to && { item: to.send, after: to.after };

/** Puts a send in (from nowhere), takes it out (to nowhere), or moves it. */
export const PLACE_SEND = stepKind<PlaceSend>({
  cell: ({ strip }) => ({ strip, part: "sends" }),
  apply: (project, { strip: id, send, from, to }) =>
    changeStrip(project, id, (strip) => {
      const sends = placeIn(SENDS, strip.sends, { id: send, from: placed(from), to: placed(to) });
      return sends.ok ? ok({ ...strip, sends: [...sends.value] }) : sends;
    }),
  words: ({ strip: id, from, to }, project) => {
    const strip = findStrip(project, id);
    const send = (to ?? from)?.send;
    if (!strip || !send) return "a send changes";
    const around = surroundingsOf(project, strip);
    if (!to) return `no send to ${nameOfTarget(send.to, around)} any more`;
    return from ? `the send to ${nameOfTarget(send.to, around)} moves` : `new send to ${describeSend(send, around)}`;
  },
});
