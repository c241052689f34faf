"use client";

import type { PresetRef } from "@/core/chains/chain";
import type { StripKind } from "@/core/documents/strip-kinds";
import { startingPointFor, withStartingPoint } from "@/core/settings/settings";
import { orSay, say } from "../kit/say";
import { STRIP_WORDS } from "../kit/strip-words";
import { useSettings } from "./settings";

/** What new strips of a kind begin as, and how that is changed. */
export function useStripStart() {
  const { settings, change } = useSettings();
  const set = (kind: StripKind, from: PresetRef | null) =>
    orSay(
      change((now) =>
        withStartingPoint(now, { model: null, strip: kind }, from && { preset: from.preset, version: null }),
      ).then(() =>
        say(from ? `New ${STRIP_WORDS[kind]} begin as “${from.name}”.` : `New ${STRIP_WORDS[kind]} are blank again.`),
      ),
    );
  return { startOf: (kind: StripKind) => startingPointFor(settings, null, kind), set };
}
