"use client";

import * as arrange from "@/core/recall/arrange";
import type { Level } from "@/core/strips/parts/level";
import { Toggle } from "../../kit/toggle";
import { ValueLine } from "../../kit/value-line";
import { mintKey } from "../../kit/mint";
import { type Dial, specOf } from "../turn";
import type { CardProps } from "./card";

interface LineProps extends Pick<CardProps, "project" | "strip" | "turning"> {
  readonly dial: Dial;
  readonly label?: string;
  readonly value: number;
}

/** A value of a strip, as a line; it sets that of all that are chosen. */
export function DialLine({ project, strip, turning, dial, label, value }: LineProps) {
  const spec = specOf(dial);
  return (
    <ValueLine
      spec={spec}
      label={label ?? spec.name}
      value={value}
      tempo={project.tempo}
      onChange={(to) => typeof to === "number" && turning.preview(strip.id, dial, { to })}
      onChangeEnd={(to) => typeof to === "number" && turning.commit(strip.id, dial, { to })}
    />
  );
}

/** Mutes some strips, or lets them sound again. */
export const muteSteps =
  (strips: readonly string[], mute: boolean) =>
  (project: CardProps["project"]): ReturnType<typeof arrange.changePart> =>
    arrange.changeParts(arrange.standing(project, strips), "level", (level: Level) => ({ ...level, mute }), mintKey);

export function LevelCard(props: CardProps) {
  const { strip, strips, turning } = props;
  const { fader, mute } = strip.level;
  return (
    <>
      <DialLine {...props} dial={{ of: "fader" }} value={fader} />
      <Toggle
        label="Muted"
        on={mute}
        onChange={(on) => turning.change(on ? "Mute" : "Unmute", muteSteps(strips, on))}
      />
    </>
  );
}

export function PanCard(props: CardProps) {
  const { pan, width } = props.strip.pan;
  return (
    <>
      <DialLine {...props} dial={{ of: "pan" }} value={pan} />
      <DialLine {...props} dial={{ of: "width" }} value={width} />
    </>
  );
}
