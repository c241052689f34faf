import type { z } from "zod";
import type { StripRef } from "../../chains/chain";
import { isBus } from "../../documents/strip-kinds";
import { formatLevel } from "../../units/format";
import { FADER } from "../params";
import { type Surroundings, part } from "./part";
import type { SendSchema, SendSettingsSchema } from "./schemas";

export type Send = Readonly<z.infer<typeof SendSchema>>;
export type SendSettings = Readonly<z.infer<typeof SendSettingsSchema>>;

/** What is set on a send. */
export const settingsOf = ({ key: _, ...settings }: Send): SendSettings => settings;

/** Where a send goes, by name. */
export const nameOfTarget = (to: StripRef, { nameOf }: Pick<Surroundings, "nameOf">): string =>
  "external" in to ? to.name : (nameOf(to.strip) ?? "nowhere");

/** "−12.0 dB", "−12.0 dB before the fader, off". */
export function describeSettings({ level, tap, on }: SendSettings): string {
  const words = [`${formatLevel(level, FADER.min)} dB`, ...(tap === "pre" ? ["before the fader"] : [])].join(" ");
  return on ? words : `${words}, off`;
}

/** "Plate −12.0 dB". */
export const describeSend = (send: SendSettings, around: Pick<Surroundings, "nameOf">): string =>
  `${nameOfTarget(send.to, around)} ${describeSettings(send)}`;

const words = (sends: readonly Send[], around: Surroundings): string =>
  sends.length === 0 ? "no sends" : sends.map((send) => describeSend(send, around)).join(", ");

export const SENDS = part<readonly Send[]>({
  title: "Sends",
  phrase: "the sends",
  empty: () => [],
  words,
  change: (from, to, around) => `sends ${words(from, around)} → ${words(to, around)}`,
  aims: {
    way: "out",
    leads: "sends to",
    at: (n) => `[${n}].to`,
    of: (sends) => sends.map(({ to }) => to),
    mapped: (sends, aim) =>
      sends.flatMap((send) => {
        const to = aim(send.to);
        return to ? [{ ...send, to }] : [];
      }),
    takes: isBus,
    whenNone: "leftOut",
    question: {
      of: "all",
      text: (missing) => `“${missing}” is missing here, and sends would go to it.`,
      leave: "Leave these sends out",
      makes: (kind) => isBus(kind) && kind !== "main",
    },
  },
  isHeld: (sends) => sends.length > 0,
});
