import { z } from "zod";
import { SettingsSchema } from "@/core/settings/schema";

export const HealthSchema = z.strictObject({
  ok: z.literal(true),
  version: z.string(),
  commit: z.string().optional(),
  schema: z.int(),
  counts: z.strictObject({ presets: z.int(), projects: z.int(), models: z.int() }),
});

export const SettingsBodySchema = z.strictObject({ settings: SettingsSchema, revision: z.int().min(0) });
export const SettingsChangeSchema = z.strictObject({ baseRevision: z.int().min(0), settings: SettingsSchema });

export const ModelSchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  maker: z.string(),
  family: z.string(),
  params: z.array(z.unknown()),
  channels: z.strictObject({ in: z.int(), out: z.int() }),
  latency: z.int(),
  lookAhead: z.number(),
  /** The parameter that says by how many milliseconds it looks ahead besides. */
  aheadBy: z.string().nullable(),
  oversamples: z.boolean(),
  lead: z.string(),
  /** Parameters of which a change is a cross-fade. */
  structural: z.array(z.string()),
  isKeyed: z.boolean(),
  widens: z.boolean(),
  holdsLevels: z.boolean(),
  limits: z.boolean(),
  hasCabinet: z.boolean(),
  needsTwoSides: z.boolean(),
  playsSample: z.boolean(),
  /** What it reads while it sounds: dB of reduction, 0 or below; Hz; LUFS. */
  reads: z.enum(["reduction", "pitch", "loudness"]).nullable(),
  hearable: z.boolean(),
  /** Of an instrument with several: what each carries. */
  outputs: z.array(z.string()).optional(),
});
export const ModelListSchema = z.strictObject({ models: z.array(ModelSchema) });
/** Of each model: presets of it, presets with it inside, and strips of projects that have it. */
export const ModelCountsSchema = z.strictObject({
  counts: z.record(z.string(), z.strictObject({ presets: z.int(), inside: z.int(), uses: z.int() })),
});
export const ModelBodySchema = z.strictObject({ model: ModelSchema });
export const EmptySchema = z.strictObject({ ok: z.literal(true) });

/** How many were taken away for good. */
export const RemovedSchema = z.strictObject({ gone: z.int() });

export type Health = z.infer<typeof HealthSchema>;
export type ModelCounts = z.infer<typeof ModelCountsSchema>;
export type SettingsBody = z.infer<typeof SettingsBodySchema>;
export type SettingsChange = z.infer<typeof SettingsChangeSchema>;
