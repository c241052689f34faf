import { SettingsSchema } from "@/core/settings/schema";
import { NO_SETTINGS, type Settings } from "@/core/settings/settings";
import type { Executor } from "../data/executor";

export interface SettingsRecord {
  readonly settings: Settings;
  readonly revision: number;
}

/** Before anything was set up it is revision 0. What an earlier Diathesis did not know yet is empty. */
export async function readSettings(db: Executor): Promise<SettingsRecord> {
  const row = await db<{ revision: number; body: string }>("settings").first("revision", "body");
  if (!row) return { settings: NO_SETTINGS, revision: 0 };
  const settings = SettingsSchema.parse({ ...NO_SETTINGS, ...(JSON.parse(row.body) as object) });
  return { settings, revision: row.revision };
}

export async function writeSettings(db: Executor, { settings, revision }: SettingsRecord): Promise<void> {
  await db("settings")
    .insert({ id: 1, revision, body: JSON.stringify(settings) })
    .onConflict("id")
    .merge();
}
