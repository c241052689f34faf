import { type Processor, processorName } from "../chains/chain";
import { processorsOf } from "../chains/tree";
import { type Content, chainOf, isStrips } from "../presets/preset";
import { findModel } from "../processors/models";
import { layersOf } from "../strips/parts/source";
import { foundTags } from "./found-tags";

/** What is inside a preset, as it is kept beside it: an index is built without opening a document. */
export interface Inside {
  /** Names of plugins, their own where they have one. */
  readonly names: readonly string[];
  readonly models: readonly string[];
  readonly families: readonly string[];
  readonly makers: readonly string[];
  /** Tags found by measuring. */
  readonly found: readonly string[];
}

const unique = (list: readonly string[]): readonly string[] => [...new Set(list)];

const NOTHING_INSIDE: Inside = { names: [], models: [], families: [], makers: [], found: [] };

/** As it was stored; what an earlier Diathesis did not look for is empty. Throws for what is none. */
export function liftInside(stored: unknown): Inside {
  if (typeof stored !== "object" || stored === null) throw new Error("This does not say what is inside.");
  return { ...NOTHING_INSIDE, ...stored };
}

/** Every plugin that stands in a preset, with the instruments of its strips. */
function processorsIn(content: Content): readonly Processor[] {
  if (content.kind === "plugin" || content.kind === "chain") return processorsOf(chainOf(content));
  const strips = content.kind === "strip" ? [content.strip] : content.strips;
  return strips.flatMap(({ source, inserts }) => [
    ...(source ? layersOf({ source }) : []).flatMap((l) => [l.instrument, ...processorsOf(l.effects)]),
    ...(inserts ? processorsOf(inserts) : []),
  ]);
}

export function insideOf(content: Content): Inside {
  const processors = processorsIn(content);
  const models = processors.flatMap((p) => findModel(p.model) ?? []);
  return {
    // Strips of a set are found by their names, too.
    names: [...(isStrips(content) ? content.strips.map(({ name }) => name) : []), ...processors.map(processorName)],
    models: unique(models.map((m) => m.name)),
    families: unique(models.map((m) => m.family)),
    makers: unique(models.map((m) => m.maker)),
    found: foundTags(content),
  };
}
