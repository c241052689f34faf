import { z } from "zod";
import { NameSchema } from "../../chains/schema";
import { part } from "./part";

const LookSchema = z.strictObject({
  name: NameSchema,
  colour: z.string().max(40).optional(),
  icon: z.string().max(40).optional(),
});
export type Look = Readonly<z.infer<typeof LookSchema>>;

export const LOOK = part<Look>({
  title: "Look",
  phrase: "the look",
  schema: LookSchema,
  empty: (kind) => ({ name: kind }),
  words: ({ name, colour }) => [name, colour].filter(Boolean).join(", "),
  change: (from, to) => (from.name === to.name ? "look changes" : `now called ${to.name}`),
});
