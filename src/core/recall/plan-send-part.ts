import equal from "fast-deep-equal";
import { nameIn } from "../projects/project";
import { PART } from "../strips/parts";
import { type Send, nameOfTarget } from "../strips/parts/sends";
import { type PartContext, aimed, findHere } from "./plan-aims";
import { cellKey } from "./plan-flow";
import { isSendOn } from "./plan-places";
import { planSends } from "./plan-sends";
import type { PlannedSend } from "./plan-shape";
import type { Step } from "./steps";

/** The sends of one strip, but for those that are switched off. */
export function planSendsPart(context: PartContext): readonly Step[] {
  const { draft, input, request, key, strip, saved } = context;
  const mode = request.sends ?? "replace";
  const [on, off] = parted(saved.sends ?? [], (send) => isSendOn(input.except, key, send.key));
  const wanted = aimed(context, "sends", PART.sends, on)?.value ?? [];
  const spared = sparedOf(context, off);
  // What is spared leads where it led, whatever comes.
  const leadOn = strip.sends.flatMap(({ key: one, to }) => (spared.has(one) && "strip" in to ? [to.strip] : []));
  if (mode === "replace") draft.replaced.set(cellKey(strip.id, "sends"), new Set(leadOn));
  const nameOf = (send: Send) => nameOfTarget(send.to, { nameOf: nameIn(draft.project) });
  const planned = planSends({ strip: strip.id, now: strip.sends, wanted, spared, mode, nameOf, mint: input.mint });
  for (const text of planned.left) draft.notes.push({ strip: strip.id, text });
  return planned.steps;
}

/** Of the sends that stand there those that are not to be touched: they go where one goes that is switched off, or would go and are to stay. */
function sparedOf(context: PartContext, off: readonly Send[]): ReadonlySet<string> {
  const { draft, input, key, strip } = context;
  const aims = off.map(({ to }) => findHere(draft.project, to));
  const stay = goingSends(context).filter((send) => !isSendOn(input.except, key, standingKey(send)));
  return new Set([...strip.sends.filter(({ to }) => aims.some((aim) => equal(aim, to))), ...stay].map((s) => s.key));
}

/** Sends that stand there, to where none leads that comes. */
function goingSends({ draft, request, strip, saved }: PartContext): readonly Send[] {
  if ((request.sends ?? "replace") !== "replace") return [];
  const aims = (saved.sends ?? []).map(({ to }) => findHere(draft.project, to));
  return strip.sends.filter(({ to }) => !aims.some((aim) => equal(aim, to)));
}

/** What a send that would go is switched off by. */
const standingKey = ({ key }: Send): string => `here:${key}`;

/** Each send that would come or go, by the name of its bus. */
export function singleSends(context: PartContext): readonly PlannedSend[] {
  const { draft, input, key, saved } = context;
  const one = (send: Send, called: string) => ({
    key: called,
    name: nameOfTarget(send.to, { nameOf: nameIn(draft.project) }),
    on: isSendOn(input.except, key, called),
  });
  return [
    ...(saved.sends ?? []).map((send) => one(send, send.key)),
    ...goingSends(context).map((send) => one(send, standingKey(send))),
  ];
}

const parted = <T>(list: readonly T[], isFirst: (one: T) => boolean): readonly [readonly T[], readonly T[]] => [
  list.filter(isFirst),
  list.filter((one) => !isFirst(one)),
];
