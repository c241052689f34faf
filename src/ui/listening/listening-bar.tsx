"use client";

import { Pause, Play, X } from "lucide-react";
import { type KeyboardEvent, useRef } from "react";
import { useShallow } from "zustand/react/shallow";
import { processorsOf } from "@/core/chains/tree";
import { counted } from "@/core/names/count";
import { formatNumber } from "@/core/units/format";
import { useActions } from "../actions/actions";
import { cx } from "../kit/class-names";
import { Num } from "../kit/number";
import { Toggle } from "../kit/toggle";
import { type MaterialName, useMaterials, useMediaSheet, useOwnMaterial } from "./materials";
import { LoopPicture } from "./loop-picture";
import { MetersButton } from "./meters-button";
import { hearAll, keepAsB, letGoOfB, setMaterial, setPlaying, setProcessed, setSide, setStretch } from "./listening";
import { setMatch } from "./measuring";
import { type Sound, heardPart, measuredNow, phraseOf, useListening } from "./state";

/** Stands in the list of materials for choosing a file. */
const CHOOSE = "choose";
/** Stands there for what is done with the sounds of one's own. */
const KEPT = "kept";

const openKept = () => useMediaSheet.setState({ open: true });

const nextMaterial = (materials: readonly MaterialName[], current: string): string => {
  const at = materials.findIndex((m) => m.id === current);
  return materials[(at + 1) % materials.length]?.id ?? current;
};

function useListeningActions(materials: readonly MaterialName[]): void {
  const { playing, processed, side, match, material, a, b, kept, solo, difference, stretch } = useListening();
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
      { id: "keep-b", title: "Keep A as B", group, keys: ["K"], enabled: a !== null, run: keepAsB },
      { id: "let-go-b", title: "Let go of what was kept as B", group, enabled: kept !== null, run: letGoOfB },
      {
        id: "hear-all",
        title: "Hear all of A again",
        group,
        enabled: solo !== null || difference !== null,
        run: hearAll,
      },
      {
        id: "whole-loop",
        title: "Let all of the material go round",
        group,
        enabled: stretch !== null,
        run: () => setStretch(null),
      },
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

/** How long what goes round is, and that it goes through plugins where it does. */
function wordsFor(sound: Sound | null, seconds: number): string {
  const plugins = sound ? processorsOf(sound.chain).length : 0;
  const through = plugins > 0 ? `through ${counted(plugins, "plugin")}` : null;
  const loops = seconds > 0 ? `loops ${formatNumber(seconds, 1)} s` : null;
  return [loops, through].filter((words) => words !== null).join(", ") || "Material";
}

/** Always there: what is played, where it is, what is heard of it, how loud. */
export function ListeningBar() {
  const materials = useMaterials();
  useListeningActions(materials);
  const own = useOwnMaterial();
  const { playing, seconds, side, stretch, match, a, b, trouble } = useListening();
  const phrase = useListening(phraseOf);
  const part = useListening(heardPart);
  const words = trouble ?? wordsFor(side === "b" ? b : a, stretch ? seconds * (stretch.to - stretch.from) : seconds);
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
        {phrase ? (
          <p className="truncate px-px" title={`The phrase of ${phrase.name}`}>
            The phrase of <span className="name">{phrase.name}</span>
          </p>
        ) : (
          <MaterialChoice materials={materials} own={own} />
        )}
        {part ? (
          <button
            type="button"
            title={`${part}. Press to hear all of it.`}
            onClick={hearAll}
            className="flex max-w-full gap-[6px] rounded-card text-edit text-small hover:bg-sunk"
          >
            <span className="truncate">{part}</span>
            <span className="flex-none underline">Hear all</span>
          </button>
        ) : (
          <p
            className={cx("text-small", trouble ? "line-clamp-2 leading-4 text-alert" : "truncate text-soft")}
            role={trouble ? "alert" : undefined}
            title={words}
          >
            {words}
          </p>
        )}
      </div>
      <LoopPicture />
      <DryOrProcessed />
      <Sides />
      <Toggle label="Match loudness" on={match} onChange={setMatch} />
      <MetersButton>
        <Loudness />
      </MetersButton>
    </section>
  );
}

interface MaterialProps {
  readonly materials: readonly MaterialName[];
  readonly own: (file: File) => Promise<void>;
}

/** The generated pieces, the person's own, and the way to another. */
function MaterialChoice({ materials, own }: MaterialProps) {
  const file = useRef<HTMLInputElement>(null);
  const material = useListening((l) => l.material);
  return (
    <>
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
    </>
  );
}

/** One of two, of which one is on; the arrows go to the other. A group of more, as in sheets, would come with every first page. */
const oneOfTwo = (isOn: boolean, choose: () => void, chooseOther: () => void) => ({
  type: "button" as const,
  role: "radio",
  "aria-checked": isOn,
  onClick: choose,
  onKeyDown: (event: KeyboardEvent<HTMLElement>) => {
    if (!/^Arrow(Up|Down|Left|Right)$/.test(event.key)) return;
    event.preventDefault();
    const both = event.currentTarget.closest("[role=radiogroup]")?.querySelectorAll<HTMLButtonElement>("[role=radio]");
    const other = [...(both ?? [])].find((one) => one !== event.currentTarget);
    if (other?.disabled !== false) return;
    chooseOther();
    other.focus();
  },
});

function DryOrProcessed() {
  const processed = useListening((s) => s.processed);
  return (
    <div role="radiogroup" aria-label="Dry or processed" className="flex w-fit rounded-card border border-edge bg-card">
      {[false, true].map((on) => (
        <button
          key={String(on)}
          {...oneOfTwo(
            processed === on,
            () => setProcessed(on),
            () => setProcessed(!on),
          )}
          className="relative border-edge px-[11px] py-[3px] text-soft not-first:border-l hover:text-ink focus-visible:z-10 aria-checked:bg-live-tint aria-checked:text-live"
        >
          {on ? "Processed" : "Dry"}
        </button>
      ))}
    </div>
  );
}

/** What A and B are; which of them is heard; and the way to let go of what was kept as B. */
function Sides() {
  const { a, b, kept, beside, side } = useListening();
  const isKept = b !== null && b === kept && beside === null;
  const rows = [
    { id: "a", sound: a, none: "nothing yet" },
    { id: "b", sound: b, none: "K keeps A here" },
  ] as const;
  return (
    <div role="radiogroup" aria-label="A or B" className="grid w-[168px] rounded-card border border-edge text-small">
      {rows.map(({ id, sound, none }) => (
        <div key={id} className="flex min-w-0 items-center not-first:border-edge not-first:border-t">
          <button
            {...oneOfTwo(
              side === id,
              () => setSide(id),
              () => setSide(id === "a" ? "b" : "a"),
            )}
            disabled={id === "b" && sound === null}
            title={`${id.toUpperCase()}: ${sound?.name ?? none}${id === "b" && isKept ? ", kept" : ""}`}
            className="flex h-[21px] min-w-0 flex-1 items-center gap-[7px] px-[7px] text-left text-soft hover:not-disabled:text-ink aria-checked:bg-live-tint aria-checked:text-live"
          >
            <b className="font-[550]">{id.toUpperCase()}</b>
            <span className="truncate">{sound?.name ?? none}</span>
          </button>
          {id === "b" && isKept && (
            <button
              type="button"
              aria-label="Let go of B"
              title="Kept as B. Press to let it go."
              onClick={letGoOfB}
              className="grid h-[21px] w-5 flex-none place-items-center text-edit hover:text-ink"
            >
              <X size={12} aria-hidden="true" />
            </button>
          )}
        </div>
      ))}
    </div>
  );
}

const NONE = "–";

/** Of what is heard now; underlined with dots while a sound that has changed is being measured. */
function Loudness() {
  const [now, dry, stale] = useListening(useShallow((s) => [measuredNow(s), s.measured.dry, s.stale]));
  const level = (value: number | undefined, decimals: number, sign = false) =>
    value === undefined || !Number.isFinite(value)
      ? NONE
      : `${sign && value > 0 ? "+" : ""}${formatNumber(value, decimals)}`;
  const change = now && dry ? now.integratedLufs - dry.integratedLufs : undefined;
  const isOver = Boolean(now && now.truePeakDb > 0);
  return (
    <span
      className={cx(
        "grid grid-cols-[auto_auto] gap-x-[10px] text-right",
        stale && "text-soft underline decoration-dotted",
      )}
      title={stale ? "Being measured" : isOver ? "Over full scale: it clips where it leaves" : undefined}
    >
      <Num small written={{ text: level(now?.integratedLufs, 1), unit: "LUFS" }} />
      <Num
        small
        written={{ text: level(now?.truePeakDb, 1), unit: "dBTP" }}
        className={cx(isOver && !stale && "text-alert")}
      />
      <Num small written={{ text: level(change, 1, true), unit: "LU" }} />
      <Num small written={{ text: `r ${level(now?.correlation, 2)}`, unit: "" }} />
    </span>
  );
}
