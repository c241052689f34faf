import { type Processor, processorName } from "../chains/chain";
import { type Content, isStrips } from "../presets/preset";
import { processorsIn, processorsOn } from "../presets/processors-in";
import { findModel } from "../processors/models";
import type { SavedStrip } from "../strips/strip";
import { measuredIn } from "./found-tags";

/** What is inside a preset, as it is kept beside it: an index is built without opening a document. */
export interface Inside {
  /** Names of plugins, their own where they have one. */
  readonly names: readonly string[];
  readonly models: readonly string[];
  readonly families: readonly string[];
  readonly makers: readonly string[];
  /** Tags found by measuring. */
  readonly found: readonly string[];
  /** How many plugins. */
  readonly length: number;
  /** How long the longest of its reverbs that is heard rings, in seconds. */
  readonly decay?: number;
  /** The tempo of a whole mix, in beats per minute. */
  readonly tempo?: number;
}

const unique = (list: readonly string[]): readonly string[] => [...new Set(list)];

const NOTHING_INSIDE: Inside = { names: [], models: [], families: [], makers: [], length: 0, found: [] };

/** As it was stored; what an earlier Diathesis did not look for is empty. Throws for what is none. */
export function liftInside(stored: unknown): Inside {
  if (typeof stored !== "object" || stored === null) throw new Error("This does not say what is inside.");
  return { ...NOTHING_INSIDE, ...stored };
}

/** What plugins are called, and what they are; nothing of it is measured. */
function knownOf(processors: readonly Processor[]): Inside {
  const models = processors.flatMap((p) => findModel(p.model) ?? []);
  return {
    names: processors.map(processorName),
    models: unique(models.map((m) => m.name)),
    families: unique(models.map((m) => m.family)),
    makers: unique(models.map((m) => m.maker)),
    length: processors.length,
    found: [],
  };
}

/** What is on a strip of a project. */
export const insideOfStrip = (strip: SavedStrip): Inside => knownOf(processorsOn(strip));

/** What a preset has inside, without what would have to be measured. */
export const knownInside = (content: Content): Inside => knownOf(processorsIn(content));

export function insideOf(content: Content): Inside {
  const known = knownInside(content);
  // Strips of a set are found by their names, too.
  const strips = isStrips(content) ? content.strips.map(({ name }) => name) : [];
  const { tags, decay } = measuredIn(content);
  return {
    ...known,
    names: [...strips, ...known.names],
    found: tags,
    ...(decay === null ? {} : { decay }),
    ...(content.kind === "mix" ? { tempo: content.tempo } : {}),
  };
}
