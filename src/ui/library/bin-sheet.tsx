"use client";

import { counted, plural } from "@/core/names/count";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { BinnedRow } from "@/contracts/records";
import { KIND_NAMES } from "@/core/presets/preset";
import { Button } from "../kit/button";
import { Loading } from "../kit/bits";
import { formatDate } from "../kit/dates";
import { say } from "../kit/say";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { closeSheet, refetchLibrary } from "./filing";

/** What was thrown away: taken out again one by one, or let go for good, which is asked twice. */
export function BinSheet() {
  const queries = useQueryClient();
  const bin = useQuery({ queryKey: KEYS.bin, queryFn: api.listBin });
  const [sure, setSure] = useState(false);
  const { refusal, attempt: tryTo } = useAttempt();
  const items = bin.data?.items ?? [];
  const used = items.filter((item) => item.uses > 0).length;
  const attempt = (work: () => Promise<string>) =>
    tryTo(async () => {
      say(await work());
      setSure(false);
      await refetchLibrary(queries);
    });
  const restore = (some: readonly BinnedRow[]) =>
    attempt(async () => {
      await api.patchCards({
        changes: some.map(({ id, cardRevision }) => ({ id, baseCard: cardRevision, binned: false })),
      });
      return some.length === 1 ? `Restored “${some[0]?.name}”` : `Restored ${some.length} sounds`;
    });
  const empty = () =>
    attempt(async () => {
      const { gone, back } = await api.emptyBin(items.map((item) => item.id));
      const inside =
        back === 0 ? "" : `; ${back} that had been merged into them ${plural(back, "stands", "stand")} alone again`;
      return `${counted(gone, "sound is", "sounds are")} gone for good${inside}`;
    });
  return (
    <Sheet open onClose={closeSheet} title="Bin" aside={counted(items.length, "sound")} className="w-[640px]">
      {bin.isPending && <Loading what="Looking into the bin" />}
      {bin.data && items.length === 0 && (
        <p className="text-soft">Nothing is in the bin. What you put into it stays here until you empty it.</p>
      )}
      <ul className="max-h-[380px] overflow-auto">
        {items.map((item) => (
          <li key={item.id} className="grid min-h-11 grid-cols-[1fr_auto] items-center gap-3 border-rule border-b">
            <span className="grid min-w-0">
              <span className="name truncate">{item.name}</span>
              <span className="text-small text-soft">
                {KIND_NAMES[item.kind]} · thrown away {formatDate(item.binnedAt)}
                {item.uses > 0 && ` · used by ${counted(item.uses, "strip")}`}
              </span>
            </span>
            <Button small aria-label={`Restore ${item.name}`} onClick={() => void restore([item])}>
              Restore
            </Button>
          </li>
        ))}
      </ul>
      {refusal}
      {sure && (
        <p role="alert" className="border-alert border-l-[3px] bg-alert-tint px-3 py-2">
          {counted(items.length, "sound")} with all versions will be gone for good
          {used > 0 && `; ${used} of them ${plural(used, "is", "are")} used in projects, which keep their own values`}.
        </p>
      )}
      <div className="flex justify-end gap-2">
        {items.length > 0 &&
          (sure ? (
            <Button className="mr-auto text-alert" onClick={() => void empty()}>
              Yes, empty it
            </Button>
          ) : (
            <Button className="mr-auto" onClick={() => setSure(true)}>
              Empty the bin…
            </Button>
          ))}
        {items.length > 1 && <Button onClick={() => void restore(items)}>Restore all</Button>}
        <Button main onClick={closeSheet}>
          Close
        </Button>
      </div>
    </Sheet>
  );
}
