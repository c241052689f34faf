"use client";

import { useQuery } from "@tanstack/react-query";
import { Check, Minus } from "lucide-react";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetRow } from "@/contracts/records";
import { fold } from "@/core/names/words";
import { Button } from "../kit/button";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { closeSheet, countSounds, useFiling } from "./filing";
import { QuickList } from "./quick-list";

const LONGEST_TAG = 60;

/** Tags by a few letters and Enter: put on all that lack one, taken off where all have it. The sheet stays for the next. */
export function TagSheet({ presets }: { readonly presets: readonly PresetRow[] }) {
  const { change } = useFiling();
  const { refusal, attempt } = useAttempt();
  /** The tags of each sound, as they are by now. */
  const [tags, setTags] = useState(() => new Map(presets.map(({ id, card }) => [id, card.tags])));
  const asked = { field: "tag", order: "count", limit: 2000 } as const;
  const known = useQuery({ queryKey: [...KEYS.presets, "values", asked], queryFn: () => api.listValues(asked) }).data;
  const having = (tag: string): number => presets.filter(({ id }) => tags.get(id)?.includes(tag)).length;
  const own = [...new Set([...tags.values()].flat())];
  const others = (known?.values ?? []).filter(({ value }) => !own.includes(value));
  const turn = (tag: string) =>
    void attempt(async () => {
      const on = having(tag) < presets.length;
      const next = (before: readonly string[]) =>
        on ? [...new Set([...before, tag])] : before.filter((one) => one !== tag);
      await change(presets, ({ card }) => ({ tags: next(card.tags) }), {
        verb: on ? "Tag" : "Untag",
        behind: `“${tag}”`,
      });
      setTags((now) => new Map([...now].map(([id, before]) => [id, next(before)])));
    });
  return (
    <Sheet open onClose={closeSheet} title={`Tag ${countSounds(presets)}`} className="w-[420px]">
      <QuickList
        label="Which tag"
        placeholder="Tag, or a new one"
        items={[
          ...own.map((tag) => ({ id: tag, label: tag, ...markOf(having(tag), presets.length) })),
          ...others.map(({ value, n }) => ({
            id: value,
            label: value,
            mark: <span className="w-[14px]" />,
            beside: n,
          })),
        ]}
        fresh={(tag) => (tag.length > LONGEST_TAG ? null : `New tag “${tag}”`)}
        // Written otherwise it is the one that is there.
        onFresh={(typed) =>
          turn([...own, ...others.map(({ value }) => value)].find((tag) => fold(tag) === fold(typed)) ?? typed)
        }
        onPick={turn}
      />
      {refusal}
      <div className="flex items-center">
        <p className="text-small text-soft">Enter puts it on, or takes it off where all have it.</p>
        <Button main className="ml-auto" onClick={closeSheet}>
          Done
        </Button>
      </div>
    </Sheet>
  );
}

/** Whether all of so many have it, or only some. */
const markOf = (having: number, all: number) =>
  having === all
    ? { mark: <Check size={14} aria-hidden="true" />, beside: all === 1 ? "on it" : "on all" }
    : { mark: <Minus size={14} aria-hidden="true" />, beside: `on ${having} of ${all}` };
