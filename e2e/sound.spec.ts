import { type HeardChain, heardProcessor } from "@/core/chains/heard-chain";
import { createAudition } from "@/core/sound/audition/audition";
import { renderChain } from "@/core/sound/render";
import { drumWithCello } from "@/core/materials/drum-with-cello";
import { noise } from "@/core/sound/testing";
import { heardValues } from "@/core/processors/model";
import { getModel } from "@/core/processors/models";
import type { Values } from "@/core/units/param-spec";
import { beatsPerMinute } from "@/core/units/quantities";
import { expect, test } from "./server";

const RATE = 48_000;
/** While play fades in, the worklet's sound is not yet the chain's. */
const FADE = 600;

const heard = (model: string, values: Values): HeardChain[number] =>
  heardProcessor(getModel(model), heardValues(getModel(model), values, beatsPerMinute(92)));

const CHAIN: HeardChain = [
  heard("parametric-eq", {
    "band1.used": 1,
    "band1.freq": 70,
    "band1.slope": 24,
    "band3.used": 1,
    "band3.freq": 980,
    "band3.gain": -5,
    output: 1,
    mix: 90,
  }),
  heard("vca-compressor", { threshold: -26, ratio: 3, makeupMode: 1 }),
  heard("multitap-delay", {
    "tap1.time": { note: "1/16", feel: "straight" },
    "tap2.on": 1,
    "tap2.time": 41,
    feedback: 40,
    wet: -9,
  }),
];

test("the worklet in the browser gives the samples of Node, within −120 dBFS", async ({ page, server }) => {
  await page.goto(`${server.url}/projects`);
  const loop = noise(1, RATE, 11);
  const samples = await page.evaluate(
    async ({ left, right, chain, rate }) => {
      const context = new OfflineAudioContext(2, left.length, rate);
      await context.audioWorklet.addModule("/worklets/audition.js");
      const processorOptions = { loop: { left: Float32Array.from(left), right: Float32Array.from(right) }, chain };
      const node = new AudioWorkletNode(context, "diathesis-audition", {
        numberOfInputs: 0,
        outputChannelCount: [2],
        processorOptions,
      });
      node.connect(context.destination);
      const rendered = await context.startRendering();
      return [0, 1].map((channel) => [...rendered.getChannelData(channel)]);
    },
    { left: [...loop.left], right: [...loop.right], chain: CHAIN, rate: RATE },
  );
  const node = renderChain(CHAIN, loop);
  for (const [channel, expected] of [node.left, node.right].entries()) {
    const worst = expected.reduce(
      (most, x, i) => (i < FADE ? most : Math.max(most, Math.abs(x - samples[channel]![i]!))),
      0,
    );
    expect(20 * Math.log10(worst)).toBeLessThan(-120);
  }
});

test("bypass, dry, A against B and another sound make no click while it plays", () => {
  const loop = drumWithCello(RATE);
  // A sustained low tone tells a click best: its own largest step is known.
  const tone = Float32Array.from({ length: RATE }, (_, i) => 0.4 * Math.sin((2 * Math.PI * 60 * i) / RATE));
  const audition = createAudition(RATE);
  audition.setLoop({ left: tone, right: tone, sampleRate: RATE });
  audition.setSound("a", { chain: CHAIN });
  audition.setSound("b", { chain: [CHAIN[0]!] });
  audition.select("a");
  audition.play(true);
  const out = new Float32Array(RATE * 3);
  const right = new Float32Array(RATE * 3);
  const events: Record<number, () => void> = {
    400: () => audition.select("dry"),
    500: () => audition.select("b"),
    600: () => audition.select("a"),
    640: () => audition.setSound("a", { chain: CHAIN.map((p) => ({ ...p, enabled: false })) }),
    720: () => audition.setSound("a", { chain: [CHAIN[1]!] }),
    800: () => audition.setGains({ dry: 0.5, a: 0.6, b: 0.5 }),
    900: () => audition.play(false),
  };
  for (let block = 0; block * 128 < out.length; block++) {
    events[block]?.();
    audition.process(out.subarray(block * 128, block * 128 + 128), right.subarray(block * 128, block * 128 + 128));
  }
  let largest = 0;
  for (let i = 1; i < out.length; i++) largest = Math.max(largest, Math.abs(out[i]! - out[i - 1]!));
  // 0.4 at 60 Hz steps by 0.0031 a sample; the chain's loudest state triples it, a cross-fade of 12 ms adds its slope.
  expect(largest).toBeLessThan(0.02);
  expect(Math.max(...out.subarray(-RATE / 4).map(Math.abs))).toBe(0);
  expect(loop.left.length).toBe(RATE * 8);
});

test("the sound goes on from screen to screen, and what is heard follows the hand", async ({ page, server }) => {
  await page.goto(`${server.url}/library`);
  await expect(page.getByRole("listbox").getByRole("option").first()).toBeVisible();
  await page.keyboard.press("Space");
  const head = page.locator("#played rect");
  const place = async () => Number(await head.getAttribute("width"));
  await expect.poll(place).toBeGreaterThan(0);
  const before = await place();
  await page.keyboard.press("Alt+4");
  await expect(page.getByRole("heading", { name: "Projects" })).toBeVisible();
  await expect.poll(place).not.toBe(before);
  await expect(page.getByRole("button", { name: "Stop" })).toBeVisible();
  await page.keyboard.press("k");
  await expect(page.getByRole("radio", { name: "B" })).toBeEnabled();
  await page.keyboard.press("x");
  await expect(page.getByRole("radio", { name: "B" })).toBeChecked();
});
