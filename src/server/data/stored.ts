import { type Inside, liftInside } from "@/core/library/inside";
import { liftLibrarySteps } from "@/core/library/migrations";
import type { LibraryStep } from "@/core/library/step";
import { liftCard } from "@/core/presets/migrations";
import type { Card } from "@/core/presets/preset";

/*
 * JSON that stands in a column, read as any Diathesis has written it. Each throws, in words, for what none ever wrote; whole
 * documents are read by `readDocument`.
 */

export const readCard = (text: string): Card => liftCard(JSON.parse(text));
export const readInside = (text: string): Inside => liftInside(JSON.parse(text));
export const readLibrarySteps = (text: string): readonly LibraryStep[] => liftLibrarySteps(JSON.parse(text));
