"use client";

import { Plus, Trash2, X } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { type PointerEvent, useRef, useState } from "react";
import { type Chain, type Macro, type MacroTarget, nodeName } from "@/core/chains/chain";
import { findTargetSpec, movesTo, placeOfAxis, switchForAll, targetValue } from "@/core/chains/macros";
import { findLane, findNode, mapLane, mapNode } from "@/core/chains/tree";
import type { ParamSpec } from "@/core/processors/param-spec";
import { percentSpec } from "@/core/processors/specs";
import * as gestures from "@/core/recall/gestures";
import { formatPlain, parseValue } from "@/core/units/format";
import { isNoteLength } from "@/core/units/note-length";
import { Button } from "../../kit/button";
import { NameField } from "../../kit/name-field";
import { sayError } from "../../kit/say";
import { Toggle } from "../../kit/toggle";
import { ValueLine } from "../../kit/value-line";
import { mintKey } from "../../projects/mint";
import { stopLearning, useLearning, startLearning } from "../learning";
import type { Bench } from "../use-bench";

interface Props {
  readonly bench: Bench;
}

const PLACE = percentSpec("place", "Place", [0, 100, 0]);
const BEND = percentSpec("bend", "Bend", [-100, 100, 0]);

const STYLES: readonly { readonly style: Macro["style"]; readonly name: string; readonly axes: 1 | 2 }[] = [
  { style: "line", name: "Line", axes: 1 },
  { style: "switch", name: "Switch", axes: 1 },
  { style: "pad", name: "Pad", axes: 2 },
];

/** Controls that move several values at once. */
export function MacrosPane({ bench }: Props) {
  const { chain } = bench;
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
          A macro moves several values at once. Add one, press Learn, and touch the values that it is to move.
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
          label="Name of the macro"
          name={macro.name}
          onName={(name) => (name === "" ? sayError("A macro has a name.") : onChange({ ...macro, name }))}
        />
        <Button small plain className="ml-auto" aria-expanded={open} onClick={() => setOpen(!open)}>
          {count} value{count === 1 ? "" : "s"}
        </Button>
        <Button small plain aria-label={`Take out macro ${macro.name}`} title="Take out" onClick={onRemove}>
          <Trash2 size={13} aria-hidden="true" />
        </Button>
      </div>
      <MacroControl macro={macro} places={places} bench={bench} />
      {count === 0 && !open && <p className="text-small text-soft">It moves nothing yet.</p>}
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

interface PadProps {
  readonly macro: Macro;
  readonly places: readonly (number | null)[];
  readonly onMove: (places: readonly number[]) => void;
  readonly onPreview: (places: readonly number[]) => void;
}

const PAD = { width: 232, height: 96 };
const PAD_STEP = 0.05;

/** Two axes on one field. */
function Pad({ macro, places, onMove, onPreview }: PadProps) {
  const dragged = useRef<readonly number[] | null>(null);
  const [x, y] = [places[0] ?? 0, places[1] ?? 0];
  const held = (place: number) => Math.min(1, Math.max(0, place));
  const at = (event: PointerEvent<SVGSVGElement>): readonly number[] => {
    const box = event.currentTarget.getBoundingClientRect();
    return [held((event.clientX - box.left) / box.width), held(1 - (event.clientY - box.top) / box.height)];
  };
  const percent = (place: number | null | undefined) =>
    place === null || place === undefined ? "–" : `${Math.round(100 * place)} %`;
  return (
    <svg
      role="slider"
      tabIndex={0}
      aria-label={macro.name}
      aria-valuenow={Math.round(100 * x)}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuetext={`across ${percent(places[0])}, up ${percent(places[1])}`}
      viewBox={`0 0 ${PAD.width} ${PAD.height}`}
      className="plot block w-full cursor-crosshair touch-none rounded-card border border-edge bg-ground"
      onKeyDown={(event) => {
        const step = event.shiftKey ? PAD_STEP / 5 : PAD_STEP;
        const ways: Record<string, readonly [number, number]> = {
          ArrowRight: [step, 0],
          ArrowLeft: [-step, 0],
          ArrowUp: [0, step],
          ArrowDown: [0, -step],
        };
        const way = ways[event.key];
        if (!way || event.altKey || event.ctrlKey || event.metaKey) return;
        event.preventDefault();
        onMove([held(x + way[0]), held(y + way[1])]);
      }}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        dragged.current = at(event);
        onPreview(dragged.current);
      }}
      onPointerMove={(event) => {
        if (!dragged.current) return;
        dragged.current = at(event);
        onPreview(dragged.current);
      }}
      onPointerUp={() => {
        const end = dragged.current;
        dragged.current = null;
        if (end) onMove(end);
      }}
    >
      <path className="axis" d={`M${PAD.width / 2} 0V${PAD.height}M0 ${PAD.height / 2}H${PAD.width}`} />
      <path
        d={`M${x * PAD.width} 0V${PAD.height}M0 ${(1 - y) * PAD.height}H${PAD.width}`}
        style={{ stroke: "var(--live)", strokeWidth: 1, opacity: 0.5 }}
      />
      <rect
        x={Math.min(PAD.width - 10, Math.max(0, x * PAD.width - 5))}
        y={Math.min(PAD.height - 10, Math.max(0, (1 - y) * PAD.height - 5))}
        width={10}
        height={10}
        rx={2}
        fill="var(--card)"
        stroke="var(--live)"
        strokeWidth={1.5}
      />
    </svg>
  );
}

interface AxisProps extends Props {
  readonly name: string | null;
  readonly macro: Macro;
  readonly axis: number;
  readonly targets: readonly MacroTarget[];
  readonly onTargets: (targets: readonly MacroTarget[]) => void;
}

function AxisTargets({ name, macro, axis, targets, bench, onTargets }: AxisProps) {
  const learning = useLearning((l) => l.macro === macro.key && l.axis === axis);
  const learned = (target: Pick<MacroTarget, "node" | "param">) => {
    const spec = findTargetSpec(bench.chain, target);
    if (!spec || targets.some((t) => t.node === target.node && t.param === target.param)) return;
    onTargets([...targets, { ...target, from: spec.min, to: spec.max, bend: 0 }]);
  };
  return (
    <div className="grid gap-2 pt-1">
      {name && <h3 className="h2">{name}</h3>}
      {targets.map((target, at) => (
        <TargetView
          key={`${target.node} ${target.param}`}
          target={target}
          chain={bench.chain}
          tempo={bench.tempo}
          onTarget={(next) =>
            onTargets(next ? targets.map((t, n) => (n === at ? next : t)) : targets.filter((_, n) => n !== at))
          }
        />
      ))}
      <span className="flex gap-2">
        <Button
          small
          aria-pressed={learning}
          onClick={() => (learning ? stopLearning() : startLearning({ macro: macro.key, axis, onTouch: learned }))}
        >
          {learning ? "Touch a value… (Esc ends)" : "Learn"}
        </Button>
        <AddTarget chain={bench.chain} onAdd={learned} />
      </span>
    </div>
  );
}

/** On and off of a plugin, and blends of lanes, which no editor shows as a value to touch. */
function AddTarget({
  chain,
  onAdd,
}: {
  readonly chain: Chain;
  readonly onAdd: (target: Pick<MacroTarget, "node" | "param">) => void;
}) {
  const things = switchForAll(chain, "", "").axes[0] ?? [];
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button small>On and off…</Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="z-40 max-h-[320px] w-[220px] overflow-auto rounded-card border border-edge bg-card py-1"
        >
          {things.map(({ node }) => (
            <DropdownMenu.Item
              key={node}
              onSelect={() => onAdd({ node, param: "enabled" })}
              className="flex h-[30px] cursor-pointer items-center px-3 outline-none data-[highlighted]:bg-live-tint data-[highlighted]:text-live"
            >
              {nameOf(chain, node)}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function nameOf(chain: Chain, key: string): string {
  const node = findNode(chain, key)?.node;
  return node ? nodeName(node) : (findLane(chain, key)?.name ?? "");
}

interface TargetProps {
  readonly target: MacroTarget;
  readonly chain: Chain;
  readonly tempo: number;
  readonly onTarget: (target: MacroTarget | null) => void;
}

/** What one target moves, from where to where, and how bent. */
function TargetView({ target, chain, tempo, onTarget }: TargetProps) {
  const spec = findTargetSpec(chain, target);
  if (!spec) return null;
  const now = targetValue(chain, target);
  return (
    <div className="grid gap-1 border-edge border-l-2 pl-2">
      <p className="flex items-baseline gap-1 text-small">
        <span className="min-w-0 flex-1 truncate">
          {nameOf(chain, target.node)}: {spec.name}
        </span>
        <Button
          small
          plain
          aria-label={`Move ${spec.name} no more`}
          title="Move it no more"
          onClick={() => onTarget(null)}
        >
          <X size={13} aria-hidden="true" />
        </Button>
      </p>
      <p className="flex items-center gap-1 text-small">
        <EndField
          label={`${spec.name} from`}
          spec={spec}
          value={target.from}
          onValue={(from) => onTarget({ ...target, from })}
        />
        →
        <EndField
          label={`${spec.name} to`}
          spec={spec}
          value={target.to}
          onValue={(to) => onTarget({ ...target, to })}
        />
        <Button
          small
          plain
          title="Turn it round"
          onClick={() => onTarget({ ...target, from: target.to, to: target.from })}
        >
          turn round
        </Button>
      </p>
      {!spec.choices && (
        <ValueLine
          spec={BEND}
          label="Bend"
          value={Math.round(target.bend * 100)}
          tempo={tempo}
          onChange={() => undefined}
          onChangeEnd={(bend) => onTarget({ ...target, bend: Number(bend) / 100 })}
        />
      )}
      {now !== null && isNoteLength(now) && (
        <p className="text-small text-soft">It follows the tempo now; moving the macro gives it a number.</p>
      )}
    </div>
  );
}

interface EndProps {
  readonly label: string;
  readonly spec: ParamSpec;
  readonly value: number;
  readonly onValue: (value: number) => void;
}

function EndField({ label, spec, value, onValue }: EndProps) {
  const shown = formatPlain(spec, value);
  return (
    <input
      key={shown}
      aria-label={label}
      defaultValue={shown}
      className="num h-6 w-[76px] rounded-card border border-edge bg-ground px-1 text-right"
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape") {
          event.currentTarget.value = shown;
          event.currentTarget.blur();
        }
      }}
      onBlur={(event) => {
        if (event.target.value === shown) return;
        const parsed = parseValue({ ...spec, mayFollowTempo: undefined } as unknown as ParamSpec, event.target.value);
        if (parsed.ok && typeof parsed.value === "number") return onValue(parsed.value);
        sayError(parsed.ok ? "A macro moves between numbers." : parsed.error);
        event.target.value = shown;
      }}
    />
  );
}
