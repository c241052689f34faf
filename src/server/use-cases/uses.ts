import type { Use } from "@/contracts/records";
import { originsOf } from "@/core/chains/chain";
import { differencesOf } from "@/core/chains/differences";
import { contentMeant } from "@/core/presets/meant";
import { type Content, chainOf } from "@/core/presets/preset";
import { differencesFrom, referenceOf } from "@/core/presets/standing";
import type { Project } from "@/core/projects/project";
import { ok } from "@/core/result";
import { loadedFrom } from "@/core/strips/loaded";
import type { Strip } from "@/core/strips/strip";
import type { Executor } from "../data/executor";
import { type Outcome, failure } from "../failure";
import { listMerged } from "../repositories/preset-lists";
import { findFiled, findVersion } from "../repositories/presets";
import { findReadable, listUses } from "../repositories/projects";
import type { Context } from "../store/context";

/* Where a preset is used: which strips of which projects something of came from it. */

/** Every strip that has something of a preset, or of one that was put into it, and how far that is from what was saved. */
export async function getUses({ db }: Context, id: string): Promise<Outcome<{ uses: Use[] }>> {
  if (!(await findFiled(db, id))) return failure("notFound", `There is no preset “${id}” here.`);
  const merged = await listMerged(db, id);
  const uses = await Promise.all([id, ...merged.map((m) => m.id)].map((one) => usesOf(db, one)));
  return ok({ uses: uses.flat() });
}

/** A project that is not in the bin, where nothing is made to follow a newer version. */
async function findOutside(db: Executor, id: string): Promise<Project | null> {
  const record = await findReadable(db, id);
  return record && record.binnedAt === null ? record.project : null;
}

async function usesOf(db: Executor, preset: string): Promise<readonly Use[]> {
  const rows = await listUses(db, preset);
  const versions = new Map<number, Content>();
  for (const version of new Set(rows.map((row) => row.version))) {
    const saved = await findVersion(db, preset, version).catch(() => null);
    if (saved) versions.set(version, saved.content);
  }
  const uses: Use[] = [];
  for (const id of new Set(rows.map((row) => row.project))) {
    const project = await findOutside(db, id);
    const here = new Map(rows.filter((row) => row.project === id).map((row) => [row.strip, row.version]));
    for (const strip of project?.strips ?? []) {
      const version = here.get(strip.id);
      const saved = version === undefined ? undefined : versions.get(version);
      if (!project || version === undefined || !saved) continue;
      uses.push({
        project: id,
        projectName: project.name,
        strip: strip.id,
        stripName: strip.look.name,
        version,
        of: [...new Set(loadedFrom(strip, preset).flatMap(({ from }) => from.strip ?? []))],
        differs: differsFrom(strip, preset, saved),
      });
    }
  }
  return uses;
}

/** In how many values everything in a strip that came from a preset differs from what that holds. */
function differsFrom(strip: Strip, preset: string, saved: Content): number {
  const reference = referenceOf(strip);
  const origin = reference && originsOf(reference).find((one) => one.preset === preset);
  const whole = origin ? contentMeant(saved, origin) : null;
  if (whole) return differencesFrom(strip, whole).length;
  return loadedFrom(strip, preset).reduce((sum, { from, chain }) => {
    const meant = contentMeant(saved, from);
    return sum + (meant ? differencesOf(chainOf(meant), chain).length : 0);
  }, 0);
}
