"use client";

import { useMemo, useState } from "react";
import { processorName } from "@/core/chains/chain";
import { counted } from "@/core/names/count";
import type { Project } from "@/core/projects/project";
import type { Relief } from "@/core/projects/reliefs";
import { type PluginAt, canRelieve, pluginId, pluginsOn, reliefGroups, relieve } from "@/core/relief/relief";
import { stripName } from "@/core/strips/strip";
import { formatNumber } from "@/core/units/format";
import { Empty } from "../kit/bits";
import { Button } from "../kit/button";
import { StripMark } from "../kit/card-mark";
import { cx } from "../kit/class-names";
import { Field, INPUT } from "../kit/field";
import { mintKey } from "../kit/mint";
import { say } from "../kit/say";
import { Scroll } from "../kit/scroll";
import { Segments } from "../kit/segments";
import { OnStrips, type Where } from "./on-strips";
import { Shape } from "../kit/shape";
import { Sheet } from "../kit/sheet";
import { Tick } from "../kit/tick";
import type { ProjectEditing } from "../projects/editing";
import { type Costs, useCosts } from "./use-costs";

interface Props {
  readonly project: Project;
  readonly editing: ProjectEditing;
  /** The strips that are chosen. */
  readonly chosen: readonly string[];
  readonly onClose: () => void;
}

/** What would be switched off or taken out over many strips, plugin by plugin, before it is; and what each costs. */
export function ReliefSheet({ project, editing, chosen, onClose }: Props) {
  const [where, setWhere] = useState<Where>(chosen.length > 1 ? "chosen" : "all");
  const [how, setHow] = useState<Relief["how"]>("off");
  const [group, setGroup] = useState<string | null>(null);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const all = useMemo(() => {
    const strips = where === "chosen" ? chosen : project.strips.map(({ id }) => id);
    return pluginsOn(project, strips);
  }, [project, where, chosen]);
  const groups = useMemo(() => reliefGroups(all), [all]);
  const costs = useCosts(all, project.tempo);
  const asked = groups.find(({ id }) => id === group) ?? groups[0] ?? null;
  const rows = dearestFirst(asked?.plugins ?? [], costs.of);
  const wanted = rows.filter((plugin) => canRelieve(plugin, how) && !left.has(pluginId(plugin)));
  const turn = (plugin: PluginAt, on: boolean) =>
    setLeft((now) => {
      const next = new Set(now);
      if (on) next.delete(pluginId(plugin));
      else next.add(pluginId(plugin));
      return next;
    });
  const doIt = async () => {
    if (!asked || wanted.length === 0) return;
    const words = `${VERBS[how]} ${counted(wanted.length, "plugin")}: ${asked.title}`;
    const keys = new Set(wanted.map(pluginId));
    const made = await editing.commit(words, (now) => {
      const strips = now.strips.map(({ id }) => id);
      const plugins = pluginsOn(now, strips).filter((plugin) => keys.has(pluginId(plugin)));
      return relieve({ plugins, how, title: asked.title, at: new Date().toISOString() }, mintKey);
    });
    if (made === null) return;
    onClose();
    say(`${DONE[how]}: ${counted(wanted.length, "plugin")}`, {
      action: { label: "Undo", onClick: () => void editing.undo(made) },
    });
  };
  return (
    <Sheet
      open
      onClose={onClose}
      title="Relieve plugins"
      aside="Off, or out, over many strips; put back later in one step"
      className="w-[860px]"
    >
      <form
        className="grid min-h-0 gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void doIt();
        }}
      >
        <div className="grid grid-cols-[64px_1fr_64px_auto] items-center gap-x-3 gap-y-2">
          <Field label="What">
            <select className={INPUT} value={asked?.id ?? ""} onChange={({ target }) => setGroup(target.value)}>
              {groups.map(({ id, title, plugins }) => (
                <option key={id} value={id}>
                  {title} ({plugins.length})
                </option>
              ))}
            </select>
          </Field>
          <span className="text-soft">How</span>
          <Segments
            label="How"
            value={how}
            onChange={setHow}
            options={[
              { value: "off", label: "Switch off" },
              { value: "out", label: "Take out" },
            ]}
          />
          <span className="text-soft">On</span>
          <OnStrips chosen={chosen.length} value={where} onChange={setWhere} />
        </div>
        {rows.length === 0 ? (
          <Empty title="No plugin stands on these strips" className="py-8">
            <p>Choose other strips, or all of them.</p>
          </Empty>
        ) : (
          <Rows {...{ rows, how, left, costs, tempo: project.tempo }} onTurn={turn} />
        )}
        <Foot all={all} wanted={wanted} how={how} costs={costs} onClose={onClose} />
      </form>
    </Sheet>
  );
}

const VERBS = { off: "Switch off", out: "Take out" };
const DONE = { off: "Switched off", out: "Taken out" };

/** Once all are measured the dearest first; until then in the order of the ledger. */
const dearestFirst = (plugins: readonly PluginAt[], of: Costs["of"]): readonly PluginAt[] =>
  plugins.every((plugin) => of.has(pluginId(plugin)))
    ? plugins.toSorted((a, b) => of.get(pluginId(b))! - of.get(pluginId(a))!)
    : plugins;

interface RowsProps {
  readonly rows: readonly PluginAt[];
  readonly how: Relief["how"];
  readonly left: ReadonlySet<string>;
  readonly costs: Costs;
  readonly tempo: number;
  readonly onTurn: (plugin: PluginAt, on: boolean) => void;
}

function Rows({ rows, how, left, costs, tempo, onTurn }: RowsProps) {
  return (
    <Scroll label="What is relieved" className="max-h-[min(380px,44vh)] border-edge border-y">
      <ul>
        {rows.map((plugin) => {
          const { strip, processor } = plugin;
          const id = pluginId(plugin);
          const able = canRelieve(plugin, how);
          const on = able && !left.has(id);
          return (
            <li
              key={id}
              className={cx(
                "grid min-h-[38px] grid-cols-[15px_minmax(120px,1fr)_62px_minmax(120px,1fr)_110px] items-center gap-3 border-rule border-b",
                !on && "text-soft",
              )}
            >
              {able ? (
                <Tick
                  label={`${processorName(processor)} of ${stripName(strip)}`}
                  on={on}
                  onChange={(next) => onTurn(plugin, next)}
                />
              ) : (
                <span />
              )}
              <span className="flex min-w-0 items-center gap-2">
                <StripMark kind={strip.kind} icon={strip.look.icon} colour={strip.look.colour} />
                <span className="name truncate" title={stripName(strip)}>
                  {stripName(strip)}
                </span>
              </span>
              <Shape processor={processor} tempo={tempo} />
              <span className="truncate" title={processorName(processor)}>
                {processorName(processor)}
                {!processor.enabled && <span className="text-soft"> · off already</span>}
              </span>
              <Cost cost={costs.of.get(id)} />
            </li>
          );
        })}
      </ul>
    </Scroll>
  );
}

const Cost = ({ cost }: { readonly cost: number | undefined }) => (
  <span className="num-small text-right">
    {cost !== undefined && (
      <>
        {formatNumber(cost, 1)}
        <span className="unit">ms/s</span>
      </>
    )}
  </span>
);

const sumOf = (plugins: readonly PluginAt[], of: Costs["of"]): number =>
  plugins.reduce((sum, plugin) => sum + (of.get(pluginId(plugin)) ?? 0), 0);

/** Strips by what all on them costs, the dearest first. */
function dearestStrips(plugins: readonly PluginAt[], of: Costs["of"]): string {
  const strips = new Map<string, { name: string; cost: number }>();
  for (const plugin of plugins) {
    const before = strips.get(plugin.strip.id) ?? { name: stripName(plugin.strip), cost: 0 };
    strips.set(plugin.strip.id, { ...before, cost: before.cost + (of.get(pluginId(plugin)) ?? 0) });
  }
  return [...strips.values()]
    .toSorted((a, b) => b.cost - a.cost)
    .map(({ name, cost }) => `${name} ${formatNumber(cost, 1)}`)
    .join(", ");
}

interface FootProps {
  readonly all: readonly PluginAt[];
  readonly wanted: readonly PluginAt[];
  readonly how: Relief["how"];
  readonly costs: Costs;
  readonly onClose: () => void;
}

function Foot({ all, wanted, how, costs, onClose }: FootProps) {
  const strips = new Set(wanted.map(({ strip }) => strip.id)).size;
  const isMeasured = all.length > 0 && all.every((plugin) => costs.of.has(pluginId(plugin)));
  return (
    <>
      {costs.failed && <p role="alert">It could not be measured; choose another material and try again.</p>}
      {isMeasured && (
        <p className="line-clamp-2 text-small text-soft" title={dearestStrips(all, costs.of)}>
          These cost {formatNumber(sumOf(wanted, costs.of), 1)} of {formatNumber(sumOf(all, costs.of), 1)} ms for each
          second of sound. By strip, the dearest first: {dearestStrips(all, costs.of)}.
        </p>
      )}
      <div className="flex items-center gap-2">
        <Button disabled={all.length === 0} onClick={costs.going ? costs.stop : costs.measure}>
          {costs.going ? `Stop measuring (${costs.going.done} of ${costs.going.all})` : "Measure what they cost"}
        </Button>
        <span className="mr-auto text-soft">
          {counted(wanted.length, "plugin")} on {counted(strips, "strip")}
        </span>
        <Button onClick={onClose}>Cancel</Button>
        <Button main type="submit" disabled={wanted.length === 0}>
          {VERBS[how]} {counted(wanted.length, "plugin")}
        </Button>
      </div>
    </>
  );
}
