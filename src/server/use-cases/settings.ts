import type { SettingsBody, SettingsChange } from "@/contracts/server";
import type { Context } from "../store/context";
import { transact } from "../store/transact";
import { type Outcome, refuse } from "../failure";
import { readSettings, writeSettings } from "../repositories/settings";

export const getSettings = ({ db }: Context): Promise<SettingsBody> => readSettings(db);

/** Puts other settings in the place of those of `baseRevision`; stale where another window was faster. */
export function changeSettings(
  context: Context,
  { baseRevision, settings }: SettingsChange,
): Promise<Outcome<SettingsBody>> {
  return transact(context, async (tx, note) => {
    const before = await readSettings(tx);
    if (before.revision !== baseRevision)
      refuse("stale", "Something was set up in another window meanwhile.", {
        path: "baseRevision",
        detail: { ...before },
      });
    const after = { settings, revision: baseRevision + 1 };
    await writeSettings(tx, after);
    note({ kind: "settings", id: "settings" });
    return after;
  });
}
