import type { z } from "zod";
import { part } from "./part";
import type { LookSchema } from "./schemas";

export type Look = Readonly<z.infer<typeof LookSchema>>;

export const LOOK = part<Look>({
  title: "Look",
  phrase: "the look",
  empty: (kind) => ({ name: kind }),
  words: ({ name, colour }) => [name, colour].filter(Boolean).join(", "),
  change: (from, to) => (from.name === to.name ? "look changes" : `now called ${to.name}`),
});
