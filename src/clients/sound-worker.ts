import { wrap } from "comlink";
import type { SoundService } from "@/workers/sound.worker";

/** The thread that makes loops and measures sounds, behind the calls it answers. */
export const startSoundWorker = () =>
  wrap<SoundService>(new Worker(new URL("../workers/sound.worker.ts", import.meta.url), { type: "module" }));
