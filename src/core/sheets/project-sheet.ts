import { counted } from "../names/count";
import { processorsOf } from "../chains/tree";
import { type Project, describeOutput, nameIn } from "../projects/project";
import { leadsOf } from "../strips/leads";
import { PART } from "../strips/parts";
import { describeLevel } from "../strips/parts/level";
import { describePan } from "../strips/parts/pan";
import { describeSource } from "../strips/parts/source";
import { type Strip, stripName } from "../strips/strip";
import { beatsPerMinute } from "../units/quantities";
import type { SheetContext } from "./plugin-block";
import { type Block, type Fact, type RecallSheet, type Table, factOf } from "./sheet";
import { stripBlocks } from "./strip-blocks";

/** What a strip hears of others, by the words of the parts that lead to it: "goes to", "sends to", "is keyed by". */
type Arriving = ReadonlyMap<string, ReadonlyMap<string, readonly string[]>>;

const ARRIVING: Readonly<Record<string, string>> = {
  "goes to": "Hears the output of",
  "sends to": "Hears sends of",
  "stands in": "Holds",
};

function arrivingAt({ strips }: Project): Arriving {
  const arriving = new Map<string, Map<string, string[]>>();
  for (const strip of strips)
    for (const { part, to } of leadsOf(strip)) {
      const label = ARRIVING[PART[part].aims?.leads ?? ""];
      if (label === undefined || !("strip" in to)) continue;
      const own = arriving.get(to.strip) ?? new Map<string, string[]>();
      const names = own.get(label) ?? [];
      own.set(label, names.includes(stripName(strip)) ? names : [...names, stripName(strip)]);
      arriving.set(to.strip, own);
    }
  return arriving;
}

const arrivingFacts = (arriving: Arriving, id: string): readonly Fact[] =>
  [...(arriving.get(id) ?? [])].map(([label, names]) => ({ label, text: names.join(", ") }));

const COLUMNS: Table["columns"] = [
  { title: "", isNumber: true },
  { title: "Strip" },
  { title: "Kind" },
  { title: "Source" },
  { title: "Plugins", isNumber: true },
  { title: "Sends", isNumber: true },
  { title: "Level", isNumber: true },
  { title: "Pan", isNumber: true },
  { title: "Output" },
];

function overviewRow(project: Project, strip: Strip, n: number): readonly string[] {
  const nameOf = nameIn(project);
  const own = [String(n), stripName(strip), strip.kind];
  if (strip.kind === "folder") return [...own, "", "", "", "", "", ""];
  return [
    ...own,
    describeSource(strip, { nameOf }),
    String(processorsOf(strip.inserts).length),
    String(strip.sends.length),
    describeLevel(strip.level),
    describePan(strip.pan),
    describeOutput(project, strip.routing.output),
  ];
}

function detailFacts(project: Project): readonly Fact[] {
  const { artist, client, song, tempo, meter, key, sampleRate } = project;
  return [
    ...factOf("Artist", artist),
    ...factOf("Client", client),
    ...factOf("Song", song),
    { label: "Tempo", text: `${tempo} bpm, ${meter.beats}/${meter.unit}` },
    ...factOf("Key", key),
    { label: "Sample rate", text: `${sampleRate / 1000} kHz` },
  ];
}

/** All strips of a project, or those of them that are wanted by their ids: how they stand together, then each with all that is set on it. */
export function projectSheet(project: Project, wanted?: ReadonlySet<string>): RecallSheet {
  const numbered = project.strips
    .map((strip, at) => ({ strip, n: at + 1 }))
    .filter(({ strip }) => wanted?.has(strip.id) ?? true);
  const context: SheetContext = { tempo: beatsPerMinute(project.tempo), nameOf: nameIn(project) };
  const arriving = arrivingAt(project);
  const strips = numbered.flatMap(({ strip, n }): readonly Block[] => [
    { kind: "heading", rank: 1, text: `${n} ${stripName(strip)}`, aside: strip.kind },
    ...stripBlocks(strip, context, arrivingFacts(arriving, strip.id)),
  ]);
  const overview = numbered.map(({ strip, n }) => overviewRow(project, strip, n));
  const [only, ...others] = numbered;
  const isOne = wanted !== undefined && only !== undefined && others.length === 0;
  return {
    title: isOne ? stripName(only.strip) : project.name,
    of: isOne
      ? `Strip of ${project.name}`
      : wanted
        ? `${counted(numbered.length, "strip")} of ${project.strips.length}`
        : "Project",
    facts: detailFacts(project),
    notes: "",
    blocks: isOne
      ? strips
      : [{ kind: "table", title: "Strips", table: { columns: COLUMNS, rows: overview } }, ...strips],
  };
}
