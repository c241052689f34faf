"use client";

import { useQueryClient } from "@tanstack/react-query";
import { Play, Square } from "lucide-react";
import { useEffect, useState } from "react";
import * as api from "@/clients/api";
import type { NearCopies } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { processorsOf } from "@/core/chains/tree";
import { describeDifferences, differencesOf } from "@/core/chains/differences";
import { MOST_MERGED } from "@/core/documents/limits";
import { counted } from "@/core/names/count";
import { severalWords } from "@/core/names/several";
import { valuesBeside } from "@/core/presets/beside-words";
import { chainOf } from "@/core/presets/preset";
import { withApart } from "@/core/settings/settings";
import { Button } from "../kit/button";
import { formatDate } from "../kit/dates";
import { orSay, say } from "../kit/say";
import { Scroll } from "../kit/scroll";
import { Shapes } from "../kit/shape";
import { useAttempt } from "../kit/use-attempt";
import { hearPreset } from "../listening/hear-preset";
import { hear, hearBeside, setPlaying, setSide } from "../listening/listening";
import { useListening } from "../listening/state";
import { useSettings } from "../settings/settings";
import { refetchLibrary, useFiling } from "./filing";
import { useTempo } from "./use-tempo";

type Copy = NonNullable<NearCopies["groups"]>[number]["copies"][number];

/** What is heard of a group: the one that stays as A, another beside it as B. */
interface Heard {
  readonly kept: PresetRow;
  readonly other: PresetRow | null;
}

/** Puts a preset to where it is heard, for as long as it is asked for. */
function usePut(put: typeof hear | typeof hearBeside, preset: PresetRow | null, tempo: number): void {
  const content = preset?.content;
  const name = preset?.card.name ?? "";
  useEffect(() => {
    if (content) return hearPreset(put, content, { name, tempo });
  }, [put, content, name, tempo]);
}

/** Hears the sounds of groups beside each other, without leaving the sheet. */
export function useHeardBeside() {
  const tempo = useTempo();
  const playing = useListening((l) => l.playing);
  const [heard, setHeard] = useState<Heard | null>(null);
  usePut(hear, heard?.kept ?? null, tempo);
  usePut(hearBeside, heard?.other ?? null, tempo);
  useEffect(() => () => hearBeside(null), []);
  // What stands beside the one that stays may come late; once it is there, it is heard.
  const beside = useListening((l) => l.beside);
  useEffect(() => {
    if (heard?.other && beside) setSide("b");
  }, [heard, beside]);
  const sounding = heard?.other ?? heard?.kept;
  return {
    isHeard: (preset: PresetRow) => playing && sounding?.id === preset.id,
    toggle: (kept: PresetRow, preset: PresetRow) => {
      const isOn = playing && sounding?.id === preset.id;
      const other = preset.id === kept.id ? null : preset;
      setHeard({ kept, other });
      if (!other) setSide("a");
      void setPlaying(!isOn);
    },
  };
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

/** What a person goes by who chooses which stays. */
const wordsOn = ({ preset: { card, savedAt } }: Copy): string =>
  [severalWords(card.origin.artist) || "own", formatDate(savedAt), card.tags.join(", ")]
    .filter((word) => word !== "")
    .join(" · ");

/** Whoever is rated best, is used most and was used last stays, unless another is chosen. */
const bestOf = (copies: readonly Copy[]): string =>
  copies.toSorted(
    (a, b) =>
      b.preset.card.rating - a.preset.card.rating ||
      b.uses - a.uses ||
      (b.preset.usedAt ?? b.preset.savedAt).localeCompare(a.preset.usedAt ?? a.preset.savedAt),
  )[0]?.preset.id ?? "";

interface Props {
  readonly copies: readonly Copy[];
  /** How many there are, also those that are not shown. */
  readonly count: number;
  readonly isHeard: (preset: PresetRow) => boolean;
  readonly onHear: (kept: PresetRow, preset: PresetRow) => void;
  readonly onWhole: () => void;
}

/** One group: which of it stays, what each says, how each sounds. */
export function NearCopiesGroup({ copies, count, isHeard, onHear, onWhole }: Props) {
  const { done } = useFiling();
  const keepApart = useKeepApart();
  const presets = copies.map(({ preset }) => preset);
  const [chosen, setChosen] = useState(() => bestOf(copies));
  const kept = presets.find(({ id }) => id === chosen) ?? presets[0]!;
  const [isOpen, setOpen] = useState(false);
  const { refusal, attempt } = useAttempt();
  const merge = () =>
    attempt(async () => {
      const others = presets.flatMap(({ id }) => (id === kept.id ? [] : [id]));
      await api.mergePresets(kept.id, others);
      await done(`Merged ${others.length} into “${kept.card.name}”`);
    });
  return (
    <fieldset className="min-w-0 border-edge border-t pt-2">
      <legend className="sr-only">Alike: {presets.map((p) => p.card.name).join(", ")}</legend>
      {copies.map((copy) => (
        <Line
          key={copy.preset.id}
          copy={copy}
          kept={kept}
          group={presets[0]!.id}
          isHeard={isHeard(copy.preset)}
          onHear={() => onHear(kept, copy.preset)}
          onStay={() => setChosen(copy.preset.id)}
        />
      ))}
      {isOpen && <ValuesBeside presets={presets} kept={kept} />}
      {refusal}
      <div className="flex flex-wrap items-center justify-end gap-2 py-2">
        {count > presets.length && (
          <p className="mr-auto flex items-center gap-2 text-small text-soft">
            {presets.length} of {count} are shown.
            {presets.length < MOST_MERGED && (
              <Button small onClick={onWhole}>
                Show {count > MOST_MERGED ? MOST_MERGED : "all"}
              </Button>
            )}
          </p>
        )}
        <Button small aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          Values beside each other
        </Button>
        <Button
          small
          title="They are not shown as near copies of each other again"
          onClick={() => orSay(keepApart(presets.map((p) => p.id)))}
        >
          Keep {presets.length === 2 ? "both" : `all ${presets.length}`}
        </Button>
        <Button small className="max-w-[320px]" onClick={() => void merge()}>
          <span className="truncate">Merge into “{kept.card.name}”</span>
        </Button>
      </div>
    </fieldset>
  );
}

interface LineProps {
  readonly copy: Copy;
  readonly kept: PresetRow;
  /** By which the choices of one group belong together. */
  readonly group: string;
  readonly isHeard: boolean;
  readonly onHear: () => void;
  readonly onStay: () => void;
}

function Line({ copy, kept, group, isHeard, onHear, onStay }: LineProps) {
  const tempo = useTempo();
  const { preset, uses } = copy;
  const { name, rating } = preset.card;
  const Hear = isHeard ? Square : Play;
  return (
    <div className="grid min-h-11 grid-cols-[minmax(0,1fr)_26px_144px_92px_170px] items-center gap-3 border-rule border-b py-1">
      <label className="grid min-w-0 grid-cols-[18px_minmax(0,1fr)] items-center gap-3">
        <input type="radio" name={group} checked={preset.id === kept.id} onChange={onStay} />
        <span className="grid min-w-0">
          <span className="name truncate">{name}</span>
          <span className="truncate text-small text-soft" title={wordsOn(copy)}>
            {wordsOn(copy)}
          </span>
        </span>
      </label>
      <button
        type="button"
        aria-label={isHeard ? "Stop" : `Hear “${name}”`}
        aria-pressed={isHeard}
        onClick={onHear}
        className="grid size-[26px] place-items-center rounded-card text-soft hover:text-ink aria-pressed:text-live"
      >
        <Hear size={14} aria-hidden="true" />
      </button>
      <Shapes processors={processorsOf(chainOf(preset.content))} tempo={tempo} width={44} most={3} />
      <span className="grid text-small text-soft">
        <span>{rating === 0 ? "not rated" : `${rating} of 5`}</span>
        <span>{uses === 0 ? "never used" : `on ${counted(uses, "strip")}`}</span>
      </span>
      <span className="min-w-0 text-small text-soft">
        {preset.id === kept.id ? "stays" : differenceWords(kept, preset)}
      </span>
    </div>
  );
}

/** What each says where they differ; the one that stays comes first. */
function ValuesBeside({ presets, kept }: { readonly presets: readonly PresetRow[]; readonly kept: PresetRow }) {
  const ordered = [kept, ...presets.filter(({ id }) => id !== kept.id)];
  const rows = valuesBeside(ordered.map(({ content }) => content));
  if (rows.length === 0) return <p className="py-2 text-soft">All are set the same.</p>;
  return (
    <Scroll label="Values beside each other" className="max-h-[240px] border-edge border-b">
      <table className="min-w-full">
        <thead>
          <tr className="border-rule border-b">
            <th className="sticky left-0 bg-card" />
            {ordered.map(({ id, card }) => (
              <th
                key={id}
                scope="col"
                className="name max-w-[150px] truncate px-2 text-left font-normal"
                title={card.name}
              >
                {card.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ what, values }, n) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: two lines may say the same of two plugins of one name
            <tr key={`${what} ${n}`} className="border-rule border-b">
              <th scope="row" className="sticky left-0 whitespace-nowrap bg-card pr-3 text-left font-normal">
                {what}
              </th>
              {values.map((value, at) => (
                <td
                  key={ordered[at]!.id}
                  className={`num whitespace-nowrap px-2 ${value === values[0] ? "text-soft" : "text-edit"}`}
                >
                  {value}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Scroll>
  );
}
