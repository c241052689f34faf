import { type Remote, wrap } from "comlink";
import { type FromWorklet, type ToWorklet, WORKLET_NAME } from "@/contracts/audition";
import type { HeardChain } from "@/core/chains/heard-chain";
import type { Meters, Voice } from "@/core/dsp/audition";
import type { Measurement } from "@/core/dsp/measure/measure";
import type { SoundService } from "@/workers/sound.worker";

/** The application's rate; projects at other rates are heard as they would be at this one. */
export const ENGINE_RATE = 48_000;

export interface SoundEngine {
  /** Makes the sound run; needs a gesture of the person the first time. Rejects where the browser gives no sound. */
  start(): Promise<void>;
  setMaterial(material: string): Promise<readonly number[]>;
  setChain(side: "a" | "b", chain: HeardChain | null): void;
  select(voice: Voice): void;
  play(playing: boolean): void;
  setGains(gains: Readonly<Record<Voice, number>>): void;
  measure(material: string, chain: HeardChain | null): Promise<Measurement>;
  onMeters(hear: (meters: Meters) => void): () => void;
}

/** What was asked for before there was a node to tell it to. */
interface Wish {
  material: string | null;
  chains: Record<"a" | "b", HeardChain | null>;
  voice: Voice;
  playing: boolean;
  gains: Readonly<Record<Voice, number>>;
}

/** The worklet's node, once there is one. */
interface Line {
  context: AudioContext | null;
  node: AudioWorkletNode | null;
}

async function openLine(line: Line, hear: (meters: Meters) => void): Promise<void> {
  const context = new AudioContext({ latencyHint: "interactive", sampleRate: ENGINE_RATE });
  await context.audioWorklet.addModule("/worklets/audition.js");
  const node = new AudioWorkletNode(context, WORKLET_NAME, { numberOfInputs: 0, outputChannelCount: [2] });
  node.port.onmessage = ({ data }: MessageEvent<FromWorklet>) => {
    if (data.kind === "meters") hear(data.meters);
  };
  node.connect(context.destination);
  Object.assign(line, { context, node });
}

/** One engine for the whole application. Everything that makes sound runs on the audio thread or in the worker. */
export function createSoundEngine(): SoundEngine {
  const worker: Remote<SoundService> = wrap(
    new Worker(new URL("../workers/sound.worker.ts", import.meta.url), { type: "module" }),
  );
  const wish: Wish = {
    material: null,
    chains: { a: null, b: null },
    voice: "dry",
    playing: false,
    gains: { dry: 1, a: 1, b: 1 },
  };
  const listeners = new Set<(meters: Meters) => void>();
  const line: Line = { context: null, node: null };
  let starting: Promise<void> | null = null;

  const tell = (message: ToWorklet, transfer: Transferable[] = []) => line.node?.port.postMessage(message, transfer);
  const sendLoop = async (material: string): Promise<readonly number[]> => {
    const { left, right, peaks } = await worker.makeLoop(material, ENGINE_RATE);
    if (wish.material === material) tell({ kind: "loop", left, right }, [left.buffer, right.buffer]);
    return peaks;
  };
  const open = async (): Promise<void> => {
    await openLine(line, (meters) => {
      for (const hear of listeners) hear(meters);
    });
    if (wish.material) await sendLoop(wish.material);
    for (const side of ["a", "b"] as const) tell({ kind: "chain", side, chain: wish.chains[side] });
    tell({ kind: "select", voice: wish.voice });
    tell({ kind: "gains", gains: wish.gains });
    tell({ kind: "play", playing: wish.playing });
  };
  /** Remembers what is wished for, and tells it where there is someone to tell. */
  const want = (change: Partial<Wish>, message: ToWorklet): void => {
    Object.assign(wish, change);
    tell(message);
  };

  return {
    async start() {
      starting ??= open().catch((error: unknown) => {
        starting = null;
        throw error;
      });
      await starting;
      await line.context?.resume();
    },
    setMaterial(material) {
      wish.material = material;
      return sendLoop(material);
    },
    setChain: (side, chain) => want({ chains: { ...wish.chains, [side]: chain } }, { kind: "chain", side, chain }),
    select: (voice) => want({ voice }, { kind: "select", voice }),
    play: (playing) => want({ playing }, { kind: "play", playing }),
    setGains: (gains) => want({ gains }, { kind: "gains", gains }),
    measure: (material, chain) => worker.measureLoop(material, ENGINE_RATE, chain),
    onMeters(hear) {
      listeners.add(hear);
      return () => listeners.delete(hear);
    },
  };
}
