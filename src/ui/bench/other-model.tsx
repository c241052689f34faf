"use client";

import { Menu } from "../kit/menu";
import { Replace } from "lucide-react";
import { useState } from "react";
import { type Processor, processorName } from "@/core/chains/chain";
import { mapProcessor } from "@/core/chains/tree";
import { type Box, lineOf } from "@/core/plots/axes";
import { eqPath } from "@/core/plots/equaliser";
import { type Carrying, carryValues } from "@/core/processors/carry";
import { type Model, heardValues } from "@/core/processors/model";
import { EFFECTS } from "@/core/processors/models";
import * as gestures from "@/core/recall/gestures";
import { formatNumber } from "@/core/units/format";
import { beatsPerMinute } from "@/core/units/quantities";
import { Button } from "../kit/button";
import { Shape } from "../kit/shape";
import { Sheet } from "../kit/sheet";
import { setSide } from "../listening/listening";
import { ResponseGrid } from "./editors/grids";
import type { Bench } from "./use-bench";

interface Props {
  readonly bench: Bench;
  readonly processor: Processor;
  readonly model: Model;
}

interface Offer {
  readonly to: Model;
  readonly carrying: Carrying;
}

/** Another model of the same family, set for the same sound. */
export function OtherModel({ bench, processor, model }: Props) {
  const [offer, setOffer] = useState<Offer | null>(null);
  const others = EFFECTS.filter((m) => m.family === model.family && m.id !== model.id);
  const { tempo, chain } = bench;
  const consider = (to: Model) => {
    const carrying = carryValues(model, processor.values, to, beatsPerMinute(tempo));
    setOffer({ to, carrying });
    // A stays what it is, B is the other: the ear decides.
    const other = mapProcessor(chain, processor.key, (p) => replaced(p, to, carrying));
    bench.hearBeside({ name: `${to.name} in its place`, chain: other });
  };
  const close = () => {
    setSide("a");
    bench.hearBeside(null);
    setOffer(null);
  };
  const take = ({ to, carrying }: Offer) => {
    void bench.gesture(`${to.name} in place of ${processorName(processor)}`, (hand) =>
      gestures.replaceNode(hand, replaced(processor, to, carrying)),
    );
    close();
  };
  if (others.length === 0) return null;
  return (
    <>
      <Menu
        trigger={
          <Button small>
            <Replace size={14} aria-hidden="true" />
            Other model
          </Button>
        }
        items={others.map((other) => ({ id: other.id, label: other.name, onChoose: () => consider(other) }))}
      />
      {offer && (
        <OfferSheet
          offer={offer}
          model={model}
          processor={processor}
          tempo={tempo}
          onTake={() => take(offer)}
          onClose={close}
        />
      )}
    </>
  );
}

/** Its place, its key, its name in the slot and what it came from stay. */
function replaced(processor: Processor, to: Model, { values }: Carrying): Processor {
  return { ...processor, model: to.id, values: { ...values } };
}

const BOX: Box = { width: 640, height: 190 };

const OUTCOMES = { carried: "carried", fitted: "fitted", clamped: "held in range", dropped: "left out" } as const;

interface OfferProps {
  readonly offer: Offer;
  readonly model: Model;
  readonly processor: Processor;
  readonly tempo: number;
  readonly onTake: () => void;
  readonly onClose: () => void;
}

/** What becomes of each value, before anything changes. */
function OfferSheet({ offer: { to, carrying }, model, processor, tempo, onTake, onClose }: OfferProps) {
  const { fit, report } = carrying;
  const bpm = beatsPerMinute(tempo);
  return (
    <Sheet
      open
      onClose={onClose}
      title={`${to.name} in place of ${model.name}`}
      aside={
        fit
          ? `within ${formatNumber(fit.worst, 2)} dB, ${formatNumber(fit.rms, 2)} dB on average`
          : `${report.filter((r) => r.outcome !== "dropped").length} values carried`
      }
      className="w-[720px]"
    >
      {fit && (
        <div className="rounded-card border border-edge bg-card">
          <svg
            className="plot block w-full"
            viewBox={`0 0 ${BOX.width} ${BOX.height}`}
            role="img"
            aria-label={`Response before and after; they differ by ${formatNumber(fit.worst, 2)} dB at the most`}
          >
            <ResponseGrid box={BOX} />
            <path className="axis" d={lineOf([0, BOX.height / 2], [BOX.width, BOX.height / 2])} />
            <path className="live" d={eqPath(to, heardValues(to, carrying.values, bpm), BOX)} />
            <path className="ghost" d={eqPath(model, heardValues(model, processor.values, bpm), BOX)} />
          </svg>
        </div>
      )}
      {!fit && (
        <div className="grid grid-cols-2 gap-3">
          {[processor, replaced(processor, to, carrying)].map((one, at) => (
            <figure key={one.model} className="grid gap-1">
              <Shape processor={one} tempo={tempo} width={331} height={130} />
              <figcaption className="text-small text-soft">
                {at === 0 ? `A: ${model.name}` : `B: ${to.name}`}
              </figcaption>
            </figure>
          ))}
        </div>
      )}
      <div className="max-h-[230px] min-h-0 overflow-auto">
        <table className="w-full text-small">
          <thead>
            <tr className="border-edge border-b text-left text-soft">
              <th className="py-1 font-normal">Value</th>
              <th className="font-normal">{model.name}</th>
              <th className="font-normal">{to.name}</th>
              <th className="font-normal">What became of it</th>
            </tr>
          </thead>
          <tbody>
            {report.map(({ name, outcome, from, to: after }) => (
              <tr key={`${name} ${outcome}`} className="border-rule border-b">
                <td className="py-1">{name}</td>
                <td className="num-small">{from}</td>
                <td className="num-small">{after}</td>
                <td className={outcome === "dropped" || outcome === "clamped" ? "text-edit" : "text-soft"}>
                  {OUTCOMES[outcome]}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {report.length === 0 && <p className="text-soft">Nothing is set: both are as they start.</p>}
      <div className="flex items-center gap-2">
        <p className="text-small text-soft">B plays the other model; X changes over. Undo takes it back.</p>
        <span className="ml-auto flex gap-2">
          <Button onClick={onClose}>Leave it</Button>
          <Button main onClick={onTake}>
            Take {to.name}
          </Button>
        </span>
      </div>
    </Sheet>
  );
}
