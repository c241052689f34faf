import { z } from "zod";
import { KeySchema, NameSchema } from "../chains/schema";
import { STRIP_KINDS } from "../documents/strip-kinds";
import type { PartName, PartValues } from "./parts";
import { PART_SCHEMAS } from "./parts/schemas";

const MediaSchema = z.strictObject({ name: NameSchema, hash: z.string().regex(/^[0-9a-f]{64}$/) });

/** The compiler names a part whose schema is missing. */
const parts: { readonly [N in PartName]: z.ZodType<PartValues[N]> } = PART_SCHEMAS;

const all = {
  ...parts,
  media: z.array(MediaSchema).max(1000),
};

export const StripSchema = z.strictObject({ id: KeySchema, kind: z.enum(STRIP_KINDS), ...all });

/** A strip as a preset holds it: any subset of its parts. */
export const SavedStripSchema = z.strictObject({ kind: z.enum(STRIP_KINDS), ...z.object(all).partial().shape });
