import { statSync } from "node:fs";
import { join } from "node:path";
import type { ArchiveState } from "@/contracts/archive";
import { DATABASE_FILE } from "../../data/library-file";
import { readSettings } from "../../repositories/settings";
import type { Context } from "../../store/context";
import { lastBackup } from "./backups";
import { listFiles } from "./files";

interface Room {
  readonly media: number | null;
  readonly history: number | null;
}

/** What versions before the newest take that no strip and no draft goes by. */
const UNUSED = `
  SELECT count(*) AS count, coalesce(sum(octet_length(d.body)), 0) AS bytes
  FROM preset_versions v JOIN presets p ON p.id = v.preset JOIN documents d ON d.id = v.document
  WHERE v.version < p.version AND p.pack IS NULL
    AND NOT EXISTS (SELECT 1 FROM uses u WHERE u.preset = v.preset AND u.version = v.version)
    AND NOT EXISTS (SELECT 1 FROM projects j WHERE j.draft_preset = v.preset AND j.draft_version = v.version)`;

/** What lies here beside the library, how the backups go, and how much room everything takes. */
export async function archiveState(context: Context): Promise<ArchiveState> {
  const { db, folder } = context;
  const files = listFiles(context);
  const { settings } = await readSettings(db);
  const [room] = await db.raw<Room[]>(
    `SELECT (SELECT sum(length(bytes)) FROM media) AS media,
       (SELECT sum(octet_length(steps)) FROM revisions) + coalesce((SELECT sum(octet_length(steps)) FROM library_log), 0)
         + coalesce((SELECT sum(length(packed)) FROM moments), 0) AS history`,
  );
  const [unused] = await db.raw<{ count: number; bytes: number }[]>(UNUSED);
  return {
    folder,
    files: [...files],
    backups: { plan: settings.backups, last: lastBackup(context) },
    room: {
      library: statSync(join(folder, DATABASE_FILE)).size,
      media: room?.media ?? 0,
      history: room?.history ?? 0,
      files: files.reduce((sum, { bytes }) => sum + bytes, 0),
      unusedVersions: { count: unused?.count ?? 0, bytes: unused?.bytes ?? 0 },
    },
  };
}
