import type { Health } from "@/contracts/server";
import { MODELS } from "@/core/processors/models";
import { PROJECT_SCHEMA } from "@/core/projects/schema";
import type { Context } from "../store/context";
import { countPresets } from "../repositories/preset-lists";
import { countProjects } from "../repositories/projects";

export async function health({ db }: Context, version: string, commit: string | undefined): Promise<Health> {
  const counts = { presets: await countPresets(db), projects: await countProjects(db), models: MODELS.length };
  return { ok: true, version, ...(commit ? { commit } : {}), schema: PROJECT_SCHEMA, counts };
}
