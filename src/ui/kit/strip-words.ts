import type { StripKind } from "@/core/documents/strip-kinds";

/** Several strips of a kind. */
export const STRIP_WORDS: Record<StripKind, string> = {
  audio: "audio strips",
  instrument: "instrument strips",
  return: "return buses",
  group: "group buses",
  main: "main outputs",
  folder: "folders",
};
