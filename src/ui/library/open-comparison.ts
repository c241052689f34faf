import * as api from "@/clients/api";
import { type Compared, openSheet, useLibrarySheet } from "./filing";
import { addressed, writeAddress } from "./in-address";

/** A sound, its version and, of a set, one of its strips. */
const SIDE = /^(.+)\.(\d+)(?:\.([^.]+))?$/;

const written = ({ preset, version, strip }: Compared): string =>
  [preset.id, version, ...(strip === undefined ? [] : [strip])].join(".");

/** A comparison as it stands in the address. */
export const writeComparison = (left: Compared, right: Compared): void =>
  writeAddress({ compare: `${written(left)}~${written(right)}` });

async function sideOf(text: string): Promise<Compared> {
  const [, id, version, strip] = SIDE.exec(text) ?? [];
  if (id === undefined) throw new Error("This is no comparison.");
  return { preset: (await api.getPreset(id)).preset, version: Number(version), strip };
}

/** The address still says so, and nothing else is open: of one that was closed a screen may hear late. */
const isMeant = (text: string): boolean => addressed("compare") === text && !useLibrarySheet.getState().open;

/** Opens the comparison that an address names, where no sheet is open; what cannot be compared any more goes out of the address. */
export async function openComparison(text: string): Promise<void> {
  if (!isMeant(text)) return;
  try {
    const [left, right] = text.split("~");
    const sides = [await sideOf(left ?? ""), await sideOf(right ?? "")] as const;
    if (isMeant(text)) openSheet({ sheet: "compare", left: sides[0], right: sides[1] });
  } catch {
    writeAddress({ compare: null });
  }
}
