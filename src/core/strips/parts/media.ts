import type { z } from "zod";
import { counted } from "../../names/count";
import { part } from "./part";
import type { MediaSchema } from "./schemas";

export type Media = Readonly<z.infer<typeof MediaSchema>>;
export type Clip = Media[number];

/** "2 clips". */
export const describeMedia = (clips: Media): string =>
  clips.length === 0 ? "no clips" : counted(clips.length, "clip");

/** Names that are told; of more the count. */
const TOLD = 2;

const named = (clips: Media): string =>
  clips.length > 0 && clips.length <= TOLD ? clips.map(({ name }) => name).join(" and ") : describeMedia(clips);

/** Sounds that lie on a strip, by what they hold. They are kept and brought along only where that is asked for. */
export const MEDIA = part<Media>({
  title: "Clips",
  phrase: "the clips",
  empty: () => [],
  words: describeMedia,
  change: (from, to) => `clips ${named(from)} → ${named(to)}`,
  isHeld: (clips) => clips.length > 0,
});
