import { type FromWorklet, type ToWorklet, WORKLET_NAME, type WorkletOptions } from "@/contracts/audition";
import { createAudition } from "@/core/sound/audition/audition";

/** Blocks of 128 samples between two readings of the meters: about thirty readings a second. */
const METER_BLOCKS = 12;

class AuditionProcessor extends AudioWorkletProcessor {
  private readonly audition = createAudition(sampleRate);
  private blocks = 0;
  private mark: number | null = null;

  constructor(options: { processorOptions?: WorkletOptions }) {
    super();
    this.port.onmessage = (event: MessageEvent<ToWorklet>) => this.hear(event.data);
    const { loop, chain, sound } = options.processorOptions ?? {};
    if (loop) this.audition.setLoop({ ...loop, sampleRate });
    const heard = sound ?? (chain ? { chain } : null);
    if (heard) {
      this.audition.setSound("a", heard);
      this.audition.select("a");
    }
    if (loop && heard) this.audition.play(true);
  }

  process(_: Float32Array[][], [output]: Float32Array[][]): boolean {
    const [left, right] = output ?? [];
    if (!left || !right) return true;
    this.audition.process(left, right);
    if (this.mark !== null) {
      this.tell({ kind: "marked", id: this.mark });
      this.mark = null;
    }
    this.blocks += 1;
    if (this.blocks % METER_BLOCKS === 0) this.tell({ kind: "meters", meters: this.audition.readMeters() });
    return true;
  }

  private tell(message: FromWorklet): void {
    this.port.postMessage(message);
  }

  private hear(message: ToWorklet): void {
    switch (message.kind) {
      case "loop":
        return this.audition.setLoop({ left: message.left, right: message.right, sampleRate });
      case "key":
        return this.audition.setKey(message.material, { left: message.left, right: message.right, sampleRate });
      case "sample":
        return this.audition.setSample(message.hash, message);
      case "sound":
        return this.audition.setSound(message.side, message.sound);
      case "noteOn":
        return this.audition.noteOn(message.note, message.velocity);
      case "noteOff":
        return this.audition.noteOff(message.note);
      case "allNotesOff":
        return this.audition.allNotesOff();
      case "select":
        return this.audition.select(message.side);
      case "play":
        return this.audition.play(message.playing);
      case "gains":
        return this.audition.setGains(message.gains);
      case "mark":
        this.mark = message.id;
    }
  }
}

registerProcessor(WORKLET_NAME, AuditionProcessor);
