"use client";

import { type EdgeLabel, Graph, type GraphLabel, type NodeLabel, type Point, layout } from "@dagrejs/dagre";
import { useMemo } from "react";
import { type HeldFlow, type HeldWay, heldFlow } from "@/core/presets/held-flow";
import type { Content } from "@/core/presets/preset";
import { PART } from "@/core/strips/parts";
import { Scroll } from "../kit/scroll";

/** In pixels. */
const BOX = { height: 22, least: 48, most: 148, aLetter: 7.4, around: 18, apart: 7, ranks: 46 };

/** How a way is drawn, by the part that leads there: what is no output is a thinner line. */
const LINES: Partial<Record<HeldWay["part"], string>> = { inserts: "3 3", source: "1 3" };

const placed = (node?: NodeLabel) => ({ x: node?.x ?? 0, y: node?.y ?? 0, width: node?.width ?? 0 });

/** Every strip in its column, its sound going from left to right. */
function place({ points, ways }: HeldFlow) {
  const graph = new Graph<GraphLabel, NodeLabel, EdgeLabel>({ multigraph: true });
  graph.setGraph({ rankdir: "LR", nodesep: BOX.apart, edgesep: 4, ranksep: BOX.ranks, marginx: 1, marginy: 2 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const { id, name } of points) {
    const width = Math.min(BOX.most, Math.max(BOX.least, name.length * BOX.aLetter + BOX.around));
    graph.setNode(id, { width, height: BOX.height });
  }
  for (const { from, to, part } of ways) graph.setEdge(from, to, {}, part);
  layout(graph);
  const { width = 0, height = 0 } = graph.graph();
  return {
    width,
    height,
    points: points.map((point) => ({ ...point, at: placed(graph.node(point.id)) })),
    ways: ways.map((way) => ({ ...way, line: graph.edge(way.from, way.to, way.part)?.points ?? [] })),
  };
}

const pathOf = ([first, ...rest]: readonly Point[]): string =>
  first ? `M${first.x} ${first.y}${rest.map(({ x, y }) => `L${x} ${y}`).join("")}` : "";

/** All that the drawing shows, as a list of sentences. */
function told({ points, ways }: HeldFlow): string {
  const nameOf = (id: string) => points.find((point) => point.id === id)?.name ?? "";
  const led = ways.map(({ from, to, part }) =>
    PART[part].aims?.way === "in"
      ? `${nameOf(to)} ${PART[part].aims.leads} ${nameOf(from)}`
      : `${nameOf(from)} ${PART[part].aims?.leads} ${nameOf(to)}`,
  );
  const outside = points.filter(({ inside }) => !inside).map(({ name }) => name);
  return [...led, ...(outside.length > 0 ? [`by name only: ${outside.join(", ")}`] : [])].join("; ");
}

const shorten = (name: string): string => {
  const most = Math.floor((BOX.most - BOX.around) / BOX.aLetter);
  return name.length > most ? `${name.slice(0, most - 1)}…` : name;
};

/** What a preset will hold of the signal flow: its strips, and with a broken edge those that it knows by their names. */
export function FlowDrawing({ content, name }: { readonly content: Content; readonly name: string }) {
  const flow = useMemo(() => heldFlow(content, name), [content, name]);
  const drawn = useMemo(() => (flow.ways.length > 0 ? place(flow) : null), [flow]);
  if (!drawn) return null;
  return (
    <div className="grid min-w-0 content-start gap-1">
      <p className="text-small text-soft">Signal flow that is kept; a broken edge: outside, known by its name</p>
      <Scroll label="Signal flow" className="max-h-[130px] rounded-card border border-rule bg-ground p-2">
        <svg role="img" aria-label={told(flow)} width={drawn.width} height={drawn.height} className="block">
          {drawn.ways.map(({ from, to, part, line }) => (
            <path
              key={`${part} ${from} ${to}`}
              d={pathOf(line)}
              className="fill-none stroke-edge"
              strokeWidth={part === "routing" ? 1.5 : 1}
              strokeDasharray={LINES[part]}
            />
          ))}
          {drawn.points.map(({ id, name: called, inside, at }) => (
            <g key={id} transform={`translate(${at.x - at.width / 2} ${at.y - BOX.height / 2})`}>
              <title>{inside ? called : `${called}, by its name`}</title>
              <rect
                width={at.width}
                height={BOX.height}
                rx={3}
                className={inside ? "fill-card stroke-edge" : "fill-ground stroke-bound"}
                strokeDasharray={inside ? undefined : "4 3"}
              />
              <text
                x={at.width / 2}
                y={15}
                textAnchor="middle"
                className={`font-name text-[14px] ${inside ? "fill-ink" : "fill-soft"}`}
              >
                {shorten(called)}
              </text>
            </g>
          ))}
        </svg>
      </Scroll>
    </div>
  );
}
