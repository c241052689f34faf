import type { SearchChange } from "@/contracts/library";
import type { SettingsBody } from "@/contracts/server";
import type { PlacedSearch } from "@/core/settings/settings";
import type { Context } from "../../store/context";
import type { Executor } from "../../data/executor";
import { type Outcome, refuse } from "../../failure";
import { readSettings } from "../../repositories/settings";
import { type Filed, fileAndTell } from "./entry";

/** What a change of a kept search is called. */
function labelFor(from: PlacedSearch | null, to: PlacedSearch | null): string {
  if (!from) return `Keep the search “${to?.search.name ?? ""}”`;
  if (!to) return `Let go of the search “${from.search.name}”`;
  if (from.search.name !== to.search.name) return `Call the search “${from.search.name}” “${to.search.name}”`;
  return from.at === to.at ? `Change the search “${to.search.name}”` : `Move the search “${to.search.name}”`;
}

async function stepFor(tx: Executor, { id, search, at }: SearchChange): Promise<Filed> {
  const { searches } = (await readSettings(tx)).settings;
  const place = searches.findIndex((one) => one.id === id);
  const standing = searches[place];
  const from = standing ? { at: place, search: standing } : null;
  const end = searches.length - (standing ? 1 : 0);
  const to = search && { at: Math.min(end, at ?? (standing ? place : end)), search: { id, ...search } };
  if (!from && !to) refuse("notFound", "This search is not kept any more.", { path: "id" });
  return { label: labelFor(from, to), steps: [{ kind: "search", from, to }] };
}

/** Keeps a search, calls it otherwise, puts it elsewhere in the list, or lets go of it: one change that can be taken back. */
export const changeSearch = (context: Context, change: SearchChange): Promise<Outcome<SettingsBody>> =>
  fileAndTell(
    context,
    (tx) => stepFor(tx, change),
    (tx) => readSettings(tx),
  );
