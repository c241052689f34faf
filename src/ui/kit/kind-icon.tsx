import {
  AudioLines,
  Columns3,
  CornerLeftUp,
  Flag,
  Folder,
  LayoutPanelLeft,
  Merge,
  Piano,
  RectangleVertical,
  Square,
  Waypoints,
} from "lucide-react";
import type { PresetKind } from "@/core/presets/preset";
import type { StripKind } from "@/core/documents/strip-kinds";

const PRESET_ICONS = {
  plugin: Square,
  chain: Waypoints,
  strip: RectangleVertical,
  set: Columns3,
  mix: LayoutPanelLeft,
} as const;
const STRIP_ICONS = {
  audio: AudioLines,
  instrument: Piano,
  return: CornerLeftUp,
  group: Merge,
  main: Flag,
  folder: Folder,
} as const;

const LOOK = { size: 16, strokeWidth: 1.75, "aria-hidden": true, className: "flex-none text-soft" } as const;

interface InkProps {
  /** In the ink of what is around it. */
  readonly inherit?: boolean;
}

export function PresetIcon({ kind, inherit = false }: InkProps & { readonly kind: PresetKind }) {
  const Icon = PRESET_ICONS[kind];
  return inherit ? <Icon {...LOOK} className="flex-none" /> : <Icon {...LOOK} />;
}

export function StripIcon({ kind, inherit = false }: InkProps & { readonly kind: StripKind }) {
  const Icon = STRIP_ICONS[kind];
  return inherit ? <Icon {...LOOK} className="flex-none" /> : <Icon {...LOOK} />;
}
