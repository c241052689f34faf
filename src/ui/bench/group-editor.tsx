"use client";

import { Plus, Trash2 } from "lucide-react";
import type { Lane, Section, Split } from "@/core/chains/chain";
import { LANE_LEVEL, panSpecOf } from "@/core/chains/params";
import { panLawOf } from "@/core/chains/tree";
import { frequencySpec } from "@/core/processors/specs";
import { Button } from "../kit/button";
import { NameField } from "../kit/name-field";
import { Segments } from "../kit/segments";
import { Toggle } from "../kit/toggle";
import { ValueLine } from "../kit/value-line";
import type { Bench } from "./use-bench";
import { touched } from "./learning";
import type { BenchGestures } from "./use-bench-gestures";

const PAN_LAWS = [
  { value: "pan", label: "Pan", title: "What is on the far side goes over to the near one." },
  { value: "balance", label: "Balance", title: "What is on the far side gets quieter." },
] as const;

const CROSSOVER = frequencySpec("crossover", "Crossover", [20, 20_000, 800]);

interface SplitProps {
  readonly split: Split;
  readonly saved: Split | null;
  readonly bench: Bench;
  readonly act: BenchGestures;
}

/** How lanes are blended, or where bands are parted. */
export function SplitEditor({ split, saved, bench, act }: SplitProps) {
  const { by, lanes } = split;
  return (
    <div className="grid grid-cols-1 gap-3">
      <div className="flex flex-wrap items-center gap-3 border-edge border-t pt-[10px]">
        <h2 className="font-name text-[18px] leading-6">{by.way === "bands" ? "Bands" : "Lanes"}</h2>
        <Segments
          small
          label="Split by"
          value={by.way}
          onChange={(way) => act.splitBy(split, way)}
          options={[
            { value: "copy", label: "Whole sound in each" },
            { value: "bands", label: "Frequency bands" },
          ]}
        />
        <span className="ml-auto flex gap-2">
          <Button small disabled={lanes.length >= 8} onClick={() => act.addLane(split)}>
            <Plus size={14} aria-hidden="true" />
            {by.way === "bands" ? "Add a band" : "Add a lane"}
          </Button>
          <Button small onClick={() => act.dissolve(split.key)}>
            Put in a row
          </Button>
          <Button small onClick={act.takeOut}>
            <Trash2 size={14} aria-hidden="true" />
            Take out
          </Button>
        </span>
      </div>
      {by.way === "bands" && (
        <div className="grid grid-cols-2 gap-x-5">
          {by.crossovers.map((hz, at) => (
            <ValueLine
              // Crossovers have no names: the place is the identity.
              key={at}
              spec={{ ...CROSSOVER, name: `${lanes[at]?.name ?? ""} to ${lanes[at + 1]?.name ?? ""}` }}
              value={hz}
              saved={saved?.by.way === "bands" ? saved.by.crossovers[at] : undefined}
              tempo={bench.tempo}
              onChange={(value) => act.previewCrossover(split, at, Number(value))}
              onChangeEnd={(value) => act.setCrossover(split, at, Number(value))}
            />
          ))}
        </div>
      )}
      <ul className="grid grid-cols-1 gap-1">
        {lanes.map((lane) => (
          <LaneLine
            key={lane.key}
            lane={lane}
            saved={saved?.lanes.find((l) => l.key === lane.key) ?? null}
            alone={lanes.length === 1}
            bench={bench}
            act={act}
            split={split}
          />
        ))}
      </ul>
    </div>
  );
}

interface LaneProps extends SplitProps {
  readonly lane: Lane;
  readonly alone: boolean;
}

function LaneLine({
  lane,
  saved,
  alone,
  bench,
  act,
  split,
}: Omit<LaneProps, "saved"> & { readonly saved: Lane | null }) {
  const empty = lane.nodes.length === 0;
  return (
    <li aria-label={`Lane ${lane.name}`} className="flex flex-wrap items-center gap-x-4 border-rule border-t pt-1">
      <span className="min-w-[90px] basis-[90px] grow-2">
        <NameField
          of={lane.key}
          label="Name of the lane"
          name={lane.name}
          onName={(name) => act.setLane(lane.key, { name })}
        />
      </span>
      <span className="text-small">
        <Toggle
          label={lane.enabled ? "On" : "Off"}
          name={`Lane ${lane.name}`}
          on={lane.enabled}
          onChange={(enabled) => act.setLane(lane.key, { enabled })}
        />
      </span>
      <span className="min-w-[264px] basis-[264px] grow-2">
        <ValueLine
          spec={LANE_LEVEL}
          value={lane.level}
          saved={saved?.level}
          tempo={bench.tempo}
          onTouch={() => touched({ node: lane.key, param: "level" })}
          onChange={(level) => bench.previewLane(lane.key, { level: Number(level) })}
          onChangeEnd={(level) => act.setLane(lane.key, { level: Number(level) })}
        />
      </span>
      <span className="flex min-w-[224px] basis-[224px] grow-2 items-center gap-x-3">
        <Segments
          tight
          label={`How ${lane.name} is moved to a side`}
          value={panLawOf(lane)}
          onChange={(panLaw) => act.setLane(lane.key, { panLaw })}
          options={PAN_LAWS}
        />
        <span className="min-w-[126px] flex-1">
          <ValueLine
            spec={panSpecOf(lane)}
            label=""
            value={lane.pan}
            saved={saved?.pan}
            tempo={bench.tempo}
            onTouch={() => touched({ node: lane.key, param: "pan" })}
            onChange={(pan) => bench.previewLane(lane.key, { pan: Number(pan) })}
            onChangeEnd={(pan) => act.setLane(lane.key, { pan: Number(pan) })}
          />
        </span>
      </span>
      <Button
        small
        plain
        disabled={alone}
        title={alone ? "The last lane stays; put them in a row instead." : empty ? "" : "Its plugins go too."}
        onClick={() => act.removeLane(split, lane.key)}
      >
        Remove
      </Button>
    </li>
  );
}

interface SectionProps {
  readonly section: Section;
  readonly bench: Bench;
  readonly act: BenchGestures;
}

/** A section's name, whether it sounds, and what can be done with all of it. */
export function SectionEditor({ section, bench, act }: SectionProps) {
  return (
    <div className="grid grid-cols-1 gap-3">
      <div className="flex flex-wrap items-center gap-3 border-edge border-t pt-[10px]">
        <NameField
          of={section.key}
          large
          label="Name of this section"
          name={section.name}
          onName={(name) => void bench.gesture(`Name section ${name}`, (h) => act.rename(h, section.key, name))}
        />
        {section.from && <span className="text-small text-soft">from {section.from.name}</span>}
        <span className="ml-auto flex items-center gap-2 text-small">
          <Toggle label={section.enabled ? "On" : "Off"} on={section.enabled} onChange={act.toggle} />
          <Button small onClick={() => act.saveNode(section.key)}>
            Save this section…
          </Button>
          <Button small onClick={() => act.dissolve(section.key)}>
            Take the bracket off
          </Button>
          <Button small onClick={act.takeOut}>
            <Trash2 size={14} aria-hidden="true" />
            Take out
          </Button>
        </span>
      </div>
      <p className="text-soft">
        {section.nodes.length === 0
          ? "Nothing is in this section. Drag plugins into it, or replace it by a chain of the library."
          : "A section can be saved, replaced and switched off by itself. Choose a plugin in it to set that one."}
      </p>
    </div>
  );
}
