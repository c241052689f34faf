import { z } from "zod";
import { MOST_STRIPS } from "@/core/documents/limits";

const Id = z.string().min(1).max(80);

export const PresetSheetQuerySchema = z.strictObject({
  version: z.coerce.number().int().min(1).optional(),
  /** In beats per minute: at which note lengths are heard. */
  tempo: z.coerce.number().min(20).max(400).optional(),
});

export const ProjectSheetQuerySchema = z.strictObject({
  /** Ids of strips, with commas between them; all where it is left out. */
  strips: z
    .string()
    .max(MOST_STRIPS * 40)
    .transform((ids) => ids.split(",").filter((id) => id !== ""))
    .pipe(z.array(Id).min(1).max(MOST_STRIPS))
    .optional(),
});
