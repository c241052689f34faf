import type { PresetRow } from "@/contracts/records";
import type { Slot } from "@/core/recall/plan-inserts";
import type { PartName } from "@/core/strips/parts";

/** A sound of the library, or strips of a project as they are or were, to be planned. */
export type Brought =
  | { readonly presets: readonly Pick<PresetRow, "id" | "version">[] }
  | { readonly project: string; readonly revision?: number | undefined; readonly strips: readonly string[] };

/** Where it goes: onto strips, onto new ones where none is named, or to a place among plugins. */
export interface Aim {
  readonly strips: readonly string[];
  /** Behind which strip a new one stands; where that is not said, before the main output. */
  readonly newStrip?: string | null | undefined;
  readonly slot?: (Slot & { readonly strip: string }) | undefined;
  /** Only these parts to begin with. */
  readonly parts?: readonly PartName[] | undefined;
}

/** What is brought, in the words of an address. */
const broughtWords = (brought: Brought): readonly (readonly [string, string])[] =>
  "presets" in brought
    ? brought.presets.flatMap(({ id, version }) => [["preset", id] as const, ["version", String(version)] as const])
    : [
        ["from", brought.project],
        ["take", brought.strips.join(",")],
        ...(brought.revision === undefined ? [] : [["revision", String(brought.revision)] as const]),
      ];

function slotWords(slot: Aim["slot"]): readonly (readonly [string, string])[] {
  if (!slot) return [];
  return ["on" in slot ? ["on", slot.on] : ["behind", slot.after ?? ""]];
}

/** The address of a plan: sounds, or strips of a project, to some place of a project. */
export function planAddress(project: string, brought: Brought, { strips, newStrip, slot, parts }: Aim): string {
  const onto = slot ? [slot.strip] : strips;
  const words = new URLSearchParams(
    [
      ...broughtWords(brought),
      ...(onto.length > 0 ? [["strips", onto.join(",")] as const] : []),
      ...slotWords(slot),
      ...(newStrip === undefined ? [] : [["below", newStrip ?? ""] as const]),
      ...(parts ? [["parts", parts.join(",")] as const] : []),
    ].map((pair) => [...pair]),
  );
  return `/projects/${project}/plan?${words}`;
}
