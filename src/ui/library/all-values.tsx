"use client";

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { type RefObject, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetQuery } from "@/contracts/library";
import { MOST_NARROWING } from "@/core/documents/limits";
import { formatCount } from "@/core/names/count";
import type { Field } from "@/core/search/fields";
import { Segments } from "../kit/segments";
import { Tick } from "../kit/tick";
import { wordOf } from "./facets";

interface Props {
  readonly query: PresetQuery;
  readonly field: Field;
  readonly heading: string;
  readonly chosen: readonly string[];
  readonly onToggle: (value: string) => void;
  readonly anchor: RefObject<HTMLElement | null>;
  readonly onClose: () => void;
}

/** Every value of a field among what is listed, narrowed by its first letters, by count or by name. */
export function AllValues({ query, field, heading, chosen, onToggle, anchor, onClose }: Props) {
  const [begun, setBegun] = useState("");
  const [order, setOrder] = useState<"count" | "name">("count");
  const { q, only, folder } = query;
  const asked = { field, q, only, folder, begun: begun || undefined, order };
  const found = useQuery({
    queryKey: [...KEYS.presets, "values", asked],
    queryFn: () => api.listValues(asked),
    placeholderData: keepPreviousData,
  }).data;
  const values = found?.values ?? [];
  const others = begun === "" ? chosen.filter((value) => !values.some((one) => one.value === value)) : [];
  return (
    <Popover.Root open onOpenChange={(open) => !open && onClose()}>
      <Popover.Anchor virtualRef={anchor} />
      <Popover.Portal>
        <Popover.Content
          side="right"
          align="start"
          // The listening bar stays in reach.
          collisionPadding={{ top: 52, right: 8, bottom: 64, left: 8 }}
          aria-label={`All values of ${heading}`}
          className="z-40 flex max-h-[min(480px,var(--radix-popover-content-available-height))] w-[280px] flex-col rounded-card border border-edge bg-card"
        >
          <div className="flex flex-none items-center gap-2 border-edge border-b p-2">
            <input
              autoFocus
              aria-label={`Find a value of ${heading}`}
              placeholder={heading}
              maxLength={MOST_NARROWING}
              value={begun}
              onChange={(event) => setBegun(event.target.value)}
              className="h-[26px] min-w-0 flex-1 rounded-card border border-bound bg-ground px-2"
            />
            <Segments
              small
              label="Order"
              value={order}
              onChange={setOrder}
              options={[
                { value: "count", label: "Count" },
                { value: "name", label: "Name" },
              ]}
            />
          </div>
          <ul className="min-h-0 flex-1 overflow-auto py-1">
            {[...others.map((value) => ({ value, n: 0 })), ...values].map(({ value, n }) => (
              <li key={value} className="flex min-h-[26px] items-center gap-2 px-2">
                <Tick label={wordOf(field, value)} on={chosen.includes(value)} onChange={() => onToggle(value)} />
                <span className="min-w-0 flex-1 truncate">{wordOf(field, value)}</span>
                <span className="num-small text-soft">{formatCount(n)}</span>
              </li>
            ))}
            {found && values.length === 0 && <li className="px-2 py-1 text-soft">No value begins so.</li>}
            {found?.more && <li className="px-2 py-1 text-small text-soft">There are more: type how it begins.</li>}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
