"use client";

import { DropdownMenu } from "radix-ui";
import { ChevronRight, Plus } from "lucide-react";
import { useEffect, useRef } from "react";
import { type Processor, processorName } from "@/core/chains/chain";
import { FAMILIES, FAMILY_NAMES, getSpec } from "@/core/processors/model";
import { MODELS, findModel } from "@/core/processors/models";
import { formatPlain } from "@/core/units/format";
import { cx } from "../kit/class-names";
import { quickKeyOf } from "./quick-models";
import { Shape } from "../kit/shape";
import { onMeters } from "../listening/listening";

interface Props {
  readonly processors: readonly Processor[];
  readonly selected: string | null;
  readonly changed: ReadonlySet<string>;
  readonly tempo: number;
  readonly onSelect: (key: string) => void;
  readonly onAdd: (model: string) => void;
}

/** A sample above this is signal; one above full scale clips the next converter. */
const ARRIVES = 0.001;

/** Lights where signal arrives and where it clips, told by colour and by its shape: drawn live, without React. */
function useLights() {
  const lights = useRef(new Map<string, HTMLElement>());
  useEffect(
    () =>
      onMeters(({ processors }) => {
        for (const { key, peakIn } of processors) {
          const light = lights.current.get(key);
          if (light) light.dataset.level = peakIn > 1 ? "clips" : peakIn > ARRIVES ? "arrives" : "none";
        }
      }),
    [],
  );
  return (key: string) => (element: HTMLElement | null) => {
    if (element) lights.current.set(key, element);
    else lights.current.delete(key);
  };
}

/** The chain as its shapes, each with its name and lead value. */
export function Tiles({ processors, selected, changed, tempo, onSelect, onAdd }: Props) {
  const light = useLights();
  return (
    <div className="flex h-[84px] items-start overflow-x-auto pt-px pb-1">
      <ul aria-label="Chain" className="flex">
        {processors.map((processor, at) => {
          const on = processor.key === selected;
          return (
            <li key={processor.key} className="flex items-start">
              {at > 0 && <span className="mt-[25px] h-px w-[14px] bg-edge" />}
              <button
                type="button"
                aria-pressed={on}
                aria-label={`${processorName(processor)}, ${processor.enabled ? leadOf(processor) : "off"}${changed.has(processor.key) ? ", differs from its preset" : ""}`}
                onClick={() => onSelect(processor.key)}
                className="grid w-[138px] grid-cols-[minmax(0,1fr)] gap-[5px] rounded-card text-left"
              >
                <span className="relative block">
                  <Shape
                    processor={processor}
                    tempo={tempo}
                    width={138}
                    height={50}
                    className={cx(on && "border-live! outline outline-live")}
                  />
                  <i
                    ref={light(processor.key)}
                    title="Signal arrives"
                    className="absolute top-[5px] left-[5px] size-[6px] rounded-full border border-edge data-[level=arrives]:border-live data-[level=arrives]:bg-live data-[level=clips]:rounded-none data-[level=clips]:border-alert data-[level=clips]:bg-alert"
                  />
                </span>
                <span className="flex items-baseline justify-between gap-2 text-small">
                  <span className="truncate">
                    {processorName(processor)}
                    {changed.has(processor.key) && (
                      <span className="text-edit" title="Differs from its preset">
                        {" "}
                        ·
                      </span>
                    )}
                  </span>
                  <span className="num-small flex-none text-[11px] text-soft">
                    {processor.enabled ? leadOf(processor) : "off"}
                  </span>
                </span>
              </button>
            </li>
          );
        })}
      </ul>
      {processors.length > 0 && <span className="mt-[25px] h-px w-[14px] flex-none bg-edge" />}
      <AddPlugin onAdd={onAdd} />
    </div>
  );
}

function leadOf(processor: Processor): string {
  const model = findModel(processor.model);
  if (!model) return "";
  const spec = getSpec(model, model.lead);
  // Round figures stand without their zero: there is little room on a tile.
  return formatPlain(spec, processor.values[model.lead] ?? spec.default).replace(".0 ", " ");
}

const MENU = "z-40 w-[220px] rounded-card border border-edge bg-card py-1";
const ITEM =
  "flex h-[34px] cursor-pointer items-center justify-between px-3 outline-none data-[highlighted]:bg-live-tint data-[highlighted]:text-live data-[state=open]:bg-live-tint";

function AddPlugin({ onAdd }: { readonly onAdd: (model: string) => void }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        id="add-plugin"
        className="flex h-[50px] flex-none items-center gap-2 rounded-card border border-edge border-dashed px-3 text-soft hover:border-ink hover:text-ink"
      >
        <Plus size={16} aria-hidden="true" /> Add plugin
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" sideOffset={4} className={MENU}>
          {FAMILIES.map((family) => (
            <DropdownMenu.Sub key={family}>
              <DropdownMenu.SubTrigger className={ITEM}>
                {FAMILY_NAMES[family]}
                <ChevronRight size={14} aria-hidden="true" className="text-soft" />
              </DropdownMenu.SubTrigger>
              <DropdownMenu.Portal>
                <DropdownMenu.SubContent className={MENU} alignOffset={-5}>
                  {MODELS.filter((model) => model.family === family).map((model) => (
                    <DropdownMenu.Item key={model.id} onSelect={() => onAdd(model.id)} className={ITEM}>
                      {model.name}
                      {quickKeyOf(model.id) && <kbd className="num-small text-soft">{quickKeyOf(model.id)}</kbd>}
                    </DropdownMenu.Item>
                  ))}
                </DropdownMenu.SubContent>
              </DropdownMenu.Portal>
            </DropdownMenu.Sub>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
