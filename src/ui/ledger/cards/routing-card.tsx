"use client";

import * as arrange from "@/core/recall/arrange";
import { stripName } from "@/core/strips/strip";
import { StripMark } from "../../kit/card-mark";
import { NameField } from "../../kit/name-field";
import { PickList } from "../../kit/pick-list";
import { mintKey } from "../../kit/mint";
import type { CardProps } from "./card";

const NOWHERE = "nowhere";

/** Where the sound goes: a group, the main output, nowhere; of a main output its sockets. */
export function RoutingCard({ project, strip, strips, turning, onClose }: CardProps) {
  const { output } = strip.routing;
  const set = (label: string, to: typeof output) =>
    turning.change(label, (now) =>
      arrange.changeParts(arrange.standing(now, strips), "routing", () => ({ output: to }), mintKey),
    );
  if (strip.kind === "main") {
    const sockets = output && "hardware" in output ? output.hardware : "";
    return (
      <label className="flex items-center gap-3">
        <span className="text-soft">Sockets</span>
        <NameField
          of={strip.id}
          label="Sockets"
          name={sockets}
          placeholder="None"
          onName={(name) =>
            turning.change("Sockets", () =>
              arrange.changePart(strip, "routing", { output: name === "" ? null : { hardware: name } }, mintKey),
            )
          }
        />
      </label>
    );
  }
  const isNow = (id: string) => output !== null && "strip" in output && output.strip === id;
  const free = arrange.outputsFor(project, arrange.standing(project, strips));
  return (
    <PickList
      autoFocus
      label="Goes to…"
      picks={[
        ...free.map((bus) => ({
          id: bus.id,
          label: stripName(bus),
          mark: <StripMark kind={bus.kind} {...bus.look} />,
          chosen: isNow(bus.id),
        })),
        { id: NOWHERE, label: "Nowhere", chosen: output === null },
      ]}
      none=""
      onPick={(id) => {
        set("Output", id === NOWHERE ? null : { strip: id });
        onClose();
      }}
    />
  );
}
