"use client";

import { useQuery } from "@tanstack/react-query";
import { Play, X } from "lucide-react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { OWN_MATERIAL } from "@/clients/sound-engine";
import * as arrange from "@/core/recall/arrange";
import type { Clip } from "@/core/strips/parts/media";
import { INPUT } from "../../kit/field";
import { mintKey } from "../../kit/mint";
import { orSay } from "../../kit/say";
import { setMaterial, setPlaying } from "../../listening/listening";
import type { CardProps } from "./card";

/** Sounds of one's own that lie on a strip: heard, added, taken off. */
export function ClipsField({ strip, turning }: CardProps) {
  const own = useQuery({ queryKey: KEYS.media, queryFn: api.listMedia }).data?.media ?? [];
  const free = own.filter(({ hash }) => !strip.media.some((clip) => clip.hash === hash));
  const set = (label: string, change: (clips: readonly Clip[]) => readonly Clip[]) =>
    turning.change(label, (now) =>
      arrange
        .standing(now, [strip.id])
        .flatMap((one) => arrange.changePart(one, "media", [...change(one.media)], mintKey)),
    );
  const hear = (hash: string) => orSay(setMaterial(OWN_MATERIAL + hash).then(() => setPlaying(true)));
  if (own.length === 0 && strip.media.length === 0) return null;
  return (
    <section aria-label="Clips" className="grid gap-1 border-rule border-t pt-2">
      <h3 className="h2">Clips</h3>
      <ul>
        {strip.media.map(({ name, hash }) => (
          <li key={hash} className="flex min-h-[26px] items-center gap-2">
            <button type="button" aria-label={`Hear ${name}`} className="hover:text-live" onClick={() => hear(hash)}>
              <Play size={14} aria-hidden="true" />
            </button>
            <span className="min-w-0 flex-1 truncate">{name}</span>
            <button
              type="button"
              aria-label={`Take ${name} off`}
              className="text-soft hover:text-alert"
              onClick={() => set("Take a clip off", (clips) => clips.filter((clip) => clip.hash !== hash))}
            >
              <X size={14} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      {free.length > 0 && (
        <select
          aria-label="Add a clip"
          className={INPUT}
          value=""
          onChange={({ target: { value } }) => {
            const found = free.find(({ hash }) => hash === value);
            if (found) set("Add a clip", (clips) => [...clips, { name: found.name, hash: found.hash }]);
          }}
        >
          <option value="">add a sound of yours…</option>
          {free.map(({ name, hash }) => (
            <option key={hash} value={hash}>
              {name}
            </option>
          ))}
        </select>
      )}
    </section>
  );
}
