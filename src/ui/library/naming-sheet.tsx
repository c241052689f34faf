"use client";

import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { Naming } from "@/contracts/library";
import { processorsOf } from "@/core/chains/tree";
import { NAMING_FAULTS } from "@/core/library/naming";
import { LONGEST_NAME } from "@/core/names/free";
import { chainOf } from "@/core/presets/preset";
import { Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { INPUT, Refused } from "../kit/field";
import { Scroll } from "../kit/scroll";
import { Shapes } from "../kit/shape";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { Tick } from "../kit/tick";
import { closeSheet, useFiling } from "./filing";
import { useTempo } from "./use-tempo";

type Item = Naming["items"][number];

/** Names that say too little, each with a proposal: ticked, changed by hand, and given all at once. */
export function NamingSheet() {
  const { change } = useFiling();
  const found = useQuery({ queryKey: [...KEYS.presets, "naming"], queryFn: api.listNaming });
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const { refusal, attempt } = useAttempt();
  const items = found.data?.items ?? [];
  const nameOf = ({ preset, proposed }: Item) => (typed[preset.id] ?? proposed ?? "").trim();
  const wanted = items.filter(
    (item) => !off.has(item.preset.id) && nameOf(item) !== "" && nameOf(item) !== item.preset.card.name,
  );
  const rename = () =>
    attempt(async () => {
      const names = new Map(wanted.map((item) => [item.preset.id, nameOf(item)]));
      await change(
        wanted.map((item) => item.preset),
        (p) => ({ name: names.get(p.id) ?? p.card.name }),
        "Rename",
      );
      setTyped({});
    });
  const total = found.data?.total ?? 0;
  return (
    <Sheet
      open
      onClose={closeSheet}
      title="Names to mend"
      aside={found.data && (total > items.length ? `${items.length} of ${total}` : String(total))}
      className="w-[900px]"
    >
      {found.isPending && <Loading what="Reading all names" />}
      {found.error && <Refused>{found.error.message}</Refused>}
      {found.data && items.length === 0 && (
        <p className="text-soft">Every name tells its sound from the others. There is nothing to mend.</p>
      )}
      {items.length > 0 && (
        <Scroll label="Names" className="max-h-[420px] border-edge border-t">
          <ul>
            {items.map((item) => (
              <Line
                key={item.preset.id}
                item={item}
                name={typed[item.preset.id] ?? item.proposed ?? ""}
                on={wanted.includes(item)}
                onName={(name) => {
                  setTyped({ ...typed, [item.preset.id]: name });
                  setOff(new Set([...off].filter((id) => id !== item.preset.id)));
                }}
                onOn={(on) =>
                  setOff(new Set(on ? [...off].filter((id) => id !== item.preset.id) : [...off, item.preset.id]))
                }
              />
            ))}
          </ul>
        </Scroll>
      )}
      {refusal}
      <div className="flex justify-end gap-2">
        <Button onClick={closeSheet}>Close</Button>
        {items.length > 0 && (
          <Button main disabled={wanted.length === 0} onClick={() => void rename()}>
            Rename {wanted.length} of {items.length}
          </Button>
        )}
      </div>
    </Sheet>
  );
}

interface LineProps {
  readonly item: Item;
  readonly name: string;
  readonly on: boolean;
  readonly onName: (name: string) => void;
  readonly onOn: (on: boolean) => void;
}

function Line({ item: { preset, faults }, name, on, onName, onOn }: LineProps) {
  const tempo = useTempo();
  return (
    <li className="grid min-h-[50px] grid-cols-[18px_minmax(0,1fr)_150px_minmax(0,1.1fr)] items-center gap-3 border-rule border-b">
      <Tick label={`Rename “${preset.card.name}”`} on={on} onChange={onOn} />
      <span className="min-w-0">
        <span className="name block truncate">{preset.card.name}</span>
        <span className="block truncate text-small text-soft" title={faults.map((f) => NAMING_FAULTS[f]).join("; ")}>
          {faults.map((fault) => NAMING_FAULTS[fault]).join("; ")}
        </span>
      </span>
      <Shapes processors={processorsOf(chainOf(preset.content))} tempo={tempo} width={44} most={3} />
      <input
        aria-label={`New name of “${preset.card.name}”`}
        placeholder="Nothing more is known; give it a name"
        maxLength={LONGEST_NAME}
        autoComplete="off"
        value={name}
        onChange={({ target }) => onName(target.value)}
        className={`${INPUT} name`}
      />
    </li>
  );
}
