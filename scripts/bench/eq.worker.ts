import { createParametricEq } from "../../src/core/processors/equaliser/parametric-eq/kernel";

/** Ten seconds of noise through six bands; answers with the milliseconds it took. */

const SECONDS = 10;
const RATE = 48_000;

const values: Record<string, number> = { output: 0, mix: 100, channels: 0 };
[60, 150, 400, 1200, 4000, 9000].forEach((freq, at) => {
  const band = `band${at + 1}`;
  Object.assign(values, {
    [`${band}.used`]: 1,
    [`${band}.on`]: 1,
    [`${band}.type`]: 0,
    [`${band}.freq`]: freq,
    [`${band}.gain`]: 4,
    [`${band}.q`]: 1,
    [`${band}.slope`]: 12,
  });
});

const kernel = createParametricEq(RATE);
kernel.set(values, true);
const noise = Float32Array.from({ length: SECONDS * RATE }, () => Math.random() - 0.5);

addEventListener("message", () => {
  const left = noise.slice();
  const right = noise.slice();
  const begin = performance.now();
  for (let at = 0; at < left.length; at += 4096) kernel.process(left, right, at, Math.min(left.length, at + 4096));
  postMessage(performance.now() - begin);
});
