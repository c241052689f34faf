import type { ModelCounts } from "@/contracts/server";
import { processorsOf } from "@/core/chains/tree";
import { MODELS } from "@/core/processors/models";
import { NOTHING_SOUGHT, parseQuery } from "@/core/search/query";
import { layersOf } from "@/core/strips/parts/source";
import type { Context } from "../store/context";
import { findReadable, listProjects } from "../repositories/projects";

/** Strips of all projects that have each model, by its id. */
async function countUses({ db }: Context): Promise<ReadonlyMap<string, number>> {
  const uses = new Map<string, number>();
  for (const { id } of await listProjects(db)) {
    const record = await findReadable(db, id);
    for (const strip of record?.project.strips ?? []) {
      const processors = [...layersOf(strip).map((l) => l.instrument), ...processorsOf(strip.inserts)];
      for (const model of new Set(processors.map((p) => p.model))) uses.set(model, (uses.get(model) ?? 0) + 1);
    }
  }
  return uses;
}

/** How many presets and strips have each model. */
export async function countModels(context: Context): Promise<ModelCounts> {
  const { search } = context;
  const presets = new Map(search.countAll(parseQuery('kind:"plugin"'), "has"));
  const inside = new Map(search.countAll(NOTHING_SOUGHT, "has"));
  const uses = await countUses(context);
  const counts = MODELS.map(
    ({ id, name }) =>
      [id, { presets: presets.get(name) ?? 0, inside: inside.get(name) ?? 0, uses: uses.get(id) ?? 0 }] as const,
  );
  return { counts: Object.fromEntries(counts) };
}
