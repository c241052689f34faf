import type { Chain } from "@/core/chains/chain";
import { mapProcessors, processorsOf } from "@/core/chains/tree";
import { loaded } from "@/core/packs/writing";
import { chainOf } from "@/core/presets/preset";
import type { Value } from "@/core/units/param-spec";
import type { Project } from "@/core/projects/project";
import { type Strip, createStrip } from "@/core/strips/strip";
import type { Send } from "@/core/strips/parts/sends";
import type { Layer } from "@/core/strips/parts/source";
import type { StripKind } from "@/core/documents/strip-kinds";
import { DEMO_SOUNDS } from "./sounds";

interface StripLine {
  readonly id: string;
  readonly kind?: StripKind;
  readonly name: string;
  readonly to?: string;
  readonly input?: string;
  readonly stereo?: boolean;
  readonly inserts?: Chain;
  readonly layers?: readonly Layer[];
  /** Plays an output of an instrument: which strip that is, and which of its outputs. */
  readonly outputOf?: readonly [strip: string, output: number];
  readonly fader: number;
  readonly pan?: number;
  /** Levels, in dB, by the ids of the buses that it sends to, behind the fader. */
  readonly sends?: Readonly<Record<string, number>>;
  /** Before the fader. */
  readonly presends?: Readonly<Record<string, number>>;
  /** By which strip each of its plugins is keyed, by their places. */
  readonly keyedBy?: Readonly<Record<number, string>>;
  readonly colour?: string;
  readonly icon?: string;
  /** In which it stands. */
  readonly folder?: string;
}

const sendsOf = (levels: Readonly<Record<string, number>>, tap: Send["tap"]): readonly Send[] =>
  Object.entries(levels).map(([to, level]) => ({
    key: `${tap}-${to}`,
    to: { strip: to },
    tap,
    level,
    pan: 0,
    on: true,
  }));

/** A chain in which plugins are keyed by strips. */
function keyed(inserts: Chain, by: Readonly<Record<number, string>>): Chain {
  const places = new Map(processorsOf(inserts).map(({ key }, at) => [key, by[at]]));
  return mapProcessors(inserts, (processor) => {
    const strip = places.get(processor.key);
    return strip === undefined ? processor : { ...processor, keyInput: { strip: { strip }, tap: "pre" } };
  });
}

/** What comes in: layers that are played, an input, or other strips. */
function sourceOf(line: StripLine, blank: Strip): Strip["source"] {
  const { layers, outputOf, kind = "audio", stereo = false, input = "" } = line;
  if (outputOf) return { type: "output", channels: "stereo", strip: { strip: outputOf[0] }, output: outputOf[1] };
  if (layers) return { type: "layers", channels: "stereo", layers: [...layers] };
  if (kind !== "audio") return blank.source;
  return { type: "input", channels: stereo ? "stereo" : "mono", input, gain: 0, inverted: false };
}

const lookOf = ({ name, colour, icon, folder }: StripLine): Strip["look"] => ({
  name,
  ...(folder ? { folder: { strip: folder } } : {}),
  ...(colour ? { colour } : {}),
  ...(icon ? { icon } : {}),
});

function strip(line: StripLine): Strip {
  const { id, kind = "audio", to = "main", inserts, fader, pan = 0, keyedBy = {} } = line;
  const blank = createStrip(id, kind, lookOf(line), kind === "main" ? { hardware: "Out 1–2" } : { strip: to });
  return {
    ...blank,
    source: sourceOf(line, blank),
    inserts: inserts ? keyed(inserts, keyedBy) : blank.inserts,
    sends: [...sendsOf(line.sends ?? {}, "post"), ...sendsOf(line.presends ?? {}, "pre")],
    level: { fader, mute: false },
    pan: { pan, width: 100 },
  };
}

type Turned = readonly (readonly [at: number, param: string, value: Value])[];

/** A version of a preset of the library, counted from the newest, with what was turned since. */
export function kept(id: string, turned: Turned = [], back = 0): Chain {
  const preset = DEMO_SOUNDS.find((p) => p.id === id);
  const version = (preset?.versions.length ?? 0) - back;
  const content = preset?.versions[version - 1];
  if (!preset || !content) throw new Error(`The demo has no preset ${id}`);
  return loaded(chainOf(content), { preset: id, version, name: preset.name }, turned);
}

interface ProjectLine {
  readonly id: string;
  readonly name: string;
  readonly artist: string;
  readonly tempo: number;
  readonly key?: string;
}

export const project = ({ id, name, artist, tempo, key = "" }: ProjectLine, strips: readonly StripLine[]): Project => ({
  schema: 1,
  id,
  name,
  artist,
  client: artist,
  song: name,
  tempo,
  meter: { beats: 4, unit: 4 },
  key,
  sampleRate: 48_000,
  strips: strips.map(strip),
});
