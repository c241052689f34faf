import type { StripRow } from "@/contracts/records";
import type { Strip } from "@/core/strips/strip";
import type { Executor } from "../data/executor";
import type { ProjectTable, StripTable } from "../data/tables";

type Stored = Pick<StripTable, "row" | "project" | "body"> &
  Pick<ProjectTable, "name" | "artist" | "song" | "tempo" | "changed_at">;

/** Strips by the numbers of their rows, in that order, each with where it stands; what is gone meanwhile is passed over. */
export async function stripsInOrder(db: Executor, rows: readonly number[]): Promise<readonly StripRow[]> {
  const found = await db("project_strips as s")
    .join("projects as p", "p.id", "s.project")
    .whereIn("s.row", [...rows])
    .select<Stored[]>("s.row", "s.project", "s.body", "p.name", "p.artist", "p.song", "p.tempo", "p.changed_at");
  const byRow = new Map(found.map((stored) => [stored.row, stored]));
  return rows.flatMap((row) => {
    const stored = byRow.get(row);
    return stored ? [toRow(stored)] : [];
  });
}

const toRow = ({ project, body, name, artist, song, tempo, changed_at }: Stored): StripRow => ({
  project,
  projectName: name,
  artist,
  song,
  tempo,
  changedAt: changed_at,
  strip: JSON.parse(body) as Strip,
});
