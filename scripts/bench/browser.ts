import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { createServer } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Browser, chromium } from "@playwright/test";
import { buildSync } from "esbuild";
import { createServer as startServer } from "../../e2e/server";
import type { ToWorklet } from "../../src/contracts/audition";
import type { HeardChain, HeardProcessor } from "../../src/core/chains/heard-chain";
import { SIX_PROCESSORS } from "./chain";
import { type Figure, median, percentile } from "./figure";

const ARGS = [
  "--no-sandbox",
  "--disable-gpu",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--autoplay-policy=no-user-gesture-required",
];

export const openBrowser = (): Promise<Browser> =>
  chromium.launch({ executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium", args: ARGS });

interface WorkerPage {
  readonly page: Awaited<ReturnType<Browser["newPage"]>>;
  readonly close: () => Promise<void>;
}

/** An empty page beside which a worker of ours is served as /worker.js. */
async function openWorkerPage(browser: Browser, entry: string): Promise<WorkerPage> {
  const folder = mkdtempSync(join(tmpdir(), "diathesis-bench-"));
  buildSync({
    entryPoints: [entry],
    bundle: true,
    format: "iife",
    outfile: join(folder, "worker.js"),
    minify: true,
    tsconfig: "tsconfig.json",
  });
  const worker = readFileSync(join(folder, "worker.js"), "utf8");
  const server = createServer((request, response) => {
    response.setHeader("Content-Type", request.url === "/worker.js" ? "text/javascript" : "text/html");
    response.end(request.url === "/worker.js" ? worker : "<!doctype html><title>bench</title>");
  });
  await new Promise<void>((resolve) => server.listen(4787, "127.0.0.1", resolve));
  const page = await browser.newPage();
  await page.goto("http://127.0.0.1:4787/");
  const close = async () => {
    await page.close();
    server.close();
    rmSync(folder, { recursive: true, force: true });
  };
  return { page, close };
}

/** A loop of ten seconds through six processors: a warm worker's round trip ÷ the bare rendering within it. */
export async function loopRender(browser: Browser): Promise<Figure> {
  const { page, close } = await openWorkerPage(browser, "scripts/bench/loop.worker.ts");
  const RUNS = 7;
  const ratios = await page.evaluate(async (runs) => {
    const worker = new Worker("/worker.js");
    const once = (): Promise<number> =>
      new Promise((resolve) => {
        const begin = performance.now();
        worker.onmessage = (event: MessageEvent<{ bare: number }>) =>
          resolve((performance.now() - begin) / event.data.bare);
        worker.postMessage(null);
      });
    await once();
    const found: number[] = [];
    for (let run = 0; run < runs; run++) found.push(await once());
    return found;
  }, RUNS);
  await close();
  return { name: "loop-render", value: median(ratios), op: "<=", goal: 1.3, unit: "ratio", runs: RUNS };
}

/** Six stereo biquads in a worker ÷ the browser's own filter nodes, offline, over the same ten seconds. */
export async function eqVsNative(browser: Browser): Promise<Figure> {
  const { page, close } = await openWorkerPage(browser, "scripts/bench/eq.worker.ts");
  const RUNS = 11;
  const ratios = await page.evaluate(async (runs) => {
    const worker = new Worker("/worker.js");
    const ours = (): Promise<number> =>
      new Promise((resolve) => {
        worker.onmessage = (event: MessageEvent<number>) => resolve(event.data);
        worker.postMessage(null);
      });
    const native = async (): Promise<number> => {
      const context = new OfflineAudioContext(2, 480_000, 48_000);
      const noise = context.createBuffer(2, 480_000, 48_000);
      for (const channel of [0, 1])
        noise.getChannelData(channel).forEach((_, i, samples) => (samples[i] = Math.random() - 0.5));
      const source = new AudioBufferSourceNode(context, { buffer: noise });
      let last: AudioNode = source;
      for (const frequency of [60, 150, 400, 1200, 4000, 9000]) {
        const filter = new BiquadFilterNode(context, { type: "peaking", frequency, gain: 4, Q: 1 });
        last.connect(filter);
        last = filter;
      }
      last.connect(context.destination);
      source.start();
      const begin = performance.now();
      await context.startRendering();
      return performance.now() - begin;
    };
    await ours();
    await native();
    const found: number[] = [];
    for (let run = 0; run < runs; run++) {
      const one = await ours();
      found.push(one / (await native()));
    }
    return found;
  }, RUNS);
  await close();
  return { name: "eq-vs-native", value: median(ratios), op: "<=", goal: 0.5, unit: "ratio", runs: RUNS };
}

/** Twelve processors, and what a knob of the first does to them. */
const twelve = (threshold: number): HeardChain =>
  Array.from({ length: 12 }, (_, n): HeardProcessor => {
    const one = SIX_PROCESSORS[n % 6] as HeardProcessor;
    const values = one.model === "vca-compressor" ? { ...one.values, threshold } : one.values;
    return { ...one, key: `${one.key} ${n}`, values };
  });

/** From the control's message to the first block that uses it, through twelve processors in the real worklet, "interactive". */
export async function knobToSound(browser: Browser): Promise<Figure> {
  const server = await startServer(4786, true);
  const page = await browser.newPage();
  await page.goto(`${server.url}/projects`);
  const RUNS = 200;
  const times = await page.evaluate(
    async ({ runs, chains }) => {
      const context = new AudioContext({ latencyHint: "interactive", sampleRate: 48_000 });
      await context.audioWorklet.addModule("/worklets/audition.js");
      const node = new AudioWorkletNode(context, "diathesis-audition", { numberOfInputs: 0, outputChannelCount: [2] });
      const tell = (message: ToWorklet) => node.port.postMessage(message);
      node.connect(context.destination);
      await context.resume();
      const tone = Float32Array.from({ length: 48_000 }, (_, i) => 0.3 * Math.sin(i / 40));
      tell({ kind: "loop", left: tone, right: tone.slice() });
      tell({ kind: "sound", side: "a", sound: { chain: chains.low } });
      tell({ kind: "select", side: "a" });
      tell({ kind: "play", playing: true });
      await new Promise((resolve) => setTimeout(resolve, 1500));
      const found: number[] = [];
      for (let id = 0; id < runs; id++) {
        await new Promise((resolve) => setTimeout(resolve, 7 + (id % 11)));
        const begin = performance.now();
        await new Promise<void>((resolve) => {
          node.port.onmessage = (event: MessageEvent<{ kind: string; id?: number }>) => {
            if (event.data.kind === "marked" && event.data.id === id) resolve();
          };
          tell({ kind: "sound", side: "a", sound: { chain: id % 2 ? chains.high : chains.low } });
          tell({ kind: "mark", id });
        });
        found.push(performance.now() - begin);
      }
      await context.close();
      return found;
    },
    { runs: RUNS, chains: { low: twelve(-30), high: twelve(-12) } },
  );
  await page.close();
  await server.stop();
  return {
    name: "knob-to-sound",
    value: percentile(times, 0.95),
    op: "<=",
    goal: 12,
    unit: "ms",
    runs: RUNS,
    note: "includes the way back to the page",
  };
}

/** All JavaScript that the library screen loads until two seconds of rest, workers included, compressed. */
export async function firstLoad(browser: Browser): Promise<Figure> {
  const server = await startServer(4785, true);
  const context = await browser.newContext();
  const page = await context.newPage();
  const client = await context.newCDPSession(page);
  await client.send("Network.enable");
  const scripts = new Set<string>();
  page.on("response", (response) => {
    if (response.headers()["content-type"]?.includes("javascript")) scripts.add(response.url());
  });
  await page.goto(`${server.url}/library`);
  await page.waitForLoadState("networkidle").catch(() => undefined);
  await page.waitForTimeout(4000);
  let bytes = 0;
  for (const url of scripts) {
    const answer = await fetch(url, { headers: { "Accept-Encoding": "gzip" } });
    const { gzipSync } = await import("node:zlib");
    bytes += gzipSync(Buffer.from(await answer.arrayBuffer())).length;
  }
  await context.close();
  await server.stop();
  return { name: "first-load", value: bytes / 1000, op: "<=", goal: 250, unit: "kB", runs: 1 };
}
