"use client";

import type { PresetKind } from "@/core/presets/preset";
import { withPattern } from "@/core/settings/settings";
import { useSettings } from "../settings/settings";

/** Patterns to begin with, by kind. */
const FIRST: Record<PresetKind, readonly string[]> = {
  plugin: ["{strip} {model}, {song}", "{purpose}, {character}", "{model}, {purpose}"],
  chain: ["{strip}, {song}", "{purpose}, {character}", "{artist}, {purpose} {number:2}"],
  strip: ["{strip}, {song}", "{artist}, {strip}"],
  set: ["{song}, {purpose}"],
  mix: ["{song}, {date}"],
};

/** Patterns for names of a kind, the last used first; and how one is remembered. */
export function usePatterns(kind: PresetKind) {
  const { settings, change } = useSettings();
  const patterns = [...new Set([...(settings.patterns[kind] ?? []), ...FIRST[kind]])];
  return { patterns, keep: (pattern: string) => change((now) => withPattern(now, kind, pattern)) };
}
