import type {
  ArchiveState,
  Backups,
  BringRequest,
  CataloguePreview,
  Fault,
  IncomingRecord,
  ItemPage,
  ItemsQuery,
  Job,
  Mended,
  NewIncoming,
  Wish,
} from "@/contracts/archive";
import { ask, queryOf } from "./api";

const at = (id: string): string => encodeURIComponent(id);

export const archiveState = () => ask<ArchiveState>("GET", "/api/archive");
export const lastBackup = () => ask<Backups>("GET", "/api/archive/backups");
export const beginArchive = (wish: Wish) => ask<{ job: Job }>("POST", "/api/archive/files", { wish });
export const beginBackup = () => ask<{ job: Job }>("POST", "/api/archive/backups");
export const beginCheck = () => ask<{ job: Job }>("POST", "/api/archive/check");
export const mend = (faults: readonly Fault[]) => ask<Mended>("POST", "/api/archive/check/mend", { faults });
/** Where the catalogue can be fetched, as a table. */
export const CATALOGUE_ADDRESS = "/api/catalogue";
export const readCatalogue = (table: Blob, isPreview: boolean) =>
  ask<CataloguePreview>("POST", `/api/catalogue${isPreview ? "?preview=true" : ""}`, table);
export const removeFile = (name: string) => ask<{ gone: boolean }>("DELETE", `/api/archive/files/${at(name)}`);
/** Where a file of the archive can be fetched. */
export const fileAddress = (name: string): string => `/api/archive/files/${at(name)}`;
/** Where a preset can be fetched as a file of its own. */
export const documentAddress = (preset: string): string => `/api/presets/${at(preset)}/document`;

export const listJobs = () => ask<{ jobs: Job[] }>("GET", "/api/jobs");
export const getJob = (id: string) => ask<{ job: Job }>("GET", `/api/jobs/${at(id)}`);
export const stopJob = (id: string) => ask<{ stopped: boolean }>("DELETE", `/api/jobs/${at(id)}`);

export const beginIncoming = (asked: NewIncoming) => ask<{ incoming: IncomingRecord }>("POST", "/api/incoming", asked);
export const lookAt = (id: string, query: ItemsQuery) =>
  ask<{ incoming: IncomingRecord } & ItemPage>("GET", `/api/incoming/${at(id)}${queryOf(query)}`);
export const letGo = (id: string) => ask<{ gone: boolean }>("DELETE", `/api/incoming/${at(id)}`);
export const beginComparison = (id: string) => ask<{ job: Job }>("POST", `/api/incoming/${at(id)}/comparison`);
export const beginBringing = (id: string, choices: BringRequest) =>
  ask<{ job: Job }>("POST", `/api/incoming/${at(id)}/bring`, choices);

/** What is sent in one piece, in bytes: less than the server takes at once. */
const PIECE = 8 * 2 ** 20;

/** Sends a file, piece by piece; `onSent` hears which share has come. Gives the id by which it is looked at. */
export async function sendFile(file: File, onSent: (share: number) => void): Promise<string> {
  const { incoming } = await beginIncoming({ name: file.name.slice(0, 300), bytes: file.size });
  for (let from = 0; from < file.size; from += PIECE) {
    const piece = file.slice(from, from + PIECE);
    await ask("PUT", `/api/incoming/${at(incoming.id)}/pieces${queryOf({ at: from })}`, piece);
    onSent((from + piece.size) / file.size);
  }
  return incoming.id;
}
