import type { Envelope } from "../../processors/instrument/instrument-design";
import type { HeardValues } from "../../units/param-spec";
import { EnvelopeGenerator, type Voice } from "./voice";

/** A voice that sounds as long as its envelope does. */
export abstract class EnvelopedVoice<Values extends HeardValues> implements Voice<Values> {
  protected readonly envelope: EnvelopeGenerator;

  constructor(
    protected readonly sampleRate: number,
    protected values: Values,
    private readonly envelopeOf: (values: Values) => Envelope,
  ) {
    this.envelope = new EnvelopeGenerator(sampleRate);
    this.envelope.set(envelopeOf(values));
  }

  abstract start(note: number, velocity: number): void;
  abstract addTo(left: Float32Array, right: Float32Array, from: number, to: number): void;

  set(values: Values): void {
    this.values = values;
    this.envelope.set(this.envelopeOf(values));
  }

  get sounds(): boolean {
    return this.envelope.sounds;
  }

  release(): void {
    this.envelope.release();
  }

  stop(): void {
    this.envelope.stop();
  }
}
