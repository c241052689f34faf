"use client";

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Play, Square } from "lucide-react";
import { useDeferredValue, useMemo, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { Naming } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { processorsOf } from "@/core/chains/tree";
import { NAMES_A_PAGE } from "@/core/documents/limits";
import { NAMING_FAULTS } from "@/core/library/naming";
import { LONGEST_NAME } from "@/core/names/free";
import { fold } from "@/core/names/words";
import { chainOf } from "@/core/presets/preset";
import { Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { INPUT, Refused } from "../kit/field";
import { Scroll } from "../kit/scroll";
import { Shapes } from "../kit/shape";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { Tick } from "../kit/tick";
import { setPlaying } from "../listening/listening";
import { useListening } from "../listening/state";
import { TakenNote } from "../names/name-taken";
import { useTaken } from "../names/taken";
import { closeSheet, useFiling } from "./filing";
import { useHearChosen } from "./selection";
import { useTempo } from "./use-tempo";

type Item = Naming["items"][number];

/** The names of one page; what is typed and left out is kept from page to page. */
function useNaming() {
  const [from, setFrom] = useState(0);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const found = useQuery({
    queryKey: [...KEYS.presets, "naming", from],
    queryFn: () => api.listNaming(from),
    placeholderData: keepPreviousData,
  });
  const total = found.data?.total ?? 0;
  // Those before were mended: what is left moved up.
  if (found.data && from > 0 && from >= total)
    setFrom(Math.max(0, Math.floor((total - 1) / NAMES_A_PAGE) * NAMES_A_PAGE));
  const items = found.data?.items ?? [];
  const nameOf = ({ preset, proposed }: Item) => (typed[preset.id] ?? proposed ?? "").trim();
  const setOn = (id: string, on: boolean) => setOff(new Set(on ? [...off].filter((one) => one !== id) : [...off, id]));
  return {
    found,
    from,
    setFrom,
    total,
    items,
    nameOf,
    wanted: items.filter(
      (item) => !off.has(item.preset.id) && nameOf(item) !== "" && nameOf(item) !== item.preset.card.name,
    ),
    setOn,
    type: (id: string, name: string) => {
      setTyped({ ...typed, [id]: name });
      setOn(id, true);
    },
    forget: (ids: readonly string[]) =>
      setTyped(Object.fromEntries(Object.entries(typed).filter(([id]) => !ids.includes(id)))),
  };
}

/** Whether the name of a line is another's: in the library, or a few lines away. */
function useTakenLines({ items, wanted, nameOf }: Pick<ReturnType<typeof useNaming>, "items" | "wanted" | "nameOf">) {
  const all = useDeferredValue(items.map(nameOf).join("\n"));
  const names = useMemo(() => all.split("\n"), [all]);
  const { names: taken } = useTaken(
    names,
    useMemo(() => items.map(({ preset }) => preset.id), [items]),
  );
  const others = new Set(taken.map(fold));
  const times = new Map<string, number>();
  for (const item of wanted) times.set(fold(nameOf(item)), (times.get(fold(nameOf(item))) ?? 0) + 1);
  return (item: Item) => others.has(fold(nameOf(item))) || (times.get(fold(nameOf(item))) ?? 0) > 1;
}

/** What is heard of the list, until the sheet is closed. */
function useHeard() {
  const tempo = useTempo();
  const playing = useListening((l) => l.playing);
  const [heard, setHeard] = useState<PresetRow | null>(null);
  useHearChosen(heard, tempo);
  return {
    isHeard: (preset: PresetRow) => playing && heard?.id === preset.id,
    toggle: (preset: PresetRow) => {
      const isOn = playing && heard?.id === preset.id;
      setHeard(preset);
      void setPlaying(!isOn);
    },
  };
}

/** Names that say too little, each with a proposal: heard, ticked, changed by hand, and given all at once. */
export function NamingSheet() {
  const { change } = useFiling();
  const naming = useNaming();
  const { found, from, total, items, wanted, nameOf } = naming;
  const isTaken = useTakenLines(naming);
  const { isHeard, toggle } = useHeard();
  const { refusal, attempt } = useAttempt();
  const rename = () =>
    attempt(async () => {
      const names = new Map(wanted.map((item) => [item.preset.id, nameOf(item)]));
      await change(
        wanted.map((item) => item.preset),
        (p) => ({ name: names.get(p.id) ?? p.card.name }),
        "Rename",
      );
      naming.forget([...names.keys()]);
    });
  return (
    <Sheet
      open
      onClose={closeSheet}
      title="Names to mend"
      aside={found.data && (total > items.length ? `${from + 1} to ${from + items.length} of ${total}` : String(total))}
      className="w-[900px]"
    >
      {found.isPending && <Loading what="Reading all names" />}
      {found.error && <Refused>{found.error.message}</Refused>}
      {found.data && total === 0 && (
        <p className="text-soft">Every name tells its sound from the others. There is nothing to mend.</p>
      )}
      {items.length > 0 && (
        <Scroll label="Names" className="max-h-[420px] border-edge border-t">
          <ul>
            {items.map((item) => (
              <Line
                key={item.preset.id}
                item={item}
                name={nameOf(item)}
                on={wanted.includes(item)}
                isTaken={wanted.includes(item) && isTaken(item)}
                isHeard={isHeard(item.preset)}
                onHear={() => toggle(item.preset)}
                onName={(name) => naming.type(item.preset.id, name)}
                onOn={(on) => naming.setOn(item.preset.id, on)}
              />
            ))}
          </ul>
        </Scroll>
      )}
      {refusal}
      <div className="flex items-center gap-2">
        {total > NAMES_A_PAGE && (
          <>
            <Button small disabled={from === 0} onClick={() => naming.setFrom(from - NAMES_A_PAGE)}>
              {NAMES_A_PAGE} before
            </Button>
            <Button small disabled={from + NAMES_A_PAGE >= total} onClick={() => naming.setFrom(from + NAMES_A_PAGE)}>
              Next {Math.min(NAMES_A_PAGE, Math.max(0, total - from - NAMES_A_PAGE)) || NAMES_A_PAGE}
            </Button>
          </>
        )}
        <span className="ml-auto flex gap-2">
          <Button onClick={closeSheet}>Close</Button>
          {items.length > 0 && (
            <Button main disabled={wanted.length === 0} onClick={() => void rename()}>
              Rename {wanted.length} of {items.length}
            </Button>
          )}
        </span>
      </div>
    </Sheet>
  );
}

interface LineProps {
  readonly item: Item;
  readonly name: string;
  readonly on: boolean;
  readonly isTaken: boolean;
  readonly isHeard: boolean;
  readonly onHear: () => void;
  readonly onName: (name: string) => void;
  readonly onOn: (on: boolean) => void;
}

function Line({ item: { preset, faults }, name, on, isTaken, isHeard, onHear, onName, onOn }: LineProps) {
  const tempo = useTempo();
  const Hear = isHeard ? Square : Play;
  return (
    <li className="grid min-h-[50px] grid-cols-[18px_26px_minmax(0,1fr)_150px_minmax(0,1.1fr)] items-center gap-3 border-rule border-b py-1">
      <Tick label={`Rename “${preset.card.name}”`} on={on} onChange={onOn} />
      <button
        type="button"
        aria-label={isHeard ? "Stop" : `Hear “${preset.card.name}”`}
        aria-pressed={isHeard}
        onClick={onHear}
        className="grid size-[26px] place-items-center rounded-card text-soft hover:text-ink aria-pressed:text-live"
      >
        <Hear size={14} aria-hidden="true" />
      </button>
      <span className="min-w-0">
        <span className="name block truncate">{preset.card.name}</span>
        <span className="block text-small text-soft">{faults.map((fault) => NAMING_FAULTS[fault]).join("; ")}</span>
      </span>
      <Shapes processors={processorsOf(chainOf(preset.content))} tempo={tempo} width={44} most={3} />
      <span>
        <input
          aria-label={`New name of “${preset.card.name}”`}
          placeholder="Nothing more is known; give it a name"
          maxLength={LONGEST_NAME}
          autoComplete="off"
          value={name}
          onChange={({ target }) => onName(target.value)}
          className={`${INPUT} name`}
        />
        {isTaken && <TakenNote />}
      </span>
    </li>
  );
}
