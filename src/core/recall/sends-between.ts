import equal from "fast-deep-equal";
import { type Send, settingsOf } from "../strips/parts/sends";
import type { Step } from "./steps";

interface Between {
  readonly strip: string;
  readonly now: readonly Send[];
  readonly then: readonly Send[];
  readonly mint: () => string;
}

/** The steps from the sends that stand there to others: those that go, then each in its place, then what is set on it. */
export function sendsBetween({ strip, now, then, mint }: Between): readonly Step[] {
  const steps: Step[] = [];
  const standing = [...now];
  const placeOf = (key: string) => {
    const at = standing.findIndex((send) => send.key === key);
    return at < 0 ? null : { send: standing[at]!, after: standing[at - 1]?.key ?? null };
  };
  const place = (send: string, to: { readonly send: Send; readonly after: string | null } | null) => {
    const from = placeOf(send);
    steps.push({ id: mint(), kind: "placeSend", strip, send, from, to });
    if (from) standing.splice(standing.indexOf(from.send), 1);
    if (to) standing.splice(standing.findIndex(({ key }) => key === to.after) + 1, 0, to.send);
  };
  const kept = new Set(then.map(({ key }) => key));
  for (const { key } of now) if (!kept.has(key)) place(key, null);
  for (const [at, send] of then.entries()) {
    const after = then[at - 1]?.key ?? null;
    const there = placeOf(send.key);
    if (!there) place(send.key, { send, after });
    else if (there.after !== after) place(send.key, { send: there.send, after });
  }
  for (const send of then) {
    const [from, to] = [settingsOf(placeOf(send.key)!.send), settingsOf(send)];
    if (!equal(from, to)) steps.push({ id: mint(), kind: "setSend", strip, send: send.key, from, to });
  }
  return steps;
}
