import { BANDS, bandParam } from "../../src/core/processors/equaliser/parametric-eq/bands";
import { createParametricEq } from "../../src/core/processors/equaliser/parametric-eq/kernel";
import { PARAMETRIC_EQ } from "../../src/core/processors/equaliser/parametric-eq/model";
import { heardValues } from "../../src/core/processors/model";
import { beatsPerMinute } from "../../src/core/units/quantities";

/** Ten seconds of noise through six bands; answers with the milliseconds it took. */

const SECONDS = 10;
const RATE = 48_000;

const values = heardValues(
  PARAMETRIC_EQ,
  Object.fromEntries(
    [60, 150, 400, 1200, 4000, 9000].flatMap((freq, at) => {
      const band = BANDS[at]!;
      return [
        [bandParam(band, "used"), 1],
        [bandParam(band, "type"), 0],
        [bandParam(band, "freq"), freq],
        [bandParam(band, "gain"), 4],
        [bandParam(band, "q"), 1],
      ];
    }),
  ),
  beatsPerMinute(120),
);

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
