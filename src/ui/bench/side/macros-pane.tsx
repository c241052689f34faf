"use client";

import { counted } from "@/core/names/count";
import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import type { Chain, Macro } from "@/core/chains/chain";
import { movesTo, placeOfAxis, switchForAll } from "@/core/chains/macros";
import { findLane, mapLane, mapNode } from "@/core/chains/tree";
import { percentSpec } from "@/core/processors/specs";
import * as gestures from "@/core/recall/gestures";
import { Button } from "../../kit/button";
import { NameField } from "../../kit/name-field";
import { sayError } from "../../kit/say";
import { Toggle } from "../../kit/toggle";
import { ValueLine } from "../../kit/value-line";
import { mintKey } from "../../kit/mint";
import { useActions } from "../../actions/actions";
import { startLearning, stopLearning, useLearner, useLearning } from "../learning";
import type { Bench } from "../use-bench";
import { useLearn } from "./use-learn";
import { Pad } from "./macro-pad";
import { AxisTargets } from "./macro-targets";

interface Props {
  readonly bench: Bench;
}

const PLACE = percentSpec("place", "Place", [0, 100, 0]);

const STYLES: readonly { readonly style: Macro["style"]; readonly name: string; readonly axes: 1 | 2 }[] = [
  { style: "line", name: "Line", axes: 1 },
  { style: "switch", name: "Switch", axes: 1 },
  { style: "pad", name: "Pad", axes: 2 },
];

/** Controls that move several values at once. */
export function MacrosPane({ bench }: Props) {
  const { chain } = bench;
  useLearner(useLearn(bench));
  const isLearning = useLearning((l) => l.learner !== null);
  useActions([
    {
      id: "stop-learning",
      title: "Learn no more",
      group: "Bench",
      keys: ["Escape"],
      enabled: isLearning,
      run: stopLearning,
    },
  ]);
  const put = (label: string, macros: readonly Macro[]) =>
    void bench.gesture(label, (hand) => gestures.setMacros(hand, macros));
  const add = (style: Macro["style"], axes: number) => {
    const names = new Set(chain.macros.map((m) => m.name));
    const number = Array.from({ length: 65 }, (_, n) => n + 1).find((n) => !names.has(`Macro ${n}`)) ?? 1;
    const macro: Macro = {
      key: mintKey(),
      name: `Macro ${number}`,
      style,
      axes: Array.from({ length: axes }, () => []),
    };
    put(`Add macro ${number}`, [...chain.macros, macro]);
  };
  return (
    <>
      {chain.macros.length === 0 && (
        <p className="text-small text-soft">
          A macro moves several values at once. Add one, press Learn, and touch each value that it is to move.
        </p>
      )}
      <ul className="grid gap-4">
        {chain.macros.map((macro) => (
          <MacroView
            key={macro.key}
            macro={macro}
            bench={bench}
            onChange={(next) =>
              put(
                `Change macro ${macro.name}`,
                chain.macros.map((m) => (m.key === macro.key ? next : m)),
              )
            }
            onRemove={() =>
              put(
                `Take out macro ${macro.name}`,
                chain.macros.filter((m) => m.key !== macro.key),
              )
            }
          />
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        {STYLES.map(({ style, name, axes }) => (
          <Button key={style} small disabled={chain.macros.length >= 64} onClick={() => add(style, axes)}>
            <Plus size={13} aria-hidden="true" />
            {name}
          </Button>
        ))}
        <Button
          small
          disabled={chain.nodes.length === 0}
          onClick={() => put("One switch for all", [...chain.macros, switchForAll(chain, mintKey(), "All plugins")])}
        >
          One switch for all
        </Button>
      </div>
    </>
  );
}

interface MacroProps extends Props {
  readonly macro: Macro;
  readonly onChange: (macro: Macro) => void;
  readonly onRemove: () => void;
}

function MacroView({ macro, bench, onChange, onRemove }: MacroProps) {
  const [open, setOpen] = useState(false);
  const places = macro.axes.map((targets) => placeOfAxis(bench.chain, targets));
  const count = macro.axes.reduce((sum, targets) => sum + targets.length, 0);
  return (
    <li aria-label={`Macro ${macro.name}`} className="grid gap-1 border-rule border-t pt-2">
      <div className="flex items-center gap-2">
        <NameField
          of={macro.key}
          label="Name of the macro"
          name={macro.name}
          onName={(name) => (name === "" ? sayError("A macro has a name.") : onChange({ ...macro, name }))}
        />
        <Button small plain className="ml-auto" aria-expanded={open} onClick={() => setOpen(!open)}>
          {counted(count, "value")}
        </Button>
        <Button small plain aria-label={`Take out macro ${macro.name}`} title="Take out" onClick={onRemove}>
          <Trash2 size={13} aria-hidden="true" />
        </Button>
      </div>
      <MacroControl macro={macro} places={places} bench={bench} />
      <div className="flex flex-wrap gap-2">
        {macro.axes.map((_, axis) => (
          // The axes of a pad have no names: the place is the identity.
          <LearnButton key={axis} macro={macro} axis={axis} />
        ))}
      </div>
      {open &&
        macro.axes.map((targets, axis) => (
          <AxisTargets
            // The axes of a pad have no names: the place is the identity.
            key={axis}
            name={macro.style === "pad" ? (axis === 0 ? "Across" : "Up") : null}
            macro={macro}
            axis={axis}
            targets={targets}
            bench={bench}
            onTargets={(next) => onChange({ ...macro, axes: macro.axes.map((a, n) => (n === axis ? [...next] : a)) })}
          />
        ))}
    </li>
  );
}

const AXES = [" across", " up"];

/** Takes values that are touched until it is pressed again. */
function LearnButton({ macro, axis }: { readonly macro: Macro; readonly axis: number }) {
  const learning = useLearning(({ learner }) => learner?.macro === macro.key && learner.axis === axis);
  const way = macro.style === "pad" ? (AXES[axis] ?? "") : "";
  return (
    <>
      <Button
        small
        aria-pressed={learning}
        aria-label={`${macro.name}: learn${way}`}
        onClick={() => (learning ? stopLearning() : startLearning({ macro: macro.key, axis }))}
      >
        {learning ? "Learning" : "Learn"}
        {way}
      </Button>
      {learning && (
        <p role="status" className="w-full text-small text-soft">
          Touch each value that it is to move, also on other plugins. Escape, or the button, ends it.
        </p>
      )}
    </>
  );
}

/** The chain as it would be with an axis at a place: for hearing while it is dragged. */
function movedChain(chain: Chain, macro: Macro, places: readonly (number | null)[]): Chain {
  return macro.axes.reduce((now, targets, axis) => {
    const place = places[axis];
    if (place === null || place === undefined) return now;
    return movesTo(now, targets, place).reduce((c, { target, to }) => {
      const { node, param } = target;
      if (findLane(c, node))
        return mapLane(c, node, (lane) => ({ ...lane, [param]: param === "enabled" ? to === 1 : to }));
      return mapNode(c, node, (n) => {
        if (param === "enabled") return "enabled" in n ? { ...n, enabled: to === 1 } : n;
        return n.type === "processor" ? { ...n, values: { ...n.values, [param]: to } } : n;
      });
    }, now);
  }, chain);
}

interface ControlProps extends Props {
  readonly macro: Macro;
  readonly places: readonly (number | null)[];
}

function MacroControl({ macro, places, bench }: ControlProps) {
  const move = (next: readonly (number | null)[]) =>
    void bench.gesture(`Move ${macro.name}`, (hand) => gestures.moveMacro(hand, macro.key, next));
  const preview = (next: readonly (number | null)[]) => bench.previewChain((chain) => movedChain(chain, macro, next));
  if (macro.style === "switch")
    return (
      <span className="text-small">
        <Toggle
          label={places[0] === 1 ? "On" : "Off"}
          name={macro.name}
          on={places[0] === 1}
          onChange={(on) => move([on ? 1 : 0])}
        />
      </span>
    );
  if (macro.style === "pad") return <Pad macro={macro} places={places} onMove={move} onPreview={preview} />;
  return (
    <ValueLine
      spec={{ ...PLACE, name: macro.name }}
      label=""
      value={100 * (places[0] ?? 0)}
      tempo={bench.tempo}
      onChange={(value) => preview([Number(value) / 100])}
      onChangeEnd={(value) => move([Number(value) / 100])}
    />
  );
}
