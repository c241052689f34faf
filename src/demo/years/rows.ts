import type { Processor } from "@/core/chains/chain";
import { type Content, type Origin, chainOf } from "@/core/presets/preset";
import { chain, loaded } from "@/core/packs/writing";
import type { Value } from "@/core/units/param-spec";
import { createStrip } from "@/core/strips/strip";
import type { StripKind } from "@/core/documents/strip-kinds";
import type { DemoPreset } from "../presets";

/** The sessions of the years, each with its client; a song that has no project here was mixed before there were any. */
const SESSIONS = {
  salt: ["Copper Heron", "Salt Lanterns"],
  ferry: ["Copper Heron", "Ferry Light"],
  reeds: ["Copper Heron", "Winter Reeds"],
  neap: ["Tidal Clocks", "Neap Tide"],
  ebb: ["Tidal Clocks", "Ebb Machine"],
  slack: ["Tidal Clocks", "Slack Water"],
  slate: ["The Quarry Choir", "Slate and Rain"],
  psalm: ["The Quarry Choir", "Psalm for a Weir"],
  bells: ["The Quarry Choir", "Bells Under Hill"],
  mill: ["Moss & Meridian", "The Tidemill tour"],
  rope: ["Moss & Meridian", "The Rope Walk tour"],
} as const;

export type Session = keyof typeof SESSIONS;

export interface Row {
  readonly name: string;
  readonly folder: string;
  readonly for: string;
  readonly tags?: string;
  readonly rating?: number;
  readonly of?: readonly [session: Session, strip: string, more?: Origin];
  readonly saved: string;
  readonly used?: string;
  readonly notes?: string;
}

const slug = (name: string): string =>
  name
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");

/** A day as the instant at which the desk was saved on it. */
const at = (day: string): string => `${day}T17:30:00.000Z`;

function originOf([session, strip, more]: NonNullable<Row["of"]>, saved: string): Origin {
  const [artist, song] = SESSIONS[session];
  return { artist, client: artist, song, project: song, strip, date: saved, ...more };
}

const made = (row: Row, versions: readonly Content[]): DemoPreset => ({
  id: slug(row.name),
  name: row.name,
  folder: row.folder,
  purpose: row.for,
  tags: row.tags === undefined ? [] : row.tags.split(" "),
  rating: row.rating ?? 0,
  origin: row.of ? originOf(row.of, row.saved) : {},
  ...(row.notes === undefined ? {} : { notes: row.notes }),
  versions,
  saved: at(row.saved),
  used: row.used === undefined ? null : at(row.used),
});

/** How an earlier version differed from the newest: place in the chain, parameter, value. */
type Earlier = readonly (readonly [at: number, param: string, value: Value])[];

const NOT_LOADED = { preset: "x", version: 1, name: "x" };

/** A chain; `earlier` tells its older versions, the oldest first. */
export function ofChain(row: Row, processors: readonly Processor[], ...earlier: readonly Earlier[]): DemoPreset {
  const newest: Content = { kind: "chain", schema: 1, chain: chain(...processors) };
  const older = earlier.map((turned): Content => {
    const { from: _, ...sound } = loaded(chainOf(newest), NOT_LOADED, turned);
    return { kind: "chain", schema: 1, chain: sound };
  });
  return made(row, [...older, newest]);
}

/** A plugin; `earlier` tells the values that its older versions had otherwise, the oldest first. */
export function ofPlugin(row: Row, processor: Processor, ...earlier: readonly Processor["values"][]): DemoPreset {
  const contentOf = (values: Processor["values"]): Content => ({
    kind: "plugin",
    schema: 1,
    processor: { ...processor, values: { ...processor.values, ...values } },
  });
  return made(row, [...earlier, {}].map(contentOf));
}

/** A strip with its inserts, level and pan. */
export function ofStrip(
  row: Row,
  [kind, name, fader, pan]: readonly [kind: StripKind, name: string, fader: number, pan: number],
  ...processors: readonly Processor[]
): DemoPreset {
  const { source } = createStrip("x", kind, { name }, null);
  const strip = {
    kind,
    source,
    look: { name },
    inserts: chain(...processors),
    level: { fader, mute: false },
    pan: { pan, width: 100 },
  };
  return made(row, [{ kind: "strip", schema: 1, strip }]);
}

/** A plugin inside a chain that is a preset by itself. */
export const held = (name: string, version: number, processor: Processor): Processor => ({
  ...processor,
  from: { preset: slug(name), version, name },
});
