import { counted } from "@/core/names/count";

/** "The 3 chosen strips"; in general where none is. */
export const chosenWords = (count: number): string =>
  count === 0 ? "Chosen strips" : `The ${counted(count, "chosen strip")}`;
