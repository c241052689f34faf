import { type Chain, type Processor, processorName } from "../chains/chain";
import { mapProcessors, processorsOf } from "../chains/tree";
import { findFault, findSpec, heardValue } from "../processors/model";
import { findModel } from "../processors/models";
import type { Value } from "../units/param-spec";
import { isNoteLength } from "../units/note-length";
import { beatsPerMinute } from "../units/quantities";
import { stripName } from "../strips/strip";
import { type PartContext, ask } from "./plan-aims";
import type { Step } from "./steps";

/* What is asked of a chain before it goes onto a strip: whether it fits the strip's sides, its place and the tempo here. */

/** Mono onto stereo and back: the strip stays as it is, or gets the sides of the one that this was set on. An input never comes along. */
export function planSides({ draft, input, request, strip, saved }: PartContext): readonly Step[] {
  const [there, here] = [saved.source, strip.source];
  if (!there || here.type !== "input" || there.channels === here.channels) return [];
  if (request.mode === "values" || processorsOf(saved.inserts ?? { nodes: [], macros: [] }).length === 0) return [];
  const name = stripName(strip);
  const answer = ask(draft, input, {
    id: `channels:${strip.id}`,
    strip: strip.id,
    text: `“${request.source.name}” was set on a ${there.channels} strip, and ${name} is ${here.channels}.`,
    choices: [
      { id: "stay", text: `Leave ${name} ${here.channels}` },
      { id: "turn", text: `Make ${name} ${there.channels}` },
    ],
    answer: "stay",
  });
  if (answer === "stay") return [];
  const to = { ...here, channels: there.channels };
  return [{ id: input.mint(), kind: "setPart", strip: strip.id, part: "source", from: here, to }];
}

/** What lets the dry sound through where there should be only what was made of it, each with the value that does not. */
function dryOf(chain: Chain): ReadonlyMap<string, Readonly<Record<string, Value>>> {
  const wet = new Map<string, Readonly<Record<string, Value>>>();
  for (const { key, model: id, enabled, values } of processorsOf(chain)) {
    const model = findModel(id);
    if (!enabled || !model || (model.family !== "reverb" && model.family !== "delay")) continue;
    const full = model.params.flatMap(({ id: param, meaning, min, max }): [string, Value][] => {
      const value = values[param];
      if (typeof value !== "number") return [];
      if (meaning === "dry.dB" && value > min) return [[param, min]];
      return meaning === "mix.pct" && value < max ? [[param, max]] : [];
    });
    if (full.length > 0) wet.set(key, Object.fromEntries(full));
  }
  return wet;
}

/** A return brings what was made of a sound; that sound itself is heard where it comes from. */
function asReturn({ draft, input, strip, saved }: PartContext, chain: Chain): Chain {
  if (strip.kind !== "return" || saved.kind === "return") return chain;
  const wet = dryOf(chain);
  if (wet.size === 0) return chain;
  const names = processorsOf(chain).flatMap((p) => (wet.has(p.key) ? [processorName(p)] : []));
  const answer = ask(draft, input, {
    id: `wet:${strip.id}`,
    strip: strip.id,
    text: `${names.join(" and ")} would let the dry sound through on the return ${stripName(strip)}.`,
    choices: [
      { id: "wet", text: "Make it fully wet" },
      { id: "keep", text: "Leave it as it was saved" },
    ],
    answer: "wet",
  });
  if (answer === "keep") return chain;
  return mapProcessors(chain, (p) => ({ ...p, values: { ...p.values, ...wet.get(p.key) } }));
}

/** A processor whose note lengths are as long, in milliseconds, as they are at a tempo. */
function asLongAs(processor: Processor, tempo: number): Processor {
  const model = findModel(processor.model);
  if (!model) return processor;
  const values = Object.entries(processor.values).map(([id, value]): [string, Value] => {
    const spec = findSpec(model, id);
    if (!spec || !isNoteLength(value)) return [id, value];
    const long = heardValue(spec, value, beatsPerMinute(tempo));
    return [id, findFault(spec, long) === null ? long : value];
  });
  return { ...processor, values: Object.fromEntries(values) };
}

const followsTempo = (chain: Chain): boolean =>
  processorsOf(chain).some(({ values }) => Object.values(values).some(isNoteLength));

/** Two tempos nearer than this are one, in beats per minute. */
const SAME_TEMPO = 0.01;

/** What follows the tempo follows that of this project, or stays as long as it was where it comes from. */
function inTempo({ draft, input, request: { source }, strip }: PartContext, chain: Chain): Chain {
  const { tempo: here } = draft.project;
  const { tempo: there } = source;
  if (there === undefined || Math.abs(there - here) < SAME_TEMPO || !followsTempo(chain)) return chain;
  const answer = ask(draft, input, {
    id: `tempo:${there}`,
    strip: strip.id,
    text: `“${source.name}” follows the tempo. Where it comes from that is ${there} bpm, here ${here} bpm.`,
    choices: [
      { id: "follow", text: `Let it follow ${here} bpm` },
      { id: "keep", text: `Keep its times as long as they were at ${there} bpm` },
    ],
    answer: "follow",
  });
  return answer === "follow" ? chain : mapProcessors(chain, (p) => asLongAs(p, there));
}

/** A chain as it goes onto a strip, by the answers that are in force. */
export const incoming = (context: PartContext, chain: Chain): Chain =>
  context.request.mode === "values" ? chain : inTempo(context, asReturn(context, chain));
