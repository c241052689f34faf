import { AudioLines, Bird, Bookmark, Drum, Guitar, Megaphone, Mic, Piano, Sparkles, Star, Waves } from "lucide-react";
import type { ReactNode } from "react";
import type { StripKind } from "@/core/documents/strip-kinds";
import type { PresetKind } from "@/core/presets/preset";
import { PresetIcon, StripIcon } from "./kind-icon";

/** Pictures that a card can have in place of that of its kind, by the word that is kept. */
export const CARD_ICONS = {
  voice: Mic,
  strings: Guitar,
  keys: Piano,
  percussion: Drum,
  brass: Megaphone,
  field: Bird,
  water: Waves,
  bus: AudioLines,
  effect: Sparkles,
  favourite: Star,
  later: Bookmark,
} as const;

/** Our own inks, by the word that is kept. */
export const CARD_COLOURS = {
  verdigris: "text-live",
  madder: "text-alert",
  ochre: "text-edit",
  ink: "text-ink",
} as const;

const isOf = <T extends object>(list: T, word: string | undefined): word is keyof T & string =>
  word !== undefined && Object.hasOwn(list, word);

interface MarkProps {
  readonly icon?: string | undefined;
  readonly colour?: string | undefined;
  /** The picture where no other was chosen. */
  readonly children: ReactNode;
}

/** The picture before a name: one that was chosen, else that of its kind; in the ink that was chosen. */
function Mark({ icon, colour, children }: MarkProps) {
  const Icon = isOf(CARD_ICONS, icon) ? CARD_ICONS[icon] : null;
  const ink = isOf(CARD_COLOURS, colour) ? CARD_COLOURS[colour] : null;
  const look = `flex-none ${ink ?? "text-soft"}`;
  return Icon ? (
    <Icon size={16} strokeWidth={1.75} aria-hidden="true" className={look} />
  ) : (
    <span className={look}>{children}</span>
  );
}

type CardProps = Omit<MarkProps, "children"> & { readonly kind: PresetKind };

/** The picture of a card. */
export const CardMark = ({ kind, ...look }: CardProps) => (
  <Mark {...look}>
    <PresetIcon kind={kind} inherit />
  </Mark>
);

type StripProps = Omit<MarkProps, "children"> & { readonly kind: StripKind };

/** The picture of a strip. */
export const StripMark = ({ kind, ...look }: StripProps) => (
  <Mark {...look}>
    <StripIcon kind={kind} inherit />
  </Mark>
);
