import type { StripKind } from "../documents/strip-kinds";
import { type Inside, insideOfStrip } from "../library/inside";
import { groupOf } from "../projects/nesting";
import type { Project } from "../projects/project";
import { type Strip, stripName } from "../strips/strip";
import type { IndexEntry } from "./entry";
import { several } from "../names/several";
import { areBegun, wordsOf } from "../names/words";

/** What a strip of a project is found by, as it is kept beside it. */
export interface StripFace {
  readonly kind: StripKind;
  readonly name: string;
  /** What its group is called; null for one that goes elsewhere. */
  readonly group: string | null;
  readonly inside: Pick<Inside, "names" | "models" | "families" | "makers">;
}

export function faceOf(project: Project, strip: Strip): StripFace {
  const { names, models, families, makers } = insideOfStrip(strip);
  const group = groupOf(project, strip);
  return {
    kind: strip.kind,
    name: stripName(strip),
    group: group && stripName(group),
    inside: { names, models, families, makers },
  };
}

/** What is said of the project that it stands in. */
export interface StripPlace extends Pick<Project, "name" | "artist" | "client" | "song"> {
  /** When the project was changed last, in milliseconds since 1970. */
  readonly changedAt: number;
}

/** A strip, as the index of presets knows a preset: the same words and fields find it. */
export function stripEntry(row: number, { kind, name, group, inside }: StripFace, place: StripPlace): IndexEntry {
  return {
    row,
    text: {
      name,
      tags: group ?? "",
      purpose: inside.names.join(" "),
      origin: [place.name, place.song, place.artist, place.client].join(" "),
      notes: "",
    },
    values: {
      kind: [kind],
      name: [name],
      family: inside.families,
      has: inside.models,
      maker: inside.makers,
      artist: several(place.artist),
      client: several(place.client),
      song: several(place.song),
      project: [place.name],
      year: [new Date(place.changedAt).toISOString().slice(0, 4)],
      saved: [new Date(place.changedAt).toISOString().slice(0, 10)],
    },
    folder: null,
    sortName: name,
    savedAt: place.changedAt,
    touchedAt: place.changedAt,
  };
}

/** All words that one strip is found by in the project that it stands in. */
function wordsOfStrip(project: Project, strip: Strip): readonly string[] {
  const { kind, name, group, inside } = faceOf(project, strip);
  return wordsOf([name, kind, group ?? "", ...inside.names, ...inside.models, ...inside.families].join(" "));
}

/** The strips of a project of whose words each that is typed begins one; of none, all. */
export function stripsFoundBy(project: Project, typed: string): ReadonlySet<string> {
  const words = wordsOf(typed);
  return new Set(project.strips.filter((strip) => areBegun(words, wordsOfStrip(project, strip))).map(({ id }) => id));
}
