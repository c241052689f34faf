import { type FromWorklet, type ToWorklet, WORKLET_NAME, type WorkletOptions } from "@/contracts/audition";
import { createAudition } from "@/core/sound/audition/audition";

/** Blocks of 128 samples between two readings of the meters: about thirty readings a second. */
const METER_BLOCKS = 12;

/** What is done with each message. */
type Told = { readonly [K in ToWorklet["kind"]]: (message: Extract<ToWorklet, { kind: K }>) => void };

class AuditionProcessor extends AudioWorkletProcessor {
  private readonly audition = createAudition(sampleRate);
  private readonly told: Told = {
    loop: ({ left, right }) => this.audition.setLoop({ left, right, sampleRate }),
    seek: ({ to }) => this.audition.seek(to),
    stretch: ({ stretch }) => this.audition.setStretch(stretch),
    key: ({ material, left, right }) => this.audition.setKey(material, { left, right, sampleRate }),
    sample: ({ hash, ...sample }) => this.audition.setSample(hash, sample),
    sound: ({ side, sound }) => this.audition.setSound(side, sound),
    noteOn: ({ note, velocity }) => this.audition.noteOn(note, velocity),
    noteOff: ({ note }) => this.audition.noteOff(note),
    allNotesOff: () => this.audition.allNotesOff(),
    select: ({ side }) => this.audition.select(side),
    play: ({ playing }) => this.audition.play(playing),
    gains: ({ gains }) => this.audition.setGains(gains),
    mark: ({ id }) => {
      this.mark = id;
    },
  };
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

  private hear<K extends ToWorklet["kind"]>(message: Extract<ToWorklet, { kind: K }>): void {
    (this.told[message.kind] as Told[K])(message);
  }
}

registerProcessor(WORKLET_NAME, AuditionProcessor);
