import { type PresetRef, type Processor, processorName } from "../chains/chain";
import { findMaterial } from "../materials/material";
import { drawScaled } from "../plots/scale";
import { type Model, heardValues } from "../processors/model";
import { findModel } from "../processors/models";
import { nameOfTarget } from "../strips/parts/sends";
import { formatHeard, formatPlain } from "../units/format";
import { formatNoteLength, isNoteLength } from "../units/note-length";
import { type ParamSpec, type Value, valueIn } from "../units/param-spec";
import type { BeatsPerMinute } from "../units/quantities";
import { type Block, type Fact, type Table, type ValueGroup, factOf } from "./sheet";

/** What a plugin is told beside: the tempo that note lengths are heard at, and how strips are called. */
export interface SheetContext {
  readonly tempo: BeatsPerMinute;
  readonly nameOf: (strip: string) => string | null;
}

/** The size in which plots are drawn; paper scales it. */
const BOX = { width: 240, height: 120 };

/** "Night hall, version 3". */
export const fromWords = (from: PresetRef | undefined): string | null =>
  from ? `${from.name}, version ${from.version}` : null;

/** "1/8 dotted (281 ms)", "−18.0 dB". */
function write(spec: ParamSpec, value: Value, tempo: BeatsPerMinute): string {
  const heard = formatHeard(spec, value, tempo);
  // Slopes are choices that are numbers.
  const unit = spec.choices && spec.unit !== "" ? ` ${spec.unit}` : "";
  return formatPlain(spec, value) + unit + (heard ? ` (${heard.text} ${heard.unit})` : "");
}

/** Of "Band 2 frequency" in the group "Band 2": "Frequency". Null where the name does not begin with the group. */
function withinGroup({ name, group }: ParamSpec): string | null {
  if (group === undefined || !name.startsWith(group)) return null;
  const rest = name.slice(group.length).trim();
  return rest === "" ? "Used" : rest.charAt(0).toUpperCase() + rest.slice(1);
}

type Written = (spec: ParamSpec) => string;

/** Groups whose values go by the same names, as bands do: a row for each, a column for each name. Null where there are not two. */
function alikeIn(model: Model, grouped: ReadonlyMap<string, readonly ParamSpec[]>, written: Written): Table | null {
  const bands = [...grouped].filter(
    ([, specs]) => specs.length > 1 && specs.every((spec) => withinGroup(spec) !== null),
  );
  const names = new Set(bands.flatMap(([, specs]) => specs.map(withinGroup)));
  const shared = [...names].filter((name) =>
    bands.every(([, specs]) => specs.some((spec) => withinGroup(spec) === name)),
  );
  if (bands.length < 2 || shared.length === 0) return null;
  const columns = [...names].map((title) => ({ title: title ?? "", isNumber: true as const }));
  const rows = bands.map(([group, specs]) => [
    group,
    ...columns.map(({ title }) => {
      const spec = specs.find((one) => withinGroup(one) === title);
      return spec ? written(spec) : "";
    }),
  ]);
  return { columns: [{ title: model.family === "delay" ? "Tap" : "Band" }, ...columns], rows };
}

function groupsOf(model: Model): ReadonlyMap<string, readonly ParamSpec[]> {
  const groups = new Map<string, ParamSpec[]>();
  for (const spec of model.params) {
    const group = spec.group ?? "";
    groups.set(group, [...(groups.get(group) ?? []), spec]);
  }
  return groups;
}

function keyWords({ keyInput }: Processor, { nameOf }: SheetContext): string | null {
  if (!keyInput) return null;
  if ("material" in keyInput) return findMaterial(keyInput.material)?.name ?? keyInput.material;
  return `${nameOfTarget(keyInput.strip, { nameOf })}, ${keyInput.tap === "pre" ? "before" : "after"} the fader`;
}

const rawValue = (value: Value): string => (isNoteLength(value) ? formatNoteLength(value) : String(value));

const factsOf = (processor: Processor, context: SheetContext): readonly Fact[] => [
  ...factOf("From", fromWords(processor.from)),
  ...factOf("Detector hears", keyWords(processor, context)),
  ...factOf("State, by its SHA-256", processor.state?.hash),
];

/** A plugin that is not known here: its values as they came. */
function unknown(processor: Processor): readonly ValueGroup[] {
  const values = Object.entries(processor.values).map(([label, value]) => ({ label, text: rawValue(value) }));
  return values.length === 0 ? [] : [{ title: "", values }];
}

/** A plugin with all its values, its picture, and what it came from. */
export function pluginBlock(processor: Processor, place: string, context: SheetContext): Block {
  const model = findModel(processor.model);
  const name = processorName(processor);
  const head = { kind: "plugin", place, name, isOff: !processor.enabled, facts: factsOf(processor, context) } as const;
  if (!model) {
    const of = processor.label === undefined ? "not known here" : `${processor.model}, not known here`;
    return { ...head, model: of, alike: null, groups: unknown(processor), plot: null };
  }
  const written: Written = (spec) => write(spec, valueIn(processor.values, spec), context.tempo);
  const grouped = groupsOf(model);
  const alike = alikeIn(model, grouped, written);
  const inRows = new Set(alike?.rows.map(([group]) => group));
  return {
    ...head,
    model: name === model.name ? model.maker : `${model.name}, ${model.maker}`,
    alike,
    groups: [...grouped]
      .filter(([title]) => !inRows.has(title))
      .map(([title, specs]) => ({ title, values: specs.map((spec) => ({ label: spec.name, text: written(spec) })) })),
    plot: { box: BOX, ...drawScaled(model, heardValues(model, processor.values, context.tempo), BOX) },
  };
}
