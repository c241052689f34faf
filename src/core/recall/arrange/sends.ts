import type { Send } from "../../strips/parts/sends";
import type { Strip } from "../../strips/strip";
import type { Step } from "../steps";
import { changeParts } from "./change-part";

/** What a new send is set to. The level, in dB, is heard at once and drowns nothing. */
const NEW_SEND = { tap: "post", level: -12, pan: 0, on: true } as const;

export type SendChange = Partial<Pick<Send, "tap" | "level" | "pan" | "on">>;

/** Sends of some strips that go to the same bus. */
export interface SendsTo {
  readonly strips: readonly Strip[];
  readonly to: string;
  /** The one that is meant where a strip has several; else it is the first. */
  readonly key?: string | undefined;
  readonly mint: () => string;
}

const goesTo = (to: string) => (send: Send) => "strip" in send.to && send.to.strip === to;

/** The send of a strip to another that is meant; null where there is none. */
export const findSend = ({ sends }: Strip, { to, key }: Pick<SendsTo, "to" | "key">): Send | null =>
  sends.find((send) => send.key === key && goesTo(to)(send)) ?? sends.find(goesTo(to)) ?? null;

/** A send to a bus from each strip that has none to it yet and is not that bus. */
export const addSends = ({ strips, to, mint }: SendsTo): readonly Step[] =>
  changeParts(
    strips.filter((strip) => strip.id !== to && !findSend(strip, { to })),
    "sends",
    (sends) => [...sends, { ...NEW_SEND, key: mint(), to: { strip: to } }],
    mint,
  );

/** Sets something on the sends; a strip that has none to that bus stays as it is. */
export const setSends = (which: SendsTo, change: (send: Send) => SendChange): readonly Step[] =>
  changeParts(
    which.strips,
    "sends",
    (sends, strip) => {
      const meant = findSend(strip, which);
      return sends.map((send) => (send === meant ? { ...send, ...change(send) } : send));
    },
    which.mint,
  );

export const removeSends = (which: SendsTo): readonly Step[] =>
  changeParts(
    which.strips,
    "sends",
    (sends, strip) => {
      const meant = findSend(strip, which);
      return sends.filter((send) => send !== meant);
    },
    which.mint,
  );
