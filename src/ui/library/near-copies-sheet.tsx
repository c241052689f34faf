"use client";

import { counted, plural } from "@/core/names/count";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { NearCopies } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { processorsOf } from "@/core/chains/tree";
import { describeDifferences, differencesOf } from "@/core/chains/differences";
import { chainOf } from "@/core/presets/preset";
import { Button } from "../kit/button";
import { formatDate } from "../kit/dates";
import { Refused } from "../kit/field";
import { Shapes } from "../kit/shape";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { closeSheet, openSheet, refetchLibrary, useFiling } from "./filing";
import { useSettings } from "../settings/settings";
import { orSay, say } from "../kit/say";
import { withApart } from "@/core/settings/settings";
import { useTempo } from "./use-tempo";

/** How far two values may be apart, in hundredths of their ruler. */
const STEPS = [0, 1, 2, 5, 10] as const;

/** Between one look at how far the search is and the next, in milliseconds. */
const ASK_AGAIN = 300;

/** A search as far as one distance: how far it is, and what was found last until there is something newer. */
function useNearCopies(percent: number) {
  const [stopped, setStopped] = useState(false);
  const [last, setLast] = useState<NearCopies | null>(null);
  const { data, error } = useQuery({
    queryKey: [...KEYS.presets, "near copies", percent],
    queryFn: () => api.listNearCopies(percent / 100),
    enabled: !stopped,
    // The search goes on while it is asked for.
    refetchInterval: ({ state }) => (state.data?.groups === null ? ASK_AGAIN : false),
  });
  if (data?.groups && data !== last) setLast(data);
  return {
    error,
    total: last?.total ?? 0,
    groups: last?.groups ?? null,
    progress: stopped || error || data?.groups ? null : (data?.progress ?? 0),
    stopped,
    setStopped,
  };
}

function Progress({ progress, onStop }: { readonly progress: number; readonly onStop: () => void }) {
  return (
    <div className="flex items-center gap-3">
      <progress aria-label="Comparing all sounds" className="h-[4px] flex-1" max={1} value={progress} />
      <span className="num-small w-[36px] text-right text-soft">{Math.round(100 * progress)} %</span>
      <Button small onClick={onStop}>
        Stop
      </Button>
    </div>
  );
}

/** Presets that are set the same or nearly, group by group: merged into the one that stays, or left as they are. */
export function NearCopiesSheet() {
  const [percent, setPercent] = useState<number>(0);
  const { error, total, groups, progress, stopped, setStopped } = useNearCopies(percent);
  const more = total - (groups?.length ?? 0);
  return (
    <Sheet
      open
      onClose={closeSheet}
      title="Near copies"
      aside={groups ? counted(total, "group") : ""}
      className="w-[760px]"
    >
      <label className="flex items-center gap-3">
        <span className="text-soft">Set alike within</span>
        <select
          value={percent}
          onChange={({ target }) => {
            setPercent(Number(target.value));
            setStopped(false);
          }}
          className="h-[30px] rounded-card border border-bound bg-ground px-[10px]"
        >
          {STEPS.map((step) => (
            <option key={step} value={step}>
              {step === 0 ? "nothing: every value the same" : `${step} % of each ruler`}
            </option>
          ))}
        </select>
      </label>
      {progress !== null && <Progress progress={progress} onStop={() => setStopped(true)} />}
      {stopped && (
        <p className="flex items-center gap-3 text-soft">
          The search was stopped.
          <Button small onClick={() => setStopped(false)}>
            Look again
          </Button>
        </p>
      )}
      {error && <Refused>{error.message}</Refused>}
      {progress === null && groups?.length === 0 && (
        <p className="text-soft">No two sounds are set so alike. Look within a wider distance.</p>
      )}
      <div className="grid max-h-[420px] gap-4 overflow-auto">
        {groups?.map((group) => (
          <Group key={group.presets.map((p) => p.id).join(" ")} presets={group.presets} count={group.count} />
        ))}
        {more > 0 && <p className="text-soft">{more} more groups. Merge or keep some of these, and look again.</p>}
      </div>
      <div className="flex items-center gap-3">
        <KeptApart />
        <Button main className="ml-auto" onClick={closeSheet}>
          Close
        </Button>
      </div>
    </Sheet>
  );
}

/** How many groups were kept as they are, with the way to see them again. */
function KeptApart() {
  const queries = useQueryClient();
  const { settings, change } = useSettings();
  const { length } = settings.apart;
  if (length === 0) return null;
  const askAgain = async () => {
    await change((now) => ({ ...now, apart: [] }));
    await refetchLibrary(queries);
  };
  return (
    <p className="flex items-center gap-2 text-small text-soft">
      {counted(length, "group was", "groups were")} kept as {plural(length, "it is", "they are")}.
      <Button small onClick={() => orSay(askAgain())}>
        Show again
      </Button>
    </p>
  );
}

/** Lets presets stay beside each other, with the way back. */
function useKeepApart() {
  const queries = useQueryClient();
  const { change } = useSettings();
  return async (ids: readonly string[]) => {
    await change((now) => withApart(now, ids));
    await refetchLibrary(queries);
    const undo = async () => {
      await change((now) => ({ ...now, apart: now.apart.filter((group) => group.join(" ") !== ids.join(" ")) }));
      await refetchLibrary(queries);
    };
    say(`${ids.length} sounds are kept as they are`, { action: { label: "Undo", onClick: () => orSay(undo()) } });
  };
}

function differenceWords(kept: PresetRow, other: PresetRow): string {
  const differences = differencesOf(chainOf(kept.content), chainOf(other.content));
  return differences.length === 0 ? "set the same" : `differs by ${describeDifferences(differences)}`;
}

function Group({ presets, count }: { readonly presets: readonly PresetRow[]; readonly count: number }) {
  const tempo = useTempo();
  const { done } = useFiling();
  const keepApart = useKeepApart();
  // Whoever is rated best and was used last stays, unless another is chosen.
  const [keep, setKeep] = useState(
    () =>
      presets.toSorted(
        (a, b) => b.card.rating - a.card.rating || (b.usedAt ?? b.savedAt).localeCompare(a.usedAt ?? a.savedAt),
      )[0]?.id ?? "",
  );
  const { refusal, attempt } = useAttempt();
  const kept = presets.find((p) => p.id === keep);
  const merge = () =>
    attempt(async () => {
      const others = presets.filter((p) => p.id !== keep).map((p) => p.id);
      await api.mergePresets(keep, others);
      await done(`Merged ${others.length} into “${kept?.card.name ?? ""}”`);
    });
  return (
    <fieldset className="border-edge border-t pt-2">
      <legend className="sr-only">Alike: {presets.map((p) => p.card.name).join(", ")}</legend>
      {presets.map((preset) => (
        <label
          key={preset.id}
          className="grid min-h-11 grid-cols-[18px_minmax(0,1fr)_150px_190px] items-center gap-3 border-rule border-b"
        >
          <input type="radio" name={presets[0]?.id} checked={preset.id === keep} onChange={() => setKeep(preset.id)} />
          <span className="grid min-w-0">
            <span className="name truncate">{preset.card.name}</span>
            <span className="truncate text-small text-soft">
              {[preset.card.origin.artist ?? "own", formatDate(preset.savedAt)].join(" · ")}
            </span>
          </span>
          <Shapes processors={processorsOf(chainOf(preset.content))} tempo={tempo} width={44} most={3} />
          <span className="text-small text-soft">
            {preset.id === keep ? "stays" : kept && differenceWords(kept, preset)}
          </span>
        </label>
      ))}
      {count > presets.length && (
        <p className="py-2 text-small text-soft">
          {presets.length} of {count} are shown; what is merged makes room for the others.
        </p>
      )}
      {refusal}
      <div className="flex justify-end gap-2 py-2">
        {presets.length === 2 && (
          <Button
            small
            onClick={() => {
              const [left, right] = presets;
              if (left && right)
                openSheet({
                  sheet: "compare",
                  left: { preset: left, version: left.version },
                  right: { preset: right, version: right.version },
                });
            }}
          >
            Compare
          </Button>
        )}
        <Button
          small
          title="They are not shown as near copies of each other again"
          onClick={() => orSay(keepApart(presets.map((p) => p.id)))}
        >
          Keep {presets.length === 2 ? "both" : `all ${presets.length}`}
        </Button>
        <Button small onClick={() => void merge()}>
          Merge into “{kept?.card.name}”
        </Button>
      </div>
    </fieldset>
  );
}
