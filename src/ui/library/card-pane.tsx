"use client";

import { layersOf } from "@/core/strips/layers";
import { counted } from "@/core/names/count";
import { useQuery } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { Suspense, lazy, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetRow } from "@/contracts/records";
import { type Processor, processorName } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { KIND_NAMES, chainOf, isStrips } from "@/core/presets/preset";
import { summaryOf } from "@/core/chains/summary";
import { orSay } from "../kit/say";
import { Button } from "../kit/button";
import { Key } from "../kit/bits";
import { Num } from "../kit/number";
import { Shape } from "../kit/shape";
import { useRecall } from "../plan/recall";
import { addressedVersion, flushAddress, writeAddress } from "./in-address";
import { useCopies } from "./use-copies";
import { openSheet } from "./filing";
import { KeepButton } from "./keep-button";
import { Facts } from "./card-facts";
import { Holders, Uses, VersionList } from "./card-versions";

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
  const [version, setShown] = useState(() => addressedVersion(preset.id));
  const setVersion = (next: number | null) => {
    setShown(next);
    writeAddress({ sound: preset.id, version: next === null ? null : String(next) });
  };
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
  const effect = recall.effectWords(shown ?? preset);
  return (
    <aside aria-label="Card" className="flex h-full flex-col bg-card">
      <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto px-[18px] pt-4 pb-3 [overflow-wrap:anywhere]">
        {shown?.unreadable !== undefined && (
          <p role="alert" className="border-alert border-l-[3px] bg-alert-tint px-3 py-2">
            Its sound cannot be read: {shown.unreadable} Take an earlier version below, or a backup; all else is
            untouched.
          </p>
        )}
        <div>
          <p className="text-small text-soft">
            {KIND_NAMES[preset.kind]} · version {shownVersion}
            {shownVersion !== preset.version && ` of ${preset.version}`} · {preset.pack ?? "own"}
          </p>
          <div className="flex items-baseline gap-2">
            <h2 className="h1 mt-0.5 min-w-0 flex-1">{preset.card.name}</h2>
            <span className="num flex-none text-soft empty:hidden" title="Its short name, for devices">
              {preset.card.short}
            </span>
            {preset.pack !== null && (
              <Button
                small
                plain
                title="What comes with a pack stays as it is; a copy is yours (U)"
                onClick={() => orSay(duplicate([preset]))}
              >
                Copy to own
              </Button>
            )}
            <Button
              small
              plain
              title={preset.pack === null ? "Change the card (E)" : "Rate, tag and file it (E)"}
              onClick={() => openSheet({ sheet: "edit", presets: [preset], begin: "name" })}
            >
              {preset.pack === null ? "Change" : "File"}
            </Button>
          </div>
        </div>
        <div className="h-[3px] flex-none border-alert border-t border-b border-b-rule" />
        <Facts preset={preset} onFolder={onFolder} />
        {shown && isStrips(shown.content) ? (
          <Suspense>
            <StripsInside strips={shown.content.strips} tempo={tempo} />
          </Suspense>
        ) : (
          <Inside processors={processors} tempo={tempo} preset={shown} />
        )}
        <VersionList preset={preset} detail={detail.data} shown={shownVersion} onShow={setVersion} />
        <Holders detail={detail.data} />
        <Uses detail={detail.data} />
      </div>
      <div className="flex flex-none flex-wrap gap-2 border-rule border-t px-[18px] py-3">
        {recall.targetWords && (
          <>
            <p className="w-full text-small text-soft empty:hidden">{effect && `Enter ${effect}`}</p>
            <Button
              main
              className="max-w-full"
              title={`Apply ${recall.targetWords} (Enter)`}
              onClick={() => recall.apply(chosen)}
            >
              <span className="truncate">Apply {recall.targetWords}</span>
            </Button>
            <Button title="Show the plan before applying (Shift Enter)" onClick={() => recall.plan(chosen)}>
              Plan…
            </Button>
          </>
        )}
        {!isStrips(preset.content) && (
          <Button
            onClick={() => {
              flushAddress();
              router.push(`/bench?preset=${preset.id}&version=${shownVersion}`);
            }}
          >
            Open on the bench
          </Button>
        )}
        <KeepButton preset={preset} version={shownVersion} tempo={tempo} />
        {!recall.targetWords && (
          <p className="w-full text-small text-soft">
            To apply it, open a project first: <Key>Alt 4</Key>
          </p>
        )}
      </div>
    </aside>
  );
}

// What is known of the parts is large, and most sounds are no strips.
const StripsInside = lazy(() => import("./strips-inside").then((m) => ({ default: m.StripsInside })));
const OtherParts = lazy(() => import("./other-parts").then((m) => ({ default: m.OtherParts })));

interface InsideProps {
  readonly processors: readonly Processor[];
  readonly tempo: number;
  readonly preset: PresetRow | undefined;
}

function Inside({ processors, tempo, preset }: InsideProps) {
  const strip = preset?.content.kind === "strip" ? preset.content.strip : null;
  const played = strip?.source ? layersOf({ source: strip.source }) : [];
  return (
    <section>
      <h3 className="h2 pb-2">
        Inside, {played.length > 0 && `${counted(played.length, "instrument")} and `}
        {counted(processors.length, "plugin")}
      </h3>
      {strip && (
        <Suspense>
          <OtherParts strip={strip} />
        </Suspense>
      )}
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
