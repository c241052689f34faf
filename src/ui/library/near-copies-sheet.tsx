"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { NearCopies, NearCopiesRequest } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { pathsOf } from "@/core/library/folders";
import { counted, plural } from "@/core/names/count";
import { Button } from "../kit/button";
import { Refused } from "../kit/field";
import { orSay } from "../kit/say";
import { Scroll } from "../kit/scroll";
import { Sheet } from "../kit/sheet";
import { useSettings } from "../settings/settings";
import { closeSheet, refetchLibrary } from "./filing";
import { NearCopiesGroup, useHeardBeside } from "./near-copies-group";
import { useFilters, useFolders } from "./use-library";

/** How far two values may be apart, in hundredths of their ruler. */
const STEPS = [0, 1, 2, 5, 10] as const;

/** Between one look at how far the search is and the next, in milliseconds. */
const ASK_AGAIN = 300;

/** Where near copies are looked for. */
type Among = "all" | "folder" | "chosen";

/** A search: how far it is, and what was found last until there is something newer. */
function useNearCopies(wanted: NearCopiesRequest) {
  const [stopped, setStopped] = useState(false);
  const [last, setLast] = useState<NearCopies | null>(null);
  const { data, error } = useQuery({
    queryKey: [...KEYS.presets, "near copies", wanted],
    queryFn: () => api.listNearCopies(wanted),
    enabled: !stopped,
    // The search goes on while it is asked for.
    refetchInterval: ({ state }) => (state.data?.groups === null ? ASK_AGAIN : false),
  });
  if (data?.groups && data !== last) setLast(data);
  return {
    error,
    total: last?.total ?? 0,
    compared: last?.compared ?? 0,
    groups: last?.groups ?? null,
    progress: stopped || error || data?.groups ? null : (data?.progress ?? 0),
    stopped,
    setStopped,
  };
}

/** The choices of where to look, with what is looked for there. */
function useAmong(chosen: readonly PresetRow[]) {
  const { folder } = useFilters().query;
  const paths = pathsOf(useFolders().data?.folders ?? []);
  const [among, setAmong] = useState<Among>(chosen.length > 1 ? "chosen" : "all");
  const options: readonly (readonly [Among, string])[] = [
    ...(chosen.length > 1 ? [["chosen", `the ${chosen.length} chosen`] as const] : []),
    ...(folder === undefined ? [] : [["folder", `“${paths.get(folder) ?? ""}” and below`] as const]),
    ["all", "all of your own"],
  ];
  const ids = useMemo(() => chosen.map(({ id }) => id), [chosen]);
  const scope = among === "chosen" ? { ids } : among === "folder" && folder !== undefined ? { folder } : {};
  return { among, setAmong, options, scope };
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

const CHOICE = "h-[30px] min-w-0 rounded-card border border-bound bg-ground px-[10px]";

/** Presets that are set the same or nearly, group by group: heard, merged into the one that stays, or left as they are. */
export function NearCopiesSheet({ chosen }: { readonly chosen: readonly PresetRow[] }) {
  const [percent, setPercent] = useState<number>(0);
  const [whole, setWhole] = useState<string | undefined>(undefined);
  const { among, setAmong, options, scope } = useAmong(chosen);
  const { error, total, compared, groups, progress, stopped, setStopped } = useNearCopies({
    within: percent / 100,
    ...scope,
    ...(whole === undefined ? {} : { whole }),
  });
  const { isHeard, toggle } = useHeardBeside();
  const more = total - (groups?.length ?? 0);
  return (
    <Sheet
      open
      onClose={closeSheet}
      title="Near copies"
      aside={groups ? `${counted(total, "group")} in ${counted(compared, "sound")}` : ""}
      className="w-[920px]"
    >
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <label className="flex min-w-0 items-center gap-3">
          <span className="text-soft">Among</span>
          <select
            value={among}
            onChange={({ target }) => {
              setAmong(options.find(([value]) => value === target.value)?.[0] ?? "all");
              setStopped(false);
            }}
            className={CHOICE}
          >
            {options.map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <label className="flex items-center gap-3">
          <span className="text-soft">Set alike within</span>
          <select
            value={percent}
            onChange={({ target }) => {
              setPercent(Number(target.value));
              setStopped(false);
            }}
            className={CHOICE}
          >
            {STEPS.map((step) => (
              <option key={step} value={step}>
                {step === 0 ? "nothing: every value the same" : `${step} % of each ruler`}
              </option>
            ))}
          </select>
        </label>
      </div>
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
        <p className="text-soft">No two sounds are set so alike. Look within a wider distance, or among more.</p>
      )}
      <Scroll label="Groups" className="grid max-h-[460px] gap-4">
        {groups?.map(({ copies, count }) => (
          <NearCopiesGroup
            key={copies[0]?.preset.id}
            copies={copies}
            count={count}
            isHeard={isHeard}
            onHear={toggle}
            onWhole={() => setWhole(copies[0]?.preset.id)}
          />
        ))}
        {more > 0 && <p className="text-soft">{more} more groups. Merge or keep some of these, and look again.</p>}
      </Scroll>
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
