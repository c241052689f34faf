import { z } from "zod";
import { NAMING_FAULTS, type NamingFault } from "@/core/library/naming";
import { WORD_LIST_NAMES, type WordList, longestWord } from "@/core/library/word-lists";
import { LONGEST_NAME } from "@/core/names/free";
import { FIELD_NAMES, type Field } from "@/core/search/fields";
import { MOST_LETTERS } from "@/core/search/written";
import { SavedSearchSchema } from "@/core/settings/schema";
import { MOST_AT_ONCE, MOST_MERGED, MOST_NARROWING } from "@/core/documents/limits";
import { CardSchema, ContentSchema, FiledNameSchema } from "@/core/presets/schema";
import {
  BinnedRowSchema,
  FolderSchema,
  HistorySchema,
  MergedRowSchema,
  PresetRowSchema,
  UseSchema,
  VersionRowSchema,
  WalkedSchema,
} from "./records";

const Id = z.string().min(1).max(80);
const FolderName = FiledNameSchema(120);
/** Names of folders one within the other, a slash between them. */
export const FolderPath = z.string().trim().min(1).max(500);
const PresetKindSchema = z.enum(["plugin", "chain", "strip", "set", "mix"]);

const SORTS = ["used", "name", "saved", "rating", "origin", "length", "folder", "loudness"] as const;

export const PresetQuerySchema = z.strictObject({
  /** In the language of the search field; see docs/finding.md. */
  q: z.string().max(MOST_LETTERS).optional(),
  /** Filters beside the field, in the same language. */
  only: z.string().max(MOST_LETTERS).optional(),
  kind: PresetKindSchema.optional(),
  /** Plugin presets of this model only. */
  model: z.string().min(1).max(80).optional(),
  folder: Id.optional(),
  tag: z.string().max(60).optional(),
  sort: z.enum(SORTS).optional(),
  after: z.string().max(400).optional(),
  /** How many come before the page, in place of `after`. */
  offset: z.coerce.number().int().min(0).max(10_000_000).optional(),
  limit: z.coerce.number().int().min(1).max(500).optional(),
});

/** A sound and the list that its place is asked for in. */
export const PlaceQuerySchema = PresetQuerySchema.pick({ q: true, only: true, folder: true, sort: true }).extend({
  id: Id,
});
/** From 0; null where it is not in the list. */
export const PlaceSchema = z.strictObject({ place: z.int().nullable() });

/** The values of one field among what is asked for. */
export const ValuesQuerySchema = PresetQuerySchema.pick({ q: true, only: true, folder: true }).extend({
  field: z.enum(FIELD_NAMES as [Field, ...Field[]]),
  /** Only those with words that begin so. */
  begun: z.string().max(MOST_NARROWING).optional(),
  order: z.enum(["count", "name"]).optional(),
  limit: z.coerce.number().int().min(1).max(2000).optional(),
});
export const ValuesSchema = z.strictObject({
  values: z.array(z.strictObject({ value: z.string(), n: z.int() })),
  /** There are more than were asked for. */
  more: z.boolean(),
});

/** Some words of a list as one, everywhere; null takes them away. */
export const WordChangeSchema = z
  .strictObject({
    list: z.enum(WORD_LIST_NAMES as [WordList, ...WordList[]]),
    from: z.array(z.string().min(1).max(200)).min(1).max(1000),
    to: z.string().trim().min(1).max(200).nullable(),
  })
  .refine(({ list, to }) => to === null || to.length <= longestWord(list), {
    message: "It has too many letters.",
    path: ["to"],
  })
  .refine(({ list, to }) => to === null || list === "tags" || !to.includes(";"), {
    message: "A semicolon stands between two names.",
    path: ["to"],
  });
export const WordsChangedSchema = z.strictObject({ changed: z.int(), ofPacks: z.int() });

export const PresetDetailQuerySchema = z.strictObject({ version: z.coerce.number().int().min(1).optional() });
export const PresetPageSchema = z.strictObject({
  items: z.array(PresetRowSchema),
  total: z.int(),
  next: z.string().nullable(),
  /** The order they stand in; by rank the best first. */
  order: z.enum(["rank", ...SORTS]),
  /** For each field, its values among all that were found, the most frequent first; on a first page only. */
  facets: z.record(z.string(), z.array(z.strictObject({ value: z.string(), n: z.int() }))),
  /** What of the search was not understood; its words were looked for. */
  unclear: z.array(z.string()),
  /** Words that nothing begins with, and what they were read as. */
  corrected: z.array(z.strictObject({ typed: z.string(), read: z.string() })),
});

export const NewPresetSchema = z.strictObject({
  preset: z.strictObject({ kind: PresetKindSchema, content: ContentSchema, card: CardSchema }),
});
/** Several new presets in one go: all or none. */
export const NewPresetsSchema = z.strictObject({
  presets: z.array(NewPresetSchema.shape.preset).min(1).max(10_000),
  /** All of them go into the folder at this path, "Voices / Lead"; what is missing of it is made. */
  newFolder: FolderPath.optional(),
  /** Where that path begins; at the top without it. */
  newFolderIn: Id.nullable().optional(),
});
export const PresetBodySchema = z.strictObject({ preset: PresetRowSchema });
export const PresetDetailSchema = z.strictObject({
  preset: PresetRowSchema,
  /** Also what is in the bin, or was put into another, can be looked at: strips may have come from it. */
  place: z.enum(["library", "bin", "merged"]),
  versions: z.array(VersionRowSchema),
  /** Near copies that were put into it; their versions are there under their own ids. */
  merged: z.array(MergedRowSchema),
  /** Presets that have it inside, in the version that they were saved with. */
  heldBy: z.array(z.strictObject({ id: Id, name: z.string() })),
});
/** Versions of several presets, each as it was saved. */
export const WantedVersionsSchema = z.strictObject({
  versions: z
    .array(z.strictObject({ preset: Id, version: z.int().min(1) }))
    .min(1)
    .max(2000),
});
/** Those that are there, in no order; `newest` is the last version of the preset. */
export const SavedVersionsSchema = z.strictObject({
  versions: z.array(z.strictObject({ preset: Id, version: z.int(), newest: z.int(), content: ContentSchema })),
});
/** The strips of projects that something of came from it. */
export const UsesSchema = z.strictObject({ uses: z.array(UseSchema) });
/**
 * `within`: how far apart two may be, 0 to 1 along the rulers of their values. They are looked for in a folder with all below
 * it, or among some sounds; in the whole library without either. `whole`: the group with this sound is wanted with all it has.
 */
export const NearCopiesRequestSchema = z.strictObject({
  within: z.number().min(0).max(1).optional(),
  folder: Id.optional(),
  ids: z.array(Id).min(1).max(MOST_AT_ONCE).optional(),
  whole: Id.optional(),
});
export const NearCopiesSchema = z.strictObject({
  /** How far the search is, 0 to 1: ask again until there are groups. */
  progress: z.number(),
  /** All groups that were found, and of how many sounds that were compared. */
  total: z.int(),
  compared: z.int(),
  /** The largest, each with how many it has and some of them, with how many strips of projects use each; null while it is being searched. */
  groups: z
    .array(
      z.strictObject({
        distance: z.number(),
        count: z.int(),
        copies: z.array(z.strictObject({ preset: PresetRowSchema, uses: z.int() })),
      }),
    )
    .nullable(),
});
/** `from`: from which on, counted from 0. */
export const NamingQuerySchema = z.strictObject({ from: z.coerce.number().int().min(0).optional() });
/** Names that ask to be mended, the worst first; `proposed` is null where nothing more is known of a sound. */
export const NamingSchema = z.strictObject({
  total: z.int(),
  items: z.array(
    z.strictObject({
      preset: PresetRowSchema,
      faults: z.array(z.enum(Object.keys(NAMING_FAULTS) as [NamingFault, ...NamingFault[]])),
      proposed: z.string().nullable(),
    }),
  ),
});
/** Names that are to be given. */
export const WantedNamesSchema = z.strictObject({ names: z.array(z.string().max(LONGEST_NAME)).min(1).max(10_000) });
/** Who has names that are wanted, or the same with a number behind; and in full some of those that have one as it stands. */
export const TakenNamesSchema = z.strictObject({
  taken: z.array(z.strictObject({ id: Id, name: z.string() })),
  presets: z.array(PresetRowSchema),
});
export const MergeSchema = z.strictObject({ keep: Id, others: z.array(Id).min(1).max(MOST_MERGED) });
export const NewVersionSchema = z.strictObject({ baseVersion: z.int().min(1), content: ContentSchema });
export const CardChangesSchema = z.strictObject({
  changes: z
    .array(
      z.strictObject({
        id: Id,
        baseCard: z.int().min(1),
        card: CardSchema.partial().optional(),
        /** Into the bin, or out of it. */
        binned: z.boolean().optional(),
      }),
    )
    .min(1)
    .max(MOST_AT_ONCE),
  /** All of them go into the folder at this path, "Voices / Lead"; what is missing of it is made. */
  newFolder: FolderPath.optional(),
  /** Where that path begins; at the top without it. */
  newFolderIn: Id.nullable().optional(),
  /** What undo calls it. */
  label: z.string().trim().min(1).max(300).optional(),
});
export const VersionNameSchema = z.strictObject({
  version: z.int().min(1),
  name: z.string().trim().min(1).max(120).nullable(),
});
export const BinSchema = z.strictObject({ items: z.array(BinnedRowSchema) });
export const EmptyBinSchema = z.strictObject({ ids: z.array(Id).max(100_000).nullable() });
/** `back`: what was put into one of them and stands by itself again. */
export const GoneSchema = z.strictObject({ gone: z.int(), back: z.int() });
/** Presets whose cards are wanted. */
export const WantedCardsSchema = z.strictObject({ ids: z.array(Id).min(1).max(MOST_AT_ONCE) });
/** Cards as a change has left them, without their sounds. */
export const ChangedCardsSchema = z.strictObject({
  cards: z.array(PresetRowSchema.pick({ id: true, card: true, cardRevision: true, measured: true })),
});
/** How far the long work of the window that asks is, in steps; null where it has none under way. */
export const WorkSchema = z.strictObject({ work: z.strictObject({ done: z.int(), of: z.int() }).nullable() });
export const StoppedSchema = z.strictObject({ stopped: z.boolean() });
export const PresetListSchema = z.strictObject({ presets: z.array(PresetRowSchema) });

export const FolderListSchema = z.strictObject({ folders: z.array(FolderSchema) });

export const NewFolderSchema = z.strictObject({ name: FolderName, parent: Id.nullable() });
export const FolderChangeSchema = z.strictObject({
  name: FolderName.optional(),
  parent: Id.nullable().optional(),
});
/** Files presets under a folder that is called as their artist or client is. */
export const FileBySchema = z.strictObject({
  by: z.enum(["artist", "client"]),
  ids: z.array(Id).min(1).max(MOST_AT_ONCE),
  /** Only say what would come of it. */
  preview: z.boolean().optional(),
});
export const FiledBySchema = z.strictObject({
  groups: z.array(
    z.strictObject({
      /** The folder, with those above it. */
      path: z.string(),
      isNew: z.boolean(),
      /** How many go there, and how many are there already. */
      n: z.int(),
      already: z.int(),
    }),
  ),
  /** How many name nobody; they stay where they are. */
  without: z.int(),
});
export const HistoryBodySchema = z.strictObject({
  history: HistorySchema,
  /** The newest changes that stand, newest first. */
  standing: z.array(z.strictObject({ n: z.int(), label: z.string() })),
});
export const UndoLibrarySchema = z.strictObject({
  /** This change alone, all of it; without it the last one, with what can no longer be passed over. */
  n: z.int().min(1).optional(),
});
/** What is looked for in all that was done; `before`: entries older than this one. */
export const LogQuerySchema = z.strictObject({
  q: z.string().max(MOST_NARROWING).optional(),
  before: z.coerce.number().int().min(1).optional(),
  limit: z.coerce.number().int().min(1).max(200).optional(),
});
export const LogPageSchema = z.strictObject({
  /** The newest first. */
  items: z.array(
    z.strictObject({
      n: z.int(),
      at: z.iso.datetime(),
      label: z.string(),
      /** The window that did it, as it is named in its requests; null where it did not say. */
      window: z.string().nullable(),
      /** The change that this took back or did again. */
      of: z.int().nullable(),
      /** How many things it concerned, and some of them as they were called then. */
      count: z.int(),
      some: z.array(
        z.strictObject({ kind: z.enum(["preset", "project", "folder", "search"]), id: z.string(), name: z.string() }),
      ),
      standing: z.enum(["done", "undone", "undoneForGood", "doneForGood"]).nullable(),
    }),
  ),
  more: z.boolean(),
});
/** A search that is kept: put at a place of their list, the last without one, or, for null, let go of. */
export const SearchChangeSchema = z.strictObject({
  id: Id,
  search: SavedSearchSchema.omit({ id: true }).nullable(),
  at: z.int().min(0).max(100_000).optional(),
});
/** An earlier version that becomes the newest. */
export const NewestSchema = z.strictObject({ version: z.int().min(1) });
export const WalkedBodySchema = z.strictObject({
  history: HistorySchema,
  walked: WalkedSchema,
  /** Presets that were changed by it, as they are now; of very many the first. */
  presets: z.array(PresetRowSchema),
});
export const FolderBodySchema = z.strictObject({ folder: FolderSchema });

export type PlaceQuery = z.infer<typeof PlaceQuerySchema>;
export type WalkedBody = z.infer<typeof WalkedBodySchema>;
export type LogQuery = z.infer<typeof LogQuerySchema>;
export type LogPage = z.infer<typeof LogPageSchema>;
export type SearchChange = z.infer<typeof SearchChangeSchema>;
export type LibraryHistory = z.infer<typeof HistoryBodySchema>;
export type ValuesQuery = z.infer<typeof ValuesQuerySchema>;
export type Values = z.infer<typeof ValuesSchema>;
export type WordChange = z.infer<typeof WordChangeSchema>;
export type WantedVersions = z.infer<typeof WantedVersionsSchema>;
export type SavedVersion = z.infer<typeof SavedVersionsSchema>["versions"][number];
export type PresetQuery = z.infer<typeof PresetQuerySchema>;
export type PresetPage = z.infer<typeof PresetPageSchema>;
export type NewPreset = z.infer<typeof NewPresetSchema>;
export type ChangedCard = z.infer<typeof ChangedCardsSchema>["cards"][number];
export type NewPresets = z.infer<typeof NewPresetsSchema>;
export type FileBy = z.infer<typeof FileBySchema>;
export type FiledBy = z.infer<typeof FiledBySchema>;
export type PresetDetail = z.infer<typeof PresetDetailSchema>;
export type FolderChange = z.infer<typeof FolderChangeSchema>;
export type CardChanges = z.infer<typeof CardChangesSchema>;
export type NamingQuery = z.infer<typeof NamingQuerySchema>;
export type Naming = z.infer<typeof NamingSchema>;
export type Gone = z.infer<typeof GoneSchema>;
export type WantedNames = z.infer<typeof WantedNamesSchema>;
export type TakenNames = z.infer<typeof TakenNamesSchema>;
export type NearCopiesRequest = z.infer<typeof NearCopiesRequestSchema>;
export type NearCopies = z.infer<typeof NearCopiesSchema>;
