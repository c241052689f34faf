import { AudioLines, Bird, Bookmark, Drum, Guitar, Megaphone, Mic, Piano, Sparkles, Star, Waves } from "lucide-react";
import type { PresetKind } from "@/core/presets/preset";
import { PresetIcon } from "./kind-icon";

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

interface Props {
  readonly kind: PresetKind;
  readonly icon?: string | undefined;
  readonly colour?: string | undefined;
}

/** The picture before a name: that of the card, else that of its kind, in the card's ink. */
export function CardMark({ kind, icon, colour }: Props) {
  const Icon = isOf(CARD_ICONS, icon) ? CARD_ICONS[icon] : null;
  const ink = isOf(CARD_COLOURS, colour) ? CARD_COLOURS[colour] : null;
  if (!Icon && !ink) return <PresetIcon kind={kind} />;
  const look = ink ?? "text-soft";
  return Icon ? (
    <Icon size={16} strokeWidth={1.75} aria-hidden="true" className={`flex-none ${look}`} />
  ) : (
    <span className={`flex-none ${look}`}>
      <PresetIcon kind={kind} inherit />
    </span>
  );
}
