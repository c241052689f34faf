import type {
  KeepMixRequest,
  Note,
  NoteQuery,
  ProjectHistoryPage,
  ProjectHistoryQuery,
  ReturnRequest,
} from "@/contracts/history";
import type {
  CardChanges,
  ChangedCard,
  FolderChange,
  Gone,
  Naming,
  NearCopies,
  NearCopiesRequest,
  FileBy,
  FiledBy,
  LibraryHistory,
  LogPage,
  PlaceQuery,
  LogQuery,
  SearchChange,
  NewPresets,
  PresetDetail,
  Values,
  ValuesQuery,
  WalkedBody,
  WordChange,
  SavedVersion,
  WantedVersions,
  TakenNames,
  PresetPage,
  PresetQuery,
} from "@/contracts/library";
import type {
  ChangeRequest,
  ChangedBody,
  MediaBody,
  MediaList,
  MediaRoom,
  DraftList,
  NewDraft,
  Figures,
  NewProject,
  PlanBody,
  PlanRequest,
  ProjectBody,
  RevisionBody,
  StripPage,
  StripQuery,
  Together,
  TogetherRequest,
} from "@/contracts/projects";
import type { ModelCounts, SettingsBody } from "@/contracts/server";
import type { ApiError, ErrorBody } from "@/contracts/errors";
import type { BinnedRow, Folder, MediaRow, PresetRow, ProjectRow, Use } from "@/contracts/records";
import { WINDOW_HEADER } from "@/core/documents/window";
import type { Content } from "@/core/presets/preset";
import type {
  NewSweep,
  SweepBody,
  SweepFinds,
  SweepWrapUp,
  SweepWrappedUp,
  WrapUp,
  WrapUpRequest,
  WrapUpUndo,
  WrappedUp,
} from "@/contracts/wrap-up";
import type { Settings } from "@/core/settings/settings";
import { fetchOutliving } from "./leaving";
import { thisWindow } from "./window";

/** An error that says, in words for the person, what could not be done and why. */
export class InWords extends Error {}

/** The one error of the outside world: what the server said, or that it did not answer. */
export class ApiFailure extends InWords {
  constructor(readonly error: ApiError | { readonly code: "unreachable"; readonly message: string }) {
    super(error.message);
  }
}

/** Whether it did not answer, as for a moment while a line breaks; what it did answer is not asked for again. */
export const isUnreachable = (error: unknown): boolean =>
  error instanceof ApiFailure && error.error.code === "unreachable";

const UNREACHABLE = "Diathesis does not answer. Start it again; what was saved is on disk.";

export async function ask<T>(method: string, path: string, body?: unknown): Promise<T> {
  const window = thisWindow();
  const isBytes = body instanceof Blob;
  const type = isBytes ? "application/octet-stream" : "application/json";
  const headers = {
    ...(window === null ? {} : { [WINDOW_HEADER]: window }),
    ...(body === undefined ? {} : { "Content-Type": type }),
  };
  const init = { method, cache: "no-store", headers } as const;
  const send = async () => {
    if (isBytes) return fetch(path, { ...init, body: await body.arrayBuffer() });
    return body === undefined ? fetch(path, init) : fetchOutliving(path, { ...init, body: JSON.stringify(body) });
  };
  const response = await send().catch(unreachable);
  if (!response.ok) throw await failureOf(response);
  return (await response.json().catch(unreachable)) as T;
}

const unreachable = (): never => {
  throw new ApiFailure({ code: "unreachable", message: UNREACHABLE });
};

async function failureOf(response: Response): Promise<ApiFailure> {
  const answer: unknown = await response.json().catch(() => null);
  return new ApiFailure((answer as ErrorBody | null)?.error ?? unclear(response.status));
}

/** A file as the server names it. */
export interface NamedFile {
  readonly name: string;
  readonly blob: Blob;
}

/** Fetches a file. Throws what `signal` was ended with where it was. */
export async function askForFile(path: string, signal: AbortSignal): Promise<NamedFile> {
  const response = await fetch(path, { cache: "no-store", signal }).catch(() => {
    signal.throwIfAborted();
    return unreachable();
  });
  if (!response.ok) throw await failureOf(response);
  const name = /filename\*=UTF-8''(.+)$/.exec(response.headers.get("content-disposition") ?? "")?.[1] ?? "file";
  return { name: decodeURIComponent(name), blob: await response.blob() };
}

/** It did answer, but not in its own words. */
const unclear = (status: number): ApiError => ({
  code: "internal",
  message: `Diathesis could not do this, and did not say why (${status}). Nothing that was saved is lost.`,
});

export const queryOf = (query: object): string => {
  const words = new URLSearchParams();
  for (const [name, value] of Object.entries(query))
    if (value !== undefined && value !== "") words.set(name, String(value));
  return words.size > 0 ? `?${words}` : "";
};

const at = (id: string): string => encodeURIComponent(id);

export const listPresets = (query: PresetQuery) => ask<PresetPage>("GET", `/api/presets${queryOf(query)}`);
/** Where a sound stands in a list, from 0; null where it is not in it. */
export const placeOf = (query: PlaceQuery) => ask<{ place: number | null }>("GET", `/api/places${queryOf(query)}`);
export const listValues = (query: ValuesQuery) => ask<Values>("GET", `/api/values${queryOf(query)}`);
export const changeWords = (change: WordChange) =>
  ask<{ changed: number; ofPacks: number }>("POST", "/api/words", change);
export const getPreset = (id: string, version?: number) =>
  ask<PresetDetail>("GET", `/api/presets/${at(id)}${queryOf({ version })}`);
export const listSaved = (versions: WantedVersions["versions"]) =>
  ask<{ versions: SavedVersion[] }>("POST", "/api/versions", { versions });
export const listUses = (id: string) => ask<{ uses: Use[] }>("GET", `/api/presets/${at(id)}/uses`);
export const savePresets = (saved: NewPresets) => ask<{ presets: PresetRow[] }>("POST", "/api/presets/batch", saved);
export const saveVersion = (id: string, baseVersion: number, content: Content) =>
  ask<{ preset: PresetRow }>("PUT", `/api/presets/${at(id)}/content`, { baseVersion, content });
export const patchCards = (changes: CardChanges) => ask<{ cards: ChangedCard[] }>("PATCH", "/api/presets", changes);
export const listCards = (ids: readonly string[]) => ask<{ cards: ChangedCard[] }>("POST", "/api/cards", { ids });
export const nameVersion = (id: string, version: number, name: string | null) =>
  ask<{ ok: true }>("PATCH", `/api/presets/${at(id)}/versions`, { version, name });
export const listNearCopies = (wanted: NearCopiesRequest) => ask<NearCopies>("POST", "/api/near-copies/search", wanted);
export const listTaken = (names: readonly string[]) => ask<TakenNames>("POST", "/api/names", { names });
/** From the `from`th on, counted from 0. */
export const listNaming = (from: number) => ask<Naming>("GET", `/api/naming${queryOf({ from })}`);
export const mergePresets = (keep: string, others: readonly string[]) =>
  ask<{ preset: PresetRow }>("POST", "/api/near-copies", { keep, others });
/** What was come by while looking for a sound was kept. */
export const keepUse = (id: string) => ask<{ ok: true }>("POST", `/api/presets/${at(id)}/used`);
export const listBin = () => ask<{ items: BinnedRow[] }>("GET", "/api/bin");
export const emptyBin = (ids: readonly string[] | null) => ask<Gone>("DELETE", "/api/bin", { ids });
export const libraryHistory = () => ask<LibraryHistory>("GET", "/api/library/history");
export const walkLibrary = (direction: "undo" | "redo") => ask<WalkedBody>("POST", `/api/library/${direction}`);
/** Takes back one change of the filing, whole, where nothing later stands on it. */
export const listLog = (query: LogQuery) => ask<LogPage>("GET", `/api/library/log${queryOf(query)}`);
/** How far the long change of this window is, in steps. */
export const workUnderWay = () => ask<{ work: { done: number; of: number } | null }>("GET", "/api/library/work");
export const stopWork = () => ask<{ stopped: boolean }>("DELETE", "/api/library/work");
export const changeSearch = (change: SearchChange) => ask<SettingsBody>("PUT", "/api/searches", change);
export const makeNewest = (id: string, version: number) =>
  ask<{ preset: PresetRow }>("POST", `/api/presets/${at(id)}/versions`, { version });
/** Takes back, or does again, one change of the library by its number. */
export const walkFiling = (direction: "undo" | "redo", n: number) =>
  ask<WalkedBody>("POST", `/api/library/${direction}`, { n });
export const changeFolder = (id: string, change: FolderChange) =>
  ask<{ ok: true }>("PATCH", `/api/folders/${at(id)}`, change);
export const deleteFolder = (id: string) => ask<{ ok: true }>("DELETE", `/api/folders/${at(id)}`);
export const listFolders = () => ask<{ folders: Folder[] }>("GET", "/api/folders");
export const makeFolder = (name: string, parent: string | null) =>
  ask<{ folder: Folder }>("POST", "/api/folders", { name, parent });
export const fileBy = (by: FileBy["by"], ids: readonly string[], preview = false) =>
  ask<FiledBy>("POST", "/api/folders/by", { by, ids, ...(preview ? { preview } : {}) });

/** Projects that are not in the bin, or those that are. */
export const listProjects = (binned = false) =>
  ask<{ projects: ProjectRow[] }>("GET", `/api/projects${binned ? "?binned=true" : ""}`);
export const listFigures = (ids: readonly string[]) =>
  ask<Figures>("GET", `/api/figures?of=${ids.map(encodeURIComponent).join(",")}`);
export const binProject = (id: string, binned: boolean) =>
  ask<{ ok: true }>("POST", `/api/projects/${at(id)}/bin`, { binned });
export const makeProject = (project: NewProject["project"]) => ask<ProjectBody>("POST", "/api/projects", { project });
export const getProject = (id: string) => ask<ProjectBody>("GET", `/api/projects/${at(id)}`);
export const getRevision = (id: string, n: number) =>
  ask<RevisionBody>("GET", `/api/projects/${at(id)}/revisions/${n}`);
export const findStrips = (query: StripQuery) => ask<StripPage>("GET", `/api/strips${queryOf(query)}`);
/** Older than a change, where one is said. */
export const listHistory = (id: string, query: ProjectHistoryQuery) =>
  ask<ProjectHistoryPage>("GET", `/api/projects/${at(id)}/history${queryOf(query)}`);
export const noteBetween = (id: string, moments: NoteQuery) =>
  ask<Note>("GET", `/api/projects/${at(id)}/note${queryOf(moments)}`);
export const returnTo = (id: string, request: ReturnRequest) =>
  ask<ProjectBody>("POST", `/api/projects/${at(id)}/return`, request);
export const keepMix = (id: string, request: KeepMixRequest) =>
  ask<ProjectBody>("POST", `/api/projects/${at(id)}/mixes`, request);
export const lookThrough = (id: string) => ask<WrapUp>("GET", `/api/projects/${at(id)}/wrap-up`);
/** How far the last sweep over many projects is; null where none was begun since the server was started. */
export const lastSweep = () => ask<SweepBody>("GET", "/api/sweeps");
export const beginSweep = (wanted: NewSweep) => ask<SweepBody>("POST", "/api/sweeps", wanted);
export const changeSweep = (id: string, isRunning: boolean) =>
  ask<SweepBody>("PATCH", `/api/sweeps/${at(id)}`, { isRunning });
export const sweepFinds = (id: string, limit: number) =>
  ask<SweepFinds>("GET", `/api/sweeps/${at(id)}/finds${queryOf({ limit })}`);
export const wrapUpSweep = (id: string, request: SweepWrapUp) =>
  ask<SweepWrappedUp>("POST", `/api/sweeps/${at(id)}/wrap-up`, request);
export const wrapUp = (id: string, request: WrapUpRequest) =>
  ask<WrappedUp>("POST", `/api/projects/${at(id)}/wrap-up`, request);
export const undoWrapUp = (id: string, request: WrapUpUndo) =>
  ask<{ ok: true }>("POST", `/api/projects/${at(id)}/wrap-up/undo`, request);
export const planRecall = (id: string, request: PlanRequest) =>
  ask<PlanBody>("POST", `/api/projects/${at(id)}/plans`, request);
export const changeProject = (id: string, request: ChangeRequest) =>
  ask<ChangedBody>("POST", `/api/projects/${at(id)}/changes`, request);
/** Takes back the last change, or the one that made this revision. */
export const undoProject = (id: string, baseRevision: number, revision?: number) =>
  ask<ProjectBody>("POST", `/api/projects/${at(id)}/undo`, { baseRevision, revision });
export const redoProject = (id: string, baseRevision: number) =>
  ask<ProjectBody>("POST", `/api/projects/${at(id)}/redo`, { baseRevision });
/** Changes several projects, all or none. */
export const changeTogether = (request: TogetherRequest) => ask<Together>("POST", "/api/changes", request);
export const undoTogether = (made: Together) => ask<Together>("POST", "/api/changes/undo", made);
export const mediaRoom = () => ask<MediaRoom>("GET", "/api/media/room");
export const removeMedia = (hashes: readonly string[]) => ask<{ gone: number }>("DELETE", "/api/media", { hashes });
export const listMedia = () => ask<MediaList>("GET", "/api/media");

/** Keeps a WAV file of one's own. */
export async function keepMedia(name: string, wav: Uint8Array<ArrayBuffer>): Promise<MediaRow> {
  const response = await fetch(`/api/media${queryOf({ name })}`, {
    method: "POST",
    cache: "no-store",
    headers: { "Content-Type": "audio/wav" },
    body: wav,
  }).catch(() => {
    throw new ApiFailure({ code: "unreachable", message: UNREACHABLE });
  });
  const answer = (await response.json().catch(() => null)) as (Partial<MediaBody> & Partial<ErrorBody>) | null;
  if (response.ok && answer?.media) return answer.media;
  throw new ApiFailure(answer?.error ?? unclear(response.status));
}

export const countModels = () => ask<ModelCounts>("GET", "/api/models/counts");
export const getSettings = () => ask<SettingsBody>("GET", "/api/settings");
export const changeSettings = (baseRevision: number, settings: Settings) =>
  ask<SettingsBody>("PUT", "/api/settings", { baseRevision, settings });
export const listDrafts = () => ask<DraftList>("GET", "/api/drafts");
export const openDraft = (draft: NewDraft) => ask<ProjectBody>("POST", "/api/drafts", draft);
