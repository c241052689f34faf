import type { QueryClient } from "@tanstack/react-query";
import { hearOneStream } from "./one-stream";

interface Change {
  readonly records: readonly {
    readonly kind: "preset" | "folder" | "project" | "media" | "settings";
    readonly id: string;
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
  project: (id: string) => ["project", id] as const,
};

/** As the keys of one preset and of one project begin, whatever stands behind. */
const nameOf = ({ kind, id }: { readonly kind: string; readonly id: string }): string => `${kind} ${id}`;

/** Hears of every change, also by other windows, and lets what shows it be fetched anew. Returns how to stop. */
export function followChanges(queries: QueryClient, isOwn: (project: string) => boolean): () => void {
  return hearOneStream("/api/events", "change", (heard) => {
    if ("missed" in heard) {
      void queries.invalidateQueries({
        predicate: ({ queryKey: [kind, id] }) => kind !== KEYS.project("")[0] || !isOwn(String(id)),
      });
      return;
    }
    const { records } = JSON.parse(heard.message) as Change;
    // At once for all of them: thousands may have been changed together.
    const changed = new Set(records.filter(({ kind, id }) => kind !== "project" || !isOwn(id)).map(nameOf));
    void queries.invalidateQueries({
      predicate: ({ queryKey: [kind, id] }) => changed.has(nameOf({ kind: String(kind), id: String(id) })),
    });
    const kinds = new Set(records.map((r) => r.kind));
    if (kinds.has("preset")) void queries.invalidateQueries({ queryKey: KEYS.presets });
    if (kinds.has("folder") || kinds.has("preset"))
      for (const queryKey of [KEYS.folders, KEYS.bin, KEYS.libraryHistory])
        void queries.invalidateQueries({ queryKey });
    if (kinds.has("settings")) void queries.invalidateQueries({ queryKey: KEYS.settings });
    if (kinds.has("media")) void queries.invalidateQueries({ queryKey: KEYS.media });
    if (kinds.has("project")) void queries.invalidateQueries({ queryKey: KEYS.projects });
  });
}
