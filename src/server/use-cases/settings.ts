import type { SettingsBody, SettingsChange } from "@/contracts/server";
import { ok } from "@/core/result";
import type { Context } from "../store/context";
import { inTransaction } from "../store/transaction";
import { type Outcome, RolledBack, catchRolledBack, failure } from "../failure";
import { readSettings, writeSettings } from "../repositories/settings";

export const getSettings = ({ db }: Context): Promise<SettingsBody> => readSettings(db);

/** Puts other settings in the place of those of `baseRevision`; stale where another window was faster. */
export function changeSettings(
  context: Context,
  { baseRevision, settings }: SettingsChange,
): Promise<Outcome<SettingsBody>> {
  return catchRolledBack(async () =>
    ok(
      await inTransaction(context, async (tx, note) => {
        const before = await readSettings(tx);
        if (before.revision !== baseRevision)
          throw new RolledBack(
            failure("stale", "Something was set up in another window meanwhile.", {
              path: "baseRevision",
              detail: { ...before },
            }).error,
          );
        const after = { settings, revision: baseRevision + 1 };
        await writeSettings(tx, after);
        note({ kind: "settings", id: "settings" });
        return after;
      }),
    ),
  );
}
