"use client";

import { Menu } from "../../kit/menu";
import { Plus } from "lucide-react";
import { processorName } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { MODELS } from "@/core/processors/models";
import { cx } from "../../kit/class-names";
import { Shape, Shapes } from "../../kit/shape";
import type { Instrument } from "./use-instrument";

interface Props {
  readonly instrument: Instrument;
  readonly tempo: number;
}

const INSTRUMENTS = MODELS.filter((model) => model.family === "instrument");

/** What plays: a tile for each layer, its own effects small behind it. */
export function LayerTiles({ instrument, tempo }: Props) {
  const { layers, selected, select, add } = instrument;
  return (
    <section aria-label="Instrument" className="flex flex-none items-start gap-3">
      <ul className="flex gap-3">
        {layers.map((layer) => (
          <li key={layer.key} className="grid w-[138px] grid-cols-[minmax(0,1fr)] content-start gap-[3px]">
            <button
              type="button"
              data-node={layer.key}
              aria-pressed={selected?.key === layer.key}
              aria-label={`Layer ${layer.name}`}
              onClick={() => select(selected?.key === layer.key ? null : layer.key)}
              className="rounded-card"
            >
              <Shape
                processor={layer.instrument}
                tempo={tempo}
                width={138}
                height={50}
                className={cx(selected?.key === layer.key && "border-live! outline outline-live")}
              />
            </button>
            <span className="flex items-center justify-between gap-2 text-small">
              <span className="truncate">{layer.name || processorName(layer.instrument)}</span>
              {layer.effects.nodes.length > 0 && (
                <Shapes processors={processorsOf(layer.effects)} tempo={tempo} most={2} width={24} />
              )}
            </span>
          </li>
        ))}
      </ul>
      <Menu
        trigger={
          <button
            type="button"
            className="flex h-[50px] flex-none items-center gap-2 rounded-card border border-edge border-dashed px-3 text-soft hover:border-ink hover:text-ink"
          >
            <Plus size={16} aria-hidden="true" /> Add layer
          </button>
        }
        items={INSTRUMENTS.map((model) => ({ id: model.id, label: model.name, onChoose: () => void add(model.id) }))}
      />
    </section>
  );
}
