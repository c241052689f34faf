import { type Beats, type BeatsPerMinute, beats, millisecondsOf } from "./quantities";

export const NOTES = ["1/1", "1/2", "1/4", "1/8", "1/16", "1/32", "3/16", "3/8"] as const;
export const FEELS = ["straight", "dotted", "triplet"] as const;

export type Note = (typeof NOTES)[number];
export type Feel = (typeof FEELS)[number];
export interface NoteLength {
  readonly note: Note;
  readonly feel: Feel;
}

const FEEL_FACTOR: Record<Feel, number> = { straight: 1, dotted: 1.5, triplet: 2 / 3 };

/** In quarter notes, which a tempo counts. */
export function beatsOf({ note, feel }: NoteLength): Beats {
  const [top = 1, bottom = 1] = note.split("/").map(Number);
  return beats((4 * top * FEEL_FACTOR[feel]) / bottom);
}

export const isNoteLength = (value: unknown): value is NoteLength =>
  typeof value === "object" && value !== null && "note" in value;

export const formatNoteLength = ({ note, feel }: NoteLength): string =>
  feel === "straight" ? note : `${note} ${feel}`;

const WRITTEN_FEEL: Record<string, Feel> = { "": "straight", s: "straight", d: "dotted", ".": "dotted", t: "triplet" };

/** Reads "1/8", "1/8 dotted", "1/8d", "1/8." and "1/8t"; null for anything else. */
export function findNoteLength(text: string): NoteLength | null {
  const match = /^(\d+\/\d+)\s*(straight|dotted|triplet|[sdt.]?)$/i.exec(text.trim());
  const note = NOTES.find((n) => n === match?.[1]);
  const word = match?.[2]?.toLowerCase() ?? "";
  const feel = FEELS.find((f) => f === word) ?? WRITTEN_FEEL[word];
  return note && feel ? { note, feel } : null;
}

const EVERY: readonly NoteLength[] = NOTES.flatMap((note) => FEELS.map((feel) => ({ note, feel })));

/** The note length that is nearest to a time in ms, by ratio; the plainest of equals. */
export function nearestNote(ms: number, tempo: BeatsPerMinute): NoteLength {
  const far = (n: NoteLength) => Math.abs(Math.log(millisecondsOf(beatsOf(n), tempo) / ms));
  return EVERY.reduce((a, b) => (far(b) < far(a) - 1e-9 ? b : a));
}
