"use client";

import { X } from "lucide-react";
import * as arrange from "@/core/recall/arrange";
import { stripName } from "@/core/strips/strip";
import { type Send, nameOfTarget } from "@/core/strips/parts/sends";
import type { StripKind } from "@/core/documents/strip-kinds";
import { nameIn } from "@/core/projects/project";
import { Button } from "../../kit/button";
import { StripMark } from "../../kit/card-mark";
import { PickList } from "../../kit/pick-list";
import { Segments } from "../../kit/segments";
import { Toggle } from "../../kit/toggle";
import { mintKey } from "../../kit/mint";
import type { CardProps } from "./card";
import { DialLine } from "./values";

const TAPS = [
  { value: "pre", label: "Before the fader" },
  { value: "post", label: "Behind" },
] as const;

/** One send: whether it is on, from where, how loud. */
function SendRow({ send, ...props }: CardProps & { readonly send: Send }) {
  const { project, strip, strips, turning } = props;
  const to = "strip" in send.to ? send.to.strip : "";
  const name = nameOfTarget(send.to, { nameOf: nameIn(project) });
  const which = (now: CardProps["project"]) => ({
    strips: arrange.standing(now, strips),
    to,
    key: send.key,
    mint: mintKey,
  });
  const set = (label: string, change: arrange.SendChange) =>
    turning.change(label, (now) => arrange.setSends(which(now), () => change));
  return (
    <li className="grid gap-1 border-rule border-b pb-2">
      <span className="flex items-center gap-3">
        <span className="name min-w-0 flex-1 truncate">{name}</span>
        <Toggle
          label="On"
          name={`Send to ${name}`}
          on={send.on}
          onChange={(on) => set(on ? "Send on" : "Send off", { on })}
        />
        <Button
          title={`Take the send to ${name} out`}
          aria-label={`Take the send to ${name} out`}
          onClick={() => turning.change(`Send to ${name} taken out`, (now) => arrange.removeSends(which(now)))}
        >
          <X size={14} aria-hidden="true" />
        </Button>
      </span>
      <DialLine {...props} strip={strip} dial={{ of: "send", to, key: send.key }} label="Level" value={send.level} />
      <DialLine {...props} strip={strip} dial={{ of: "sendPan", to, key: send.key }} label="Pan" value={send.pan} />
      <Segments
        small
        label={`Send to ${name} from`}
        options={TAPS}
        value={send.tap}
        onChange={(tap) => set("Send from", { tap })}
      />
    </li>
  );
}

/** Where one sends to most, first. */
const LIKELY: readonly StripKind[] = ["return", "group", "main"];

/** The sends of a strip; a new one to any bus that it may send to. */
export function SendsCard(props: CardProps) {
  const { project, strip, strips, turning } = props;
  const free = arrange
    .sendTargetsFor(project, arrange.standing(project, strips))
    .filter(({ id }) => !arrange.findSend(strip, { to: id }))
    .toSorted((a, b) => LIKELY.indexOf(a.kind) - LIKELY.indexOf(b.kind));
  return (
    <>
      {strip.sends.length > 0 && (
        <ul className="grid max-h-[46vh] gap-2 overflow-auto">
          {strip.sends.map((send) => (
            <SendRow key={send.key} {...props} send={send} />
          ))}
        </ul>
      )}
      <PickList
        label="Send to…"
        autoFocus={strip.sends.length === 0}
        picks={free.map((bus) => ({
          id: bus.id,
          label: stripName(bus),
          mark: <StripMark kind={bus.kind} {...bus.look} />,
        }))}
        none={
          strip.sends.length > 0
            ? "It sends to every bus that it may."
            : "There is no bus here to send to. Add a return bus."
        }
        onPick={(to) =>
          turning.change(`Send to ${nameIn(project)(to)}`, (now) =>
            arrange.addSends({ strips: arrange.standing(now, strips), to, mint: mintKey }),
          )
        }
      />
    </>
  );
}
