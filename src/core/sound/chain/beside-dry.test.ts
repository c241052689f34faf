import { describe, expect, it } from "vitest";
import { type HeardChain, type HeardNode, type HeardProcessor, heardProcessor } from "../../chains/heard-chain";
import { type Model, latencyAt } from "../../processors/model";
import { getModel } from "../../processors/models";
import type { Values } from "../../units/param-spec";
import { partialAt, setTo, stereoOf } from "../testing";
import { renderChain } from "../render";

/*
 * A model whose sound at rest is a delay stands beside the dry sound without combing: mixed by its own control, and in a
 * lane beside a bare one.
 */

/** So quiet that no curve bends and no threshold is met. */
const QUIET = 1e-3;
const FREQUENCIES = [40, 200, 1000, 4000, 8000, 12_000, 15_000, 18_000, 20_000];

const AT_REST: readonly (readonly [id: string, values: Values])[] = [
  ["tube", { drive: 0, bias: 0, makeupMode: 0 }],
  ["tube", { drive: 30, bias: 0, output: -15, makeupMode: 0 }],
  ["vca-compressor", { threshold: 0 }],
  ["fet-compressor", { threshold: 0 }],
  ["opto-compressor", { threshold: 0 }],
  ["limiter", {}],
  ["de-esser", {}],
  ["de-esser", { freq: 3000, mode: 1 }],
  ["multiband-compressor", { form: 1 }],
  ["multiband-compressor", { form: 1, lower: 400, upper: 1500 }],
  ["gain", {}],
  ["stereo-width", {}],
  ["tuner", {}],
  ["meter", {}],
];

const processor = (model: Model, values: Values): HeardProcessor => heardProcessor(model, setTo(model, values));

/** In dB at each frequency, of a click of both sides. */
function responseOf(chain: HeardChain, sampleRate: number): readonly number[] {
  const length = sampleRate / 4;
  const click = stereoOf(length, sampleRate, (i) => (i === 64 ? QUIET : 0));
  const { left } = renderChain(chain, click);
  // The part of a click at a frequency is 2 / length of its size.
  return FREQUENCIES.map((freq) => 20 * Math.log10((partialAt(left, freq, { sampleRate }).size * length) / 2 / QUIET));
}

const beside = (node: HeardNode): HeardChain => [
  {
    key: "split",
    enabled: true,
    crossovers: null,
    lanes: [[node], []].map((nodes, at) => ({
      key: `${at}`,
      enabled: true,
      gain: 0.5,
      pan: 0,
      panLaw: "pan" as const,
      nodes,
    })),
  },
];

describe.each([44_100, 48_000, 96_000])("beside the dry sound, at %i Hz,", (sampleRate) => {
  it.each(AT_REST)("%s %o is flat within 0.1 dB up to 20 kHz", (id, values) => {
    const model = getModel(id);
    const worst = (chain: HeardChain) => Math.max(...responseOf(chain, sampleRate).map(Math.abs));
    expect(worst([processor(model, values)]), "alone").toBeLessThan(0.1);
    expect(worst(beside(processor(model, values))), "beside a bare lane").toBeLessThan(0.1);
    if (model.params.some((spec) => spec.id === "mix"))
      expect(worst([processor(model, { ...values, mix: 50 })]), "half dry").toBeLessThan(0.1);
    expect(latencyAt(model, sampleRate)).toBe(Math.round(latencyAt(model, sampleRate)));
  });
});
