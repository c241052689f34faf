import { renderChain } from "../../src/core/sound/render";
import { drumWithCello } from "../../src/core/materials/drum-with-cello";
import { SIX_PROCESSORS } from "./chain";

/** Ten seconds through six processors; answers with the samples, and the milliseconds that the rendering took. */

const RATE = 48_000;
const SECONDS = 10;

const { left, right } = drumWithCello(RATE);
const looped = (samples: Float32Array) =>
  Float32Array.from({ length: SECONDS * RATE }, (_, i) => samples[i % samples.length]!);
const loop = { left: looped(left), right: looped(right), sampleRate: RATE };

addEventListener("message", () => {
  const begin = performance.now();
  const rendered = renderChain(SIX_PROCESSORS, loop);
  const bare = performance.now() - begin;
  const { left: one, right: other } = rendered;
  postMessage({ bare, left: one, right: other }, { transfer: [one.buffer, other.buffer] });
});
