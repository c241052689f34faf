import { SettingsSchema } from "@/core/settings/schema";
import { NO_SETTINGS, type Settings } from "@/core/settings/settings";
import type { Executor } from "../data/executor";

export interface SettingsRecord {
  readonly settings: Settings;
  readonly revision: number;
}

/** What an earlier Diathesis did not know yet is empty. */
function readSettingsBody(body: string): Settings {
  const stored: unknown = JSON.parse(body);
  return SettingsSchema.parse({ ...NO_SETTINGS, ...(typeof stored === "object" ? stored : {}) });
}

/** Before anything was set up it is revision 0. */
export async function readSettings(db: Executor): Promise<SettingsRecord> {
  const row = await db("settings").first("revision", "body");
  if (!row) return { settings: NO_SETTINGS, revision: 0 };
  const settings = readSettingsBody(row.body);
  return { settings, revision: row.revision };
}

export async function writeSettings(db: Executor, { settings, revision }: SettingsRecord): Promise<void> {
  await db("settings")
    .insert({ id: 1, revision, body: JSON.stringify(settings) })
    .onConflict("id")
    .merge();
}
