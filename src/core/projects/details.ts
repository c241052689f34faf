import type { Project } from "./project";

/** What is said of a project as a whole. */
export type Details = Pick<Project, "name" | "artist" | "client" | "song" | "tempo" | "meter" | "key">;

type DetailName = keyof Details;

/** How each is told, and the unit that stands behind. */
const WORDS: { readonly [D in DetailName]: { readonly text: (value: Details[D]) => string; readonly unit?: string } } =
  {
    name: { text: (name) => name },
    artist: { text: (artist) => artist },
    client: { text: (client) => client },
    song: { text: (song) => song },
    tempo: { text: String, unit: "bpm" },
    meter: { text: ({ beats, unit }) => `${beats}/${unit}` },
    key: { text: (key) => key },
  };

/** In the order in which they are read. */
export const DETAILS = Object.keys(WORDS) as readonly DetailName[];

/** "tempo 92 → 96 bpm", "artist none → Copper Heron". */
export function describeDetailChange<D extends DetailName>(detail: D, from: Details[D], to: Details[D]): string {
  const { text, unit } = WORDS[detail];
  const [before, after] = [text(from), text(to)].map((words) => (words === "" ? "none" : words));
  return [`${detail} ${before} → ${after}`, ...(unit ? [unit] : [])].join(" ");
}
