"use client";

import { Pause, Play } from "lucide-react";
import { useEffect, useRef } from "react";
import { useShallow } from "zustand/react/shallow";
import { formatNumber } from "@/core/units/format";
import { useActions } from "../actions/actions";
import { cx } from "../kit/class-names";
import { Num } from "../kit/number";
import { Segments } from "../kit/segments";
import { Toggle } from "../kit/toggle";
import { type MaterialName, useMaterials, useMediaSheet, useOwnMaterial } from "./materials";
import { MetersButton } from "./meters-button";
import {
  type Sound,
  keepAsB,
  measuredNow,
  onMeters,
  setMatch,
  setMaterial,
  setPlaying,
  setProcessed,
  setSide,
  useListening,
} from "./listening";

const nextMaterial = (materials: readonly MaterialName[], current: string): string => {
  const at = materials.findIndex((m) => m.id === current);
  return materials[(at + 1) % materials.length]?.id ?? current;
};

/** Stands in the list of materials for choosing a file. */
const CHOOSE = "choose";
/** Stands there for what is done with the sounds of one's own. */
const KEPT = "kept";

const openKept = () => useMediaSheet.setState({ open: true });

function useListeningActions(materials: readonly MaterialName[]): void {
  const { playing, processed, side, match, material, a, b } = useListening();
  const group = "Listening";
  useActions(
    [
      {
        id: "play",
        title: playing ? "Stop" : "Play the material",
        group,
        keys: ["Space"],
        run: () => void setPlaying(!playing),
      },
      {
        id: "dry",
        title: processed ? "Hear it dry" : "Hear it processed",
        group,
        keys: ["D"],
        run: () => setProcessed(!processed),
      },
      {
        id: "ab",
        title: side === "a" ? "Hear B" : "Hear A",
        group,
        keys: ["X"],
        enabled: b !== null,
        run: () => setSide(side === "a" ? "b" : "a"),
      },
      { id: "keep-b", title: "Keep what is heard as B", group, keys: ["K"], enabled: a !== null, run: keepAsB },
      {
        id: "match",
        title: match ? "Stop matching loudness" : "Match loudness",
        group,
        keys: ["L"],
        run: () => setMatch(!match),
      },
      {
        id: "material",
        title: "Next material",
        group,
        keys: ["N"],
        run: () => void setMaterial(nextMaterial(materials, material)),
      },
      {
        id: "own-sounds",
        title: "Sounds of your own: the room they take",
        group,
        keys: [],
        run: openKept,
      },
    ],
    "everywhere",
  );
}

/** What is done with the material; its length where nothing is. */
function wordsFor(sound: Sound | null, seconds: number): string {
  if (sound) return sound.instrument ? `${sound.name} plays its phrase` : `through ${sound.name}`;
  return seconds > 0 ? `Material · loops ${formatNumber(seconds, 1)} s` : "Material";
}

/** Always there: what is played, where it is, what is heard of it, how loud. */
export function ListeningBar() {
  const materials = useMaterials();
  useListeningActions(materials);
  const own = useOwnMaterial();
  const file = useRef<HTMLInputElement>(null);
  const { playing, material, seconds, processed, side, match, a, b, trouble } = useListening();
  const words = trouble ?? wordsFor(side === "b" ? b : a, seconds);
  return (
    <section
      aria-label="Listening"
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes("Files")) event.preventDefault();
      }}
      onDrop={(event) => {
        const [dropped] = event.dataTransfer.files;
        if (!dropped) return;
        event.preventDefault();
        void own(dropped);
      }}
      className="col-span-2 grid grid-cols-[34px_196px_minmax(80px,1fr)_auto_auto_auto_auto] items-center gap-[14px] border-edge border-t bg-card pr-4 pl-[14px]"
    >
      <button
        type="button"
        aria-label={playing ? "Stop" : "Play"}
        aria-pressed={playing}
        onClick={() => void setPlaying(!playing)}
        className="grid size-[34px] place-items-center rounded-full border-[1.5px] border-live text-live hover:bg-live-tint"
      >
        {playing ? (
          <Pause size={16} aria-hidden="true" />
        ) : (
          <Play size={16} aria-hidden="true" className="translate-x-px" />
        )}
      </button>
      <div className="min-w-0">
        <select
          aria-label="Material"
          value={material}
          onChange={(event) => {
            if (event.target.value === CHOOSE) file.current?.click();
            else if (event.target.value === KEPT) openKept();
            else void setMaterial(event.target.value);
          }}
          className="-ml-1 w-full cursor-pointer appearance-none truncate rounded-card bg-card px-1 text-ink hover:bg-sunk"
        >
          {materials.map((m) => (
            <option key={m.id} value={m.id}>
              {m.name}
            </option>
          ))}
          <option value={CHOOSE}>A sound of your own…</option>
          <option value={KEPT}>Your sounds and the room they take…</option>
        </select>
        <input
          ref={file}
          type="file"
          accept="audio/*"
          aria-label="A sound of your own"
          tabIndex={-1}
          className="hidden"
          onChange={(event) => {
            const [chosen] = event.target.files ?? [];
            event.target.value = "";
            if (chosen) void own(chosen);
          }}
        />
        <p
          className={cx("truncate text-small", trouble ? "text-alert" : "text-soft")}
          role={trouble ? "alert" : undefined}
          title={words}
        >
          {words}
        </p>
      </div>
      <LoopPicture />
      <Segments
        label="Dry or processed"
        value={processed ? "processed" : "dry"}
        onChange={(value) => setProcessed(value === "processed")}
        options={[
          { value: "dry", label: "Dry" },
          { value: "processed", label: "Processed" },
        ]}
      />
      <Segments
        label="A or B"
        value={side}
        onChange={setSide}
        options={[
          { value: "a", label: "A", title: a?.name ?? "Nothing yet" },
          { value: "b", label: "B", disabled: b === null, title: b?.name ?? "K keeps what is heard as B" },
        ]}
      />
      <Toggle label="Match loudness" on={match} onChange={setMatch} />
      <MetersButton>
        <Loudness />
      </MetersButton>
    </section>
  );
}

const NONE = "–";

function Loudness() {
  const [now, dry] = useListening(useShallow((s) => [measuredNow(s), s.measured.dry]));
  const level = (value: number | undefined, decimals: number, sign = false) =>
    value === undefined || !Number.isFinite(value)
      ? NONE
      : `${sign && value > 0 ? "+" : ""}${formatNumber(value, decimals)}`;
  const change = now && dry ? now.integratedLufs - dry.integratedLufs : undefined;
  return (
    <span className="grid grid-cols-[auto_auto] gap-x-[10px] text-right">
      <Num small written={{ text: level(now?.integratedLufs, 1), unit: "LUFS" }} />
      <Num
        small
        written={{ text: level(now?.truePeakDb, 1), unit: "dBTP" }}
        className={cx(now && now.truePeakDb > 0 && "text-alert")}
      />
      <Num small written={{ text: level(change, 1, true), unit: "LU" }} />
      <Num small written={{ text: `r ${level(now?.correlation, 2)}`, unit: "" }} />
    </span>
  );
}

const COLUMN = 4;

/** The loop's picture; the part that has been played is drawn live, frame by frame, without React. */
function LoopPicture() {
  const peaks = useListening((s) => s.peaks);
  const played = useRef<SVGRectElement>(null);
  const head = useRef<SVGPathElement>(null);
  const width = Math.max(1, peaks.length * COLUMN);
  useEffect(
    () =>
      onMeters(({ progress }) => {
        played.current?.setAttribute("width", String(progress * width));
        head.current?.setAttribute("transform", `translate(${progress * width} 0)`);
      }),
    [width],
  );
  const path = peaks
    .map((peak, at) => {
      const reach = Math.max(1, peak * 34);
      return `M${at * COLUMN + 1.5} ${20 - reach}V${20 + reach}`;
    })
    .join("");
  return (
    <svg className="h-10 w-full" viewBox={`0 0 ${width} 40`} preserveAspectRatio="none" aria-hidden="true">
      <clipPath id="played">
        <rect ref={played} width={0} height={40} />
      </clipPath>
      <path d={path} stroke="var(--edge)" strokeWidth={2} />
      <path d={path} stroke="var(--live)" strokeWidth={2} clipPath="url(#played)" />
      <path ref={head} d="M0 4V36" stroke="var(--live)" strokeWidth={1.5} vectorEffect="non-scaling-stroke" />
    </svg>
  );
}
