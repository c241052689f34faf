"use client";

import { ArrowLeft, ArrowRight, Trash2 } from "lucide-react";
import dynamic from "next/dynamic";
import { type Processor, processorName } from "@/core/chains/chain";
import { type Family, type Model } from "@/core/processors/model";
import { findModel } from "@/core/processors/models";
import * as gestures from "@/core/recall/gestures";
import { Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { Toggle } from "../kit/toggle";
import { openSave } from "../save/save";
import type { EditorProps } from "./editors/editor";
import type { Bench as BenchState } from "./use-bench";
import type { useBenchGestures } from "./use-bench-gestures";

const loading = () => <Loading what="Opening the editor" />;

/** Each family's own plot as its editor; the code comes when one is opened. */
const EDITORS: Record<Family, React.ComponentType<EditorProps>> = {
  equaliser: dynamic(() => import("./editors/curve-editor").then((m) => m.CurveEditor), { loading }),
  dynamics: dynamic(() => import("./editors/dynamics-editor").then((m) => m.DynamicsEditor), { loading }),
  saturation: dynamic(() => import("./editors/saturation-editor").then((m) => m.SaturationEditor), { loading }),
  modulation: dynamic(() => import("./editors/modulation-editor").then((m) => m.ModulationEditor), { loading }),
  delay: dynamic(() => import("./editors/echo-editor").then((m) => m.EchoEditor), { loading }),
  reverb: dynamic(() => import("./editors/reverb-editor").then((m) => m.ReverbEditor), { loading }),
  utility: dynamic(() => import("./editors/utility-editor").then((m) => m.UtilityEditor), { loading }),
};

/** Where a model has more to it than its family: bands and taps that come and go. */
const OWN_EDITORS: Readonly<Record<string, React.ComponentType<EditorProps>>> = {
  "parametric-eq": dynamic(() => import("./editors/bands-editor").then((m) => m.BandsEditor), { loading }),
  "multitap-delay": dynamic(() => import("./editors/taps-editor").then((m) => m.TapsEditor), { loading }),
};

interface EditorHostProps {
  readonly bench: BenchState;
  readonly model: Model;
  readonly selected: Processor;
  readonly hand: ReturnType<typeof useBenchGestures>;
}

export function Editor({ bench, model, selected, hand }: EditorHostProps) {
  const { partners, tempo, place, strip } = bench;
  const ModelEditor = OWN_EDITORS[model.id] ?? EDITORS[model.family];
  return (
    <>
      <div className="flex flex-none items-center gap-3 border-edge border-t pt-[10px]">
        <LabelField
          processor={selected}
          onCall={(label) => void bench.gesture(`Name ${model.name}`, (h) => gestures.callIt(h, selected.key, label))}
        />
        {selected.label !== undefined && <span className="text-small text-soft">{model.name}</span>}
        {selected.from && <span className="text-small text-soft">from {selected.from.name}</span>}
        <span className="ml-auto flex items-center gap-2 text-small">
          <Toggle label={selected.enabled ? "On" : "Off"} on={selected.enabled} onChange={hand.toggle} />
          <Button small aria-label="Move earlier" title="Move earlier (Alt ←)" onClick={() => hand.moveBy(-1)}>
            <ArrowLeft size={14} aria-hidden="true" />
          </Button>
          <Button small aria-label="Move later" title="Move later (Alt →)" onClick={() => hand.moveBy(1)}>
            <ArrowRight size={14} aria-hidden="true" />
          </Button>
          <Button
            small
            onClick={() =>
              place.project && strip && openSave({ project: place.project, strip: strip.id, processor: selected.key })
            }
          >
            Save this plugin…
          </Button>
          <Button small onClick={hand.takeOut}>
            <Trash2 size={14} aria-hidden="true" />
            Take out
          </Button>
        </span>
      </div>
      <ModelEditor
        key={selected.key}
        model={model}
        processor={selected}
        saved={partners.get(selected.key) ?? null}
        tempo={tempo}
        onPreview={(values) => bench.preview(selected.key, values)}
        onTurn={(values) => bench.turn(selected.key, values)}
      />
    </>
  );
}

/** The plugin's name in its slot, typed over in place. */
function LabelField({
  processor,
  onCall,
}: {
  readonly processor: Processor;
  readonly onCall: (label: string | null) => void;
}) {
  const shown = processorName(processor);
  return (
    <input
      key={`${processor.key} ${shown}`}
      aria-label="Name of this plugin"
      defaultValue={shown}
      maxLength={200}
      size={Math.max(10, shown.length)}
      className="-mx-1 min-w-0 rounded-card bg-transparent px-1 font-name text-[18px] leading-6 hover:bg-sunk focus:bg-card"
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape") {
          event.currentTarget.value = shown;
          event.currentTarget.blur();
        }
      }}
      onBlur={(event) => {
        const typed = event.target.value.trim();
        if (typed === shown) return;
        const isModel = typed === "" || typed === findModel(processor.model)?.name;
        onCall(isModel ? null : typed);
      }}
    />
  );
}
