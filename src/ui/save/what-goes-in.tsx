"use client";

import { counted } from "@/core/names/count";
import type { ReactNode } from "react";
import { type Processor, processorName } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { type Content, isStrips } from "@/core/presets/preset";
import { describeOutput, nameIn } from "@/core/projects/project";
import { PART, PARTS, type PartName } from "@/core/strips/parts";
import { describeLevel } from "@/core/strips/parts/level";
import { describeMedia } from "@/core/strips/parts/media";
import { describePan } from "@/core/strips/parts/pan";
import { layersOf } from "@/core/strips/parts/source";
import { offeredParts } from "@/core/strips/strip";
import { Scroll } from "../kit/scroll";
import { Shape } from "../kit/shape";
import { Tick } from "../kit/tick";
import { type Subject, chainOfRequest, nodeOf } from "./proposal";
import type { Item } from "./use-saving";

export function countWords(content: Content | null): string {
  if (!content) return "switch on what is to be kept";
  if (isStrips(content)) return counted(content.strips.length, "strip");
  const processors =
    content.kind === "plugin"
      ? [content.processor]
      : content.kind === "chain"
        ? processorsOf(content.chain)
        : content.kind === "strip" && content.strip.inserts
          ? processorsOf(content.strip.inserts)
          : [];
  return counted(processors.length, "plugin");
}

interface WhatProps {
  readonly items: readonly Item[];
  /** All of them are one preset. */
  readonly isOne?: boolean;
  readonly onParts: (strip: string, parts: readonly PartName[]) => void;
}

const WIDTHS: Readonly<Record<PartName, string>> = {
  source: "150px",
  inserts: "minmax(210px,1fr)",
  sends: "132px",
  level: "98px",
  pan: "66px",
  routing: "106px",
  look: "96px",
  media: "76px",
};

/** One thing of a strip by itself, which has no parts to choose from. */
const isOne = ({ request }: Subject): boolean => request.node !== undefined || request.layer !== undefined;

const plays = (subject: Subject): boolean => subject.strip.kind === "instrument" && !isOne(subject);

/** The parts that a thing has to offer. */
function partsOf(subject: Subject): readonly PartName[] {
  if (isOne(subject) || subject.body.draft) return plays(subject) ? ["source", "inserts"] : ["inserts"];
  return offeredParts(subject.strip);
}

/** The table of what goes in: strips by parts, each with its switch. What is switched off is not kept. */
export function WhatGoesIn({ items, isOne: together = false, onParts }: WhatProps) {
  const shown = PARTS.filter((part) => items.some(({ subject }) => partsOf(subject).includes(part)));
  const many = items.length > 1;
  const columns = { gridTemplateColumns: [many ? "158px" : "140px", ...shown.map((part) => WIDTHS[part])].join(" ") };
  const setColumn = (part: PartName, on: boolean) => {
    for (const { subject, parts } of items)
      if (partsOf(subject).includes(part)) onParts(subject.strip.id, switched(parts, part, on));
  };
  return (
    <Scroll label="What goes in" className={together ? "max-h-[min(240px,25vh)]" : "max-h-[min(330px,38vh)]"}>
      <div role="table" aria-label="What goes in">
        <div
          role="row"
          style={columns}
          className="sticky top-0 z-10 grid h-7 items-center gap-x-[10px] border-edge border-b bg-card text-small text-soft"
        >
          <span role="columnheader">Strip</span>
          {shown.map((part) => (
            <span role="columnheader" key={part} className="flex items-center gap-[7px]">
              {many && (
                <Tick
                  label={`${PART[part].title} of all`}
                  on={items.every(({ subject, parts }) => !partsOf(subject).includes(part) || parts.includes(part))}
                  onChange={(on) => setColumn(part, on)}
                />
              )}
              {PART[part].title}
            </span>
          ))}
        </div>
        {items.map((item) => (
          <StripRow
            key={item.subject.strip.id}
            item={item}
            shown={shown}
            many={many}
            style={columns}
            together={together}
            onParts={onParts}
          />
        ))}
      </div>
    </Scroll>
  );
}

const switched = (parts: readonly PartName[], part: PartName, on: boolean): readonly PartName[] =>
  PARTS.filter((p) => (p === part ? on : parts.includes(p)));

interface RowProps extends Pick<WhatProps, "onParts"> {
  readonly item: Item;
  readonly shown: readonly PartName[];
  readonly many: boolean;
  readonly together: boolean;
  readonly style: { readonly gridTemplateColumns: string };
}

function StripRow({
  item: { subject, parts, content, name, clashed },
  shown,
  many,
  together,
  style,
  onParts,
}: RowProps) {
  const { strip } = subject;
  const says = saysOf(subject);
  const own = partsOf(subject);
  return (
    <div role="row" style={style} className="grid min-h-[58px] items-center gap-x-[10px] border-rule border-b py-1">
      <span role="cell" className="min-w-0">
        <span className="name block truncate">{strip.look.name}</span>
        {many && (
          <span className={`block truncate text-small ${clashed ? "text-edit" : "text-soft"}`} title={name}>
            {parts.length === 0 || !content ? "not kept" : together ? "" : `as “${name}”`}
          </span>
        )}
      </span>
      {shown.map((part) => (
        <span role="cell" key={part} className="flex min-w-0 items-center gap-[7px]">
          {own.includes(part) && !isOne(subject) && (
            <Tick
              label={`${PART[part].title} of ${strip.look.name}`}
              on={parts.includes(part)}
              onChange={(on) => onParts(strip.id, switched(parts, part, on))}
            />
          )}
          {own.includes(part) && (
            <span className={`min-w-0 ${parts.includes(part) || isOne(subject) ? "" : "text-faint"}`}>
              {says[part]}
            </span>
          )}
        </span>
      ))}
    </div>
  );
}

/** What stands in each cell. */
function saysOf(subject: Subject): Record<PartName, ReactNode> {
  const { body, strip, request } = subject;
  const { tempo } = body.project;
  const node = nodeOf(subject);
  const chain = chainOfRequest(subject);
  const layer = layersOf(strip).find((l) => l.key === request.layer);
  const processors =
    request.instrument && layer ? [layer.instrument] : processorsOf(node ? { ...chain, nodes: [node] } : chain);
  return {
    source: (
      <span className="flex flex-wrap gap-1">
        {layersOf(strip).map((l) => (
          <Shape key={l.key} processor={l.instrument} tempo={tempo} />
        ))}
      </span>
    ),
    inserts: <Row processors={processors} tempo={tempo} />,
    sends: PART.sends.words(strip.sends, { kind: strip.kind, nameOf: nameIn(body.project) }),
    level: describeLevel(strip.level),
    pan: describePan(strip.pan),
    routing: describeOutput(body.project, strip.routing.output),
    look: "name, colour",
    media: describeMedia(strip.media),
  };
}

function Row({ processors, tempo }: { readonly processors: readonly Processor[]; readonly tempo: number }) {
  return (
    <span className="flex flex-wrap gap-x-2 gap-y-1">
      {processors.map((processor) => (
        <span key={processor.key} className="grid justify-items-start gap-px text-small">
          <Shape processor={processor} tempo={tempo} />
          <span className="max-w-[110px] truncate text-soft">
            {processorName(processor)}
            {processor.enabled ? "" : ", off"}
          </span>
        </span>
      ))}
      {processors.length === 0 && <span className="text-soft">no plugins</span>}
    </span>
  );
}
