"use client";

import { type ReactNode } from "react";
import { processorName, processorsOf } from "@/core/chains/chain";
import { type Content } from "@/core/presets/preset";
import { describeOutput } from "@/core/projects/project";
import { PARTS, PART_NAMES, layersOf, type PartName, formatFader, formatPanPart } from "@/core/strips/strip";
import { Shape } from "../kit/shape";
import { Tick } from "../kit/tick";
import { type FormProps, chainOfRequest, nodeOf } from "./proposal";

export function countWords(content: Content | null): string {
  if (!content) return "switch on what is to be kept";
  const processors =
    content.kind === "plugin"
      ? [content.processor]
      : content.kind === "chain"
        ? processorsOf(content.chain)
        : content.kind === "strip" && content.strip.inserts
          ? processorsOf(content.strip.inserts)
          : [];
  return `${processors.length} plugin${processors.length === 1 ? "" : "s"}`;
}

interface WhatProps extends FormProps {
  readonly parts: readonly PartName[];
  readonly onParts: (parts: readonly PartName[]) => void;
}

const WITH_INSTRUMENT = "grid grid-cols-[120px_150px_minmax(0,1fr)_100px_72px_110px_90px] items-center gap-x-[10px]";
const COLUMNS = "grid grid-cols-[120px_minmax(0,1fr)_100px_72px_110px_120px] items-center gap-x-[10px]";

/** The table of what goes in: strips by parts, each with its switch. */
export function WhatGoesIn({ request, body, strip, parts, onParts }: WhatProps) {
  const node = nodeOf({ request, body, strip });
  const chain = chainOfRequest({ request, body, strip });
  const layer = layersOf(strip).find((l) => l.key === request.layer);
  const processors =
    request.instrument && layer ? [layer.instrument] : processorsOf(node ? { ...chain, nodes: [node] } : chain);
  const shapes = (
    <span className="flex flex-wrap gap-x-2 gap-y-1">
      {processors.map((processor) => (
        <span key={processor.key} className="grid justify-items-start gap-px text-small">
          <Shape processor={processor} tempo={body.project.tempo} />
          <span className="max-w-[110px] truncate text-soft">
            {processorName(processor)}
            {processor.enabled ? "" : ", off"}
          </span>
        </span>
      ))}
      {processors.length === 0 && <span className="text-soft">no plugins</span>}
    </span>
  );
  const says: Record<PartName, ReactNode> = {
    source: (
      <span className="flex flex-wrap gap-1">
        {layersOf(strip).map((layer) => (
          <Shape key={layer.key} processor={layer.instrument} tempo={body.project.tempo} />
        ))}
      </span>
    ),
    inserts: shapes,
    level: `${formatFader(strip.level)} dB`,
    pan: formatPanPart(strip.pan),
    routing: describeOutput(body.project, strip.routing.output),
    look: "name, colour",
  };
  const only = request.node !== undefined || request.layer !== undefined || body.draft !== null;
  const plays = strip.kind === "instrument" && request.node === undefined && request.layer === undefined;
  const shown: readonly PartName[] = only
    ? plays
      ? ["source", "inserts"]
      : ["inserts"]
    : PARTS.filter((part) => part !== "source" || plays);
  const columns = plays ? WITH_INSTRUMENT : COLUMNS;
  return (
    <div role="table" aria-label="What goes in">
      <div role="row" className={`${columns} h-7 border-edge border-b text-small text-soft`}>
        <span role="columnheader">Strip</span>
        {shown.map((part) => (
          <span role="columnheader" key={part}>
            {PART_NAMES[part]}
          </span>
        ))}
      </div>
      <div role="row" className={`${columns} min-h-[58px] border-rule border-b py-1`}>
        <span role="cell" className="name truncate">
          {strip.look.name}
        </span>
        {shown.map((part) => (
          <span role="cell" key={part} className="flex min-w-0 items-center gap-[7px]">
            {request.node === undefined && request.layer === undefined && (
              <Tick
                label={`${PART_NAMES[part]} of ${strip.look.name}`}
                on={parts.includes(part)}
                onChange={(on) => onParts(PARTS.filter((p) => (p === part ? on : parts.includes(p))))}
              />
            )}
            <span className={parts.includes(part) ? "" : "text-faint"}>{says[part]}</span>
          </span>
        ))}
      </div>
    </div>
  );
}
