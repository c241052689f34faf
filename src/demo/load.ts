import { type Card, emptyCard } from "@/core/presets/preset";
import type { Context } from "@/server/store/context";
import { inTransaction } from "@/server/store/transaction";
import { insertFolder } from "@/server/repositories/folders";
import { appendVersion, insertPreset, touchPresets } from "@/server/repositories/presets";
import { insertProject } from "@/server/repositories/projects";
import { DEMO_PRESETS } from "./library";
import { DEMO_FOLDERS, type DemoPreset } from "./presets";
import { FOLLOWING_PROJECTS } from "./sets";

const folderId = (path: string): string => path.toLowerCase().replace(/[^a-z]+/g, "-");

/** The few cards that somebody gave a colour or a picture. */
const MARKS: Readonly<Record<string, Pick<Card, "colour" | "icon">>> = {
  "narrator-close": { colour: "verdigris", icon: "voice" },
  "main-quiet-hand": { icon: "favourite" },
  "rumble-cut-always": { colour: "ochre" },
  "echo-into-fog": { colour: "verdigris", icon: "water" },
};

const cardOf = (preset: DemoPreset): Card => ({
  ...emptyCard(preset.name),
  folder: folderId(preset.folder),
  purpose: preset.purpose,
  tags: [...preset.tags],
  rating: preset.rating,
  notes: preset.notes ?? "",
  origin: preset.origin,
  ...(MARKS[preset.id] ?? {}),
});

/** An hour between one version and the next, the last one on the day it was saved. */
const savedAt = ({ saved, versions }: DemoPreset, version: number): string =>
  new Date(Date.parse(saved) - (versions.length - version) * 3_600_000).toISOString();

/** The sample world in one transaction; the same rows each time, whatever the clock says. */
export async function loadDemo(context: Context): Promise<void> {
  const timeless = { ...context, now: () => new Date("2026-11-24T19:00:00.000Z") };
  await inTransaction(timeless, async (tx, note) => {
    for (const path of DEMO_FOLDERS) {
      const above = path.split("/").slice(0, -1).join("/");
      await insertFolder(
        tx,
        {
          id: folderId(path),
          name: path.split("/").at(-1) ?? path,
          parent: above === "" ? null : folderId(above),
        },
        timeless.now().toISOString(),
      );
      note({ kind: "folder", id: folderId(path) });
    }
    for (const preset of DEMO_PRESETS) {
      const [first, ...later] = preset.versions;
      if (!first) continue;
      await insertPreset(tx, { id: preset.id, content: first, card: cardOf(preset), at: savedAt(preset, 1) });
      for (const [at, content] of later.entries())
        await appendVersion(tx, { id: preset.id, version: at + 2, content, at: savedAt(preset, at + 2) });
      if (preset.used) await touchPresets(tx, [preset.id], preset.used);
      note({ kind: "preset", id: preset.id });
    }
    for (const [at, project] of FOLLOWING_PROJECTS) {
      await insertProject(tx, { project, at });
      note({ kind: "project", id: project.id });
    }
  });
}
