import type { ProjectBody } from "@/contracts/endpoints";
import { type From, findProcessor, processorName } from "@/core/chains/chain";
import { type Content, type Origin } from "@/core/presets/preset";
import { saveChain, saveStrip } from "@/core/presets/save";
import { CONTENT_SCHEMA } from "@/core/presets/version";
import * as gestures from "@/core/recall/gestures";
import { type PartName, type Strip } from "@/core/strips/strip";
import { plainDate } from "../kit/dates";
import { mintKey } from "../projects/mint";
import { type SaveRequest } from "./save";

export const splitTags = (tags: string): string[] => [
  ...new Set(
    tags
      .split(/[,;]/)
      .map((t) => t.trim())
      .filter((t) => t !== ""),
  ),
];

export interface FormProps {
  readonly request: SaveRequest;
  readonly body: ProjectBody;
  readonly strip: Strip;
}

/** What is being kept, by the switches that are on. */
export function contentOf({ request, body, strip }: FormProps, parts: readonly PartName[]): Content | null {
  if (request.processor !== undefined) {
    const processor = findProcessor(strip.inserts, request.processor);
    if (!processor) return null;
    const { from: _, ...sound } = processor;
    return { kind: "plugin", schema: CONTENT_SCHEMA, processor: sound };
  }
  const { from: _, ...inserts } = strip.inserts;
  if (parts.length === 1 && parts[0] === "inserts") return saveChain(strip.inserts);
  return parts.length === 0 ? null : saveStrip(body.project, { ...strip, inserts }, parts);
}

export function originOf({ body: { project, draft }, strip }: FormProps): Origin {
  const date = plainDate(new Date());
  if (draft) return { date };
  const words = {
    artist: project.artist,
    client: project.client,
    song: project.song,
    project: project.name,
    strip: strip.look.name,
  };
  return { ...Object.fromEntries(Object.entries(words).filter(([, word]) => word !== "")), date };
}

export function proposeName({ request, body, strip }: FormProps): string {
  const processor = request.processor === undefined ? null : findProcessor(strip.inserts, request.processor);
  if (body.draft)
    return processor
      ? `${processorName(processor)} of ${body.project.name}`
      : body.project.name === "New sound"
        ? ""
        : `${body.project.name}, variation`;
  return processor
    ? `${strip.look.name} ${processorName(processor)}, ${body.project.song}`
    : `${strip.look.name}, ${body.project.song}`;
}

/** After saving, the thing in hand goes by the new name. */
export function followSteps(content: Content, { strip, request }: FormProps, from: From) {
  const hand = { strip, mint: mintKey };
  if (content.kind === "plugin") {
    const processor = findProcessor(strip.inserts, request.processor ?? "");
    return processor ? gestures.followPlugin(hand, processor, from) : [];
  }
  return content.kind === "chain" || (content.kind === "strip" && content.strip.inserts)
    ? gestures.follow(hand, from)
    : [];
}
