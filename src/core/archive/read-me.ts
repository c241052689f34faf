import { MANIFEST, type Manifest } from "./manifest";

/** What lies in every archive for whoever has no Diathesis: how to read it. */
export const readMeOf = ({
  madeAt,
  madeBy,
  scope,
  counts,
}: Omit<Manifest, "entries">): string => `An archive of a library of sounds
==============================

Written by ${madeBy} on ${madeAt.slice(0, 10)}: ${scope.kind === "all" ? "the whole library" : scope.words}.
${counts.presets} sounds in ${counts.versions} versions, ${counts.folders} folders, ${counts.projects} projects, ${counts.media} sound files.

Everything in here is text (JSON, in UTF-8) or a WAV file, and can be read without any program of ours.

  ${MANIFEST}        every file in here with its size in bytes and the SHA-256 of its bytes
  folders.json         the folders, each with its name and the id of the one that it stands in
  presets/*.jsonl      the sounds: one in each line, with its card (name, folder, tags, purpose, rating, notes,
                       origin) and all its versions, the earliest first
  projects/*.json      the projects as they stand, each with its strips
  projects/*.history.jsonl   what was done to each: one change in each line, the first one first
  drafts/              what was begun on the bench and not saved
  settings.json        searches, shortcuts, starting points, patterns for names
  history/             what was done to the library, and what was wrapped up
  media.json, media/   sounds of one's own: their names, and the WAV files, each called by its SHA-256
  schemas/             the form of these documents (JSON Schema)

In a ".jsonl" file every line is a JSON document by itself. Values of plugins stand in their own units: decibels, hertz,
milliseconds; "from" says which sound and version a thing was loaded from. Times are in UTC.

To check a file: sha256sum it, and look its path up in ${MANIFEST}.
To bring all of it into a library: open Diathesis, go to the archive, and drop this file there.
`;
