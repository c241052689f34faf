import type { z } from "zod";
import type { StripRef } from "../../chains/chain";
import { type Surroundings, part } from "./part";
import type { LookSchema } from "./schemas";
import { nameOfTarget } from "./sends";

export type Look = Readonly<z.infer<typeof LookSchema>>;

/** The same look in another folder; in none where that is null. */
export function inFolder({ folder: _, ...look }: Look, folder: StripRef | null): Look {
  return folder === null ? look : { ...look, folder };
}

const folderWords = ({ folder }: Look, around: Surroundings): string | null =>
  folder ? nameOfTarget(folder, around) : null;

function change(from: Look, to: Look, around: Surroundings): string {
  if (from.name !== to.name) return `now called ${to.name}`;
  const [was, is] = [folderWords(from, around), folderWords(to, around)];
  if (was === is) return "look changes";
  return is === null ? `out of ${was}` : `into ${is}`;
}

/** How a strip is called and marked, and the folder in which it stands. */
export const LOOK = part<Look>({
  title: "Look",
  phrase: "the look",
  empty: (kind) => ({ name: kind }),
  words: (look, around) =>
    [look.name, look.colour, folderWords(look, around) && `in ${folderWords(look, around)}`].filter(Boolean).join(", "),
  change,
  aims: {
    way: null,
    leads: "stands in",
    at: () => ".folder",
    of: ({ folder }) => (folder ? [folder] : []),
    mapped: (look, aim) => (look.folder ? inFolder(look, aim(look.folder)) : look),
    takes: (kind) => kind === "folder",
    whenNone: "leftOut",
    question: null,
  },
  isOfSound: false,
});
