"use client";

import { type Processor, processorName } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { findModel } from "@/core/processors/models";
import * as arrange from "@/core/recall/arrange";
import * as gestures from "@/core/recall/gestures";
import { stripName } from "@/core/strips/strip";
import { INPUT } from "../../kit/field";
import { mintKey } from "../../kit/mint";
import type { CardProps } from "./card";

/** Plugins that can be opened or turned down by another sound. */
const keyable = (processors: readonly Processor[]): readonly Processor[] =>
  processors.filter(({ model }) => findModel(model)?.isKeyed);

const TAPS = { pre: "before its fader", post: "behind its fader" } as const;

const keyOf = ({ keyInput }: Processor): string => {
  if (!keyInput) return "";
  if ("material" in keyInput) return "material";
  return "strip" in keyInput.strip ? keyInput.strip.strip : "outside";
};

/** What each plugin hears that can be keyed: itself, or another strip. */
export function KeysCard({ project, strip, turning }: CardProps) {
  const plugins = keyable(processorsOf(strip.inserts));
  const free = arrange.keysFor(project, strip);
  if (plugins.length === 0)
    return <p className="text-soft">It holds no plugin that can be keyed. A gate or a compressor can.</p>;
  const set = (plugin: Processor, to: Processor["keyInput"] | null) =>
    turning.change("Key input", (now) => {
      const [standing] = arrange.standing(now, [strip.id]);
      return standing ? gestures.keyBy({ strip: standing, mint: mintKey }, plugin.key, to) : [];
    });
  return (
    <ul className="grid gap-3">
      {plugins.map((plugin) => {
        const { keyInput } = plugin;
        const key = keyOf(plugin);
        const tap = keyInput && "tap" in keyInput ? keyInput.tap : "pre";
        return (
          <li key={plugin.key} className="grid gap-1">
            <span className="text-small text-soft">{processorName(plugin)} hears</span>
            <span className="grid grid-cols-[1fr_132px] gap-2">
              <select
                aria-label={`${processorName(plugin)} hears`}
                className={INPUT}
                value={key}
                onChange={({ target: { value } }) =>
                  set(plugin, value === "" ? null : { strip: { strip: value }, tap })
                }
              >
                <option value="">the sound itself</option>
                {key === "material" && <option value="material">material</option>}
                {key === "outside" && keyInput && "strip" in keyInput && "name" in keyInput.strip && (
                  <option value="outside">{keyInput.strip.name}, not in this project</option>
                )}
                {free.map((one) => (
                  <option key={one.id} value={one.id}>
                    {stripName(one)}
                  </option>
                ))}
              </select>
              {keyInput && "strip" in keyInput && (
                <select
                  aria-label={`${processorName(plugin)} hears it from`}
                  className={INPUT}
                  value={tap}
                  onChange={({ target: { value } }) =>
                    set(plugin, { ...keyInput, tap: value === "post" ? "post" : "pre" })
                  }
                >
                  <option value="pre">{TAPS.pre}</option>
                  <option value="post">{TAPS.post}</option>
                </select>
              )}
            </span>
          </li>
        );
      })}
    </ul>
  );
}
