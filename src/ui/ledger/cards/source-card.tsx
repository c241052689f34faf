"use client";

import { nameIn } from "@/core/projects/project";
import * as arrange from "@/core/recall/arrange";
import { type Source, describeSource } from "@/core/strips/parts/source";
import { Field } from "../../kit/field";
import { mintKey } from "../../kit/mint";
import { NameField } from "../../kit/name-field";
import { Segments } from "../../kit/segments";
import { Toggle } from "../../kit/toggle";
import type { CardProps } from "./card";
import { DialLine } from "./values";

const CHANNELS = [
  { value: "mono", label: "Mono" },
  { value: "stereo", label: "Stereo" },
] as const;

type Input = Extract<Source, { readonly type: "input" }>;

/** What comes in: an input with its gain and polarity; what else there is, is told. */
export function SourceCard(props: CardProps) {
  const { project, strip } = props;
  const { source } = strip;
  if (source.type === "input") return <InputFields {...props} source={source} />;
  return (
    <p className="text-soft">
      {describeSource(strip, { nameOf: nameIn(project) })}
      {source.type === "layers" && ". Its layers are set on the bench."}
    </p>
  );
}

function InputFields({ source, ...props }: CardProps & { readonly source: Input }) {
  const { strip, strips, turning } = props;
  const set = (label: string, change: Partial<Input>, some = strips) =>
    turning.change(label, (now) =>
      arrange
        .standing(now, some)
        .flatMap((one) =>
          one.source.type === "input" ? arrange.changePart(one, "source", { ...one.source, ...change }, mintKey) : [],
        ),
    );
  return (
    <div className="grid grid-cols-[72px_1fr] items-center gap-x-3 gap-y-2">
      <Field label="Input">
        <NameField
          of={strip.id}
          label="Input"
          name={source.input}
          placeholder="No input"
          onName={(input) => set("Input", { input }, [strip.id])}
        />
      </Field>
      <span className="text-soft">Channels</span>
      <Segments
        small
        label="Channels"
        options={CHANNELS}
        value={source.channels}
        onChange={(channels) => set("Channels", { channels })}
      />
      <div className="col-span-2">
        <DialLine {...props} dial={{ of: "gain" }} value={source.gain} />
      </div>
      <div className="col-span-2">
        <Toggle label="Polarity turned" on={source.inverted} onChange={(inverted) => set("Polarity", { inverted })} />
      </div>
    </div>
  );
}
