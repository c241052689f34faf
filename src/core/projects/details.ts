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

const plainly = <D extends DetailName>(detail: D, value: Details[D]): string => WORDS[detail].text(value) || "none";

const withUnit = (detail: DetailName, words: string): string => [words, WORDS[detail].unit ?? []].flat().join(" ");

/** "96 bpm", "Copper Heron", "none". */
export const sayDetail = <D extends DetailName>(detail: D, value: Details[D]): string =>
  withUnit(detail, plainly(detail, value));

/** "tempo 92 → 96 bpm", "artist none → Copper Heron". */
export const describeDetailChange = <D extends DetailName>(detail: D, from: Details[D], to: Details[D]): string =>
  withUnit(detail, `${detail} ${plainly(detail, from)} → ${plainly(detail, to)}`);
