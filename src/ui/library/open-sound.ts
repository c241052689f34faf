"use client";

import { useRouter } from "next/navigation";
import type { PresetRow } from "@/contracts/records";
import { flushAddress } from "./in-address";
import { say } from "../kit/say";

/** Opens a sound on the bench. Several strips have no place there: they are applied to a project, and opened one by one. */
export function useOpenSound(): (preset: Pick<PresetRow, "id" | "kind" | "card">) => void {
  const router = useRouter();
  return ({ id, kind, card }) => {
    if (kind === "set" || kind === "mix")
      return say(`“${card.name}” holds several strips. Apply it to a project, and open one of them there.`);
    flushAddress();
    router.push(`/bench?preset=${id}`);
  };
}
