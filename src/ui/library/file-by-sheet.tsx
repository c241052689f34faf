"use client";

import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { FileBy } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { counted } from "@/core/names/count";
import { Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { Refused } from "../kit/field";
import { Scroll } from "../kit/scroll";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { closeSheet, countSounds, ownOf, useFiling } from "./filing";

interface Props {
  readonly presets: readonly PresetRow[];
  readonly by: FileBy["by"];
}

/** Files sounds into folders called as their artists or clients are: which folders, and how many go there, is seen first. */
export function FileBySheet({ presets, by }: Props) {
  const { done } = useFiling();
  const { refusal, attempt } = useAttempt();
  const [busy, setBusy] = useState(false);
  const ids = presets.filter(({ pack }) => pack === null).map(({ id }) => id);
  const preview = useQuery({
    queryKey: [...KEYS.folders, "by", by, ids],
    queryFn: () => api.fileBy(by, ids, true),
    enabled: ids.length > 0,
  });
  const groups = preview.data?.groups ?? [];
  const moved = groups.reduce((sum, { n }) => sum + n, 0);
  const file = () =>
    attempt(async () => {
      setBusy(true);
      try {
        const { words } = ownOf(presets, (some) => `File ${countSounds(some)} by ${by}`);
        await api.fileBy(by, ids);
        closeSheet();
        await done(words);
      } finally {
        setBusy(false);
      }
    });
  return (
    <Sheet open onClose={closeSheet} title={`File ${countSounds(presets)} by ${by}`} className="w-[520px]">
      {ids.length === 0 && <p className="text-soft">What comes with a pack stays as it is.</p>}
      {preview.isPending && ids.length > 0 && <Loading what="Looking at the cards" />}
      {preview.error && <Refused>{preview.error.message}</Refused>}
      <Scroll label="Folders" className="max-h-[320px]">
        <ul>
          {groups.map(({ path, isNew, n, already }) => (
            <li key={path} className="flex min-h-[28px] items-center gap-2 border-rule border-b">
              <span className="min-w-0 flex-1 truncate">{path}</span>
              {isNew && <span className="text-small text-edit">new</span>}
              <span className="num-small text-soft">
                {[counted(n, "sound"), already > 0 ? `${already} there already` : ""]
                  .filter((w) => w !== "")
                  .join(", ")}
              </span>
            </li>
          ))}
        </ul>
      </Scroll>
      {preview.data && preview.data.without > 0 && (
        <p className="text-small text-soft">
          {counted(preview.data.without, "sound")} without {by === "artist" ? "an artist" : "a client"}: left where it
          is.
        </p>
      )}
      {refusal}
      <div className="flex justify-end gap-2">
        <Button onClick={closeSheet}>Cancel</Button>
        <Button main disabled={moved === 0 || busy} onClick={() => void file()}>
          {preview.data && moved === 0 ? "All are there already" : `File ${counted(moved, "sound")}`}
        </Button>
      </div>
    </Sheet>
  );
}
