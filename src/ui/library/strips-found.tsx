"use client";

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { processorsOf } from "@/core/chains/tree";
import { counted } from "@/core/names/count";
import { Button } from "../kit/button";
import { StripMark } from "../kit/card-mark";
import { Shapes } from "../kit/shape";
import { hear } from "../listening/listening";
import { soundOfStrip } from "../listening/strip-sound";
import type { Recall } from "../plan/recall";

/** So many are shown at first, and at the most. */
const FEW = 3;
const MOST = 30;

/** Strips of projects that the words of the search find too, below the sounds: heard, opened, brought by way of the plan. */
export function StripsFound({ words, recall }: { readonly words: string; readonly recall: Recall }) {
  const router = useRouter();
  const [all, setAll] = useState(false);
  const { data } = useQuery({
    queryKey: [...KEYS.projects, "strips", "library", words],
    queryFn: () => api.findStrips({ q: words, limit: MOST }),
    placeholderData: keepPreviousData,
  });
  if (!data || data.total === 0) return null;
  const shown = data.items.slice(0, all ? MOST : FEW);
  return (
    <section aria-label="Strips of projects" className="flex max-h-[45%] flex-none flex-col border-edge border-t">
      <h2 className="flex h-[30px] flex-none items-center gap-2 px-[14px] text-small text-soft">
        {counted(data.total, "strip")} of projects
        {data.total > FEW && (
          <Button small plain className="ml-auto" onClick={() => setAll(!all)}>
            {all ? "Show fewer" : data.total > MOST ? `Show the best ${MOST}` : "Show all"}
          </Button>
        )}
      </h2>
      <ul className="relative min-h-0 overflow-auto">
        {shown.map((row) => {
          const { project, projectName, strip, tempo } = row;
          return (
            <li
              key={`${project} ${strip.id}`}
              className="grid h-[34px] grid-cols-[18px_minmax(0,1fr)_156px_auto] items-center gap-[10px] border-rule border-t px-[14px]"
            >
              <StripMark kind={strip.kind} icon={strip.look.icon} colour={strip.look.colour} />
              <button
                type="button"
                title={`Hear ${strip.look.name} of ${projectName}`}
                className="flex min-w-0 items-baseline gap-2 text-left hover:text-live"
                onClick={() => hear(soundOfStrip(strip, tempo))}
              >
                <span className="name truncate">{strip.look.name}</span>
                <span className="truncate text-small text-soft">{projectName}</span>
              </button>
              <Shapes processors={processorsOf(strip.inserts)} tempo={tempo} width={44} most={3} />
              <span className="flex gap-1">
                <Button
                  small
                  plain
                  aria-label={`Open ${strip.look.name} of ${projectName} on the bench`}
                  onClick={() => router.push(`/bench?project=${project}&strip=${strip.id}`)}
                >
                  Bench
                </Button>
                {recall.targetWords !== null && (
                  <Button
                    small
                    aria-label={`Plan ${strip.look.name} of ${projectName} ${recall.targetWords}`}
                    onClick={() => recall.bring({ project, strips: [strip.id] })}
                  >
                    Plan…
                  </Button>
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
