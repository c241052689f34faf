import type { PresetRow } from "@/contracts/records";
import type { Card, Origin } from "@/core/presets/preset";
import { splitTags } from "../kit/split-tags";

/** What is written on a card of where a sound comes from; of which preset it was made is no word to be changed. */
type Written = Exclude<keyof Origin, "from">;

export const ORIGIN_FIELDS: readonly (readonly [field: Written, label: string])[] = [
  ["artist", "Artist"],
  ["client", "Client"],
  ["song", "Song"],
  ["project", "Project"],
  ["performer", "Performer"],
  ["instrument", "Instrument"],
  ["microphone", "Microphone"],
  ["take", "Take"],
  ["date", "Date"],
];

/** The fields of the sheet, all of them as text. */
export type Fields = Record<
  "name" | "short" | "folder" | "newFolder" | "purpose" | "notes" | "rating" | "colour" | "icon" | "addTags",
  string
> &
  Record<Written, string>;

/** Of a list of several choices: every card keeps its own. */
export const KEEP = "keep";
/** Of the list of folders: one that is to be made. */
export const NEW_FOLDER = "+";

/** What all have in common; null where they differ. */
function common<T>(presets: readonly PresetRow[], read: (card: Card) => T): T | null {
  const values = new Set(presets.map((p) => read(p.card)));
  return values.size === 1 ? ([...values][0] as T) : null;
}

export type Read = (card: Card) => unknown;

/** Whether several cards say different things. */
export const differ = (presets: readonly PresetRow[], read: Read): boolean =>
  presets.length > 1 && common(presets, read) === null;

/** What the fields say when the sheet opens: what the cards have in common. */
export function fieldsOf(presets: readonly PresetRow[]): Fields {
  const text = (read: (card: Card) => string | undefined) => common(presets, (c) => read(c) ?? "") ?? "";
  const choice = (read: (card: Card) => string) => common(presets, read) ?? KEEP;
  const origin = Object.fromEntries(ORIGIN_FIELDS.map(([field]) => [field, text((c) => c.origin[field])]));
  return {
    name: text((c) => c.name),
    short: text((c) => c.short),
    folder: choice((c) => c.folder ?? ""),
    newFolder: "",
    purpose: text((c) => c.purpose),
    notes: text((c) => c.notes),
    rating: choice((c) => String(c.rating)),
    colour: choice((c) => c.colour ?? ""),
    icon: choice((c) => c.icon ?? ""),
    addTags: "",
    ...(origin as Record<Written, string>),
  };
}

export interface CardEdit {
  readonly fields: Fields;
  /** Fields that were touched; the others stay as they are on each card. */
  readonly touched: Partial<Record<keyof Fields, boolean>>;
  /** Tags that were taken off, measured ones too. */
  readonly off: ReadonlySet<string>;
  /** There are several: a name is of one only. */
  readonly many: boolean;
}

const tagsOf = ({ card }: PresetRow, { fields, off }: CardEdit): Partial<Card> => {
  const added = splitTags(fields.addTags);
  if (added.length === 0 && off.size === 0) return {};
  return { tags: [...new Set([...card.tags.filter((tag) => !off.has(tag)), ...added])] };
};

const dismissedOf = ({ card, measured }: PresetRow, { off }: CardEdit): Partial<Card> => {
  const unwanted = measured.filter((tag) => off.has(tag));
  return unwanted.length > 0 ? { dismissed: [...(card.dismissed ?? []), ...unwanted] } : {};
};

function originOf({ card }: PresetRow, { fields, touched }: CardEdit): Partial<Card> {
  const changed = ORIGIN_FIELDS.filter(([field]) => touched[field]);
  if (changed.length === 0) return {};
  const words = changed.map(([field]) => [field, fields[field].trim()] as const);
  const origin = { ...card.origin, ...Object.fromEntries(words) };
  return { origin: Object.fromEntries(Object.entries(origin).filter(([, value]) => value !== "")) };
}

const namesOf = ({ fields, touched }: CardEdit): Partial<Card> => ({
  ...(touched.name ? { name: fields.name.trim() } : {}),
  ...(touched.short ? { short: fields.short.trim() } : {}),
});

/** What is to become of the card of one of them. */
export function changeOf(preset: PresetRow, edit: CardEdit): Partial<Card> {
  const { fields, touched, many } = edit;
  const chosen = (field: "folder" | "rating" | "colour" | "icon") => touched[field] && fields[field] !== KEEP;
  return {
    ...(many ? {} : namesOf(edit)),
    ...(chosen("folder") && fields.folder !== NEW_FOLDER ? { folder: fields.folder || null } : {}),
    ...(touched.purpose ? { purpose: fields.purpose.trim() } : {}),
    ...(touched.notes ? { notes: fields.notes } : {}),
    ...(chosen("rating") ? { rating: Number(fields.rating) } : {}),
    ...(chosen("colour") ? { colour: fields.colour } : {}),
    ...(chosen("icon") ? { icon: fields.icon } : {}),
    ...tagsOf(preset, edit),
    ...dismissedOf(preset, edit),
    ...originOf(preset, edit),
  };
}
