"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { Fragment, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetDetail } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { type Processor, processorName, processorsOf } from "@/core/chains/chain";
import { KIND_NAMES, type Origin, chainOf } from "@/core/presets/preset";
import { quoteValue } from "@/core/search/query";
import { summaryOf } from "@/core/processors/summary";
import { PART_NAMES, type StripKind, partsOf } from "@/core/strips/strip";
import { Button } from "../kit/button";
import { Chip, Key } from "../kit/bits";
import { formatDate } from "../kit/dates";
import { KeyCapture } from "../kit/key-capture";
import { Num } from "../kit/number";
import { useShortcutOf } from "../own-shortcuts";
import { Shape } from "../kit/shape";
import { STRIP_WORDS } from "../kit/strip-words";
import { useStripStart } from "../starts";
import { canBegin } from "@/core/presets/as-strip";
import { useRecall } from "../plan/recall";
import { NameField } from "../kit/name-field";
import { useCopies } from "./copies";
import { compareWithOriginal, openSheet, orSay } from "./filing";
import { useFolders } from "./use-library";

interface CardProps {
  readonly preset: PresetRow;
  readonly tempo: number;
  /** Goes to a folder. */
  readonly onFolder: (folder: string | null) => void;
}

/** Everything about one preset, as on a hand-kept card. */
export function CardPane({ preset, tempo, onFolder }: CardProps) {
  const router = useRouter();
  const recall = useRecall();
  const { duplicate } = useCopies();
  const [version, setVersion] = useState<number | null>(null);
  const shownVersion = version ?? preset.version;
  const detail = useQuery({ queryKey: [...KEYS.preset(preset.id), "detail"], queryFn: () => api.getPreset(preset.id) });
  const earlier = useQuery({
    queryKey: KEYS.version(preset.id, shownVersion),
    queryFn: () => api.getPreset(preset.id, shownVersion),
    enabled: shownVersion !== preset.version,
  });
  const shown = shownVersion === preset.version ? preset : earlier.data?.preset;
  const processors = shown ? processorsOf(chainOf(shown.content)) : [];
  const chosen = { ...preset, version: shownVersion };
  return (
    <aside aria-label="Card" className="flex h-full flex-col bg-card">
      <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto px-[18px] pt-4 pb-3">
        <div>
          <p className="text-small text-soft">
            {KIND_NAMES[preset.kind]} · version {shownVersion}
            {shownVersion !== preset.version && ` of ${preset.version}`} · {preset.pack ?? "own"}
          </p>
          <div className="flex items-baseline gap-2">
            <h2 className="h1 mt-0.5 min-w-0 flex-1">{preset.card.name}</h2>
            {preset.pack === null ? (
              <Button
                small
                plain
                title="Change the card (E)"
                onClick={() => openSheet({ sheet: "edit", presets: [preset], begin: "name" })}
              >
                Change
              </Button>
            ) : (
              <Button
                small
                plain
                title="What comes with a pack stays as it is; a copy is yours (U)"
                onClick={() => orSay(duplicate([preset]))}
              >
                Copy to own
              </Button>
            )}
          </div>
        </div>
        <div className="h-[3px] flex-none border-alert border-t border-b border-b-rule" />
        <Facts preset={preset} onFolder={onFolder} />
        <Inside processors={processors} tempo={tempo} preset={shown} />
        <VersionList preset={preset} detail={detail.data} shown={shownVersion} onShow={setVersion} />
        <Holders detail={detail.data} />
        <Uses detail={detail.data} />
      </div>
      <div className="flex flex-none flex-wrap gap-2 border-rule border-t px-[18px] py-3">
        {recall.targetWords && (
          <Button main onClick={() => recall.plan(chosen)}>
            Apply {recall.targetWords}…
          </Button>
        )}
        <Button onClick={() => router.push(`/bench?preset=${preset.id}&version=${shownVersion}`)}>
          Open on the bench
        </Button>
        {!recall.targetWords && (
          <p className="w-full text-small text-soft">
            To apply it, open a project first: <Key>Alt 4</Key>
          </p>
        )}
      </div>
    </aside>
  );
}

function originLines(
  { artist, song, strip, date, take }: Origin,
  otherwise: string,
): readonly [who: string, song: string | null, where: string] {
  const where = [strip && `strip ${strip}`, date && formatDate(date), take && `take ${take}`]
    .filter(Boolean)
    .join(" · ");
  return [artist ?? otherwise, song ?? null, where];
}

interface FactsProps {
  readonly preset: PresetRow;
  readonly onFolder: (folder: string | null) => void;
}

function Facts({ preset, onFolder }: FactsProps) {
  const { id, card, measured } = preset;
  const { keys, setKeys } = useShortcutOf({ preset: id });
  const folders = useFolders().data?.folders ?? [];
  const path: string[] = [];
  for (let at = folders.find((f) => f.id === card.folder); at; at = folders.find((f) => f.id === at?.parent))
    path.unshift(at.name);
  const [who, song, where] = originLines(card.origin, preset.pack ?? "own");
  const played = [card.origin.performer, card.origin.instrument, card.origin.microphone].filter(Boolean).join(" · ");
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
    ["Played on", played],
    ["For", card.purpose],
    [
      "Folder",
      path.length > 0 && (
        <button key="folder" type="button" className="text-left hover:text-live" onClick={() => onFolder(card.folder)}>
          {path.join(" / ")}
        </button>
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
    ["Measured", measured.join(", ")],
    ["Notes", card.notes],
    ["Begins", preset.kind !== "plugin" && <BeginsStrips key="begins" preset={preset} />],
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
function BeginsStrips({ preset: { id, card, content, version } }: { readonly preset: PresetRow }) {
  const { startOf, set } = useStripStart();
  const kinds = KINDS.filter((strip) => canBegin(content, strip));
  const now = kinds.find((strip) => startOf(strip)?.preset === id) ?? "";
  const choose = (value: string) => {
    const chosen = kinds.find((strip) => strip === value);
    if (chosen) set(chosen, { preset: id, version, name: card.name });
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

interface InsideProps {
  readonly processors: readonly Processor[];
  readonly tempo: number;
  readonly preset: PresetRow | undefined;
}

function Inside({ processors, tempo, preset }: InsideProps) {
  const other = preset?.content.kind === "strip" ? partsOf(preset.content.strip).filter((p) => p !== "inserts") : [];
  return (
    <section>
      <h3 className="h2 pb-2">
        Inside, {processors.length} plugin{processors.length === 1 ? "" : "s"}
        {other.length > 0 && `, also ${other.map((p) => PART_NAMES[p].toLowerCase()).join(", ")}`}
      </h3>
      <ul className="grid gap-2">
        {processors.map((processor) => (
          <li key={processor.key} className="grid grid-cols-[92px_1fr] items-center gap-3">
            <Shape processor={processor} tempo={tempo} width={92} height={44} />
            <div className="min-w-0">
              <p className="truncate">
                {processorName(processor)}
                {!processor.enabled && <span className="text-soft"> · off</span>}
              </p>
              <p className="flex flex-wrap gap-x-3 text-small leading-[17px]">
                {summaryOf(processor).map(({ label, written }) => (
                  <span key={label}>
                    <span className="text-soft">{label}</span> <Num small written={written} />
                  </span>
                ))}
              </p>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface VersionsProps {
  readonly preset: PresetRow;
  readonly detail: PresetDetail | undefined;
  readonly shown: number;
  readonly onShow: (version: number | null) => void;
}

/** Every save, newest first: looked at, compared, called by a name. */
function VersionList({ preset, detail, shown, onShow }: VersionsProps) {
  const queries = useQueryClient();
  if (!detail || detail.versions.length + detail.merged.length < 2) return null;
  const compare = (version: number) =>
    openSheet({ sheet: "compare", left: { preset, version }, right: { preset, version: preset.version } });
  const callIt = async (version: number, name: string) => {
    await api.nameVersion(preset.id, version, name.trim() === "" ? null : name.trim());
    await queries.invalidateQueries({ queryKey: KEYS.preset(preset.id) });
  };
  return (
    <section>
      <h3 className="h2 pb-1">Versions</h3>
      <ul>
        {detail.versions.map(({ version, savedAt, name }, at) => (
          <li
            key={version}
            className={`flex min-h-[26px] items-center gap-2 pr-1 ${version === shown ? "bg-live-tint" : ""}`}
          >
            <button
              type="button"
              aria-pressed={version === shown}
              onClick={() => onShow(at === 0 ? null : version)}
              className="flex h-[26px] min-w-0 flex-1 items-center gap-3 px-2 text-left hover:bg-sunk"
            >
              <span className="num">{version}</span>
              <span className="flex-none text-soft">{formatDate(savedAt)}</span>
              <span className="truncate">
                {name ?? (at === 0 ? <span className="text-small text-soft">newest</span> : "")}
              </span>
            </button>
            {at > 0 && (
              <Button
                small
                plain
                aria-label={`Compare version ${version} with the newest`}
                onClick={() => compare(version)}
              >
                compare
              </Button>
            )}
          </li>
        ))}
      </ul>
      {detail.merged.length > 0 && (
        <p className="text-small text-soft">
          With the versions of {detail.merged.map((m) => `“${m.name}”`).join(", ")}, which were merged into it.
        </p>
      )}
      <NameField
        label={`Name of version ${shown}`}
        name={detail.versions.find((v) => v.version === shown)?.name ?? ""}
        placeholder={`Give version ${shown} a name`}
        onName={(name) => orSay(callIt(shown, name))}
      />
    </section>
  );
}

/** Presets that have it inside. */
function Holders({ detail }: { readonly detail: PresetDetail | undefined }) {
  const router = useRouter();
  if (!detail || detail.heldBy.length === 0) return null;
  return (
    <section>
      <h3 className="h2 pb-1">Inside of</h3>
      <ul>
        {detail.heldBy.map(({ id, name }) => (
          <li key={id}>
            <button
              type="button"
              className="min-h-6 truncate text-left text-small hover:text-live"
              onClick={() => router.push(`/library?q=${encodeURIComponent(`name:${quoteValue(name)}`)}`)}
            >
              {name}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Uses({ detail }: { readonly detail: PresetDetail | undefined }) {
  const router = useRouter();
  if (!detail) return null;
  const { uses } = detail;
  const projects = new Set(uses.map((u) => u.project)).size;
  return (
    <section>
      <h3 className="h2 pb-1">Used in</h3>
      {uses.length === 0 ? (
        <p className="text-small text-soft">No project yet</p>
      ) : (
        <p className="text-small">
          {projects} project{projects === 1 ? "" : "s"}, {uses.length} strip{uses.length === 1 ? "" : "s"}
        </p>
      )}
      <ul>
        {uses.map((use) => (
          <li key={`${use.project} ${use.strip}`}>
            <button
              type="button"
              className="flex min-h-6 w-full items-baseline gap-2 text-left text-small hover:text-live"
              onClick={() => router.push(`/bench?project=${use.project}&strip=${use.strip}`)}
            >
              <span className="truncate">
                {use.projectName}, {use.stripName}
              </span>
              <span className={`ml-auto whitespace-nowrap ${use.differs > 0 ? "text-edit" : "text-soft"}`}>
                {use.differs > 0 ? `differs by ${use.differs}` : `version ${use.version}`}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
