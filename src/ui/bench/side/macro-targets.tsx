"use client";

import { inPlaceKeys } from "../../kit/in-place";
import { Menu } from "../../kit/menu";
import { X } from "lucide-react";
import { useState } from "react";
import type { Chain, Macro, MacroTarget } from "@/core/chains/chain";
import { findTargetSpec, switchForAll, targetValue } from "@/core/chains/macros";
import { nameApart } from "@/core/chains/tree";
import type { ParamSpec } from "@/core/units/param-spec";
import { percentSpec } from "@/core/processors/specs";
import { formatPlain, parseValue } from "@/core/units/format";
import { isNoteLength } from "@/core/units/note-length";
import { Button } from "../../kit/button";
import { sayError } from "../../kit/say";
import { ValueLine } from "../../kit/value-line";
import type { Bench } from "../use-bench";
import { useLearn } from "./use-learn";

const BEND = percentSpec("bend", "Bend", [-100, 100, 0]);

interface AxisProps {
  readonly bench: Bench;
  readonly name: string | null;
  readonly macro: Macro;
  readonly axis: number;
  readonly targets: readonly MacroTarget[];
  readonly onTargets: (targets: readonly MacroTarget[]) => void;
}

/** What an axis moves, value by value, and how more is added to it. */
export function AxisTargets({ name, macro, axis, targets, bench, onTargets }: AxisProps) {
  const learn = useLearn(bench);
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
        <AddTarget chain={bench.chain} onAdd={(target) => learn({ macro: macro.key, axis }, target)} />
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
  const all = switchForAll(chain, "", "").axes[0] ?? [];
  return (
    <Menu
      trigger={<Button small>On and off…</Button>}
      items={all.map(({ node }) => ({
        id: node,
        label: nameApart(chain, node),
        onChoose: () => onAdd({ node, param: "enabled" }),
      }))}
    />
  );
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
  /** While its ruler is dragged. */
  const [bend, setBend] = useState<number | null>(null);
  if (!spec) return null;
  const now = targetValue(chain, target);
  return (
    <div className="grid gap-1 border-edge border-l-2 pl-2">
      <p className="flex items-baseline gap-1 text-small">
        <span className="min-w-0 flex-1 truncate">
          {nameApart(chain, target.node)}: {spec.name}
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
          value={bend ?? Math.round(target.bend * 100)}
          tempo={tempo}
          onChange={(pulled) => setBend(Number(pulled))}
          onChangeEnd={(pulled) => {
            setBend(null);
            onTarget({ ...target, bend: Number(pulled) / 100 });
          }}
        />
      )}
      {now !== null && isNoteLength(now) && (
        <p className="text-small text-soft">It follows the tempo now; moving the macro gives it a number.</p>
      )}
    </div>
  );
}

/** An end is a number: a note length is not read there. */
function withoutTempo({ mayFollowTempo: _, ...spec }: ParamSpec): ParamSpec {
  return spec;
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
      onKeyDown={inPlaceKeys(shown)}
      onBlur={(event) => {
        if (event.target.value === shown) return;
        const parsed = parseValue(withoutTempo(spec), event.target.value);
        if (parsed.ok && typeof parsed.value === "number") return onValue(parsed.value);
        sayError(parsed.ok ? "A macro moves between numbers." : parsed.error);
        event.target.value = shown;
      }}
    />
  );
}
