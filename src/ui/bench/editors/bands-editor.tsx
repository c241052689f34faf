"use client";

import { Plus, X } from "lucide-react";
import { type KeyboardEvent, useRef, useState } from "react";
import { frequencyX, gainY, xFrequency, yGain } from "@/core/plots/axes";
import { bandPath, eqBands, eqPath, eqRange } from "@/core/plots/equaliser";
import { type ParamId, type Value, clampTo } from "@/core/units/param-spec";
import { getSpec } from "@/core/processors/model";
import { CHANNEL_MODES } from "@/core/processors/equaliser/parametric-eq/model";
import { BAND_TYPES, type BandNumber, bandParam } from "@/core/processors/equaliser/parametric-eq/bands";
import { type Band, bandOf, bandsOf, hasGain } from "@/core/processors/equaliser/parametric-eq/design";
import { formatPlain } from "@/core/units/format";
import { Button } from "../../kit/button";
import { Segments } from "../../kit/segments";
import { Toggle } from "../../kit/toggle";
import { ValueLine, round, stepValue } from "../../kit/value-line";
import { type EditorProps, heardOf, lineOf } from "./editor";
import { Handle } from "./handle";
import { ResponseGrid } from "./grids";
import { SpectrumBehind, SpectrumSwitch } from "./spectrum-behind";
import { type DragPoint, useDrag } from "../../kit/use-drag";

const BOX = { width: 812, height: 262 };
const isCut = (band: Band): boolean => band.type === "low cut" || band.type === "high cut";

type Turned = Readonly<Record<ParamId, Value>>;

/** A new band on its place: a bell, flat until it is pulled. */
const newBand = (band: BandNumber, freq: number, gain: number): Turned => ({
  [bandParam(band, "used")]: 1,
  [bandParam(band, "on")]: 1,
  [bandParam(band, "type")]: BAND_TYPES.indexOf("bell"),
  [bandParam(band, "freq")]: freq,
  [bandParam(band, "gain")]: gain,
  [bandParam(band, "q")]: 1,
});

const inRange = (gain: number): number => round(Math.min(24, Math.max(-24, gain)));

/** The equaliser: the curve is pulled, the bands stand on it as numbered squares. */
export function BandsEditor(props: EditorProps) {
  const { model, processor, saved, tempo, onPreview, onTurn } = props;
  const values = heardOf(model, processor, tempo);
  const bands = bandsOf(values);
  const used = bands.filter((b) => b.used);
  const free = bands.find((b) => !b.used)?.number;
  const [chosen, setChosen] = useState<BandNumber | null>(null);
  const [pulled, setPulled] = useState<{ band: BandNumber; values: Turned } | null>(null);
  const band = used.find((b) => b.number === chosen) ?? used[0] ?? null;
  const drawn = eqBands(model, values).find((b) => b.key === `band${band?.number}`);
  /** While something is pulled the scale only grows, so that what is held does not jump to and fro. */
  const [held, setHeld] = useState(0);
  const range = Math.max(held, eqRange(used.filter(hasGain).map((b) => b.gain)));
  /** The scale on which the curve was taken hold of: the pointer means by it what it showed then. */
  const began = useRef(range);
  const path = eqPath(model, values, BOX, range);

  const preview = (number: BandNumber, next: Turned) => {
    setPulled({ band: number, values: next });
    setHeld(range);
    onPreview(next);
  };
  const end = (moved: boolean) => {
    if (pulled && moved) onTurn(pulled.values);
    else if (pulled) onPreview({});
    setPulled(null);
    setHeld(0);
  };
  /** Pulling the curve where no band stands makes one there. */
  const pull = useDrag({
    onStart: () => {
      began.current = range;
      return true;
    },
    onMove: ({ x, y }) => {
      const number = pulled?.band ?? free;
      if (number === undefined) return;
      setChosen(number);
      const freq = pulled ? Number(pulled.values[bandParam(number, "freq")]) : round(xFrequency(x, BOX));
      preview(number, newBand(number, freq, inRange(yGain(y, began.current, BOX))));
    },
    onEnd: (how) => end(how === "moved"),
  });
  const add = (freq: number, gain = 0) => {
    if (free === undefined) return;
    setChosen(free);
    onTurn(newBand(free, freq, gain));
  };
  return (
    <div className="grid gap-3">
      <div className="relative rounded-card border border-edge bg-card">
        <svg
          className="plot block w-full touch-none"
          viewBox={`0 0 ${BOX.width} ${BOX.height}`}
          role="group"
          aria-label="Response of the equaliser"
          onDoubleClick={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            const x = ((event.clientX - box.left) / box.width) * BOX.width;
            const y = ((event.clientY - box.top) / box.height) * BOX.height;
            add(round(xFrequency(x, BOX)), inRange(yGain(y, range, BOX)));
          }}
          {...pull}
        >
          <SpectrumBehind box={BOX} />
          <ResponseGrid box={BOX} range={range} />
          <path
            className="area"
            d={`${path}L${BOX.width} ${BOX.height / 2}L0 ${BOX.height / 2}Z`}
            style={{ fill: "var(--fill)" }}
          />
          {saved && <path className="ghost" d={eqPath(model, heardOf(model, saved, tempo), BOX, range)} />}
          {drawn && used.length > 1 && <path className="band" d={bandPath(drawn, BOX, range)} />}
          <path className="live" d={path} />
          {used.map((b) => (
            <BandHandle
              key={b.number}
              band={b}
              range={range}
              editor={props}
              selected={b.number === band?.number}
              onSelect={() => setChosen(b.number)}
              onPreview={(next) => preview(b.number, next)}
              onEnd={end}
            />
          ))}
        </svg>
        <SpectrumSwitch />
        {used.length === 0 && (
          <p className="pointer-events-none absolute inset-x-0 top-[34%] text-center text-soft">
            No bands yet. Pull the line where you want it, or add a band.
          </p>
        )}
      </div>
      <div className="grid grid-cols-2 gap-x-5">
        <section aria-label={band ? `Band ${band.number}` : "Bands"}>
          <BandLines band={band} editor={props} />
          <Button
            small
            className="mt-1"
            disabled={free === undefined}
            onClick={() => add(free ? Number(getSpec(model, bandParam(free, "freq")).default) : 1000)}
          >
            <Plus size={14} aria-hidden="true" />
            {free === undefined ? "All six bands are in use" : "Add a band"}
          </Button>
        </section>
        <section aria-label="Whole plugin">
          <h2 className="h2 pb-1">Whole plugin</h2>
          <ValueLine {...lineOf(props, "output")} />
          <ValueLine {...lineOf(props, "mix")} />
          <div className="grid min-h-[30px] grid-cols-[92px_1fr] items-center gap-[10px]">
            <span>Channels</span>
            <Segments
              small
              label="Channels"
              value={String(values.channels)}
              onChange={(mode) => onTurn({ channels: Number(mode) })}
              options={CHANNEL_MODES.map((label, value) => ({ label, value: String(value) }))}
            />
          </div>
        </section>
      </div>
    </div>
  );
}

interface BandHandleProps {
  readonly band: Band;
  /** How far the plot reaches: ± dB. */
  readonly range: number;
  readonly editor: EditorProps;
  readonly selected: boolean;
  readonly onSelect: () => void;
  readonly onPreview: (values: Turned) => void;
  readonly onEnd: (moved: boolean) => void;
}

function BandHandle({ band, range, editor, selected, onSelect, onPreview, onEnd }: BandHandleProps) {
  const { model, onTurn } = editor;
  const { number } = band;
  const ids = { freq: bandParam(number, "freq"), gain: bandParam(number, "gain"), q: bandParam(number, "q") };
  const at = { x: frequencyX(band.freq, BOX), y: hasGain(band) ? gainY(band.gain, range, BOX) : BOX.height / 2 };
  const move = ({ dx, dy }: DragPoint) => {
    const freq = clampTo(getSpec(model, ids.freq), round(xFrequency(at.x + dx, BOX)));
    const gain = inRange(band.gain + yGain(at.y + dy, range, BOX) - yGain(at.y, range, BOX));
    onPreview({ [ids.freq]: freq, ...(hasGain(band) ? { [ids.gain]: gain } : {}) });
  };
  const key = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.altKey || event.metaKey) return;
    const step = (id: ParamId, value: number, direction: 1 | -1) =>
      onTurn({ [id]: stepValue(getSpec(model, id), value, direction, event.shiftKey) });
    const keys: Record<string, () => void> = {
      ArrowRight: () => step(ids.freq, band.freq, 1),
      ArrowLeft: () => step(ids.freq, band.freq, -1),
      ArrowUp: () => (hasGain(band) ? step(ids.gain, band.gain, 1) : undefined),
      ArrowDown: () => (hasGain(band) ? step(ids.gain, band.gain, -1) : undefined),
      "]": () => step(ids.q, band.q, 1),
      "[": () => step(ids.q, band.q, -1),
      Delete: () => onTurn({ [bandParam(number, "used")]: 0 }),
      Backspace: () => onTurn({ [bandParam(number, "used")]: 0 }),
    };
    const run = keys[event.key];
    if (!run) return;
    event.preventDefault();
    run();
  };
  const words = [
    formatPlain(getSpec(model, ids.freq), band.freq),
    ...(hasGain(band) ? [formatPlain(getSpec(model, ids.gain), band.gain)] : []),
  ];
  return (
    <Handle
      width={BOX.width}
      {...at}
      y={Math.min(BOX.height - 10, Math.max(10, at.y))}
      mark={String(number)}
      label={`Band ${number}, ${band.type}`}
      text={`${words.join(", ")}${band.on ? "" : ", off"}`}
      selected={selected}
      dimmed={!band.on}
      onSelect={onSelect}
      onMove={move}
      onEnd={onEnd}
      onKey={key}
      onReset={() => onTurn({ [ids.gain]: 0 })}
      wheel={{
        value: band.q,
        step: (q, direction, fine) => Number(stepValue(getSpec(model, ids.q), q, direction, fine)),
        onChange: (q) => editor.onPreview({ [ids.q]: q }),
        onChangeEnd: (q) => onTurn({ [ids.q]: q }),
      }}
    />
  );
}

function BandLines({ band, editor }: { readonly band: Band | null; readonly editor: EditorProps }) {
  const { onTurn, processor, tempo, model } = editor;
  if (!band) return <h2 className="h2 pb-1">Bands</h2>;
  const { number } = bandOf(heardOf(model, processor, tempo), band.number);
  return (
    <>
      <div className="flex h-6 items-center gap-3">
        <h2 className="h2 whitespace-nowrap">Band {number}</h2>
        <select
          aria-label={`Band ${number} type`}
          value={BAND_TYPES.indexOf(band.type)}
          onChange={(event) => onTurn({ [bandParam(number, "type")]: Number(event.target.value) })}
          className="h-6 rounded-card border border-edge bg-card px-1 text-small"
        >
          {BAND_TYPES.map((type, at) => (
            <option key={type} value={at}>
              {type}
            </option>
          ))}
        </select>
        <span className="text-small">
          <Toggle
            label={band.on ? "On" : "Off"}
            on={band.on}
            onChange={(on) => onTurn({ [bandParam(number, "on")]: on ? 1 : 0 })}
          />
        </span>
        <Button small plain onClick={() => onTurn({ [bandParam(number, "used")]: 0 })}>
          <X size={14} aria-hidden="true" />
          Remove
        </Button>
      </div>
      <ValueLine {...lineOf(editor, bandParam(number, "freq"))} label="Frequency" />
      {hasGain(band) && <ValueLine {...lineOf(editor, bandParam(number, "gain"))} label="Gain" />}
      <ValueLine {...lineOf(editor, bandParam(number, "q"))} label="Q" />
      {isCut(band) && <Slope band={band} onTurn={onTurn} />}
    </>
  );
}

const SLOPES = [6, 12, 18, 24, 36, 48];

function Slope({ band, onTurn }: { readonly band: Band; readonly onTurn: (values: Turned) => void }) {
  return (
    <div className={"grid min-h-[30px] grid-cols-[92px_1fr] items-center gap-[10px]"}>
      <span>
        Slope <span className="unit">dB/oct</span>
      </span>
      <Segments
        tight
        label={`Band ${band.number} slope in dB per octave`}
        value={String(band.slope)}
        onChange={(slope) => onTurn({ [bandParam(band.number, "slope")]: Number(slope) })}
        options={SLOPES.map((slope) => ({ value: String(slope), label: String(slope) }))}
      />
    </div>
  );
}
