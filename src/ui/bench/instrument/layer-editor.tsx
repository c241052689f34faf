"use client";

import { Trash2, Upload } from "lucide-react";
import { useRouter } from "next/navigation";
import { useRef } from "react";
import { processorsOf } from "@/core/chains/tree";
import { noteName } from "@/core/processors/instrument/models";
import { getModel } from "@/core/processors/models";
import type { Layer } from "@/core/strips/parts/source";
import { Button } from "../../kit/button";
import { NameField } from "../../kit/name-field";
import { sayError } from "../../kit/say";
import { Shapes } from "../../kit/shape";
import { Toggle } from "../../kit/toggle";
import { useKeepFile } from "../../listening/materials";
import { openSave } from "../../save/save";
import { InstrumentEditor } from "../editors/instrument-editor";
import type { Bench } from "../use-bench";
import type { Instrument } from "./use-instrument";

interface Props {
  readonly bench: Bench;
  readonly instrument: Instrument;
  readonly layer: Layer;
}

/** One layer: its instrument, which keys and touches it answers to, its own effects. */
export function LayerEditor({ bench, instrument, layer }: Props) {
  const { tempo, place, strip } = bench;
  const router = useRouter();
  const model = getModel(layer.instrument.model);
  const change = (label: string, to: Partial<Layer>) =>
    instrument.change(label, layer.key, (now) => ({ ...now, ...to }));
  const openEffects = () => router.push(place.addressOf(layer.key));
  const save = (what: { layer: string; instrument?: true }) => {
    if (place.project && strip) openSave({ project: place.project, strips: [strip.id], ...what });
  };
  return (
    <div className="grid gap-3">
      <div className="flex flex-wrap items-center gap-3 border-edge border-t pt-[10px]">
        <NameField
          of={layer.key}
          large
          label="Name of this layer"
          name={layer.name}
          onName={(name) => (name === "" ? sayError("A layer has a name.") : change(`Name layer ${name}`, { name }))}
        />
        {layer.name !== model.name && <span className="text-small text-soft">{model.name}</span>}
        <span className="ml-auto flex items-center gap-2 text-small">
          <Toggle
            label={layer.instrument.enabled ? "On" : "Off"}
            name={layer.name}
            on={layer.instrument.enabled}
            onChange={(enabled) => change(`Switch ${layer.name}`, { instrument: { ...layer.instrument, enabled } })}
          />
          <Button small onClick={() => save({ layer: layer.key, instrument: true })}>
            Save this instrument…
          </Button>
          <Button
            small
            onClick={() => {
              instrument.remove(layer.key);
              instrument.select(null);
            }}
          >
            <Trash2 size={14} aria-hidden="true" />
            Take out
          </Button>
        </span>
      </div>
      {model.playsSample && <SampleLine layer={layer} instrument={instrument} />}
      <InstrumentEditor
        model={model}
        processor={layer.instrument}
        saved={null}
        tempo={tempo}
        onTouch={() => false}
        movedBy={() => []}
        onPreview={(values) => instrument.preview(layer.key, values)}
        onTurn={(values) => instrument.turn(layer.key, values)}
      />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-rule border-t pt-2">
        <Range
          label="Keys"
          low={layer.keys.low}
          high={layer.keys.high}
          write={noteName}
          onRange={(keys) => change("Keys of a layer", { keys })}
        />
        <Range
          label="Touch"
          low={layer.velocities.low}
          high={layer.velocities.high}
          write={String}
          onRange={(velocities) => change("Touch of a layer", { velocities })}
        />
        {model.outputs && <span className="text-small text-soft">Outputs: {model.outputs.join(", ")}</span>}
        <span className="ml-auto flex items-center gap-2">
          <span className="text-small text-soft">Effects inside</span>
          {layer.effects.nodes.length === 0 ? (
            <span className="text-small text-faint">none</span>
          ) : (
            <Shapes processors={processorsOf(layer.effects)} tempo={tempo} most={4} width={44} />
          )}
          <Button small onClick={openEffects}>
            Open on the bench
          </Button>
          <Button small disabled={layer.effects.nodes.length === 0} onClick={() => save({ layer: layer.key })}>
            Save effects…
          </Button>
        </span>
      </div>
    </div>
  );
}

interface RangeProps {
  readonly label: string;
  readonly low: number;
  readonly high: number;
  readonly write: (value: number) => string;
  readonly onRange: (range: { low: number; high: number }) => void;
}

const ALL_KEYS = Array.from({ length: 128 }, (_, n) => n);

/** From the lowest to the highest; one end never passes the other. */
function Range({ label, low, high, write, onRange }: RangeProps) {
  const end = (name: string, value: number, choose: (value: number) => { low: number; high: number }) => (
    <select
      aria-label={`${label} ${name}`}
      value={value}
      onChange={(event) => onRange(choose(Number(event.target.value)))}
      className="num-small h-6 rounded-card border border-edge bg-card px-1"
    >
      {ALL_KEYS.map((n) => (
        <option key={n} value={n}>
          {write(n)}
        </option>
      ))}
    </select>
  );
  return (
    <span className="flex items-center gap-2 text-small">
      <span className="text-soft">{label}</span>
      {end("from", low, (value) => ({ low: value, high: Math.max(value, high) }))}
      to
      {end("to", high, (value) => ({ low: Math.min(value, low), high: value }))}
    </span>
  );
}

/** What a sampler plays, and how to give it another sound. */
function SampleLine({ layer, instrument }: { readonly layer: Layer; readonly instrument: Instrument }) {
  const file = useRef<HTMLInputElement>(null);
  const keep = useKeepFile();
  const load = async (chosen: File) => {
    const kept = await keep(chosen);
    if (kept)
      instrument.change(`Load ${kept.name}`, layer.key, (now) => ({
        ...now,
        name: kept.name,
        instrument: { ...now.instrument, state: { hash: kept.hash } },
      }));
  };
  return (
    <div className="flex items-center gap-3">
      <span className="text-soft">
        {layer.instrument.state ? "Plays its sound." : "Nothing is loaded yet: drop a WAV file here, or choose one."}
      </span>
      <Button small onClick={() => file.current?.click()}>
        <Upload size={14} aria-hidden="true" />
        {layer.instrument.state ? "Another sound…" : "Choose a sound…"}
      </Button>
      <input
        ref={file}
        type="file"
        accept="audio/*"
        aria-label="Sound for the sampler"
        className="hidden"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = "";
          if (chosen) void load(chosen);
        }}
      />
    </div>
  );
}
