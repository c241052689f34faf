"use client";

import { ArrowLeft, ArrowRight, Trash2 } from "lucide-react";
import { type Processor, processorName } from "@/core/chains/chain";
import { macrosMoving } from "@/core/chains/macros";
import type { Model } from "@/core/processors/model";
import * as gestures from "@/core/recall/gestures";
import type { ParamId, Value } from "@/core/units/param-spec";
import { Button } from "../kit/button";
import { setDifference } from "../listening/listening";
import { useListening } from "../listening/state";
import { NameField } from "../kit/name-field";
import { Toggle } from "../kit/toggle";
import { ModelEditor } from "./editors/model-editor";
import { KeyInput } from "./key-input";
import { touched } from "./learning";
import { OtherModel } from "./other-model";
import type { Bench as BenchState } from "./use-bench";
import type { BenchGestures } from "./use-bench-gestures";

interface EditorHostProps {
  readonly bench: BenchState;
  readonly model: Model;
  readonly selected: Processor;
  readonly act: BenchGestures;
}

export function Editor({ bench, model, selected, act }: EditorHostProps) {
  const { partners, tempo } = bench;
  const difference = useListening((l) => l.difference);
  /** A macro that learns takes words, switches and handles as it takes rulers: they stay as they are. */
  const turn = (values: Readonly<Record<ParamId, Value>>) => {
    const taken = Object.keys(values).filter((param) => touched({ node: selected.key, param }));
    if (taken.length > 0) bench.preview(selected.key, {});
    else bench.turn(selected.key, values);
  };
  return (
    <>
      <div className="flex flex-none flex-wrap items-center gap-x-3 gap-y-1 border-edge border-t pt-[10px]">
        <NameField
          of={selected.key}
          large
          label="Name of this plugin"
          name={processorName(selected)}
          onName={(typed) =>
            void bench.gesture(`Name ${model.name}`, (h) =>
              gestures.rename(h, selected.key, typed === "" || typed === model.name ? null : typed),
            )
          }
        />
        {selected.label !== undefined && <span className="text-small text-soft">{model.name}</span>}
        {selected.from && <span className="text-small text-soft">from {selected.from.name}</span>}
        <span className="ml-auto flex items-center gap-2 text-small">
          <Toggle label={selected.enabled ? "On" : "Off"} on={selected.enabled} onChange={act.toggle} />
          <OtherModel bench={bench} processor={selected} model={model} />
          <Button
            small
            aria-pressed={difference === selected.key}
            title="Hear only what this plugin adds or takes away (I)"
            onClick={() => setDifference(difference === selected.key ? null : selected.key)}
          >
            Difference
          </Button>
          <Button small aria-label="Move earlier" title="Move earlier (Alt ←)" onClick={() => act.moveBy(-1)}>
            <ArrowLeft size={14} aria-hidden="true" />
          </Button>
          <Button small aria-label="Move later" title="Move later (Alt →)" onClick={() => act.moveBy(1)}>
            <ArrowRight size={14} aria-hidden="true" />
          </Button>
          <Button small onClick={() => act.saveNode(selected.key)}>
            Save plugin…
          </Button>
          <Button small onClick={act.takeOut}>
            <Trash2 size={14} aria-hidden="true" />
            Take out
          </Button>
        </span>
      </div>
      {model.isKeyed && <KeyInput bench={bench} processor={selected} />}
      <ModelEditor
        key={selected.key}
        model={model}
        processor={selected}
        saved={partners.get(selected.key) ?? null}
        tempo={tempo}
        onTouch={(param) => touched({ node: selected.key, param })}
        movedBy={(param) => macrosMoving(bench.chain, selected.key, param)}
        onPreview={(values) => bench.preview(selected.key, values)}
        onTurn={turn}
      />
    </>
  );
}
