import type { Processor } from "@/core/chains/chain";
import { mapProcessors } from "@/core/chains/tree";
import { type Content, type Origin, isStrips, originIn } from "@/core/presets/preset";
import { saveStrips } from "@/core/presets/save";
import type { Project } from "@/core/projects/project";
import { type Strip, offeredParts } from "@/core/strips/strip";
import type { DemoPreset } from "./presets";
import { DEMO_PROJECTS } from "./projects";

/* Strips that were kept together, and whole mixes, out of the projects of the quay. */

function projectOf(id: string): Project {
  const found = DEMO_PROJECTS.find(([, project]) => project.id === id);
  if (!found) throw new Error(`The demo has no project ${id}`);
  return found[1];
}

const whole = (project: Project, strips: readonly Strip[], kind: "set" | "mix"): Content =>
  saveStrips(
    project,
    strips.map((strip) => ({ strip, parts: offeredParts(strip) })),
    kind,
  );

interface Line extends Pick<DemoPreset, "id" | "name" | "folder" | "purpose"> {
  readonly project: string;
  /** Which strips; all of them make a whole mix. */
  readonly strips: readonly string[] | "all";
  readonly tags: readonly string[];
  readonly date: string;
  readonly rating?: number;
  readonly take?: string;
  readonly notes?: string;
  /** How every plugin is in a second version, which nobody has brought to the strips yet. */
  readonly next?: (processor: Processor) => Processor;
}

/** Turned down later by the compressors, by so many dB. */
const eased =
  (by: number) =>
  (processor: Processor): Processor => {
    const { threshold } = processor.values;
    if (typeof threshold !== "number") return processor;
    return { ...processor, values: { ...processor.values, threshold: threshold + by } };
  };

const turned = (content: Content, change: (processor: Processor) => Processor): Content =>
  isStrips(content)
    ? {
        ...content,
        strips: content.strips.map((strip) =>
          strip.inserts ? { ...strip, inserts: mapProcessors(strip.inserts, change) } : strip,
        ),
      }
    : content;

function kept(line: Line): DemoPreset {
  const { project: from, strips, date, take, rating = 0, notes, next, ...card } = line;
  const project = projectOf(from);
  const isAll = strips === "all";
  const chosen = project.strips.filter(({ id }) => isAll || strips.includes(id));
  const origin: Origin = {
    artist: project.artist,
    client: project.client,
    song: project.song,
    project: project.name,
    date,
    ...(take === undefined ? {} : { take }),
  };
  const first = whole(project, chosen, isAll ? "mix" : "set");
  return {
    ...card,
    rating,
    origin,
    ...(notes === undefined ? {} : { notes }),
    versions: next ? [first, turned(first, next)] : [first],
    saved: `${date}T17:00:00.000Z`,
    used: null,
  };
}

const LINES: readonly Line[] = [
  {
    id: "frame-drum-three-ways",
    name: "Frame drum, three ways in",
    folder: "Kits and sections",
    purpose: "Percussion",
    tags: ["warm"],
    project: "salt-lanterns",
    strips: ["drum", "drum-close", "drum-rim", "drum-far", "eighths"],
    date: "2026-11-22",
    rating: 4,
    notes: "The group, its three, and the delay that the rim sends to.",
  },
  {
    id: "bowed-pair-under-a-voice",
    name: "Bowed pair that ducks under a voice",
    folder: "Kits and sections",
    purpose: "Strings",
    tags: ["gentle"],
    project: "salt-lanterns",
    strips: ["strings", "nyckelharpa", "cello", "voice"],
    date: "2026-11-23",
    rating: 5,
    next: eased(2),
  },
  {
    id: "salt-lanterns-returns",
    name: "Eighths and long echo, as returns",
    folder: "Kits and sections",
    purpose: "Returns",
    tags: ["tempo-locked"],
    project: "salt-lanterns",
    strips: ["eighths", "echo"],
    date: "2026-11-23",
  },
  {
    id: "mallets-and-their-delay",
    name: "Mallets and their delay",
    folder: "Kits and sections",
    purpose: "Mallets",
    tags: ["tempo-locked"],
    project: "neap-tide",
    strips: ["mallets", "vibes-low", "vibes-high", "bowed-bars", "ghost-vibes", "eighths"],
    date: "2026-11-19",
    rating: 4,
  },
  {
    id: "quay-kit-with-its-outputs",
    name: "Quay kit with its outputs",
    folder: "Kits and sections",
    purpose: "Drum kit",
    tags: [],
    project: "neap-tide",
    strips: ["quay-kit", "kit-snare", "kit-hats"],
    date: "2026-11-20",
  },
  {
    id: "patch-of-three",
    name: "Patch of three",
    folder: "Kits and sections",
    purpose: "Modular",
    tags: [],
    project: "neap-tide",
    strips: ["patch-bass", "patch-line", "patch-noise"],
    date: "2026-11-18",
  },
  {
    id: "tour-voices-in-the-gallery",
    name: "Tour voices in the gallery",
    folder: "Kits and sections",
    purpose: "Narration",
    tags: ["close"],
    project: "tidemill-tour",
    strips: ["narrator", "miller", "gallery"],
    date: "2026-11-24",
    rating: 4,
  },
  {
    id: "tidemill-sounds-of-the-place",
    name: "Tidemill, sounds of the place",
    folder: "Kits and sections",
    purpose: "Field sounds",
    tags: [],
    project: "tidemill-tour",
    strips: ["wheel", "water", "steps"],
    date: "2026-11-21",
  },
  {
    id: "choir-in-four",
    name: "Choir in four, under one group",
    folder: "Kits and sections",
    purpose: "Choir",
    tags: ["gentle"],
    project: "psalm-for-a-weir",
    strips: ["choir", "upper", "soprano", "alto", "tenor", "bass"],
    date: "2025-11-28",
    rating: 5,
    notes: "The upper two stand in a group of their own within the choir.",
  },
  {
    id: "quintet-as-it-sat",
    name: "Quintet as it sat",
    folder: "Kits and sections",
    purpose: "Brass",
    tags: ["warm"],
    project: "psalm-for-a-weir",
    strips: ["quintet", "trumpets", "horn", "trombone", "tuba"],
    date: "2025-11-29",
  },
  {
    id: "quintet-close",
    name: "Quintet, close and dry",
    folder: "Kits and sections",
    purpose: "Brass",
    tags: ["close"],
    project: "slate-and-rain",
    strips: ["quintet", "trumpets", "horn", "trombone", "tuba"],
    date: "2026-11-09",
    next: eased(3),
  },
  {
    id: "ferry-light-three-returns",
    name: "Ferry Light, plate, answer and fog",
    folder: "Kits and sections",
    purpose: "Returns",
    tags: [],
    project: "ferry-light",
    strips: ["plate", "answer", "fog"],
    date: "2026-10-01",
    rating: 4,
  },
  {
    id: "heron-voices-two",
    name: "Heron voices, verses and choruses",
    folder: "Kits and sections",
    purpose: "Lead vocal",
    tags: ["tempo-locked"],
    project: "ferry-light",
    strips: ["voice", "voice-up", "plate", "answer", "fog"],
    date: "2026-10-02",
    rating: 5,
  },
  {
    id: "ferry-light-mix-2-oct",
    name: "Ferry Light, whole mix",
    folder: "Kits and sections/Whole mixes",
    purpose: "Whole mix",
    tags: [],
    project: "ferry-light",
    strips: "all",
    date: "2026-10-02",
    take: "4",
  },
  {
    id: "psalm-mix-1-dec",
    name: "Psalm for a Weir, whole mix",
    folder: "Kits and sections/Whole mixes",
    purpose: "Whole mix",
    tags: [],
    project: "psalm-for-a-weir",
    strips: "all",
    date: "2025-12-01",
    take: "2",
  },
  {
    id: "rope-walk-mix-19-mar",
    name: "The Rope Walk tour, whole mix",
    folder: "Kits and sections/Whole mixes",
    purpose: "Whole mix",
    tags: [],
    project: "rope-walk-tour",
    strips: "all",
    date: "2026-03-19",
  },
];

export const DEMO_SETS: readonly DemoPreset[] = LINES.map(kept);

/** A strip goes by the set that it was saved in last, rather than by the whole mix. */
const BY_WEIGHT = LINES.toSorted(
  (a, b) => Number(b.strips === "all") - Number(a.strips === "all") || a.date.localeCompare(b.date),
);

/** The projects, their strips going by the first versions of the sets that were saved from them. */
export const FOLLOWING_PROJECTS: typeof DEMO_PROJECTS = DEMO_PROJECTS.map(([at, project]) => {
  const strips = project.strips.map((strip) => {
    const line = BY_WEIGHT.findLast(
      (one) => one.project === project.id && (one.strips === "all" || one.strips.includes(strip.id)),
    );
    if (!line || strip.kind === "folder") return strip;
    const from = originIn(strip.inserts, { preset: line.id, version: 1, name: line.name, strip: strip.id });
    return { ...strip, inserts: { ...strip.inserts, from } };
  });
  return [at, { ...project, strips }];
});
