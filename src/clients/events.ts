import type { QueryClient } from "@tanstack/react-query";
import { hearOneStream } from "./one-stream";

interface Change {
  readonly records: readonly {
    readonly kind: "preset" | "folder" | "project" | "media" | "settings";
    readonly id: string;
    /** Of a project, where the change has made one. */
    readonly revision?: number;
  }[];
}

/** The names under which the interface keeps what the server holds. */
export const KEYS = {
  presets: ["presets"] as const,
  preset: (id: string) => ["preset", id] as const,
  version: (id: string, version: number) => ["preset", id, "version", version] as const,
  folders: ["folders"] as const,
  bin: ["bin"] as const,
  libraryHistory: ["library history"] as const,
  media: ["media"] as const,
  settings: ["settings"] as const,
  projects: ["projects"] as const,
  sweeps: ["sweeps"] as const,
  /** The last one over many projects: how far it is. */
  sweep: ["sweeps", "last"] as const,
  /** What it has found. */
  found: (sweep: string) => ["sweeps", sweep, "found"] as const,
  project: (id: string) => ["project", id] as const,
  /** Where a preset is used: fetched anew when any project changes. */
  uses: (preset: string) => ["projects", "uses", preset] as const,
};

/** As the keys of one preset and of one project begin, whatever stands behind. */
const nameOf = ({ kind, id }: { readonly kind: string; readonly id: string }): string => `${kind} ${id}`;

/** Whether a window needs not fetch a project of that revision; of one that was not told, Infinity. */
export type IsKnown = (project: string, revision: number) => boolean;

/** Hears of every change, also by other windows, and lets what shows it be fetched anew. Returns how to stop. */
export function followChanges(queries: QueryClient, isKnown: IsKnown): () => void {
  return hearOneStream("/api/events", "change", (heard) => {
    if ("missed" in heard) {
      void queries.invalidateQueries({
        predicate: ({ queryKey: [kind, id, ...more] }) =>
          kind !== KEYS.project("")[0] || more.length > 0 || !isKnown(String(id), Infinity),
      });
      return;
    }
    const { records } = JSON.parse(heard.message) as Change;
    // At once for all of them: thousands may have been changed together.
    const changed = new Set(records.map(nameOf));
    const known = new Set(
      records.filter((r) => r.kind === "project" && isKnown(r.id, r.revision ?? Infinity)).map(nameOf),
    );
    void queries.invalidateQueries({
      predicate: ({ queryKey: [kind, id, ...more] }) => {
        const name = nameOf({ kind: String(kind), id: String(id) });
        return changed.has(name) && (more.length > 0 || !known.has(name));
      },
    });
    const kinds = new Set(records.map((r) => r.kind));
    if (kinds.has("preset")) void queries.invalidateQueries({ queryKey: KEYS.presets });
    if (kinds.has("folder") || kinds.has("preset"))
      for (const queryKey of [KEYS.folders, KEYS.bin, KEYS.libraryHistory])
        void queries.invalidateQueries({ queryKey });
    if (kinds.has("settings")) void queries.invalidateQueries({ queryKey: KEYS.settings });
    if (kinds.has("media")) void queries.invalidateQueries({ queryKey: KEYS.media });
    if (kinds.has("project")) void queries.invalidateQueries({ queryKey: KEYS.projects });
    if (kinds.has("project") || kinds.has("preset")) void queries.invalidateQueries({ queryKey: KEYS.sweeps });
  });
}
