"use client";

import type { Processor } from "@/core/chains/chain";
import { keysFor } from "@/core/recall/arrange";
import * as gestures from "@/core/recall/gestures";
import { useMaterials } from "../listening/materials";
import type { Bench } from "./use-bench";

interface Props {
  readonly bench: Bench;
  readonly processor: Processor;
}

const STRIP = "strip:";
const MATERIAL = "material:";

function chosen({ keyInput }: Processor): string {
  if (!keyInput) return "";
  if ("material" in keyInput) return MATERIAL + keyInput.material;
  return "strip" in keyInput.strip ? STRIP + keyInput.strip.strip : "outside";
}

/** What the detector hears: the sound itself, another strip of the project, or material. */
export function KeyInput({ bench, processor }: Props) {
  const materials = useMaterials();
  const { editing, strip, isDraft } = bench;
  const value = chosen(processor);
  const project = isDraft ? null : (editing.body?.project ?? null);
  const free = project && strip ? keysFor(project, strip) : [];
  // What was chosen once is shown.
  const strips = (project?.strips ?? []).filter((s) => STRIP + s.id === value || free.includes(s));
  const { keyInput } = processor;
  const set = (next: string) => {
    const to: Processor["keyInput"] | null = next.startsWith(STRIP)
      ? { strip: { strip: next.slice(STRIP.length) }, tap: "pre" }
      : next.startsWith(MATERIAL)
        ? { material: next.slice(MATERIAL.length) }
        : null;
    void bench.gesture("Key input", (hand) => gestures.keyBy(hand, processor.key, to));
  };
  return (
    <div className="flex items-center gap-[10px] text-small">
      <label htmlFor="key-input" className="text-soft">
        Detector hears
      </label>
      <select
        id="key-input"
        value={value}
        onChange={(event) => set(event.target.value)}
        className="h-6 rounded-card border border-edge bg-card px-1"
      >
        <option value="">The sound itself</option>
        {value === "outside" && keyInput && "strip" in keyInput && "name" in keyInput.strip && (
          <option value="outside">Strip {keyInput.strip.name}, not in this project</option>
        )}
        {strips.length > 0 && (
          <optgroup label="Strips of this project">
            {strips.map((s) => (
              <option key={s.id} value={STRIP + s.id}>
                {s.look.name}
              </option>
            ))}
          </optgroup>
        )}
        <optgroup label="Material">
          {materials.map((m) => (
            <option key={m.id} value={MATERIAL + m.id}>
              {m.name}
            </option>
          ))}
        </optgroup>
      </select>
      {keyInput && "strip" in keyInput && <span className="text-soft">here the frame drum stands in for it</span>}
    </div>
  );
}
