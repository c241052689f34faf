"use client";

import { counted } from "@/core/names/count";
import { useQuery } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { type RefObject, useEffect, useRef, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { FAMILIES, FAMILY_NAMES, type Model } from "@/core/processors/model";
import { MODELS } from "@/core/processors/models";
import { quoteValue } from "@/core/search/written";
import { areBegun, wordsOf } from "@/core/names/words";
import { useActions } from "../actions/actions";
import { useFinder } from "../actions/finder";
import { cx } from "../kit/class-names";
import { Panels } from "../kit/panels";
import { Shape } from "../kit/shape";
import type { Start } from "@/core/settings/settings";
import { STRIP_WORDS } from "../kit/strip-words";
import { useSettings } from "../settings/settings";
import { makersStart } from "../settings/starts";
import { useTempo } from "../library/use-tempo";
import { PluginPane } from "./plugin-pane";
import { usePresetNames } from "./preset-names";

const COLUMNS =
  "grid grid-cols-[56px_minmax(0,1.2fr)_88px_76px_minmax(0,1fr)_50px_46px_40px] items-center gap-[10px] px-[14px]";

const begins = (model: Model, words: string): boolean =>
  areBegun(wordsOf(words), wordsOf(`${model.name} ${model.maker} ${FAMILY_NAMES[model.family]}`));

const sample = new Map(MODELS.map((model) => [model.id, makersStart(model.id)]));

/** Every model that is known, with what the library and the projects have of it. */
export function Plugins() {
  const router = useRouter();
  const tempo = useTempo();
  const [words, setWords] = useState("");
  const [id, setId] = useState<string | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const counts = useQuery({ queryKey: [...KEYS.presets, "models"], queryFn: api.countModels }).data?.counts;
  const models = MODELS.filter((model) => begins(model, words));
  const chosen = models.find((m) => m.id === id) ?? models[0] ?? null;
  usePluginFinder(words, setWords, list);
  const startOf = useStartNames();
  const move = (by: number) => {
    const at = models.findIndex((m) => m.id === chosen?.id);
    const next = models[Math.min(models.length - 1, Math.max(0, at + by))];
    if (!next) return;
    setId(next.id);
    document.getElementById(`model-${next.id}`)?.scrollIntoView({ block: "nearest" });
  };
  const group = "Plugins";
  useActions([
    { id: "down", title: "Next plugin", group, keys: ["ArrowDown"], keyOnly: true, run: () => move(1) },
    { id: "up", title: "Previous plugin", group, keys: ["ArrowUp"], keyOnly: true, run: () => move(-1) },
    {
      id: "open",
      title: "Show its sounds",
      group,
      keys: ["Enter"],
      enabled: chosen !== null,
      run: () => chosen && router.push(`/library?only=${encodeURIComponent(`has:${quoteValue(chosen.name)}`)}`),
    },
  ]);
  return (
    <Panels
      id="plugins"
      panes={[
        {
          id: "list",
          label: "the list",
          min: 560,
          children: (
            <section aria-label="Plugins" className="flex h-full min-w-0 flex-col">
              <h1 className="sr-only">Plugins</h1>
              <div className={cx(COLUMNS, "h-[30px] flex-none border-edge border-b text-small text-soft")}>
                <span>Shape</span>
                <span>Name</span>
                <span>Family</span>
                <span>Maker</span>
                <span>Opens with</span>
                <span className="text-right">Presets</span>
                <span className="text-right">Inside</span>
                <span className="text-right">Used</span>
              </div>
              <div className="min-h-0 flex-1 overflow-auto">
                <div
                  ref={list}
                  role="listbox"
                  tabIndex={0}
                  aria-label="Plugins"
                  aria-activedescendant={chosen ? `model-${chosen.id}` : undefined}
                  className="outline-none"
                >
                  {models.map((model) => {
                    const count = counts?.[model.id];
                    const processor = sample.get(model.id);
                    return (
                      <div
                        key={model.id}
                        id={`model-${model.id}`}
                        role="option"
                        aria-selected={model.id === chosen?.id}
                        onClick={() => setId(model.id)}
                        className={cx(
                          COLUMNS,
                          "h-11 cursor-default border-rule border-b",
                          model.id === chosen?.id ? "row-chosen" : "hover:bg-sunk/60",
                        )}
                      >
                        {processor && <Shape processor={processor} tempo={tempo} />}
                        <span className="name truncate">{model.name}</span>
                        <span className="truncate text-soft">{FAMILY_NAMES[model.family]}</span>
                        <span className="truncate text-soft">
                          {model.maker}
                          {!model.hearable && " · not heard here"}
                        </span>
                        <span className="truncate text-soft" title={startOf(model.id)}>
                          {startOf(model.id)}
                        </span>
                        <Count n={count?.presets} />
                        <Count n={count?.inside} />
                        <Count n={count?.uses} />
                      </div>
                    );
                  })}
                </div>
              </div>
              <p className="flex h-8 flex-none items-center border-edge border-t px-[14px] text-small text-soft">
                {counted(models.length, "plugin")} in{" "}
                {counted(FAMILIES.filter((f) => models.some((m) => m.family === f)).length, "family", "families")}
              </p>
            </section>
          ),
        },
        {
          id: "plugin",
          label: "the plugin",
          size: 360,
          min: 280,
          children: chosen ? <PluginPane key={chosen.id} model={chosen} /> : <div className="h-full bg-card" />,
        },
      ]}
    />
  );
}

/** What a model opens with: everywhere, and where it is another on strips of a kind. */
function useStartNames(): (model: string) => string {
  const { settings } = useSettings();
  const points = settings.startingPoints.filter((point) => point.model !== null);
  const nameOf = usePresetNames(points.flatMap(({ preset }) => preset ?? []));
  const wordsOf = ({ preset, values }: Start) =>
    preset !== null ? nameOf(preset) : values ? "own setting" : "maker’s start";
  return (model) => {
    const own = points.filter((point) => point.model === model);
    const everywhere = own.find(({ strip }) => strip === null);
    return [
      everywhere ? wordsOf(everywhere) : "maker’s start",
      ...own.flatMap((point) => (point.strip ? `on ${STRIP_WORDS[point.strip]} ${wordsOf(point)}` : [])),
    ].join(" · ");
  };
}

const Count = ({ n }: { readonly n: number | undefined }) => (
  <span className="num text-right text-soft">{n === undefined ? "" : n}</span>
);

/** The field on top narrows the list. */
function usePluginFinder(
  words: string,
  onWords: (words: string) => void,
  list: RefObject<HTMLDivElement | null>,
): void {
  useEffect(() => {
    const onLeave = () => list.current?.focus();
    useFinder.setState({
      finder: {
        words,
        onWords,
        onLeave,
        hint: "Find a plugin, a family, a maker",
        completions: [],
      },
    });
  }, [words, onWords, list]);
  useEffect(() => () => useFinder.setState({ finder: null }), []);
}
