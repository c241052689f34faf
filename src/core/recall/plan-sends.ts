import equal from "fast-deep-equal";
import type { Send } from "../strips/parts/sends";
import { sendsBetween } from "./sends-between";
import type { Step } from "./steps";

export const SEND_MODES = ["replace", "add", "levels"] as const;
/** What happens to the sends that stand there: `add` leaves them, `levels` sets levels of those to the same strips and leaves all else. */
export type SendMode = (typeof SEND_MODES)[number];

interface SendsInput {
  readonly strip: string;
  readonly now: readonly Send[];
  /** Those that are wanted, to strips of this project. */
  readonly wanted: readonly Send[];
  /** Of those that stand there: which stay, unless one that is wanted goes to the same strip; by their keys. */
  readonly spared?: ReadonlySet<string>;
  readonly mode: SendMode;
  readonly nameOf: (send: Send) => string;
  readonly mint: () => string;
}

const NONE: ReadonlySet<string> = new Set();

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

/** Those that are spared among others, each behind the one behind which it stands now. */
function among(then: readonly Send[], now: readonly Send[], spared: ReadonlySet<string>): readonly Send[] {
  const all = [...then];
  for (const [at, send] of now.entries())
    if (spared.has(send.key) && !then.some(({ key }) => key === send.key))
      all.splice(all.findIndex(({ key }) => key === now[at - 1]?.key) + 1, 0, send);
  return all;
}

/** The sends of a strip as they would be with others taken. In mode replace they are just those, in their order. */
export function planSends(input: SendsInput): PlannedSends {
  const { now, wanted, mode, nameOf, mint, spared = NONE } = input;
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
      return { steps: sendsBetween({ ...input, then: among(then, now, spared) }), left: [] };
    }
    case "add":
      return {
        steps: sendsBetween({ ...input, then: [...now, ...alone.map(fresh)] }),
        left: [...partners.values()].map((send) => `There is a send to ${nameOf(send)} already; it stays as it is.`),
      };
    case "levels": {
      const levels = new Map([...partners].map(([at, { key }]) => [key, wanted[at]!.level]));
      const then = now.map((send) => ({ ...send, level: levels.get(send.key) ?? send.level }));
      return {
        steps: sendsBetween({ ...input, then }),
        left: alone.map((send) => `There is no send to ${nameOf(send)}; its level is left out.`),
      };
    }
  }
}
