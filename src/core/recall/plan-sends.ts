import equal from "fast-deep-equal";
import { type Send, settingsOf } from "../strips/parts/sends";
import type { Step } from "./steps";

export const SEND_MODES = ["replace", "add", "levels"] as const;
/** What happens to the sends that stand there: `add` leaves them, `levels` sets levels of those to the same strips and leaves all else. */
export type SendMode = (typeof SEND_MODES)[number];

interface SendsInput {
  readonly strip: string;
  readonly now: readonly Send[];
  /** Those that are wanted, to strips of this project. */
  readonly wanted: readonly Send[];
  readonly mode: SendMode;
  readonly nameOf: (send: Send) => string;
  readonly mint: () => string;
}

export interface PlannedSends {
  readonly steps: readonly Step[];
  /** What finds no place, in a sentence each. */
  readonly left: readonly string[];
}

/** Which send here goes with each that is wanted, by its place: the first that goes to the same strip; each once. */
function partnersOf(wanted: readonly Send[], now: readonly Send[]): ReadonlyMap<number, Send> {
  const partners = new Map<number, Send>();
  for (const [at, { to }] of wanted.entries()) {
    const taken = [...partners.values()];
    const partner = now.find((send) => equal(send.to, to) && !taken.includes(send));
    if (partner) partners.set(at, partner);
  }
  return partners;
}

/** The sends of a strip as they would be with others taken. In mode replace they are just those, in their order. */
export function planSends(input: SendsInput): PlannedSends {
  const { now, wanted, mode, nameOf, mint } = input;
  const partners = partnersOf(wanted, now);
  const used = new Set(now.map(({ key }) => key));
  const fresh = (send: Send): Send => {
    const key = used.has(send.key) ? mint() : send.key;
    used.add(key);
    return { ...send, key };
  };
  const alone = wanted.filter((_, at) => !partners.has(at));
  switch (mode) {
    case "replace": {
      const then = wanted.map((send, at) => {
        const partner = partners.get(at);
        return partner ? { ...send, key: partner.key } : fresh(send);
      });
      return { steps: stepsBetween(input, then), left: [] };
    }
    case "add":
      return {
        steps: stepsBetween(input, [...now, ...alone.map(fresh)]),
        left: [...partners.values()].map((send) => `There is a send to ${nameOf(send)} already; it stays as it is.`),
      };
    case "levels": {
      const levels = new Map([...partners].map(([at, { key }]) => [key, wanted[at]!.level]));
      const then = now.map((send) => ({ ...send, level: levels.get(send.key) ?? send.level }));
      return {
        steps: stepsBetween(input, then),
        left: alone.map((send) => `There is no send to ${nameOf(send)}; its level is left out.`),
      };
    }
  }
}

/** The steps from the sends that stand there to others: those that go, then each in its place, then what is set on it. */
function stepsBetween({ strip, now, mint }: SendsInput, then: readonly Send[]): readonly Step[] {
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
