import { statementsOf } from "../data/statements";
import type { Executor } from "../data/executor";
import type { LoudnessTable, PresetTable } from "../data/tables";

/** Writes down how loud sounds are; gives the ids of the presets that sound so now. */
export async function writeLoudness(tx: Executor, measured: readonly LoudnessTable[]): Promise<readonly string[]> {
  const statement = await statementsOf(tx);
  const put = statement(
    "INSERT INTO loudness (fingerprint, lufs) VALUES (?, ?) ON CONFLICT DO UPDATE SET lufs = excluded.lufs",
  );
  const sounding = statement<Pick<PresetTable, "id">>(
    `SELECT p.id FROM preset_versions v JOIN presets p ON p.id = v.preset AND p.version = v.version
     WHERE v.fingerprint = ? AND p.binned_at IS NULL`,
  );
  return measured.flatMap(({ fingerprint, lufs }) => {
    put.run(fingerprint, lufs);
    return sounding.all(fingerprint).map(({ id }) => id);
  });
}
