import type { Project } from "@/core/projects/project";
import * as arrange from "@/core/recall/arrange";
import type { Step } from "@/core/recall/steps";
import { FADER, INPUT_GAIN, PAN, WIDTH } from "@/core/strips/params";
import type { SendChange } from "@/core/recall/arrange";
import { clampTo, type ParamSpec } from "@/core/units/param-spec";

/** What is turned in a cell: of which value. */
export type Dial =
  | { readonly of: "fader" | "pan" | "width" | "gain" }
  | { readonly of: "send" | "sendPan"; readonly to: string; readonly key: string };

const SPECS = {
  fader: FADER,
  pan: PAN,
  width: WIDTH,
  gain: INPUT_GAIN,
  send: { ...FADER, name: "Send level" },
  sendPan: { ...PAN, name: "Send pan" },
} as const;

export const specOf = ({ of }: Dial): ParamSpec => SPECS[of];

/** How much, or to what. */
export type Amount = { readonly by: number } | { readonly to: number };

const tenths = (value: number): number => Math.round(value * 10) / 10;

const turned = (spec: ParamSpec, now: number, amount: Amount): number =>
  "to" in amount ? amount.to : clampTo(spec, tenths(now + amount.by));

/** The steps that turn a value of some strips, each from where it stands; those that have none of it stay. */
export function turnSteps(
  project: Project,
  strips: readonly string[],
  { dial, amount }: { readonly dial: Dial; readonly amount: Amount },
  mint: () => string,
): readonly Step[] {
  const some = arrange.standing(project, strips);
  const spec = specOf(dial);
  switch (dial.of) {
    case "fader":
      return arrange.changeParts(some, "level", (l) => ({ ...l, fader: turned(spec, l.fader, amount) }), mint);
    case "pan":
    case "width": {
      const { of } = dial;
      return arrange.changeParts(some, "pan", (pan) => ({ ...pan, [of]: turned(spec, pan[of], amount) }), mint);
    }
    case "gain":
      return some.flatMap((strip) =>
        strip.source.type === "input"
          ? arrange.changePart(
              strip,
              "source",
              { ...strip.source, gain: turned(spec, strip.source.gain, amount) },
              mint,
            )
          : [],
      );
    case "send": {
      const change = ({ level }: { readonly level: number }): SendChange => ({ level: turned(spec, level, amount) });
      return arrange.setSends({ strips: some, to: dial.to, key: dial.key, mint }, change);
    }
    case "sendPan": {
      const change = ({ pan }: { readonly pan: number }): SendChange => ({ pan: turned(spec, pan, amount) });
      return arrange.setSends({ strips: some, to: dial.to, key: dial.key, mint }, change);
    }
  }
}

/** What a turn is called in the history. */
export const TURN_LABELS: Readonly<Record<Dial["of"], string>> = {
  fader: "Level",
  pan: "Pan",
  width: "Width",
  gain: "Input gain",
  send: "Send level",
  sendPan: "Send pan",
};
