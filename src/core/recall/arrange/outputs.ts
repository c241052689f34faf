import { findModel } from "../../processors/models";
import { type Project, freeStripName } from "../../projects/project";
import { flowOf, wayBetween } from "../../projects/signal-flow";
import { layersOf } from "../../strips/parts/source";
import { type Strip, createStrip, stripName } from "../../strips/strip";
import { startOrder } from "./order";
import type { Step } from "../steps";

/* Outputs of an instrument, each of which a strip of its own can receive. */

export interface InstrumentOutput {
  /** As a receiving strip names it, from 1. */
  readonly n: number;
  readonly name: string;
}

/** The outputs of an instrument strip that has several: those of the first of its layers that has. */
export function outputsOf(strip: Strip): readonly InstrumentOutput[] {
  const names = layersOf(strip).map(({ instrument }) => findModel(instrument.model)?.outputs ?? []);
  const several = names.find((outputs) => outputs.length > 1) ?? [];
  return several.map((name, at) => ({ n: at + 1, name }));
}

const isFed = ({ source }: Strip, by: string): boolean =>
  source.type === "output" && "strip" in source.strip && source.strip.strip === by;

/** The outputs of an instrument strip that no strip receives yet. */
export function freeOutputs(project: Project, instrument: Strip): readonly InstrumentOutput[] {
  const received = project.strips.flatMap((strip) =>
    isFed(strip, instrument.id) && strip.source.type === "output" ? [strip.source.output] : [],
  );
  return outputsOf(instrument).filter(({ n }) => !received.includes(n));
}

/** Instrument strips with several outputs that a strip may receive without hearing itself. */
export function feedersFor(project: Project, strip: Pick<Strip, "id">): readonly Strip[] {
  const flow = flowOf(project);
  return project.strips.filter(
    (one) => one.id !== strip.id && outputsOf(one).length > 0 && wayBetween(flow, strip.id, one.id) === null,
  );
}

/** A strip for each output that none receives yet, in order behind the instrument, and going where that goes. */
export function receiveOutputs(
  project: Project,
  instrument: Strip,
  mint: () => string,
): { readonly steps: readonly Step[]; readonly strips: readonly string[] } {
  const order = startOrder(project.strips, mint);
  const made: Strip[] = [];
  let after = instrument.id;
  for (const { n, name } of freeOutputs(project, instrument)) {
    const taken = { ...project, strips: [...project.strips, ...made] };
    const called = freeStripName(taken, `${stripName(instrument)}, ${name.toLowerCase()}`);
    const strip: Strip = {
      ...createStrip(mint(), "audio", { name: called }, instrument.routing.output),
      source: { type: "output", channels: "stereo", strip: { strip: instrument.id }, output: n },
    };
    order.place(strip, after);
    made.push(strip);
    after = strip.id;
  }
  return { steps: order.steps, strips: made.map(({ id }) => id) };
}
