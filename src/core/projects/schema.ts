import { z } from "zod";
import { KeySchema, NameSchema } from "../chains/schema";
import { MOST_STRIPS } from "../documents/limits";
import { StripSchema } from "../strips/schema";

const Words = z.string().max(200);

export const PROJECT_SCHEMA = 1;

/** What is said of a project as a whole. */
export const DETAIL_SCHEMAS = {
  name: NameSchema,
  artist: Words,
  client: Words,
  song: Words,
  tempo: z.number().min(20).max(400),
  meter: z.strictObject({
    beats: z.int().min(1).max(32),
    unit: z.union([z.literal(2), z.literal(4), z.literal(8), z.literal(16)]),
  }),
  key: Words,
};

export const ProjectSchema = z.strictObject({
  schema: z.literal(PROJECT_SCHEMA),
  id: KeySchema,
  ...DETAIL_SCHEMAS,
  /** One to begin others from. */
  starter: z.literal(true).optional(),
  sampleRate: z.int().min(44_100).max(192_000),
  strips: z.array(StripSchema).max(MOST_STRIPS),
});
