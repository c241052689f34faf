"use client";

import { useQuery } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { Fragment } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetRow } from "@/contracts/records";
import { type Origin, presetRef } from "@/core/presets/preset";
import type { StripKind } from "@/core/documents/strip-kinds";
import { counted } from "@/core/names/count";
import { severalWords } from "@/core/names/several";
import { formatNumber } from "@/core/units/format";
import { quoteValue } from "@/core/search/written";
import { orSay } from "../kit/say";
import { Chip } from "../kit/bits";
import { formatDate } from "../kit/dates";
import { KeyCapture } from "../kit/key-capture";
import { useShortcutOf } from "../plan/own-shortcuts";
import { STRIP_WORDS } from "../kit/strip-words";
import { useStripStart } from "../settings/strip-start";
import { canBegin } from "@/core/presets/as-strip";
import { compareWithOriginal } from "./filing";
import { useAlsoIn } from "./use-also-in";
import { folderPaths, useFolders } from "./use-library";

function originLines(
  { artist, song, strip, date, take }: Origin,
  otherwise: string,
): readonly [who: string, song: string | null, where: string] {
  const where = [strip && `strip ${strip}`, date && formatDate(date), take && `take ${take}`]
    .filter(Boolean)
    .join(" · ");
  return [severalWords(artist) || otherwise, severalWords(song) || null, where];
}

interface FactsProps {
  readonly preset: PresetRow;
  readonly onFolder: (folder: string | null) => void;
}

/** What is written on a card: where it is from, what it is for, where it is filed. */
export function Facts({ preset, onFolder }: FactsProps) {
  const { id, card, measured, loudness } = preset;
  const { keys, setKeys } = useShortcutOf({ preset: id });
  const folders = useFolders().data?.folders ?? [];
  const paths = folderPaths(folders);
  const home = paths.get(card.folder ?? "");
  const fileAlso = useAlsoIn();
  const router = useRouter();
  const madeOfIt = `from:${quoteValue(id)}`;
  const made = useQuery({
    queryKey: [...KEYS.presets, "made of", id],
    queryFn: () => api.listPresets({ q: madeOfIt, limit: 1 }),
  }).data;
  const [who, song, where] = originLines(card.origin, preset.pack ?? "own");
  const played = [card.origin.performer, card.origin.instrument, card.origin.microphone]
    .map(severalWords)
    .filter(Boolean)
    .join(" · ");
  const facts: [term: string, fact: React.ReactNode][] = [
    [
      "Origin",
      <Fragment key="origin">
        {who}
        {song && (
          <>
            , <em className="font-name text-[15px]">{song}</em>
          </>
        )}
        {where !== "" && <span className="block text-soft">{where}</span>}
      </Fragment>,
    ],
    [
      "Made from",
      card.origin.from !== undefined && (
        <button
          key="from"
          type="button"
          title="Compare with it"
          className="text-left hover:text-live"
          onClick={() => orSay(compareWithOriginal(preset))}
        >
          {card.origin.from.name}, version {card.origin.from.version} <span className="text-soft">· compare</span>
        </button>
      ),
    ],
    [
      "Made of it",
      made !== undefined && made.total > 0 && (
        <button
          key="made"
          type="button"
          className="text-left hover:text-live"
          onClick={() => router.push(`/library?q=${encodeURIComponent(madeOfIt)}`)}
        >
          {counted(made.total, "sound")}
        </button>
      ),
    ],
    ["Played on", played],
    ["For", severalWords(card.purpose)],
    [
      "Folder",
      home !== undefined && (
        <Fragment key="folder">
          <button type="button" className="text-left hover:text-live" onClick={() => onFolder(card.folder)}>
            {home}
          </button>
          {(card.alsoIn ?? []).map((id) => {
            const path = paths.get(id) ?? "";
            return (
              <span key={id} className="flex gap-1 text-soft">
                <button type="button" className="text-left hover:text-live" onClick={() => onFolder(id)}>
                  also in {path}
                </button>
                <button
                  type="button"
                  aria-label={`Take out of “${path}”`}
                  title={`Take out of “${path}”`}
                  className="hover:text-ink"
                  onClick={() => orSay(fileAlso([preset], { id, path }))}
                >
                  ×
                </button>
              </span>
            );
          })}
        </Fragment>
      ),
    ],
    ["Rating", card.rating > 0 ? `${card.rating} of 5` : ""],
    [
      "Tags",
      card.tags.length > 0 && (
        <span key="tags" className="flex flex-wrap gap-1 pt-0.5">
          {card.tags.map((tag) => (
            <Chip key={tag}>{tag}</Chip>
          ))}
        </span>
      ),
    ],
    ["Measured", [...measured, ...(loudness === undefined ? [] : [`${formatNumber(loudness, 1)} LUFS`])].join(", ")],
    ["Notes", card.notes],
    ["New strips", preset.kind !== "plugin" && <BeginsStrips key="begins" preset={preset} />],
    ["Shortcut", <KeyCapture key="shortcut" label={`“${card.name}”`} keys={keys} onKeys={setKeys} />],
  ];
  return (
    <dl className="grid grid-cols-[72px_1fr] gap-x-3 gap-y-[3px]">
      {facts
        .filter(([, fact]) => fact !== "" && fact !== false)
        .map(([term, fact]) => (
          <Fragment key={term}>
            <dt className="text-soft">{term}</dt>
            <dd className="min-w-0">{fact}</dd>
          </Fragment>
        ))}
    </dl>
  );
}

const KINDS = Object.keys(STRIP_WORDS) as readonly StripKind[];

/** Which new strips begin as this. */
function BeginsStrips({ preset }: { readonly preset: PresetRow }) {
  const { startOf, set } = useStripStart();
  const kinds = KINDS.filter((strip) => canBegin(preset.content, strip));
  const now = kinds.find((strip) => startOf(strip)?.preset === preset.id) ?? "";
  const choose = (value: string) => {
    const chosen = kinds.find((strip) => strip === value);
    if (chosen) set(chosen, presetRef(preset));
    else if (now !== "") set(now, null);
  };
  return (
    <select
      aria-label="New strips that begin as this"
      value={now}
      onChange={({ target }) => choose(target.value)}
      className="-ml-1 max-w-full rounded-card bg-transparent text-soft hover:text-ink"
    >
      <option value="">no new strips</option>
      {kinds.map((strip) => (
        <option key={strip} value={strip}>
          new {STRIP_WORDS[strip]}
        </option>
      ))}
    </select>
  );
}
