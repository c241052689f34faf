import equal from "fast-deep-equal";
import type { z } from "zod";
import { findStrip } from "../../projects/project";
import { fail, ok } from "../../result";
import { describeSend, describeSettings, nameOfTarget, settingsOf } from "../../strips/parts/sends";
import type { SetSendSchema } from "./schemas";
import { changeStrip, stepKind, surroundingsOf } from "./step-kind";

type SetSend = Readonly<z.infer<typeof SetSendSchema>>;

/** What is set on a send: where it goes and from where, its level, its pan, whether it is on. */
export const SET_SEND = stepKind<SetSend>({
  cell: ({ strip }) => ({ strip, part: "sends" }),
  apply: (project, { strip: id, send: key, from, to }) =>
    changeStrip(project, id, (strip) => {
      const standing = strip.sends.find((send) => send.key === key);
      if (!standing) return fail({ why: "missing", what: "send", key });
      if (!equal(settingsOf(standing), from)) return fail({ why: "changed", what: "the send" });
      return ok({ ...strip, sends: strip.sends.map((send) => (send === standing ? { key, ...to } : send)) });
    }),
  words: ({ strip: id, from, to }, project) => {
    const strip = findStrip(project, id);
    if (!strip) return "a send changes";
    const around = surroundingsOf(project, strip);
    return equal(from.to, to.to)
      ? `send to ${nameOfTarget(to.to, around)} ${describeSettings(from)} → ${describeSettings(to)}`
      : `send to ${describeSend(from, around)} → to ${describeSend(to, around)}`;
  },
  isOneValue: ({ from, to }) => equal(from.to, to.to),
});
