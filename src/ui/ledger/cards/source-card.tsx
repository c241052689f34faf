"use client";

import type { StripRef } from "@/core/chains/chain";
import { nameIn } from "@/core/projects/project";
import * as arrange from "@/core/recall/arrange";
import { type Source, describeSource } from "@/core/strips/parts/source";
import { stripName } from "@/core/strips/strip";
import { Field, INPUT } from "../../kit/field";
import { mintKey } from "../../kit/mint";
import { NameField } from "../../kit/name-field";
import { Segments } from "../../kit/segments";
import { Toggle } from "../../kit/toggle";
import type { CardProps } from "./card";
import { ClipsField } from "./clips-field";
import { DialLine } from "./values";

const CHANNELS = [
  { value: "mono", label: "Mono" },
  { value: "stereo", label: "Stereo" },
] as const;

type Input = Extract<Source, { readonly type: "input" }>;

/** What comes in: an input with its gain and polarity, or an output of an instrument, with the clips that lie there; what else there is, is told. */
export function SourceCard(props: CardProps) {
  const { project, strip } = props;
  const { source } = strip;
  if (source.type === "input" || source.type === "output")
    return (
      <div className="grid gap-2">
        <ReceivesField {...props} />
        {source.type === "input" && <InputFields {...props} source={source} />}
        <ClipsField {...props} />
      </div>
    );
  return (
    <div className="grid gap-2">
      <p className="text-soft">
        {describeSource(strip, { nameOf: nameIn(project) })}
        {source.type === "layers" && ". Its layers are set on the bench."}
      </p>
      <ClipsField {...props} />
    </div>
  );
}

const INPUT_ITSELF = "input";

/** An input, or one of the outputs of an instrument, where there is one that has several. */
function ReceivesField({ project, strip, turning }: CardProps) {
  const { source } = strip;
  const feeders = arrange.feedersFor(project, strip);
  const now = source.type === "output" ? `${nameOfRef(source.strip)} ${source.output}` : INPUT_ITSELF;
  const choices = feeders.flatMap((one) =>
    arrange.outputsOf(one).map(({ n, name }) => ({
      id: `${one.id} ${n}`,
      words: `${stripName(one)}, output ${n}: ${name.toLowerCase()}`,
      source: { type: "output", channels: "stereo", strip: { strip: one.id }, output: n } satisfies Source,
    })),
  );
  const isKnown = now === INPUT_ITSELF || choices.some(({ id }) => id === now);
  if (choices.length === 0 && isKnown) return null;
  const choose = (id: string) => {
    const to: Source = choices.find((choice) => choice.id === id)?.source ?? {
      type: "input",
      channels: source.channels,
      input: "",
      gain: 0,
      inverted: false,
    };
    turning.change("Receive", (current) =>
      arrange.standing(current, [strip.id]).flatMap((one) => arrange.changePart(one, "source", to, mintKey)),
    );
  };
  return (
    <div className="grid grid-cols-[72px_1fr] items-center gap-x-3">
      <Field label="Receives">
        <select className={INPUT} value={now} onChange={({ target }) => choose(target.value)}>
          <option value={INPUT_ITSELF}>an input</option>
          {!isKnown && <option value={now}>{describeSource(strip, { nameOf: nameIn(project) })}</option>}
          {choices.map(({ id, words }) => (
            <option key={id} value={id}>
              {words}
            </option>
          ))}
        </select>
      </Field>
    </div>
  );
}

const nameOfRef = (ref: StripRef): string => ("strip" in ref ? ref.strip : ref.name);

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
