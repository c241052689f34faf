import { z } from "zod";
import { KeySchema, NameSchema, StripRefSchema } from "../chains/schema";
import { STRIP_KINDS } from "../documents/strip-kinds";
import { FADER, PAN } from "./params";
import type { PartName, PartValues } from "./parts";
import { PART_SCHEMAS } from "./parts/schemas";

const ranged = ({ min, max }: { min: number; max: number }) => z.number().min(min).max(max);

const SendSchema = z.strictObject({
  key: KeySchema,
  to: StripRefSchema,
  tap: z.enum(["pre", "post"]),
  level: ranged(FADER),
  pan: ranged(PAN),
  on: z.boolean(),
});

const MediaSchema = z.strictObject({ name: NameSchema, hash: z.string().regex(/^[0-9a-f]{64}$/) });

/** The compiler names a part whose schema is missing. */
const parts: { readonly [N in PartName]: z.ZodType<PartValues[N]> } = PART_SCHEMAS;

const all = {
  ...parts,
  sends: z.array(SendSchema).max(64),
  media: z.array(MediaSchema).max(1000),
};

export const StripSchema = z.strictObject({ id: KeySchema, kind: z.enum(STRIP_KINDS), ...all });

/** A strip as a preset holds it: any subset of its parts. */
export const SavedStripSchema = z.strictObject({ kind: z.enum(STRIP_KINDS), ...z.object(all).partial().shape });
