import type { HeardChain } from "../chains/heard-chain";
import type { HeardInstrument } from "../chains/heard-instrument";

/** What one side of the audition plays: material, or an instrument with its phrase, through a chain. */
export interface HeardSound {
  readonly chain: HeardChain;
  /** The same wiring with something passed by: its sound is taken away, and what is left is what that something does. */
  readonly minus?: HeardChain | null;
  /** Plays in place of the material. */
  readonly instrument?: HeardInstrument | null;
}
